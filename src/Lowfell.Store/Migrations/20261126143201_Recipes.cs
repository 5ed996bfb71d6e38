using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126143201_Recipes")]
    public partial class Recipes : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events");

            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events",
                sql: "(kind in ('given', 'carried over')) = (zone_id is not null) and (kind <> 'carried over' or twin_id is not null) and (zone_id is null) = (line_id is null)");

            migrationBuilder.CreateTable(
                name: "recipes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    note = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_recipes", x => x.id);
                    table.ForeignKey(
                        name: "fk_recipes_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "recipe_parts",
                columns: table => new
                {
                    recipe_id = table.Column<Guid>(type: "uuid", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    parts = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_recipe_parts", x => new { x.recipe_id, x.position });
                    table.CheckConstraint("ck_recipe_parts_parts", "parts > 0");
                    table.ForeignKey(
                        name: "fk_recipe_parts_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_recipe_parts_recipes_recipe_id",
                        column: x => x.recipe_id,
                        principalTable: "recipes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events",
                sql: "kind in ('made', 'topped up', 'joined', 'poured out', 'split off', 'given', 'thrown away', 'corrected', 'moved', 'carried over', 'taken back')");

            migrationBuilder.CreateIndex(
                name: "ix_recipe_parts_material_id",
                table: "recipe_parts",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_recipe_parts_recipe_id_material_id",
                table: "recipe_parts",
                columns: new[] { "recipe_id", "material_id" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_recipes_workshop_id_name",
                table: "recipes",
                columns: new[] { "workshop_id", "name" },
                unique: true);
            // A copy may begin with what was done on its original: the event points at the one it repeats, which has the pot and the amounts.
            migrationBuilder.Sql("""
                create or replace function work_laid() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                  select e.zone_id, e.line_id, new.piece_id, first.pot_id, first.filling, first.id, first.sequence, 1
                  from work_events e join work_events first on first.id = case e.kind when 'carried over' then e.twin_id else e.id end
                  where e.id = new.event_id and e.kind in ('given', 'carried over')
                  on conflict (zone_id, line_id, piece_id, pot_id, filling) do update set times = done_layers.times + 1;
                  return null;
                end $$;
                """);

            // What work refers to is never torn out when the step that made it is undone: it is put away, and comes back when that is redone.
            migrationBuilder.Sql("""
                create trigger journal after insert or update or delete on recipes for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on recipe_parts for each row execute function journal_kept('recipe_id,position');

                create function journal_worked(table_name text, thing uuid) returns boolean language sql stable as $$
                  select case table_name
                    when 'pieces' then exists (select from work_pieces where piece_id = thing)
                    when 'zones' then exists (select from work_events where zone_id = thing)
                    when 'designs' then exists (select from work_events e join zones z on z.id = e.zone_id where z.design_id = thing)
                    when 'sets' then exists (select from work_events e join zones z on z.id = e.zone_id join designs d on d.id = z.design_id where d.set_id = thing)
                    else false end
                $$;

                create or replace function journal_turn(turned uuid, back boolean, who text) returns text[] language plpgsql security definer set search_path = public, pg_temp set timezone = 'UTC' as $$
                declare
                  c journal_changes; ours jsonb; wanted jsonb; here jsonb; match text; columns text; next int; id uuid; merged uuid[]; tables text[] := '{}';
                begin
                  -- What is turned is told to those who edit the same, and is no step by itself.
                  perform set_config('lowfell.step', 'turn', true);
                  for c in select * from journal_changes where step_id = turned order by case when back then -number else number end loop
                    ours := case when back then c.after else c.before end;
                    wanted := case when back then c.before else c.after end;
                    tables := tables || c.table_name;
                    select string_agg(format('t.%1$I = (select r.%1$I from jsonb_populate_record(null::%2$I, $1) r)', k, c.table_name), ' and ') into match from jsonb_object_keys(c.row_key) k;
                    execute format('select to_jsonb(t) from %I t where %s for no key update', c.table_name, match) into here using c.row_key;

                    if c.table_name = 'treatments' and ours is not null and wanted is not null and ours ? 'revision' and here is not null then
                      id := (c.row_key ->> 'id')::uuid;
                      merged := journal_merged(id, (ours ->> 'revision')::int, (wanted ->> 'revision')::int, (here ->> 'revision')::int);
                      if merged is null then perform journal_touched(c); end if;
                      select max(number) + 1 into next from treatment_revisions where treatment_id = id;
                      insert into treatment_revisions (treatment_id, number, stored_at, actor) values (id, next, now(), who);
                      insert into revision_layers (treatment_id, revision, position, layer_id)
                        select id, next, m.at - 1, m.layer from unnest(merged) with ordinality m(layer, at);
                      ours := ours - array['revision', 'changed_at'];
                      wanted := wanted || jsonb_build_object('revision', next, 'changed_at', now());
                    end if;

                    if ours is null then
                      if c.table_name = 'treatments' then
                        update treatments set put_away_at = null where treatments.id = (c.row_key ->> 'id')::uuid;
                        continue;
                      end if;
                      -- What was put away, since work refers to it, comes back.
                      if here ->> 'put_away_at' is not null and journal_worked(c.table_name, (c.row_key ->> 'id')::uuid) then
                        execute format('update %I t set put_away_at = null where %s', c.table_name, match) using c.row_key;
                        continue;
                      end if;
                      if here is not null then perform journal_touched(c); end if;
                      execute format('insert into %1$I select * from jsonb_populate_record(null::%1$I, $1)', c.table_name) using wanted;
                    elsif wanted is null then
                      if here is null then continue; end if;
                      if c.table_name = 'treatments' then
                        update treatments set put_away_at = now() where treatments.id = (c.row_key ->> 'id')::uuid;
                        continue;
                      end if;
                      if not journal_holds(here, ours) then perform journal_touched(c); end if;
                      if journal_worked(c.table_name, (c.row_key ->> 'id')::uuid) then
                        execute format('update %I t set put_away_at = now() where %s', c.table_name, match) using c.row_key;
                        continue;
                      end if;
                      execute format('delete from %I t where %s', c.table_name, match) using c.row_key;
                    else
                      if here is null then perform journal_touched(c); end if;
                      if journal_holds(here, wanted) then continue; end if;
                      if not journal_holds(here, ours) then perform journal_touched(c); end if;
                      select string_agg(format('%1$I = (select r.%1$I from jsonb_populate_record(null::%2$I, $2) r)', k, c.table_name), ', ') into columns from jsonb_object_keys(wanted) k;
                      execute format('update %I t set %s where %s', c.table_name, columns, match) using c.row_key, wanted;
                    end if;
                  end loop;
                  return array(select distinct unnest(tables));
                exception
                  when foreign_key_violation or restrict_violation then
                    raise exception using errcode = 'LF409', message = 'Something that came since rests on it.', hint = 'Undo that first, or put it away instead.';
                  when unique_violation then
                    raise exception using errcode = 'LF409', message = 'Its name was given to another meanwhile.', hint = 'Rename the other one, then try again.';
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
