using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Shelf;

/// <summary>Checks an entered material and copies it into its row; what is left out gets the usual figures of its kind.</summary>
internal static class MaterialEntry
{
    private const decimal UsualSolids = 0.4m;

    /// <summary>What is taken for what is left out.</summary>
    public static UsualFigures Usual(Material m)
    {
        var dry = UsualDryTimes.For(m.Kind, m.Carrier);
        return new UsualFigures(
            UsualSolids, m.Carrier.UsualThinners(), (decimal)dry.TouchMinutes, (decimal)dry.RecoatMinutes, (decimal)dry.CureMinutes,
            UsualMeasures.DropMl, UsualMeasures.UsualDensity(m.Kind, m.Carrier));
    }

    public static Faults Check(MaterialIn m)
    {
        var faults = new Faults();
        faults.Text(m.Name, "name", 120);
        faults.Text(m.Maker, "maker", 120, needed: false);
        faults.Text(m.Code, "code", 40, needed: false);
        faults.Text(m.Hazards, "hazards", 500, needed: false);
        faults.Text(m.Notes, "notes", 1000, needed: false);
        faults.Require(m.Kind is not null, "kind", "Choose a kind.");
        faults.Require(m.Carrier is not null, "carrier", "Choose a carrier.");
        faults.Colour(m.Colour, "colour", needed: false);
        faults.Colour(m.OverBlack, "overBlack", needed: false);
        faults.Colour(m.OverWhite, "overWhite", needed: false);
        faults.Range(m.CoatsToHide, "coatsToHide", 0.25m, 12);
        faults.Range(m.SolidsFraction, "solidsFraction", 0, 1);
        faults.Range(m.MostThinnerShare, "mostThinnerShare", 0, 0.99m);
        faults.Range(m.DropMl, "dropMl", 0.005m, 0.5m);
        faults.Range(m.DensityGPerMl, "densityGPerMl", 0.3m, 8);
        faults.Range(m.TouchMinutes, "touchMinutes", 0, 100_000);
        faults.Range(m.RecoatMinutes, "recoatMinutes", m.TouchMinutes ?? 0, 100_000);
        faults.Range(m.CureMinutes, "cureMinutes", m.RecoatMinutes ?? m.TouchMinutes ?? 0, 100_000);
        faults.Range(m.StockMl, "stockMl", 0, 1_000_000);
        faults.Range(m.PackMl, "packMl", 0, 1_000_000);
        faults.Range(m.Price, "price", 0, 1_000_000);
        faults.Require((m.OverBlack is null) == (m.OverWhite is null), m.OverBlack is null ? "overBlack" : "overWhite", "A contrast card needs both halves.");
        if (m.Kind is { } kind && !ColourEvidence.IsClear(kind) && kind is not (MaterialKind.Tuft or MaterialKind.Decal))
            faults.Require(m.Colour is not null || m.OverWhite is not null, "colour", "Give its colour, or a contrast card.");
        Card(faults, m);
        return faults;
    }

    private static void Card(Faults faults, MaterialIn m)
    {
        if (!SrgbColour.TryParse(m.OverBlack, out var black) || !SrgbColour.TryParse(m.OverWhite, out var white))
            return;
        if (ContrastCard.Refusal(black, white) is { } reason)
            faults.Add("overBlack", reason);
    }

    public static void Fill(MaterialRow row, MaterialIn m)
    {
        var dry = UsualDryTimes.For(m.Kind!.Value, m.Carrier!.Value).With((double?)m.TouchMinutes, (double?)m.RecoatMinutes, (double?)m.CureMinutes);
        row.Name = m.Name!.Trim();
        row.Maker = m.Maker?.Trim() ?? "";
        row.Code = m.Code?.Trim() ?? "";
        row.Kind = m.Kind.Value;
        row.Carrier = m.Carrier.Value;
        row.Colour = m.Colour?.ToLowerInvariant();
        row.OverBlack = m.OverBlack?.ToLowerInvariant();
        row.OverWhite = m.OverWhite?.ToLowerInvariant();
        row.CoatsToHide = m.CoatsToHide;
        row.Sheen = m.Sheen ?? Sheen.Matt;
        row.Lustre = m.Lustre ?? Lustre.Plain;
        row.MostThinnerShare = m.MostThinnerShare;
        row.DropMl = m.DropMl;
        row.DensityGPerMl = m.DensityGPerMl;
        row.SolidsFraction = m.SolidsFraction ?? UsualSolids;
        row.Thinners = [.. (m.Thinners ?? m.Carrier.Value.UsualThinners()).Distinct()];
        (row.TouchMinutes, row.RecoatMinutes, row.CureMinutes) = ((decimal)dry.TouchMinutes, (decimal)dry.RecoatMinutes, (decimal)dry.CureMinutes);
        row.HeatSafe = m.HeatSafe ?? false;
        row.StockMl = m.StockMl ?? 0;
        row.PackMl = m.PackMl ?? 0;
        row.Price = m.Price;
        row.Hazards = m.Hazards ?? "";
        row.Notes = m.Notes ?? "";
    }
}
