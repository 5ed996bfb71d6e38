using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A filling of a pot laid on pieces: the layer's line, the pieces, and what was in the pot just then. Sequence is its place in the stream: the first time it was laid.</summary>
public sealed record PotGiven(Guid PotId, string Label, Guid LineId, long Sequence, IReadOnlyList<(Guid MaterialId, decimal Ml)> Amounts, IReadOnlyList<Guid> Pieces);

/// <summary>What is done on a set: read from what the database keeps of the stream, never from the stream itself.</summary>
public sealed class SetProgress
{
    private readonly Dictionary<(Guid Zone, Guid Line), int> done;

    private SetProgress(ILookup<Guid, PotGiven> given)
    {
        Given = given;
        GivenFrom = given.SelectMany(z => z.Select(g => (Zone: z.Key, Given: g))).ToLookup(g => g.Given.PotId);
        done = given.SelectMany(z => z.Select(g => (Zone: z.Key, Given: g))).GroupBy(g => (g.Zone, g.Given.LineId))
            .ToDictionary(g => g.Key, g => g.SelectMany(x => x.Given.Pieces).Distinct().Count());
    }

    /// <summary>What was laid on each zone from which filling of which pot, oldest first.</summary>
    public ILookup<Guid, PotGiven> Given { get; }

    /// <summary>The same by pot.</summary>
    public ILookup<Guid, (Guid Zone, PotGiven Given)> GivenFrom { get; }

    /// <summary>Pieces that have a layer of a zone.</summary>
    public int DoneCount(Guid zone, Guid line) => done.GetValueOrDefault((zone, line));

    public static async Task<SetProgress> Load(LowfellDb db, Guid setId, CancellationToken stop)
    {
        var rows = await db.Database.SqlQuery<Laid>($"""
            select d.zone_id, d.line_id, d.pot_id, p.label, min(d.sequence) as sequence, (array_agg(d.event_id order by d.sequence))[1] as event_id, array_agg(d.piece_id) as pieces
            from done_layers d join pots p on p.id = d.pot_id join zones z on z.id = d.zone_id join designs g on g.id = z.design_id
            where g.set_id = {setId}
            group by d.zone_id, d.line_id, d.pot_id, p.label, d.filling order by 5
            """).ToListAsync(stop);
        var events = rows.Select(r => r.EventId).Distinct().ToList();
        var amounts = (await db.WorkAmounts.AsNoTracking().Where(a => events.Contains(a.EventId)).ToListAsync(stop)).ToLookup(a => a.EventId, a => (a.MaterialId, -a.Ml));
        return new SetProgress(rows.ToLookup(r => r.ZoneId, r => new PotGiven(r.PotId, r.Label, r.LineId, r.Sequence, amounts[r.EventId].ToList(), r.Pieces)));
    }

    private sealed record Laid(Guid ZoneId, Guid LineId, Guid PotId, string Label, long Sequence, Guid EventId, Guid[] Pieces);

    /// <summary>Shares nearer than this are the same filling; small portions are rounded.</summary>
    private const double Alike = 0.005;

    /// <summary>Pots of each layer as rules look at them: a pot that was topped up or thinned between two pieces counts as two.</summary>
    internal IReadOnlyList<PotUse> ForRules(Guid zone, SetGraph graph, DesignRow design)
    {
        if (!Given.Contains(zone))
            return [];
        var labels = design.Pieces.ToDictionary(p => p.Id, p => p.Label);
        return Given[zone].GroupBy(g => (g.LineId, g.PotId)).SelectMany(pot =>
        {
            var fillings = pot.GroupBy(g => Recipe.Of(graph.Contents(g.Amounts)).Plain(Alike).Key).ToList();
            return fillings.Select((filling, n) =>
            {
                var (paint, dilution) = graph.Contents(filling.First().Amounts).AsPaint();
                var label = fillings.Count == 1 ? pot.First().Label : $"{pot.First().Label}, filling {n + 1}";
                return new PotUse(pot.Key.LineId, label, paint, dilution, filling.SelectMany(g => g.Pieces).Select(p => labels.GetValueOrDefault(p, "")).Where(l => l.Length > 0).Distinct().ToList());
            });
        }).ToList();
    }
}
