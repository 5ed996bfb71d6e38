using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261201091953_Sealed")]
    public partial class Sealed : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // An authority whose key lay open in the database, and in every backup, is no longer one: the next server makes another.
            migrationBuilder.Sql("delete from authorities");

            migrationBuilder.RenameColumn(
                name: "key",
                table: "authorities",
                newName: "sealed_key");

            migrationBuilder.AddColumn<string>(
                name: "clock",
                table: "work_events",
                type: "character varying(20)",
                maxLength: 20,
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "at",
                table: "spent_writes",
                type: "timestamp with time zone",
                nullable: false,
                defaultValueSql: "now()");

            migrationBuilder.AlterColumn<Guid>(
                name: "small_id",
                table: "photos",
                type: "uuid",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "uuid");

            migrationBuilder.AlterColumn<Guid>(
                name: "blob_id",
                table: "photos",
                type: "uuid",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "uuid");

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "freed_at",
                table: "photos",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AlterColumn<long>(
                name: "number",
                table: "bench_refusals",
                type: "bigint",
                nullable: true,
                oldClrType: typeof(long),
                oldType: "bigint");

            migrationBuilder.AddColumn<string>(
                name: "actor",
                table: "bench_refusals",
                type: "character varying(60)",
                maxLength: 60,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Guid>(
                name: "became_id",
                table: "bench_refusals",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "happened_at",
                table: "bench_refusals",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "settled",
                table: "bench_refusals",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "settled_at",
                table: "bench_refusals",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "settled_by",
                table: "bench_refusals",
                type: "character varying(60)",
                maxLength: 60,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "told",
                table: "bench_refusals",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_clock",
                table: "work_events",
                sql: "clock = 'guessed'");

            migrationBuilder.CreateIndex(
                name: "ix_spent_writes_at",
                table: "spent_writes",
                column: "at");

            migrationBuilder.AddCheckConstraint(
                name: "ck_photos_freed",
                table: "photos",
                sql: "(freed_at is null) = (blob_id is not null) and (freed_at is null) = (small_id is not null) and (freed_at is null or put_away_at is not null)");

            migrationBuilder.CreateIndex(
                name: "ix_bench_refusals_became_id",
                table: "bench_refusals",
                column: "became_id");

            migrationBuilder.AddCheckConstraint(
                name: "ck_bench_refusals_settled",
                table: "bench_refusals",
                sql: "settled in ('taken in', 'corrected', 'let go')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_bench_refusals_settled_at",
                table: "bench_refusals",
                sql: "(settled is null) = (settled_at is null) and (became_id is not null) = (coalesce(settled, 'let go') <> 'let go')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_bench_refusals_told",
                table: "bench_refusals",
                sql: "length(told) <= 1000000");

            migrationBuilder.AddForeignKey(
                name: "fk_bench_refusals_work_events_became_id",
                table: "bench_refusals",
                column: "became_id",
                principalTable: "work_events",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.Sql("""
                -- Of what was refused before, only the reason was kept.
                update bench_refusals set told = '{}' where told = '';

                -- Secrets stood in the receipts of the writes that made them. Those ids are spent; what they made stays as it is.
                with told as (delete from write_receipts where told like '%/api/calendar/%' or (told like '%"key":"%' and told like '%"goodUntil":%') returning id)
                  insert into spent_writes (id) select id from told on conflict do nothing;

                -- Forgets ids of writes that were spent before an instant; the number of those that went.
                create function spent_pruned(before timestamptz) returns int language plpgsql security definer set search_path = public, pg_temp as $$
                declare gone int;
                begin
                  delete from spent_writes where at < before;
                  get diagnostics gone = row_count;
                  return gone;
                end $$;

                -- Undo brings a photograph back as long as its picture is there.
                drop trigger journal on photos;
                create trigger journal after update of words, piece_id, zone_id, put_away_at on photos for each row execute function journal_kept('id');
                create function photo_freed() returns trigger language plpgsql as $$
                begin
                  if old.freed_at is not null and (new.freed_at is null or new.put_away_at is null) then
                    raise exception using errcode = 'LF409', message = 'The picture of this photograph was let go for good.', hint = 'It cannot be brought back; what was written about it stays.';
                  end if;
                  return new;
                end $$;
                create trigger freed before update on photos for each row execute function photo_freed();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
