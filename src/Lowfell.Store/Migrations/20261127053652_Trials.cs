using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127053652_Trials")]
    public partial class Trials : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "trials",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    set_id = table.Column<Guid>(type: "uuid", nullable: false),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    tile_width_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    tile_height_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    round = table.Column<bool>(type: "boolean", nullable: false),
                    body = table.Column<string>(type: "jsonb", nullable: false),
                    chosen = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    put_away_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_trials", x => x.id);
                    table.CheckConstraint("ck_trials_tile", "tile_width_mm between 15 and 300 and tile_height_mm between 15 and 300");
                    table.ForeignKey(
                        name: "fk_trials_sets_set_id",
                        column: x => x.set_id,
                        principalTable: "sets",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_trials_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_trials_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "trial_looks",
                columns: table => new
                {
                    trial_id = table.Column<Guid>(type: "uuid", nullable: false),
                    cell = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    position = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    observed = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_trial_looks", x => new { x.trial_id, x.cell, x.position });
                    table.CheckConstraint("ck_trial_looks_observed", "observed ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_trial_looks_position", "position in ('raised', 'field', 'recess')");
                    table.ForeignKey(
                        name: "fk_trial_looks_trials_trial_id",
                        column: x => x.trial_id,
                        principalTable: "trials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_trials_set_id",
                table: "trials",
                column: "set_id");

            migrationBuilder.CreateIndex(
                name: "ix_trials_workshop_id",
                table: "trials",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_trials_zone_id",
                table: "trials",
                column: "zone_id");

            // Trials are undone like the plan.
            migrationBuilder.Sql("""
                create trigger journal after insert or update or delete on trials for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on trial_looks for each row execute function journal_kept('trial_id,cell,position');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
