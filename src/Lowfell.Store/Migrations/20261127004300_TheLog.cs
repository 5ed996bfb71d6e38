using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127004300_TheLog")]
    public partial class TheLog : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events");

            migrationBuilder.DropCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events");

            migrationBuilder.CreateTable(
                name: "photos",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    set_id = table.Column<Guid>(type: "uuid", nullable: false),
                    event_id = table.Column<Guid>(type: "uuid", nullable: true),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: true),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: true),
                    words = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    taken_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    actor = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    width = table.Column<int>(type: "integer", nullable: false),
                    height = table.Column<int>(type: "integer", nullable: false),
                    blob_id = table.Column<Guid>(type: "uuid", nullable: false),
                    small_id = table.Column<Guid>(type: "uuid", nullable: false),
                    put_away_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_photos", x => x.id);
                    table.CheckConstraint("ck_photos_size", "width > 0 and height > 0");
                    table.ForeignKey(
                        name: "fk_photos_blobs_blob_id",
                        column: x => x.blob_id,
                        principalTable: "blobs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_blobs_small_id",
                        column: x => x.small_id,
                        principalTable: "blobs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_sets_set_id",
                        column: x => x.set_id,
                        principalTable: "sets",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_photos_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_given",
                table: "work_events",
                sql: "(zone_id is not null or kind not in ('given', 'carried over', 'begun', 'skipped', 'wiped', 'hot air', 'touched dry', 'accepted')) and (zone_id is null or kind in ('given', 'carried over', 'begun', 'paused', 'skipped', 'wiped', 'mishap', 'hot air', 'touched dry', 'noted', 'accepted')) and (kind <> 'carried over' or twin_id is not null) and (zone_id is null) = (line_id is null)");

            migrationBuilder.AddCheckConstraint(
                name: "ck_work_events_kind",
                table: "work_events",
                sql: "kind in ('made', 'topped up', 'joined', 'poured out', 'split off', 'given', 'thrown away', 'corrected', 'moved', 'carried over', 'begun', 'paused', 'skipped', 'wiped', 'mishap', 'hot air', 'touched dry', 'noted', 'accepted', 'taken back')");

            migrationBuilder.CreateIndex(
                name: "ix_photos_blob_id",
                table: "photos",
                column: "blob_id");

            migrationBuilder.CreateIndex(
                name: "ix_photos_event_id",
                table: "photos",
                column: "event_id");

            migrationBuilder.CreateIndex(
                name: "ix_photos_piece_id",
                table: "photos",
                column: "piece_id");

            migrationBuilder.CreateIndex(
                name: "ix_photos_set_id_taken_at",
                table: "photos",
                columns: new[] { "set_id", "taken_at" });

            migrationBuilder.CreateIndex(
                name: "ix_photos_small_id",
                table: "photos",
                column: "small_id");

            migrationBuilder.CreateIndex(
                name: "ix_photos_workshop_id",
                table: "photos",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_photos_zone_id",
                table: "photos",
                column: "zone_id");

            // Photographs are undone like the plan. What is looked for is found by words that begin as it does.
            migrationBuilder.Sql("""
                create trigger journal after update on photos for each row execute function journal_kept('id');
                create index ix_work_events_words on work_events using gin (to_tsvector('simple', note || ' ' || saved_by)) where note <> '' or saved_by <> '';
                create index ix_photos_words on photos using gin (to_tsvector('simple', words));
                create index ix_materials_words on materials using gin (to_tsvector('simple', name || ' ' || maker));
                create index ix_pots_words on pots using gin (to_tsvector('simple', label || ' ' || note));
                create index ix_treatments_words on treatments using gin (to_tsvector('simple', name));
                create index ix_work_events_at on work_events (workshop_id, at desc, sequence desc);
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
