using System.Collections.Concurrent;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A zone in its set.</summary>
public sealed record Place(SetGraph Graph, DesignRow Design, ZoneRow Zone);

/// <summary>
/// Keeps sets that were read, each with the database's own snapshot of that moment. The same snapshot means that nothing at all
/// was committed since, by whomever, so that one short question replaces a dozen while a slider moves.
/// </summary>
public sealed class SetGraphs(CoreMaterials materials)
{
    private sealed record Look(string Snapshot, long Tick);

    private const int MostKept = 8;
    private readonly ConcurrentDictionary<Guid, (string Snapshot, SetGraph Graph)> kept = new();
    private Look seen = new("", 0);

    /// <summary>Makes the next question look again, however lately the last one did; whoever writes calls it.</summary>
    public void Forget() => seen = new Look("", 0);

    /// <summary>A set; null when there is none with this id.</summary>
    public async Task<SetGraph?> OfSet(LowfellDb db, Guid setId, CancellationToken stop)
    {
        // A transaction sees its own writes, which its snapshot does not tell of.
        if (db.Database.CurrentTransaction is not null)
            return await SetGraph.Load(db, materials, setId, stop);
        var snapshot = await Snapshot(db, stop);
        return kept.TryGetValue(setId, out var entry) && entry.Snapshot == snapshot ? entry.Graph : await Read(db, setId, snapshot, stop);
    }

    /// <summary>A zone in its set; null when there is none with this id.</summary>
    /// <param name="db">The store.</param>
    /// <param name="zoneId">The zone.</param>
    /// <param name="stop">Gives up.</param>
    /// <param name="lately">A look this long ago is as good as one now: for drafts while a slider moves.</param>
    public async Task<Place?> OfZone(LowfellDb db, Guid zoneId, CancellationToken stop, TimeSpan lately = default)
    {
        if (db.Database.CurrentTransaction is null)
        {
            var last = seen;
            var snapshot = Environment.TickCount64 - last.Tick < lately.TotalMilliseconds ? last.Snapshot : await Snapshot(db, stop);
            foreach (var (known, graph) in kept.Values)
                if (known == snapshot && Find(graph, zoneId) is { } place)
                    return place;
        }

        var setId = await db.Designs.Where(d => d.Zones.Any(z => z.Id == zoneId)).Select(d => (Guid?)d.SetId).FirstOrDefaultAsync(stop);
        return setId is { } id && await OfSet(db, id, stop) is { } read ? Find(read, zoneId) : null;
    }

    private async Task<SetGraph?> Read(LowfellDb db, Guid setId, string snapshot, CancellationToken stop)
    {
        // Read after the snapshot was taken: what comes in between makes the entry look older than it is, never newer.
        if (await SetGraph.Load(db, materials, setId, stop) is not { } graph)
            return null;
        if (kept.Count >= MostKept)
            kept.Clear();
        kept[setId] = (snapshot, graph);
        return graph;
    }

    private static Place? Find(SetGraph graph, Guid zoneId)
    {
        foreach (var design in graph.Designs)
            foreach (var zone in design.Zones)
                if (zone.Id == zoneId)
                    return new Place(graph, design, zone);
        return null;
    }

    private async Task<string> Snapshot(LowfellDb db, CancellationToken stop)
    {
        var asked = Environment.TickCount64;
        var snapshot = await db.Database.SqlQuery<string>($"select pg_current_snapshot()::text as \"Value\"").SingleAsync(stop);
        seen = new Look(snapshot, asked);
        return snapshot;
    }
}
