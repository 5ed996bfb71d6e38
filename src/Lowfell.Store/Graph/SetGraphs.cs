using System.Collections.Concurrent;
using System.Data;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>
/// Keeps sets that were read, each part with the version it was read at. One short question tells whether they still hold; what no
/// longer does is read again, in one snapshot, once for however many are asking.
/// </summary>
public sealed class SetGraphs
{
    private readonly IDbContextFactory<LowfellDb> factory;
    private readonly Turns<Guid, Versions?> looks;

    public SetGraphs(IDbContextFactory<LowfellDb> factory)
    {
        this.factory = factory;
        looks = new(async set =>
        {
            await using var db = await factory.CreateDbContextAsync();
            return await Look(db, set, CancellationToken.None);
        });
    }

    private sealed record Versions(Guid Workshop, long Plan, long Shelf, long Stock, long Work)
    {
        public string Text => FormattableString.Invariant($"{Plan}.{Shelf}.{Stock}.{Work}");
    }

    private sealed record Kept(Versions At, SetGraph Graph);

    private const int MostKept = 16;
    private readonly ConcurrentDictionary<(Guid Set, Versions At), Lazy<Task<Kept?>>> loading = new();
    private readonly ConcurrentDictionary<Guid, Kept> kept = new();
    private readonly ConcurrentDictionary<Guid, (long At, ShelfMaterials Shelf)> shelves = new();
    private readonly ConcurrentDictionary<Guid, (Guid Set, long Tick)> lately = new();

    /// <summary>A set; null when there is none with this id.</summary>
    public async Task<SetGraph?> OfSet(LowfellDb db, Guid setId, CancellationToken stop)
    {
        // A write looks with its own eyes: it sees what nobody else does yet.
        var look = db.Database.CurrentTransaction is null ? looks.Ask(setId).WaitAsync(stop) : Look(db, setId, stop);
        if (await look is not { } at)
        {
            kept.TryRemove(setId, out _);
            return null;
        }

        if (kept.TryGetValue(setId, out var known) && known.At == at)
            return known.Graph;
        var key = (setId, at);
        var load = loading.GetOrAdd(key, k => new(() => Task.Run(() => Load(k.Set, CancellationToken.None))));
        try
        {
            return (await load.Value.WaitAsync(stop))?.Graph;
        }
        finally
        {
            if (load.Value.IsCompleted)
                loading.TryRemove(new(key, load));
        }
    }

    /// <summary>A zone in its set; null when there is none with this id.</summary>
    /// <param name="db">The store.</param>
    /// <param name="zoneId">The zone.</param>
    /// <param name="stop">Gives up.</param>
    /// <param name="within">A look this long ago is as good as one now: for drafts while a slider moves.</param>
    public async Task<Place?> OfZone(LowfellDb db, Guid zoneId, CancellationToken stop, TimeSpan within = default)
    {
        if (lately.TryGetValue(zoneId, out var last) && Environment.TickCount64 - last.Tick < within.TotalMilliseconds && kept.TryGetValue(last.Set, out var known) && known.Graph.Find(zoneId) is { } there)
            return there;

        // A zone goes over to another set so seldom that it is looked for where it was.
        if (last.Set != Guid.Empty && await OfSet(db, last.Set, stop) is { } same && same.Find(zoneId) is { } still)
        {
            lately[zoneId] = (last.Set, Environment.TickCount64);
            return still;
        }

        if (await db.Zones.Where(z => z.Id == zoneId).Join(db.Designs, z => z.DesignId, d => d.Id, (_, d) => (Guid?)d.SetId).FirstOrDefaultAsync(stop) is not { } id || await OfSet(db, id, stop) is not { } graph)
            return null;
        if (lately.Count > 1000)
            lately.Clear();
        lately[zoneId] = (id, Environment.TickCount64);
        return graph.Find(zoneId);
    }

