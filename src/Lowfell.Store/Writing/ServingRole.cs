using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>What the role that serves may do: read everything, write what is meant to be written, and to what has happened only add.</summary>
public static class ServingRole
{
    /// <summary>Rows that are only ever added.</summary>
    public static readonly IReadOnlyList<string> Appended =
        ["work_events", "work_also", "work_amounts", "work_pieces", "bench_refusals", "stock_moves", "layers", "layer_surfaces", "treatment_revisions", "revision_layers", "surfaces", "revision_surfaces", "spent_writes", "timetables", "mixes", "mix_components"];

    /// <summary>Of an event that did not fit, what a person decided about it.</summary>
    public static readonly IReadOnlyList<string> Settled = ["settled", "settled_at", "settled_by", "became_id"];

    /// <summary>Rows that the database keeps by itself from what is added.</summary>
    public static readonly IReadOnlyList<string> Derived = ["pot_contents", "done_layers", "journal_changes", "__EFMigrationsHistory"];

    /// <summary>Gives a role its rights and takes all others from it. Run by the owner after migrating.</summary>
    public static async Task Grant(LowfellDb db, string role, CancellationToken stop)
    {
        if (!await db.Database.SqlQuery<bool>($"select exists (select from pg_roles where rolname = {role} and not rolsuper and rolname <> current_user) as \"Value\"").SingleAsync(stop))
            return;
        string Quoted(string name) => $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
        string List(IEnumerable<string> tables) => string.Join(", ", tables.Select(Quoted));
        var serving = Quoted(role);
#pragma warning disable EF1002 // Names of tables and of a role that exists, quoted.
        await db.Database.ExecuteSqlRawAsync($"""
            revoke all on all tables in schema public from {serving};
            revoke create on schema public from public;
            revoke create on schema public from {serving};
            grant usage on schema public to {serving};
            grant usage on all sequences in schema public to {serving};
            grant select, insert, update, delete on all tables in schema public to {serving};
            revoke update, delete on {List(Appended)} from {serving};
            revoke insert, update, delete on {List(Derived)} from {serving};
            grant update ({List(Settled)}) on bench_refusals to {serving};
            """, stop);
#pragma warning restore EF1002
    }
}
