using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126180633_Timetables")]
    public partial class Timetables : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_slice_versions_slice",
                table: "slice_versions");

            migrationBuilder.AddColumn<int>(
                name: "drying_places",
                table: "workshops",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "paces",
                table: "workshops",
                type: "jsonb",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.CreateTable(
                name: "calendar_addresses",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    secret_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    revoked_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_addresses", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_addresses_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "left_out_layers",
                columns: table => new
                {
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: false),
                    on_line_id = table.Column<Guid>(type: "uuid", nullable: true),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_left_out_layers", x => new { x.treatment_id, x.line_id });
                    table.ForeignKey(
                        name: "fk_left_out_layers_layers_layer_id",
                        column: x => x.layer_id,
                        principalTable: "layers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_left_out_layers_treatments_treatment_id",
                        column: x => x.treatment_id,
                        principalTable: "treatments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "timetables",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    why = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    plan = table.Column<string>(type: "jsonb", nullable: false),
                    inputs = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_timetables", x => x.id);
                    table.CheckConstraint("ck_timetables_number", "number > 0");
                    table.ForeignKey(
                        name: "fk_timetables_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_drying_places",
                table: "workshops",
                sql: "drying_places between 1 and 500");

            migrationBuilder.AddCheckConstraint(
                name: "ck_slice_versions_slice",
                table: "slice_versions",
                sql: "slice in ('plan', 'shelf', 'stock', 'work', 'sessions')");

            migrationBuilder.CreateIndex(
                name: "ix_calendar_addresses_secret_hash",
                table: "calendar_addresses",
                column: "secret_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendar_addresses_workshop_id",
                table: "calendar_addresses",
                column: "workshop_id",
                unique: true,
                filter: "revoked_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_left_out_layers_layer_id",
                table: "left_out_layers",
                column: "layer_id");

            migrationBuilder.CreateIndex(
                name: "ix_timetables_workshop_id_number",
                table: "timetables",
                columns: new[] { "workshop_id", "number" },
                unique: true);

            // A timetable that is taken over and a layer that is left out can be undone like anything else.
            migrationBuilder.Sql("""
                create trigger journal after insert or update or delete on timetables for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on left_out_layers for each row execute function journal_kept('treatment_id,line_id');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