    /// <summary>The shelf of a workshop; empty when there is no such workshop.</summary>
    public async Task<ShelfMaterials> ShelfOf(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var at = await db.SliceVersions.Where(v => v.WorkshopId == workshop && v.Slice == Slice.Shelf).Select(v => v.Version).FirstOrDefaultAsync(stop);
        if (shelves.TryGetValue(workshop, out var known) && known.At == at)
            return known.Shelf;
        await using var own = await factory.CreateDbContextAsync(stop);
        await using var snapshot = await own.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, stop);
        var now = await own.SliceVersions.Where(v => v.WorkshopId == workshop && v.Slice == Slice.Shelf).Select(v => v.Version).FirstOrDefaultAsync(stop);
        return (await Shelf(own, workshop, now, stop)).Shelf;
    }

    private static async Task<Versions?> Look(LowfellDb db, Guid setId, CancellationToken stop) => await db.Database.SqlQuery<Versions>($"""
        select s.workshop_id as workshop,
          coalesce(max(v.version) filter (where v.slice = 'plan'), 0) as plan, coalesce(max(v.version) filter (where v.slice = 'shelf'), 0) as shelf,
          coalesce(max(v.version) filter (where v.slice = 'stock'), 0) as stock, coalesce(max(v.version) filter (where v.slice = 'work'), 0) as work
        from sets s left join slice_versions v on v.workshop_id = s.workshop_id where s.id = {setId} group by s.workshop_id
        """).FirstOrDefaultAsync(stop);

    /// <summary>Reads in one snapshot what no longer holds. It goes on when an asker leaves: others wait for the same.</summary>
    private async Task<Kept?> Load(Guid setId, CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        await using var snapshot = await db.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, stop);
        if (await Look(db, setId, stop) is not { } at)
            return null;
        var before = kept.GetValueOrDefault(setId);
        if (before?.At == at)
            return before;
        var graph = before?.Graph;
        var plan = graph is not null && before!.At.Plan == at.Plan ? graph.Plan : await SetPlan.Load(db, setId, graph?.Plan, stop);
        if (plan is null)
            return null;
        var (shelf, justRead) = await Shelf(db, at.Workshop, at.Shelf, stop);
        var stock = graph is not null && before!.At.Stock == at.Stock ? graph.StockMl
            : justRead ? shelf.StockMl()
            : await db.Materials.AsNoTracking().Where(m => m.WorkshopId == at.Workshop).Select(m => new { m.Id, m.StockMl }).ToDictionaryAsync(m => m.Id, m => (double)m.StockMl, stop);
        var progress = graph is not null && before!.At.Work == at.Work && SameZones(plan, graph.Plan) ? graph.Progress : await SetProgress.Load(db, setId, graph?.Progress, stop);
        if (kept.Count >= MostKept && !kept.ContainsKey(setId))
            kept.Clear();
        var fresh = new Kept(at, new SetGraph(plan, shelf, stock, progress, graph) { At = at.Text });

        // A slower reader of an older state does not put it over a newer one.
        kept.AddOrUpdate(setId, fresh, (_, there) => Newer(there.At, at) ? there : fresh);
        return fresh;
    }

    private static bool SameZones(SetPlan a, SetPlan b) => a == b || a.Designs.SelectMany(d => d.Zones).Select(z => z.Id).ToHashSet().SetEquals(b.Designs.SelectMany(d => d.Zones).Select(z => z.Id));

    private static bool Newer(Versions a, Versions b) => a != b && a.Plan >= b.Plan && a.Shelf >= b.Shelf && a.Stock >= b.Stock && a.Work >= b.Work;

    private async Task<(ShelfMaterials Shelf, bool JustRead)> Shelf(LowfellDb db, Guid workshop, long at, CancellationToken stop)
    {
        if (shelves.TryGetValue(workshop, out var known) && known.At == at)
            return (known.Shelf, false);
        var shelf = await ShelfMaterials.Load(db, workshop, known.Shelf, stop);
        shelves[workshop] = (at, shelf);
        return (shelf, true);
    }
}
