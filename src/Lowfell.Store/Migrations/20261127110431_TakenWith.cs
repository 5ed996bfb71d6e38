using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127110431_TakenWith")]
    public partial class TakenWith : PastMigration
    {
        private static readonly (string Table, string Reference)[] TakenAlong =
        [
            ("accepted_findings", "fk_accepted_findings_zones_zone_id"), ("zone_touches", "fk_zone_touches_zones_first_zone_id"), ("zone_touches", "fk_zone_touches_zones_second_zone_id"),
            ("left_out_layers", "fk_left_out_layers_treatments_treatment_id"), ("recipe_parts", "fk_recipe_parts_recipes_recipe_id"),
            ("trials", "fk_trials_designs_design_id"), ("trials", "fk_trials_zones_zone_id"), ("trial_looks", "fk_trial_looks_trials_trial_id"),
            ("base_plans", "fk_base_plans_designs_design_id"), ("marks_done", "fk_marks_done_pieces_piece_id"), ("marks_done", "fk_marks_done_zones_zone_id"),
        ];

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // What goes with a row, as a tray with its design, is kept by the journal after that row: turned back, it stands before what it refers to. So
            // these references are looked at when all of a step is turned.
            foreach (var (table, reference) in TakenAlong)
                migrationBuilder.Sql($"alter table {table} alter constraint {reference} deferrable initially immediate;");
            migrationBuilder.Sql("""
                alter function journal_turn(uuid, boolean, text) rename to journal_turned;
                create function journal_turn(turned uuid, back boolean, who text) returns text[] language plpgsql security definer set search_path = public, pg_temp as $$
                declare tables text[];
                begin
                  set constraints all deferred;
                  tables := journal_turned(turned, back, who);
                  set constraints all immediate;
                  return tables;
                exception when foreign_key_violation then
                  raise exception using errcode = 'LF409', message = 'Something that came since rests on it.', hint = 'Undo that first, or put it away instead.';
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
