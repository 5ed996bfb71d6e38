using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A pot laid on pieces: the layer, the pieces, and what was in it just then.</summary>
public sealed record PotGiven(Guid PotId, string Label, Guid LayerId, DateTimeOffset At, IReadOnlyList<(Guid MaterialId, decimal Ml)> Amounts, IReadOnlyList<Guid> Pieces);

/// <summary>Which pots went on which zones.</summary>
public static class PotUses
{
    /// <summary>Everything laid on some zones from pots, oldest first; what was taken back is left out.</summary>
    public static async Task<ILookup<Guid, PotGiven>> Of(LowfellDb db, IReadOnlyCollection<Guid> zones, CancellationToken stop)
    {
        var given = await db.PotEvents.AsNoTracking()
            .Where(e => e.Kind == PotEventKind.Given && zones.Contains(e.ZoneId!.Value) && !db.PotEvents.Any(u => u.UndoesId == e.Id))
            .OrderBy(e => e.At).ThenBy(e => e.Id)
            .Select(e => new
            {
                Zone = e.ZoneId!.Value,
                e.PotId,
                Label = db.Pots.Where(p => p.Id == e.PotId).Select(p => p.Label).First(),
                Layer = e.LayerId,
                e.At,
                Amounts = e.Amounts.Select(a => new { a.MaterialId, a.Ml }).ToList(),
                Pieces = e.Pieces.Select(p => p.PieceId).ToList(),
            }).AsSplitQuery().ToListAsync(stop);
        return given.ToLookup(g => g.Zone, g => new PotGiven(g.PotId, g.Label, g.Layer ?? Guid.Empty, g.At, g.Amounts.Select(a => (a.MaterialId, -a.Ml)).ToList(), g.Pieces));
    }

    /// <summary>Shares nearer than this are the same filling; small portions are rounded.</summary>
    private const double Alike = 0.005;

    /// <summary>Pots of each layer as rules look at them: a pot that was topped up or thinned between two pieces counts as two.</summary>
    internal static IReadOnlyList<PotUse> ForRules(IEnumerable<PotGiven> given, SetGraph graph, DesignRow design)
    {
        var labels = design.Pieces.ToDictionary(p => p.Id, p => p.Label);
        return given.GroupBy(g => (g.LayerId, g.PotId)).SelectMany(pot =>
        {
            var fillings = pot.GroupBy(g => Recipe.Of(graph.Contents(g.Amounts)).Plain(Alike).Key).ToList();
            return fillings.Select((filling, n) =>
            {
                var (paint, dilution) = graph.Contents(filling.First().Amounts).AsPaint();
                var label = fillings.Count == 1 ? pot.First().Label : $"{pot.First().Label}, filling {n + 1}";
                return new PotUse(pot.Key.LayerId, label, paint, dilution, filling.SelectMany(g => g.Pieces).Select(p => labels.GetValueOrDefault(p, "")).Where(l => l.Length > 0).Distinct().ToList());
            });
        }).ToList();
    }
}
