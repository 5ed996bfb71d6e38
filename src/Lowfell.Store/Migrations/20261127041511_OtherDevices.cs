using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127041511_OtherDevices")]
    public partial class OtherDevices : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_slice_versions_slice",
                table: "slice_versions");

            migrationBuilder.CreateTable(
                name: "authorities",
                columns: table => new
                {
                    id = table.Column<short>(type: "smallint", nullable: false),
                    certificate = table.Column<byte[]>(type: "bytea", nullable: false),
                    key = table.Column<byte[]>(type: "bytea", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_authorities", x => x.id);
                    table.CheckConstraint("ck_authorities_one", "id = 1");
                });

            migrationBuilder.CreateTable(
                name: "doors",
                columns: table => new
                {
                    id = table.Column<short>(type: "smallint", nullable: false),
                    address = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    port = table.Column<int>(type: "integer", nullable: false),
                    opened_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_doors", x => x.id);
                    table.CheckConstraint("ck_doors_one", "id = 1 and port between 1 and 65535");
                });

            migrationBuilder.CreateTable(
                name: "paired_devices",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    role = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    token_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    paired_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    sent_away_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    trouble = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    trouble_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_paired_devices", x => x.id);
                    table.CheckConstraint("ck_paired_devices_role", "role in ('look', 'work', 'measure')");
                    table.CheckConstraint("ck_paired_devices_token_hash", "length(token_hash) = 32");
                    table.ForeignKey(
                        name: "fk_paired_devices_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pairing_keys",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    key_hash = table.Column<byte[]>(type: "bytea", nullable: false),
                    role = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    good_until = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    device_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pairing_keys", x => x.id);
                    table.CheckConstraint("ck_pairing_keys_good_until", "good_until > made_at and length(key_hash) = 32");
                    table.CheckConstraint("ck_pairing_keys_role", "role in ('look', 'work', 'measure')");
                    table.ForeignKey(
                        name: "fk_pairing_keys_paired_devices_device_id",
                        column: x => x.device_id,
                        principalTable: "paired_devices",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pairing_keys_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "readings",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    device_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    temperature_c = table.Column<double>(type: "double precision", nullable: true),
                    relative_humidity = table.Column<double>(type: "double precision", nullable: true),
                    grams = table.Column<double>(type: "double precision", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_readings", x => x.id);
                    table.CheckConstraint("ck_readings_one_thing", "(grams is null) = (temperature_c is not null) and (temperature_c is null) = (relative_humidity is null) and relative_humidity between 0 and 1 and temperature_c between -10 and 45 and abs(coalesce(grams, 0)) <= 5000");
                    table.ForeignKey(
                        name: "fk_readings_paired_devices_device_id",
                        column: x => x.device_id,
                        principalTable: "paired_devices",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_readings_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_slice_versions_slice",
                table: "slice_versions",
                sql: "slice in ('plan', 'shelf', 'stock', 'work', 'sessions', 'devices')");

            migrationBuilder.CreateIndex(
                name: "ix_paired_devices_token_hash",
                table: "paired_devices",
                column: "token_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_paired_devices_workshop_id",
                table: "paired_devices",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_pairing_keys_device_id",
                table: "pairing_keys",
                column: "device_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pairing_keys_key_hash",
                table: "pairing_keys",
                column: "key_hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pairing_keys_workshop_id",
                table: "pairing_keys",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_readings_device_id_at",
                table: "readings",
                columns: new[] { "device_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_readings_workshop_id_at",
                table: "readings",
                columns: new[] { "workshop_id", "at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
