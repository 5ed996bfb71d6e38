using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    public partial class OrderRules : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_region",
                table: "layers");

            migrationBuilder.AddColumn<bool>(
                name: "cut_edge",
                table: "zones",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "lustre",
                table: "materials",
                type: "character varying(40)",
                maxLength: 40,
                nullable: false,
                defaultValue: "plain");

            migrationBuilder.AddColumn<decimal>(
                name: "most_thinner_share",
                table: "materials",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "mark_mm",
                table: "layers",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "variation_seed",
                table: "layers",
                type: "integer",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "accepted_findings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    rule = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: false),
                    facts = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    why = table.Column<string>(type: "character varying(2000)", maxLength: 2000, nullable: false),
                    reason = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    accepted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    taken_back_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_accepted_findings", x => x.id);
                    table.CheckConstraint("ck_accepted_findings_reason", "length(btrim(reason)) > 0");
                    table.CheckConstraint("ck_accepted_findings_taken_back", "taken_back_at >= accepted_at");
                    table.ForeignKey(
                        name: "fk_accepted_findings_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_lustre",
                table: "materials",
                sql: "lustre in ('plain', 'metal', 'glass', 'glow')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_thinner_share",
                table: "materials",
                sql: "most_thinner_share >= 0 and most_thinner_share < 1");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_mark",
                table: "layers",
                sql: "mark_mm > 0 and mark_mm <= 200");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_region",
                table: "layers",
                sql: "region in ('all', 'raised', 'recess', 'upward', 'lower third', 'edges', 'spots', 'within rim')");

            migrationBuilder.CreateIndex(
                name: "ix_accepted_findings_zone_id_rule_layer_id_facts",
                table: "accepted_findings",
                columns: new[] { "zone_id", "rule", "layer_id", "facts" },
                unique: true,
                filter: "taken_back_at is null");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "accepted_findings");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_lustre",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_thinner_share",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_mark",
                table: "layers");

            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_region",
                table: "layers");

            migrationBuilder.DropColumn(
                name: "cut_edge",
                table: "zones");

            migrationBuilder.DropColumn(
                name: "lustre",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "most_thinner_share",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "mark_mm",
                table: "layers");

            migrationBuilder.DropColumn(
                name: "variation_seed",
                table: "layers");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_region",
                table: "layers",
                sql: "region in ('all', 'raised', 'recess', 'upward', 'lower third', 'edges', 'spots')");
        }
    }
}
