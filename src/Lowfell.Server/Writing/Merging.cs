using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Writing;

/// <summary>Two windows change the same thing: what does not touch goes together.</summary>
internal static class Merging
{
    /// <summary>Keeps a row for this write until it is done: two that change the same thing come one after the other, and each sees what the other did.</summary>
    public static Task Hold<T>(this Write write, Guid id) where T : class
    {
        var table = write.Db.Model.FindEntityType(typeof(T))!.GetTableName();
#pragma warning disable EF1002 // The name of a table of the model.
        return write.Db.Database.ExecuteSqlRawAsync($"select 1 from \"{table}\" where id = {{0}} for no key update", [id], write.Stop);
#pragma warning restore EF1002
    }

    /// <summary>
    /// Whether what was changed of a tracked row may go in: nobody stored it since the version it was changed from, or what they changed of it
    /// are other columns.
    /// </summary>
    public static async Task<bool> Fits(this Write write, object row, uint? version)
    {
        var entry = write.Db.Entry(row);
        if (version is null || (uint)entry.Property("Version").OriginalValue! == version)
            return true;
        var since = await Journal.Since(write.Db, entry.Metadata.GetTableName()!, (Guid)entry.Property("Id").CurrentValue!, version.Value, write.Stop);
        var changed = entry.Properties.Concat(entry.ComplexProperties.SelectMany(c => c.Properties)).Where(p => p.IsModified).Select(p => p.Metadata.GetColumnName());
        return !changed.Any(since.Contains);
    }
}
