using Lowfell.Core.Bench;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A filling of a pot laid on pieces, or what was laid from no pot that is known: the layer's line, the pieces, and what was in the pot just then. Sequence is its place in the stream: the first time it was laid.</summary>
public sealed record PotGiven(Guid? PotId, string Label, Guid LineId, long Sequence, IReadOnlyList<(Guid MaterialId, decimal Ml)> Amounts, IReadOnlyList<Guid> Pieces);

/// <summary>What is done on a set: read from what the database keeps of the stream, never from the stream itself.</summary>
public sealed class SetProgress
{
    private readonly IReadOnlyDictionary<Guid, Of> zones;

    /// <summary>What is done on one zone, and how to tell that nothing was done or taken back on it since.</summary>
    private sealed record Of(string Mark, IReadOnlyList<PotGiven> Given);

    private readonly IReadOnlyDictionary<PieceKey, int> partly;

    private SetProgress(IReadOnlyDictionary<Guid, Of> zones, IReadOnlyDictionary<PieceKey, int> partly)
    {
        (this.zones, this.partly) = (zones, partly);
        Given = zones.SelectMany(z => z.Value.Given.Select(g => (Zone: z.Key, Given: g))).ToLookup(g => g.Zone, g => g.Given);
        GivenFrom = zones.SelectMany(z => z.Value.Given.Select(g => (Zone: z.Key, Given: g))).Where(g => g.Given.PotId is not null).ToLookup(g => g.Given.PotId!.Value);
    }

    /// <summary>What was laid on each zone from which filling of which pot, oldest first.</summary>
    public ILookup<Guid, PotGiven> Given { get; }

    /// <summary>The same by pot.</summary>
    public ILookup<Guid, (Guid Zone, PotGiven Given)> GivenFrom { get; }

    /// <summary>How many coats of a layer lie on a piece where those are not all that were planned when they were laid; null everywhere else.</summary>
    public int? Partly(Guid zone, Guid line, Guid piece) => partly.TryGetValue(new(zone, line, piece), out var coats) ? coats : null;

    /// <summary>Reads what is done on a set; zones on which nothing happened since <paramref name="before"/> are not read again.</summary>
    public static async Task<SetProgress> Load(LowfellDb db, Guid setId, SetProgress? before, CancellationToken stop)
    {
        // A pot that is called otherwise is so seldom that everything is read again then.
        var marks = await db.Database.SqlQuery<Mark>($"""
            select d.zone_id, concat_ws(' ', count(*), sum(d.times), max(d.sequence),
              (select sum(hashtext(p.id::text || p.label)::bigint) from pots p join sets s on s.workshop_id = p.workshop_id where s.id = {setId})) as text
            from done_layers d where d.zone_id in (select z.id from zones z join designs g on g.id = z.design_id where g.set_id = {setId}) group by d.zone_id
            """).ToDictionaryAsync(m => m.ZoneId, m => m.Text, stop);
        var stale = marks.Where(m => before?.zones.TryGetValue(m.Key, out var known) != true || known!.Mark != m.Value).Select(m => m.Key).ToList();
        var fresh = stale.Count == 0 ? null : await Read(db, stale, stop);
        var partly = await db.PieceLayers.AsNoTracking().Where(p => p.Coats > 0 && p.State != PieceState.Done && p.State != PieceState.Skipped && db.Zones.Any(z => z.Id == p.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && d.SetId == setId)))
            .ToDictionaryAsync(p => new PieceKey(p.ZoneId, p.LineId, p.PieceId), p => p.Coats, stop);
        return new SetProgress(marks.ToDictionary(m => m.Key, m => fresh?.Contains(m.Key) == true ? new Of(m.Value, fresh[m.Key].ToList()) : before!.zones[m.Key]), partly);
    }

    private static async Task<ILookup<Guid, PotGiven>> Read(LowfellDb db, List<Guid> stale, CancellationToken stop)
    {
        var rows = await db.Database.SqlQuery<Laid>($"""
            select d.zone_id, d.line_id, d.pot_id, coalesce(p.label, '') as label, min(d.sequence) as sequence, (array_agg(d.event_id order by d.sequence))[1] as event_id, array_agg(d.piece_id order by d.id) as pieces
            from done_layers d left join pots p on p.id = d.pot_id where d.zone_id = any({stale})
            group by d.zone_id, d.line_id, d.pot_id, p.label, d.filling order by 5
            """).ToListAsync(stop);
        var events = rows.Select(r => r.EventId).Distinct().ToList();
        var amounts = (await db.WorkAmounts.AsNoTracking().Where(a => events.Contains(a.EventId)).ToListAsync(stop)).ToLookup(a => a.EventId, a => (a.MaterialId, -a.Ml));
        return rows.ToLookup(r => r.ZoneId, r => new PotGiven(r.PotId, r.Label, r.LineId, r.Sequence, amounts[r.EventId].ToList(), r.Pieces));
    }

    private sealed record Mark(Guid ZoneId, string Text);

    private sealed record Laid(Guid ZoneId, Guid LineId, Guid? PotId, string Label, long Sequence, Guid EventId, Guid[] Pieces);

    /// <summary>Shares nearer than this are the same filling; small portions are rounded.</summary>
    private const double Alike = 0.005;

    /// <summary>Pots of each layer as rules look at them: a pot that was topped up or thinned between two pieces counts as two.</summary>
    internal IReadOnlyList<PotUse> ForRules(Guid zone, SetGraph graph, DesignRow design)
    {
        if (!Given.Contains(zone))
            return [];
        var labels = design.Pieces.ToDictionary(p => p.Id, p => p.Label);
        return Given[zone].Where(g => g.PotId is not null).GroupBy(g => (g.LineId, g.PotId)).SelectMany(pot =>
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
