using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Writing;

/// <summary>
/// Every write to a plan can be undone: the database keeps what each changes, row by row, and here it is told which step that is. Features
/// know nothing of it.
/// </summary>
internal static class Journal
{
    /// <summary>What is known of a write as it begins: the step it is, and what a sending before this one came to.</summary>
    public sealed record Begun(Guid Step, byte[]? BodyHash, string? Told, bool Spent);

    /// <summary>
    /// Begins to keep what is changed. Writes of one gesture are one step, as long as it was not undone in between and it is the same
    /// device; else the write is a step of its own.
    /// </summary>
    public static Task<Begun> Begin(LowfellDb db, Guid step, Guid write, Actor actor, CancellationToken stop) => db.Database.SqlQuery<Begun>($"""
        select set_config('lowfell.step', case when exists (select 1 from journal_steps where id = {step} and (undone_at is not null or device <> {actor.Device})) then {write.ToString()} else {step.ToString()} end, true)::uuid as step,
          r.body_hash, r.told, exists (select 1 from spent_writes where id = {write}) as spent
        from (values (1)) one left join write_receipts r on r.id = {write}
        """).SingleAsync(stop);

    /// <summary>Keeps the receipt, and makes a step of what was changed, if anything was.</summary>
    public static Task Keep(LowfellDb db, Guid step, Write write, WriteReceiptRow receipt, CancellationToken stop) => db.Database.ExecuteSqlAsync($"""
        with receipt as (insert into write_receipts (id, body_hash, told, at) values ({receipt.Id}, {receipt.BodyHash}, {receipt.Told}, {receipt.At}))
        insert into journal_steps (id, workshop_id, actor, device, at, words, removes)
        select {step}, w.id, {write.Actor.Name}, {write.Actor.Device}, {write.Now}, {write.Words}, {write.Removes}
        from workshops w where w.id = {write.WorkshopOrNone} and exists (select 1 from journal_changes where step_id = {step})
        on conflict (id) do update set at = excluded.at, words = excluded.words
        """, stop);

    /// <summary>Turns a step back, or forth again; the tables it touched.</summary>
    public static Task<string[]> Turn(LowfellDb db, Guid step, bool back, Actor actor, CancellationToken stop) =>
        db.Database.SqlQuery<string[]>($"select journal_turn({step}, {back}, {actor.Name}) as \"Value\"").SingleAsync(stop);

    /// <summary>
    /// Columns of a row that others changed since it had a version. A version that no change is known of, as that of a row which only its
    /// stock moved, counts by the order of transactions.
    /// </summary>
    public static async Task<IReadOnlySet<string>> Since(LowfellDb db, string table, Guid row, uint version, CancellationToken stop)
    {
        var found = await db.Database.SqlQuery<string>($"""
            with own as (select * from journal_changes where table_name = {table} and row_key = jsonb_build_object('id', {row}::text)),
              from_here as (select max(number) as number from own where xid = {(long)version})
            select distinct jsonb_object_keys(coalesce(own.after, own.before)) as "Value" from own, from_here where own.number > from_here.number or (from_here.number is null and own.xid > {(long)version})
            """).ToListAsync(stop);
        return found.ToHashSet();
    }
}
