using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Npgsql;

namespace Lowfell.Store;

/// <summary>Puts thousands of rows into a table by PostgreSQL's own copy; constraints and triggers hold as for any insert.</summary>
public static class BulkCopy
{
    /// <summary>Copies rows in, all or none. They are not tracked.</summary>
    public static async Task CopyIn<T>(this LowfellDb db, IReadOnlyList<T> rows, CancellationToken stop) where T : class
    {
        var entity = db.Model.FindEntityType(typeof(T))!;
        var columns = entity.GetProperties().Where(p => !p.IsConcurrencyToken).Select(p => new Column(p)).ToList();
        await db.Database.OpenConnectionAsync(stop);
        try
        {
            var connection = (NpgsqlConnection)db.Database.GetDbConnection();
            await using var copy = await connection.BeginBinaryImportAsync(
                $"copy {entity.GetTableName()} ({string.Join(", ", columns.Select(c => c.Name))}) from stdin (format binary)", stop);
            foreach (var row in rows)
            {
                await copy.StartRowAsync(stop);
                foreach (var column in columns)
                {
                    if (column.Of(row) is { } value)
                        await copy.WriteAsync(value, column.Type, stop);
                    else
                        await copy.WriteNullAsync(stop);
                }
            }

            await copy.CompleteAsync(stop);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private sealed class Column(IProperty property)
    {
        public string Name { get; } = property.GetColumnName();

        /// <summary>Without its length or precision, which copy does not take.</summary>
        public string Type { get; } = property.GetColumnType().Split('(')[0];

        public object? Of(object row)
        {
            var value = property.GetGetter().GetClrValue(row);
            return value is null ? null : property.GetTypeMapping().Converter is { } converter ? converter.ConvertToProvider(value) : value;
        }
    }
}
