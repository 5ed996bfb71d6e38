using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126112156_Journal")]
    public partial class Journal : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_zones_design_id_name",
                table: "zones");

            migrationBuilder.DropIndex(
                name: "ix_sets_workshop_id_name",
                table: "sets");

            migrationBuilder.DropIndex(
                name: "ix_pieces_design_id_label",
                table: "pieces");

            migrationBuilder.DropIndex(
                name: "ix_designs_set_id_name",
                table: "designs");

            migrationBuilder.AddColumn<bool>(
                name: "across",
                table: "zones",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "zones",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "rivet_mm",
                table: "zones",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "surface",
                table: "zones",
                type: "character varying(40)",
                maxLength: 40,
                nullable: false,
                defaultValue: "plain");

            migrationBuilder.AddColumn<decimal>(
                name: "surface_height_mm",
                table: "zones",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "surface_length_mm",
                table: "zones",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "handling",
                table: "workshops",
                type: "character varying(40)",
                maxLength: 40,
                nullable: false,
                defaultValue: "careful");

            migrationBuilder.AddColumn<bool>(
                name: "inches",
                table: "workshops",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string[]>(
                name: "painters",
                table: "workshops",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "workshops",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "table_metres",
                table: "workshops",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: false,
                defaultValue: 0.9m);

            migrationBuilder.AddColumn<string>(
                name: "target_sheen",
                table: "workshops",
                type: "character varying(40)",
                maxLength: 40,
                nullable: false,
                defaultValue: "matt");

            migrationBuilder.AddColumn<string>(
                name: "time_zone",
                table: "workshops",
                type: "character varying(60)",
                maxLength: 60,
                nullable: false,
                defaultValue: "UTC");

            migrationBuilder.AddColumn<Guid>(
                name: "came_from_id",
                table: "treatments",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "treatments",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "sets",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "rank",
                table: "sets",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "pieces",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "spare",
                table: "pieces",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "designs",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "journal_steps",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    sequence = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    actor = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    device = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    words = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    removes = table.Column<bool>(type: "boolean", nullable: false),
                    undone_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_journal_steps", x => x.id);
                    table.ForeignKey(
                        name: "fk_journal_steps_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "version_names",
                columns: table => new
                {
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_version_names", x => new { x.treatment_id, x.number });
                    table.ForeignKey(
                        name: "fk_version_names_treatment_revisions_treatment_id_number",
                        columns: x => new { x.treatment_id, x.number },
                        principalTable: "treatment_revisions",
                        principalColumns: new[] { "treatment_id", "number" },
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_zones_design_id_name",
                table: "zones",
                columns: new[] { "design_id", "name" },
                unique: true,
                filter: "put_away_at is null");

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_surface",
                table: "zones",
                sql: "surface in ('plain', 'courses', 'boards', 'slates', 'ribs', 'panels', 'links', 'grain', 'crackle', 'mesh')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_surface_sizes",
                table: "zones",
                sql: "surface_length_mm > 0 and surface_height_mm > 0 and rivet_mm > 0");

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_handling",
                table: "workshops",
                sql: "handling in ('display', 'careful', 'hard play')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_painters",
                table: "workshops",
                sql: "cardinality(painters) <= 4");

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_table_metres",
                table: "workshops",
                sql: "table_metres between 0.1 and 10");

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_target_sheen",
                table: "workshops",
                sql: "target_sheen in ('matt', 'eggshell', 'satin', 'gloss')");

            migrationBuilder.CreateIndex(
                name: "ix_treatments_came_from_id",
                table: "treatments",
                column: "came_from_id");

            migrationBuilder.CreateIndex(
                name: "ix_sets_workshop_id_name",
                table: "sets",
                columns: new[] { "workshop_id", "name" },
                unique: true,
                filter: "put_away_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_pieces_design_id_label",
                table: "pieces",
                columns: new[] { "design_id", "label" },
                unique: true,
                filter: "put_away_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_designs_set_id_name",
                table: "designs",
                columns: new[] { "set_id", "name" },
                unique: true,
                filter: "put_away_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_journal_steps_workshop_id_sequence",
                table: "journal_steps",
                columns: new[] { "workshop_id", "sequence" },
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_treatments_treatments_came_from_id",
                table: "treatments",
                column: "came_from_id",
                principalTable: "treatments",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            // What a surface is made of was never asked: its name says so often enough, and everything can be changed.
            migrationBuilder.Sql("""
                alter table zones alter column surface drop default;
                update zones set surface = case
                  when name ~* 'slate|tile|roof' then 'slates'
                  when name ~* 'track' then 'links'
                  when name ~* 'brick|stone|coping|quay|wall|course' then 'courses'
                  when name ~* 'plank|board|timber|deck|door|beam|post|pile|barge' then 'boards'
                  when name ~* 'iron|corrugated|sheet' then 'ribs'
                  when name ~* 'hull|plate|panel|boiler|tank' then 'panels'
                  when name ~* 'crust|crack' then 'crackle'
                  when name ~* 'mud|sand|soil|ground|earth|reed' then 'grain'
                  when name ~* 'mesh|grille|net' then 'mesh'
                  else 'plain' end;
                """);

            // What a write changes of a plan is kept row by row, so that it can be turned back and forth again. The write says which step
            // it is (lowfell.step); what is changed without one, as by a demo or a migration, is no step.
            migrationBuilder.Sql("""
                -- A step is written after what it changed, in the same transaction: a reference would be checked at every commit for nothing.
                create table journal_changes (
                  number bigint generated always as identity primary key,
                  step_id uuid,
                  table_name text not null,
                  row_key jsonb not null,
                  before jsonb,
                  after jsonb,
                  xid bigint not null,
                  check (before is not null or after is not null)
                );
                create index ix_journal_changes_step on journal_changes (step_id, number);
                create index ix_journal_changes_row on journal_changes (row_key, table_name, number);

                create function journal_kept() returns trigger language plpgsql security definer set search_path = public, pg_temp set timezone = 'UTC' as $$
                declare
                  step text := current_setting('lowfell.step', true);
                  keys text[] := string_to_array(tg_argv[0], ',');
                  ignored text[] := string_to_array(coalesce(tg_argv[1], ''), ',');
                  was jsonb; now jsonb; whole jsonb; kept jsonb;
                begin
                  if step is null or step = '' then return null; end if;
                  if tg_op <> 'INSERT' then was := to_jsonb(old) - ignored; end if;
                  if tg_op <> 'DELETE' then now := to_jsonb(new) - ignored; end if;
                  whole := coalesce(now, was);
                  select jsonb_object_agg(k, whole -> k) into kept from unnest(keys) k;
                  if tg_op = 'UPDATE' then
                    select jsonb_object_agg(k, v), jsonb_object_agg(k, now -> k) into was, now from jsonb_each(was) e(k, v) where now -> k is distinct from v;
                    if now is null then return null; end if;
                  end if;
                  insert into journal_changes (step_id, table_name, row_key, before, after, xid)
                  values (nullif(step, 'turn')::uuid, tg_table_name, kept, was, now, pg_current_xact_id()::text::bigint & 4294967295);
                  return null;
                end $$;

                create trigger journal after update on workshops for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on sets for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on designs for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on zones for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on zone_touches for each row execute function journal_kept('first_zone_id,second_zone_id');
                create trigger journal after insert or update or delete on pieces for each row execute function journal_kept('id');
                create trigger journal after insert or update on treatments for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on version_names for each row execute function journal_kept('treatment_id,number');
                create trigger journal after insert or update or delete on accepted_findings for each row execute function journal_kept('id');
                create trigger journal after update on materials for each row execute function journal_kept('id', 'stock_ml,hiding_factor,tint_factor,looks');
                create trigger journal after update of label, note on pots for each row execute function journal_kept('id', 'vessel,life_began_at,good_until,changed_at,filling,filled_ml,newest_event_id,last_out_event_id');

                create function journal_holds(here jsonb, those jsonb) returns boolean language sql immutable as $$
                  select not exists (select from jsonb_each(those) e(k, v) where here -> k is distinct from v)
                $$;

                create function journal_lines(treatment uuid, number int) returns table (line_id uuid, layer_id uuid, "position" int) language sql stable as $$
                  select l.line_id, r.layer_id, r.position from revision_layers r join layers l on l.id = r.layer_id where r.treatment_id = treatment and r.revision = number
                $$;

                -- The layers of a treatment as it is here, with what led from one revision to another done to them; null where the same layer
                -- was changed otherwise since.
                create function journal_merged(treatment uuid, ours int, wanted int, here int) returns uuid[] language plpgsql stable as $$
                declare moves boolean; result uuid[];
                begin
                  if exists (
                    select from journal_lines(treatment, ours) o full join journal_lines(treatment, wanted) w using (line_id) full join journal_lines(treatment, here) h using (line_id)
                    where o.layer_id is distinct from w.layer_id and h.layer_id is distinct from o.layer_id and h.layer_id is distinct from w.layer_id) then return null; end if;
                  select array_agg(line_id order by o.position) is distinct from array_agg(line_id order by w.position)
                    from journal_lines(treatment, ours) o join journal_lines(treatment, wanted) w using (line_id) into moves;
                  if moves and (select array_agg(line_id order by o.position) is distinct from array_agg(line_id order by h.position)
                    from journal_lines(treatment, ours) o join journal_lines(treatment, here) h using (line_id)) then return null; end if;
                  with lead as (select * from journal_lines(treatment, case when moves then wanted else here end)),
                    other as (select * from journal_lines(treatment, case when moves then here else wanted end)),
                    kept as (
                      select line_id, case when o.layer_id is distinct from w.layer_id then w.layer_id else h.layer_id end as layer_id
                      from journal_lines(treatment, ours) o full join journal_lines(treatment, wanted) w using (line_id) full join journal_lines(treatment, here) h using (line_id))
                  select coalesce(array_agg(k.layer_id order by coalesce(l.position,
                      (select max(before.position) from lead before join other below using (line_id) where below.position < r.position) + 0.5, -1), r.position), '{}')
                    from kept k left join lead l using (line_id) left join other r using (line_id) where k.layer_id is not null into result;
                  return result;
                end $$;

                -- Turns a step back, or forth again: each row it changed becomes what it was, as long as nothing else has changed it since.
                -- Layers are never taken out of a treatment's history: what was is its newest revision once more.
                create function journal_turn(turned uuid, back boolean, who text) returns text[] language plpgsql security definer set search_path = public, pg_temp set timezone = 'UTC' as $$
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
                      if here is not null then perform journal_touched(c); end if;
                      execute format('insert into %1$I select * from jsonb_populate_record(null::%1$I, $1)', c.table_name) using wanted;
                    elsif wanted is null then
                      if here is null then continue; end if;
                      if c.table_name = 'treatments' then
                        update treatments set put_away_at = now() where treatments.id = (c.row_key ->> 'id')::uuid;
                        continue;
                      end if;
                      if not journal_holds(here, ours) then perform journal_touched(c); end if;
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

                -- Forgets steps older than this, but for the last so many of each workshop; the number of those that went.
                create function journal_pruned(before timestamptz, kept int) returns int language plpgsql security definer set search_path = public, pg_temp as $$
                declare gone int;
                begin
                  with old as (delete from journal_steps where id in (
                      select id from (select id, at, row_number() over (partition by workshop_id order by sequence desc) as place from journal_steps) s where place > kept and at < before) returning id)
                    delete from journal_changes where step_id in (select id from old);
                  get diagnostics gone = row_count;
                  delete from journal_changes where step_id is null and number < (select min(number) from journal_changes where step_id is not null);
                  return gone;
                end $$;

                create function journal_touched(c journal_changes) returns void language plpgsql as $$
                declare later text;
                begin
                  select s.words into later from journal_changes l join journal_steps s on s.id = l.step_id
                  where l.row_key = c.row_key and l.table_name = c.table_name and l.number > c.number and l.step_id is distinct from c.step_id and s.undone_at is null order by l.number desc limit 1;
                  raise exception using errcode = 'LF409', message = 'The same was changed since' || coalesce(': ' || later, '') || '.', hint = 'It stays as it is now. Undo the later change first, or change it by hand.';
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
