using Lowfell.Core.Materials;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>
/// The materials of a workshop as the core sees them. Optics are worked out by use, so that a shelf of thousands costs no more than
/// the few dozen that a plan asks about; a material that a change left alone stays the same object, with its optics.
/// </summary>
public sealed class ShelfMaterials
{
    private readonly Dictionary<Guid, Entry> entries;

    private sealed record Entry(MaterialRow Row, Material Material);

    private ShelfMaterials(IReadOnlyList<Entry> all)
    {
        entries = all.ToDictionary(e => e.Row.Id);
        Materials = entries.ToDictionary(e => e.Key, e => e.Value.Material);
        OnShelf = all.Where(e => e.Row.PutAwayAt is null).Select(e => e.Material).ToList();
        Away = all.Where(e => e.Row.PutAwayAt is not null).Select(e => e.Material).ToList();
        Hazards = all.Where(e => e.Row.Hazards.Length > 0).Select(e => (e.Row.Id, e.Row.Name, e.Row.Hazards)).ToList();
    }

    /// <summary>Every material, those taken off the shelf too: what was done with them still tells their names.</summary>
    public IReadOnlyDictionary<Guid, Material> Materials { get; }

    /// <summary>Those on the shelf, by maker and name.</summary>
    public IReadOnlyList<Material> OnShelf { get; }

    /// <summary>Those taken off it, by maker and name.</summary>
    public IReadOnlyList<Material> Away { get; }

    /// <summary>What entries say of their own hazards.</summary>
    public IReadOnlyList<(Guid Id, string Name, string Hazards)> Hazards { get; }

    /// <summary>The row that a material came from.</summary>
    public MaterialRow Row(Guid id) => entries[id].Row;

    /// <summary>Millilitres in stock by material, as they were when this was read.</summary>
    internal IReadOnlyDictionary<Guid, double> StockMl() => entries.ToDictionary(e => e.Key, e => (double)e.Value.Row.StockMl);

    /// <summary>Reads a shelf. Only what changed since <paramref name="before"/> is read again.</summary>
    public static async Task<ShelfMaterials> Load(LowfellDb db, Guid workshop, ShelfMaterials? before, CancellationToken stop)
    {
        var mine = db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshop);
        if (before is null || await mine.CountAsync(stop) - before.entries.Count > Many)
            return await Whole(mine, before, stop);
        var versions = await mine.OrderBy(m => m.Maker).ThenBy(m => m.Name).Select(m => new { m.Id, m.Version }).ToListAsync(stop);
        var stale = versions.Where(v => !before.entries.TryGetValue(v.Id, out var e) || e.Row.Version != v.Version).Select(v => v.Id).ToList();
        if (stale.Count > Many)
            return await Whole(mine, before, stop);
        var fresh = stale.Count == 0 ? [] : await mine.Where(m => stale.Contains(m.Id)).ToDictionaryAsync(m => m.Id, stop);
        return new ShelfMaterials(versions.Select(v => fresh.TryGetValue(v.Id, out var row) ? Renewed(row, before) : before.entries[v.Id]).ToList());
    }

    private static async Task<ShelfMaterials> Whole(IQueryable<MaterialRow> mine, ShelfMaterials? before, CancellationToken stop) =>
        new((await mine.OrderBy(m => m.Maker).ThenBy(m => m.Name).ToListAsync(stop)).AsParallel().AsOrdered().Select(r => Renewed(r, before)).ToList());

    /// <summary>More than this is a whole file brought in: reading everything is quicker than naming each.</summary>
    private const int Many = 1000;

    private static Entry Renewed(MaterialRow row, ShelfMaterials? before) =>
        new(row, before is not null && before.entries.TryGetValue(row.Id, out var old) && old.Row.IsSameToCore(row) ? old.Material : row.ToCore());
}
