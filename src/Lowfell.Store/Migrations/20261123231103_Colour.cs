using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    public partial class Colour : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "target_colour",
                table: "zones",
                type: "character varying(7)",
                maxLength: 7,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "target_position",
                table: "zones",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "hiding_factor",
                table: "materials",
                type: "numeric(16,12)",
                precision: 16,
                scale: 12,
                nullable: false,
                defaultValue: 1m);

            migrationBuilder.AddColumn<decimal>(
                name: "tint_factor",
                table: "materials",
                type: "numeric(16,12)",
                precision: 16,
                scale: 12,
                nullable: false,
                defaultValue: 1m);

            migrationBuilder.CreateTable(
                name: "calibrations",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    place = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    position = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    observed = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: false),
                    predicted_before = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: false),
                    predicted_after = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: false),
                    hiding_step = table.Column<decimal>(type: "numeric(16,12)", precision: 16, scale: 12, nullable: false),
                    tint_step = table.Column<decimal>(type: "numeric(16,12)", precision: 16, scale: 12, nullable: false),
                    taken_back_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calibrations", x => x.id);
                    table.CheckConstraint("ck_calibrations_observed", "observed ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_calibrations_position", "position in ('raised', 'field', 'recess')");
                    table.CheckConstraint("ck_calibrations_predicted_after", "predicted_after ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_calibrations_predicted_before", "predicted_before ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_calibrations_steps", "hiding_step between 0.25 and 4 and tint_step between 0.25 and 4");
                    table.ForeignKey(
                        name: "fk_calibrations_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_target",
                table: "zones",
                sql: "(target_colour is null) = (target_position is null) and target_colour ~ '^#[0-9a-f]{6}$'");

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_target_position",
                table: "zones",
                sql: "target_position in ('raised', 'field', 'recess')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_strength",
                table: "materials",
                sql: "hiding_factor between 0.5 and 2 and tint_factor between 0.5 and 2");

            migrationBuilder.CreateIndex(
                name: "ix_calibrations_material_id_at",
                table: "calibrations",
                columns: new[] { "material_id", "at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "calibrations");

            migrationBuilder.DropCheckConstraint(
                name: "ck_zones_target",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_zones_target_position",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_strength",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "target_colour",
                table: "zones");

            migrationBuilder.DropColumn(
                name: "target_position",
                table: "zones");

            migrationBuilder.DropColumn(
                name: "hiding_factor",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "tint_factor",
                table: "materials");
        }
    }
}
