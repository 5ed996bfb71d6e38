using System.Collections.Concurrent;
using Lowfell.Core.Materials;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>
/// Keeps resolved optics by material and row version: reconstructing spectra of a whole shelf at every keystroke would cost
/// tens of milliseconds. A changed row has another version, so nothing can go stale.
/// </summary>
public sealed class CoreMaterials
{
    private const int MostKept = 20_000;
    private readonly ConcurrentDictionary<(Guid Id, uint Version), Material> resolved = new();

    /// <summary>The whole shelf of a workshop, and what is in stock of it.</summary>
    public async Task<(IReadOnlyDictionary<Guid, Material> Materials, IReadOnlyDictionary<Guid, double> StockMl, IReadOnlyList<(Guid Id, string Name, string Hazards)> Hazards)> Of(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var rows = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshop).OrderBy(m => m.Maker).ThenBy(m => m.Name).ToListAsync(stop);
        if (resolved.Count > MostKept)
            resolved.Clear();
        return (rows.ToDictionary(r => r.Id, Of), rows.ToDictionary(r => r.Id, r => (double)r.StockMl),
            rows.Where(r => r.Hazards.Length > 0).Select(r => (r.Id, r.Name, r.Hazards)).ToList());
    }

    /// <summary>One row's material.</summary>
    public Material Of(Rows.MaterialRow row) => resolved.GetOrAdd((row.Id, row.Version), _ => row.ToCore());
}
