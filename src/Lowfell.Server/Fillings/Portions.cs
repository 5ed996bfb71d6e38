using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Fillings;

/// <summary>What goes in: ml, or drops of the material's own bottle.</summary>
public sealed record PortionIn(Guid? MaterialId, decimal? Ml, int? Drops);

/// <summary>Reads portions as they were measured: drops count by the bottle's own drop.</summary>
internal static class Portions
{
    private const int MostPortions = 12, MostDrops = 20_000;
    private const decimal MostMl = 5_000;

    public static IReadOnlyList<WorkAmountRow> Read(IReadOnlyList<PortionIn?>? entries, SetGraph graph, Faults faults)
    {
        entries ??= [];
        faults.Require(entries.Count is > 0 and <= MostPortions, "amounts", $"Say what goes in: from 1 to {MostPortions} materials.");
        var rows = new List<WorkAmountRow>();
        for (var i = 0; i < Math.Min(entries.Count, MostPortions); i++)
        {
            var at = $"amounts[{i}]";
            var entry = entries[i];
            var material = entry?.MaterialId is { } id && graph.Materials.TryGetValue(id, out var known) ? known : null;
            faults.Require(material is not null, $"{at}.materialId", "This material is not on the shelf. Choose one that is.");
            faults.Require((entry?.Ml is null) != (entry?.Drops is null), at, "Give either ml or drops.");
            faults.Require(entry?.Drops is null or (> 0 and <= MostDrops), $"{at}.drops", $"Give whole drops from 1 to {MostDrops}.");
            faults.Require(entry?.Ml is null or (> 0 and <= MostMl), $"{at}.ml", $"Give ml above 0, at most {MostMl:0}.");
            if (faults.Any)
                continue;
            var ml = entry!.Ml ?? entry.Drops!.Value * WholeDrops.UnitMl(new MixPart(material!, Core.Mixing.Parts.One));
            rows.Add(new WorkAmountRow { MaterialId = material!.Id, Ml = decimal.Round(ml, PotContents.Decimals), Drops = entry.Drops });
        }

        faults.Require(rows.Select(r => r.MaterialId).Distinct().Count() == rows.Count, "amounts", "Each material only once; add its amounts together.");
        return rows;
    }
}
