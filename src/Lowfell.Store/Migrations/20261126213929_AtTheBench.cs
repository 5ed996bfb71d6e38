using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126213929_AtTheBench")]
    public partial class AtTheBench : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_work_events_workshop_id",
                table: "work_events");

            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events");

            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events");

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "at",
                table: "work_events",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.AddColumn<long>(
                name: "device_number",
                table: "work_events",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "estimate_minutes",
                table: "work_events",
                type: "numeric(9,2)",
                precision: 9,
                scale: 2,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "said_minutes",
                table: "work_events",
                type: "numeric(9,2)",
                precision: 9,
                scale: 2,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "saved_by",
                table: "work_events",
                type: "character varying(500)",
                maxLength: 500,
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "bench_devices",
                columns: table => new
                {
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    device = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    last_number = table.Column<long>(type: "bigint", nullable: false),
                    behind_ms = table.Column<long>(type: "bigint", nullable: false),
                    seen_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_bench_devices", x => new { x.workshop_id, x.device });
                    table.CheckConstraint("ck_bench_devices_last_number", "last_number >= 0");
                    table.ForeignKey(
                        name: "fk_bench_devices_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "bench_refusals",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    device = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    number = table.Column<long>(type: "bigint", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_bench_refusals", x => x.event_id);
                    table.ForeignKey(
                        name: "fk_bench_refusals_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "piece_layers",
                columns: table => new
                {
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: false),
                    state = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    begun_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    done_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    done_by_id = table.Column<Guid>(type: "uuid", nullable: true),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: true),
                    pot_id = table.Column<Guid>(type: "uuid", nullable: true),
                    filling = table.Column<int>(type: "integer", nullable: true),
                    hot_air = table.Column<bool>(type: "boolean", nullable: false),
                    wipes = table.Column<int>(type: "integer", nullable: false),
                    mishaps = table.Column<int>(type: "integer", nullable: false),
                    why = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    accepted = table.Column<bool>(type: "boolean", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_piece_layers", x => new { x.zone_id, x.line_id, x.piece_id });
                    table.CheckConstraint("ck_piece_layers_done", "(state = 'done') = (done_at is not null) and (done_at is null) = (done_by_id is null)");
                    table.CheckConstraint("ck_piece_layers_state", "state in ('open', 'begun', 'paused', 'done', 'skipped')");
                    table.ForeignKey(
                        name: "fk_piece_layers_layers_layer_id",
                        column: x => x.layer_id,
                        principalTable: "layers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_piece_layers_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_piece_layers_pots_pot_id",
                        column: x => x.pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_piece_layers_work_events_done_by_id",
                        column: x => x.done_by_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_piece_layers_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "taken_times",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    pieces = table.Column<int>(type: "integer", nullable: false),
                    minutes = table.Column<decimal>(type: "numeric(9,2)", precision: 9, scale: 2, nullable: false),
                    counts = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_taken_times", x => x.event_id);
                    table.CheckConstraint("ck_taken_times_minutes", "minutes >= 0 and pieces > 0");
                    table.ForeignKey(
                        name: "fk_taken_times_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_work_events_workshop_id_device_at",
                table: "work_events",
                columns: new[] { "workshop_id", "device", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_work_events_workshop_id_device_device_number",
                table: "work_events",
                columns: new[] { "workshop_id", "device", "device_number" },
                unique: true);

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_device_number",
                table: "work_events",
                sql: "device_number > 0");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events",
                sql: "(zone_id is not null or kind not in ('given', 'carried over', 'begun', 'skipped', 'wiped', 'hot air', 'accepted')) and (zone_id is null or kind in ('given', 'carried over', 'begun', 'paused', 'skipped', 'wiped', 'mishap', 'hot air', 'noted', 'accepted')) and (kind <> 'carried over' or twin_id is not null) and (zone_id is null) = (line_id is null)");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events",
                sql: "kind in ('made', 'topped up', 'joined', 'poured out', 'split off', 'given', 'thrown away', 'corrected', 'moved', 'carried over', 'begun', 'paused', 'skipped', 'wiped', 'mishap', 'hot air', 'noted', 'accepted', 'taken back')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_minutes",
                table: "work_events",
                sql: "estimate_minutes >= 0 and said_minutes >= 0");

            migrationBuilder.CreateIndex(
                name: "ix_bench_refusals_workshop_id_device_number",
                table: "bench_refusals",
                columns: new[] { "workshop_id", "device", "number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_piece_layers_done_by_id",
                table: "piece_layers",
                column: "done_by_id");

            migrationBuilder.CreateIndex(
                name: "ix_piece_layers_layer_id",
                table: "piece_layers",
                column: "layer_id");

            migrationBuilder.CreateIndex(
                name: "ix_piece_layers_piece_id",
                table: "piece_layers",
                column: "piece_id");

            migrationBuilder.CreateIndex(
                name: "ix_piece_layers_pot_id",
                table: "piece_layers",
                column: "pot_id");

            // What happened before there were clocks to put right happened when it was told; a copy is as old as its original.
            migrationBuilder.Sql("""
                alter table work_events disable trigger kept;
                update work_events set at = told_at;
                update work_events e set at = first.at from work_events first where e.kind = 'carried over' and first.id = e.twin_id;
                alter table work_events enable trigger kept;
                alter table work_events alter column at drop default, alter column saved_by drop default;
                create index ix_work_events_wiped on work_events (zone_id, line_id) where kind = 'wiped';

                insert into piece_layers (zone_id, line_id, piece_id, state, done_at, done_by_id, layer_id, pot_id, filling, hot_air, wipes, mishaps, why, accepted, at)
                select distinct on (e.zone_id, e.line_id, p.piece_id) e.zone_id, e.line_id, p.piece_id, 'done', first.at, e.id, first.layer_id, first.pot_id, first.filling, false, 0, 0, '', false, first.at
                from work_events e join work_pieces p on p.event_id = e.id join work_events first on first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                where e.kind in ('given', 'carried over') and not exists (select from work_events u where u.undoes_id = e.id)
                order by e.zone_id, e.line_id, p.piece_id, first.at desc, e.sequence desc;
                """);

            // A layer that is wiped off a piece is not on it any more, unless it was laid again: where anything was ever wiped, all that
            // happened to the layer on the piece is looked at in the order in which it happened.
            migrationBuilder.Sql("""
                create function lay_anew(z uuid, l uuid, p uuid) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  perform pg_advisory_xact_lock(hashtextextended(z::text || l::text || p::text, 1));
                  delete from done_layers where zone_id = z and line_id = l and piece_id = p;
                  insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                  select z, l, p, first.pot_id, first.filling, (array_agg(first.id order by e.at, e.sequence))[1], min(first.sequence), count(*)
                  from work_events e join work_pieces w on w.event_id = e.id join work_events first on first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                  where e.zone_id = z and e.line_id = l and w.piece_id = p and e.kind in ('given', 'carried over')
                    and not exists (select from work_events u where u.undoes_id = e.id)
                    and not exists (
                      select from work_events x join work_pieces y on y.event_id = x.id
                      where x.kind = 'wiped' and x.zone_id = z and x.line_id = l and y.piece_id = p and (x.at, x.sequence) > (e.at, e.sequence)
                        and not exists (select from work_events u where u.undoes_id = x.id))
                  group by first.pot_id, first.filling;
                end $$;

                create or replace function work_laid() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                declare e work_events;
                begin
                  select * into e from work_events where id = new.event_id;
                  if e.kind = 'wiped' or (e.kind in ('given', 'carried over') and exists (select from work_events w where w.kind = 'wiped' and w.zone_id = e.zone_id and w.line_id = e.line_id)) then
                    perform lay_anew(e.zone_id, e.line_id, new.piece_id);
                  elsif e.kind in ('given', 'carried over') then
                    insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                    select e.zone_id, e.line_id, new.piece_id, first.pot_id, first.filling, first.id, first.sequence, 1 from work_events first where first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                    on conflict (zone_id, line_id, piece_id, pot_id, filling) do update set times = done_layers.times + 1;
                  end if;
                  return null;
                end $$;

                create or replace function work_taken_back() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  perform lay_anew(e.zone_id, e.line_id, p.piece_id) from work_events e join work_pieces p on p.event_id = e.id where e.id = new.undoes_id and e.kind in ('given', 'carried over', 'wiped');
                  return null;
                end $$;
                revoke execute on function lay_anew(uuid, uuid, uuid) from public;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
