using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261202105303_Targets")]
    public partial class Targets : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_piece_layers_done",
                table: "piece_layers");

            migrationBuilder.DropCheckConstraint(
                name: "ck_piece_layers_state",
                table: "piece_layers");

            migrationBuilder.AddColumn<int>(
                name: "coats",
                table: "work_events",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "coats",
                table: "piece_layers",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            // What was done was done whole: in as many coats as the layer that was seen has there, each time since it was wiped off last.
            migrationBuilder.Sql("""
                update piece_layers p set coats = greatest(1, (
                  select max(case when s.differs & 4 = 0 then l.coats else s.coats end)
                  from work_events e join work_pieces w on w.event_id = e.id join work_events first on first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                  join layers l on l.id = first.layer_id join layer_surfaces s on s.layer_id = l.id and s.line_id = e.line_id
                  where (e.zone_id, e.line_id, w.piece_id) = (p.zone_id, p.line_id, p.piece_id) and e.kind in ('given', 'carried over')
                    and not exists (select from work_events u where u.undoes_id = e.id)
                    and not exists (
                      select from work_events x join work_pieces y on y.event_id = x.id
                      where x.kind = 'wiped' and (x.zone_id, x.line_id, y.piece_id) = (p.zone_id, p.line_id, p.piece_id) and (x.at, x.sequence) > (e.at, e.sequence)
                        and not exists (select from work_events u where u.undoes_id = x.id))))
                where state = 'done';
                alter table piece_layers alter column coats drop default;
                """);

            migrationBuilder.CreateTable(
                name: "work_also",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_work_also", x => new { x.event_id, x.zone_id });
                    table.ForeignKey(
                        name: "fk_work_also_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_also_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_coats",
                table: "work_events",
                sql: "coats is null or (coats between 1 and 99 and kind in ('given', 'carried over'))");

            migrationBuilder.AddCheckConstraint(
                name: "ck_piece_layers_done",
                table: "piece_layers",
                sql: "coats >= 0 and (coats > 0) = (done_at is not null) and (done_at is null) = (done_by_id is null) and (coats > 0 or state not in ('partly', 'done'))");

            migrationBuilder.AddCheckConstraint(
                name: "ck_piece_layers_state",
                table: "piece_layers",
                sql: "state in ('open', 'begun', 'paused', 'partly', 'done', 'skipped')");

            migrationBuilder.CreateIndex(
                name: "ix_piece_layers_zone_id",
                table: "piece_layers",
                column: "zone_id",
                filter: "coats > 0 and state <> 'done' and state <> 'skipped'");

            migrationBuilder.CreateIndex(
                name: "ix_work_also_zone_id",
                table: "work_also",
                column: "zone_id");

            // An event is of its zone and of those that it is of as well; what it laid lies on all of them.
            migrationBuilder.Sql("""
                create trigger kept before update or delete on work_also for each row execute function kept();

                create function work_on() returns table (event_id uuid, zone_id uuid, line_id uuid) language sql stable as $$
                  select id, zone_id, line_id from work_events where zone_id is not null
                  union all select event_id, zone_id, line_id from work_also
                $$;

                create or replace function lay_anew(z uuid, l uuid, p uuid) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  perform pg_advisory_xact_lock(hashtextextended(z::text || l::text || p::text, 1));
                  delete from done_layers where zone_id = z and line_id = l and piece_id = p;
                  insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                  select z, l, p, first.pot_id, first.filling, (array_agg(first.id order by e.at, e.sequence))[1], min(first.sequence), count(*)
                  from work_on() o join work_events e on e.id = o.event_id join work_pieces w on w.event_id = e.id join work_events first on first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                  where o.zone_id = z and o.line_id = l and w.piece_id = p and e.kind in ('given', 'carried over')
                    and not exists (select from work_events u where u.undoes_id = e.id)
                    and not exists (
                      select from work_on() r join work_events x on x.id = r.event_id join work_pieces y on y.event_id = x.id
                      where x.kind = 'wiped' and r.zone_id = z and r.line_id = l and y.piece_id = p and (x.at, x.sequence) > (e.at, e.sequence)
                        and not exists (select from work_events u where u.undoes_id = x.id))
                  group by first.pot_id, first.filling;
                end $$;

                create function lay(e work_events, z uuid, l uuid, p uuid) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  -- Out of a file may come what is taken back already.
                  if e.kind = 'wiped' or (e.kind in ('given', 'carried over') and (
                    exists (select from work_events u where u.undoes_id = e.id)
                    or exists (select from work_events w where w.kind = 'wiped' and w.zone_id = z and w.line_id = l)
                    or exists (select from work_also o join work_events w on w.id = o.event_id where w.kind = 'wiped' and o.zone_id = z and o.line_id = l))) then
                    perform lay_anew(z, l, p);
                  elsif e.kind in ('given', 'carried over') then
                    insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                    select z, l, p, first.pot_id, first.filling, first.id, first.sequence, 1 from work_events first where first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                    on conflict (zone_id, line_id, piece_id, pot_id, filling) do update set times = done_layers.times + 1;
                  end if;
                end $$;

                create or replace function work_laid() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  perform lay(e, o.zone_id, o.line_id, new.piece_id) from work_events e join work_on() o on o.event_id = e.id where e.id = new.event_id;
                  return null;
                end $$;

                -- Whichever of zones and pieces is put in later finds the others there.
                create function work_laid_also() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  if not exists (select from work_events e join zones own on own.id = e.zone_id join zones also on also.id = new.zone_id where e.id = new.event_id and own.id <> also.id and own.design_id = also.design_id) then
                    raise exception 'an event is of zones of one design, each once' using errcode = 'check_violation';
                  end if;
                  perform lay(e, new.zone_id, new.line_id, p.piece_id) from work_events e join work_pieces p on p.event_id = e.id where e.id = new.event_id;
                  return null;
                end $$;
                create trigger work_laid_also after insert on work_also for each row execute function work_laid_also();

                create or replace function work_taken_back() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  perform lay_anew(o.zone_id, o.line_id, p.piece_id) from work_events e join work_on() o on o.event_id = e.id join work_pieces p on p.event_id = e.id where e.id = new.undoes_id and e.kind in ('given', 'carried over', 'wiped');
                  return null;
                end $$;
                revoke execute on function lay(work_events, uuid, uuid, uuid) from public;

                create or replace function journal_worked(table_name text, thing uuid) returns boolean language sql stable as $$
                  select case table_name
                    when 'pieces' then exists (select from work_pieces where piece_id = thing)
                    when 'zones' then exists (select from work_on() o where o.zone_id = thing)
                    when 'designs' then exists (select from work_events e join zones z on z.id = e.zone_id where z.design_id = thing)
                    when 'sets' then exists (select from work_events e join zones z on z.id = e.zone_id join designs d on d.id = z.design_id where d.set_id = thing)
                    else false end
                $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
