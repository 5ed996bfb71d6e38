using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261202035635_Surfaces")]
    public partial class Surfaces : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_zones_treatment_id",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_revision_layers_position",
                table: "revision_layers");

            migrationBuilder.RenameColumn(
                name: "line_id",
                table: "layers",
                newName: "step_id");

            migrationBuilder.RenameIndex(
                name: "ix_layers_line_id",
                table: "layers",
                newName: "ix_layers_step_id");

            migrationBuilder.AddColumn<Guid>(
                name: "surface_id",
                table: "zones",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddColumn<int>(
                name: "surfaces_of",
                table: "treatment_revisions",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "surfaces",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_surfaces", x => x.id);
                    table.UniqueConstraint("ak_surfaces_treatment_id_id", x => new { x.treatment_id, x.id });
                    table.ForeignKey(
                        name: "fk_surfaces_treatments_treatment_id",
                        column: x => x.treatment_id,
                        principalTable: "treatments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "layer_surfaces",
                columns: table => new
                {
                    layer_id = table.Column<Guid>(type: "uuid", nullable: false),
                    surface_id = table.Column<Guid>(type: "uuid", nullable: false),
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false),
                    differs = table.Column<int>(type: "integer", nullable: false),
                    coats = table.Column<int>(type: "integer", nullable: false),
                    region = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    fades = table.Column<bool>(type: "boolean", nullable: false),
                    strength = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    mark_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    variation_seed = table.Column<int>(type: "integer", nullable: true),
                    variation_habit = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: true),
                    variation_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    variation_marks = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    variation_spread = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    variation_dealt = table.Column<bool>(type: "boolean", nullable: true),
                    details = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    down_to = table.Column<Guid>(type: "uuid", nullable: true),
                    optional = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_layer_surfaces", x => new { x.layer_id, x.surface_id });
                    table.CheckConstraint("ck_layer_surfaces_coats", "coats between 1 and 20");
                    table.CheckConstraint("ck_layer_surfaces_details", "details > 0 and details <= 1000");
                    table.CheckConstraint("ck_layer_surfaces_differs", "differs between 0 and 255");
                    table.CheckConstraint("ck_layer_surfaces_mark", "mark_mm > 0 and mark_mm <= 200");
                    table.CheckConstraint("ck_layer_surfaces_region", "region in ('all', 'raised', 'recess', 'upward', 'lower third', 'edges', 'spots', 'within rim', 'around feet', 'leading edges', 'one in four', 'recessed line')");
                    table.CheckConstraint("ck_layer_surfaces_strength", "strength between 0 and 3");
                    table.CheckConstraint("ck_layer_surfaces_variation", "variation_mm between 0.3 and 200 and variation_marks between 0.2 and 5 and variation_spread between 0 and 1");
                    table.CheckConstraint("ck_layer_surfaces_variation_habit", "variation_habit in ('anywhere', 'from ground', 'from above', 'at edges', 'at joints', 'under others')");
                    table.CheckConstraint("ck_layer_surfaces_variation_seed", "variation_seed is not null or (variation_habit is null and variation_mm is null and variation_marks is null and variation_spread is null and variation_dealt is null)");
                    table.ForeignKey(
                        name: "fk_layer_surfaces_layers_treatment_id_layer_id",
                        columns: x => new { x.treatment_id, x.layer_id },
                        principalTable: "layers",
                        principalColumns: new[] { "treatment_id", "id" },
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_layer_surfaces_surfaces_treatment_id_surface_id",
                        columns: x => new { x.treatment_id, x.surface_id },
                        principalTable: "surfaces",
                        principalColumns: new[] { "treatment_id", "id" },
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "revision_surfaces",
                columns: table => new
                {
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    surface_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    on_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_revision_surfaces", x => new { x.treatment_id, x.revision, x.position });
                    table.CheckConstraint("ck_revision_surfaces_on", "on_id is null or on_id <> surface_id");
                    table.CheckConstraint("ck_revision_surfaces_position", "position >= 0 and position < 120");
                    table.ForeignKey(
                        name: "fk_revision_surfaces_surfaces_treatment_id_on_id",
                        columns: x => new { x.treatment_id, x.on_id },
                        principalTable: "surfaces",
                        principalColumns: new[] { "treatment_id", "id" },
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revision_surfaces_surfaces_treatment_id_surface_id",
                        columns: x => new { x.treatment_id, x.surface_id },
                        principalTable: "surfaces",
                        principalColumns: new[] { "treatment_id", "id" },
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revision_surfaces_treatment_revisions_treatment_id_revision",
                        columns: x => new { x.treatment_id, x.revision },
                        principalTable: "treatment_revisions",
                        principalColumns: new[] { "treatment_id", "number" },
                        onDelete: ReferentialAction.Restrict);
                });

            // Every treatment of before has one surface, which has its id and name: what it meant, it means.
            migrationBuilder.Sql("""
                insert into surfaces (id, treatment_id) select id, id from treatments;
                insert into revision_surfaces (treatment_id, revision, position, surface_id, name)
                  select t.id, (select min(number) from treatment_revisions r where r.treatment_id = t.id), 0, t.id, t.name from treatments t;
                insert into layer_surfaces (layer_id, surface_id, treatment_id, line_id, differs, coats, region, fades, strength, optional)
                  select id, treatment_id, treatment_id, step_id, 0, 1, 'all', false, 1, false from layers;
                alter table treatment_revisions disable trigger kept;
                update treatment_revisions r set surfaces_of = (select min(number) from treatment_revisions o where o.treatment_id = r.treatment_id);
                alter table treatment_revisions enable trigger kept;
                alter table treatment_revisions alter column surfaces_of drop default;
                update zones set surface_id = treatment_id;
                alter table zones alter column surface_id drop default;

                -- What was written down of zones, so that it can be turned back, says so too.
                update journal_changes set before = before || jsonb_build_object('surface_id', before -> 'treatment_id') where table_name = 'zones' and before ? 'treatment_id';
                update journal_changes set after = after || jsonb_build_object('surface_id', after -> 'treatment_id') where table_name = 'zones' and after ? 'treatment_id';

                create trigger kept before update or delete on surfaces for each row execute function kept();
                create trigger kept before update or delete on revision_surfaces for each row execute function kept();
                create trigger kept before update or delete on layer_surfaces for each row execute function kept();

                -- The revision whose surfaces one has is one of its treatment; the first names itself.
                alter table treatment_revisions add constraint fk_treatment_revisions_surfaces_of
                  foreign key (treatment_id, surfaces_of) references treatment_revisions (treatment_id, number) deferrable initially deferred;
                """);

            // Undo ties layers of versions by their steps, and goes back to the surfaces of then unless others changed them since.
            migrationBuilder.Sql("""
                create or replace function journal_lines(treatment uuid, number int) returns table (line_id uuid, layer_id uuid, "position" int) language sql stable as $$
                  select l.step_id, r.layer_id, r.position from revision_layers r join layers l on l.id = r.layer_id where r.treatment_id = treatment and r.revision = number
                $$;

                create function journal_surfaces(treatment uuid, ours int, wanted int, here int) returns int language sql stable as $$
                  select case when w.surfaces_of = o.surfaces_of then h.surfaces_of when h.surfaces_of = o.surfaces_of then w.surfaces_of end
                  from treatment_revisions o, treatment_revisions w, treatment_revisions h
                  where (o.treatment_id, o.number) = (treatment, ours) and (w.treatment_id, w.number) = (treatment, wanted) and (h.treatment_id, h.number) = (treatment, here)
                $$;

                create or replace function journal_turned(turned uuid, back boolean, who text) returns text[] language plpgsql security definer set search_path = public, pg_temp set timezone = 'UTC' as $$
                declare
                  c journal_changes; ours jsonb; wanted jsonb; here jsonb; match text; columns text; next int; surfaces int; id uuid; merged uuid[]; tables text[] := '{}';
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
                      surfaces := journal_surfaces(id, (ours ->> 'revision')::int, (wanted ->> 'revision')::int, (here ->> 'revision')::int);
                      if surfaces is null then perform journal_touched(c); end if;
                      select max(number) + 1 into next from treatment_revisions where treatment_id = id;
                      insert into treatment_revisions (treatment_id, number, stored_at, actor, surfaces_of) values (id, next, now(), who, surfaces);
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

            migrationBuilder.CreateIndex(
                name: "ix_zones_treatment_id_surface_id",
                table: "zones",
                columns: new[] { "treatment_id", "surface_id" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_revision_layers_position",
                table: "revision_layers",
                sql: "position >= 0 and position < 400");

            migrationBuilder.CreateIndex(
                name: "ix_layer_surfaces_layer_id_line_id",
                table: "layer_surfaces",
                columns: new[] { "layer_id", "line_id" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_layer_surfaces_line_id",
                table: "layer_surfaces",
                column: "line_id");

            migrationBuilder.CreateIndex(
                name: "ix_layer_surfaces_treatment_id_layer_id",
                table: "layer_surfaces",
                columns: new[] { "treatment_id", "layer_id" });

            migrationBuilder.CreateIndex(
                name: "ix_layer_surfaces_treatment_id_surface_id",
                table: "layer_surfaces",
                columns: new[] { "treatment_id", "surface_id" });

            migrationBuilder.CreateIndex(
                name: "ix_revision_surfaces_treatment_id_on_id",
                table: "revision_surfaces",
                columns: new[] { "treatment_id", "on_id" });

            migrationBuilder.CreateIndex(
                name: "ix_revision_surfaces_treatment_id_revision_surface_id",
                table: "revision_surfaces",
                columns: new[] { "treatment_id", "revision", "surface_id" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_revision_surfaces_treatment_id_surface_id",
                table: "revision_surfaces",
                columns: new[] { "treatment_id", "surface_id" });

            migrationBuilder.AddForeignKey(
                name: "fk_zones_surfaces_treatment_id_surface_id",
                table: "zones",
                columns: new[] { "treatment_id", "surface_id" },
                principalTable: "surfaces",
                principalColumns: new[] { "treatment_id", "id" },
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
