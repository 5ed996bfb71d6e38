using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261125091117_Stream")]
    public partial class Stream : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_layers_treatments_treatment_id",
                table: "layers");

            migrationBuilder.DropForeignKey(
                name: "fk_pot_contents_pots_pot_id",
                table: "pot_contents");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_materials_material_id",
                table: "stock_moves");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_pot_events_pot_event_id",
                table: "stock_moves");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_stock_moves_undoes_id",
                table: "stock_moves");

            migrationBuilder.DropIndex(
                name: "ix_materials_workshop_id_maker_name",
                table: "materials");

            migrationBuilder.DropIndex(
                name: "ix_layers_treatment_id_position",
                table: "layers");

            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_position",
                table: "layers");

            migrationBuilder.RenameColumn(
                name: "pot_event_id",
                table: "stock_moves",
                newName: "work_event_id");

            migrationBuilder.RenameIndex(
                name: "ix_stock_moves_pot_event_id",
                table: "stock_moves",
                newName: "ix_stock_moves_work_event_id");

            migrationBuilder.AddColumn<byte[]>(
                name: "body_hash",
                table: "write_receipts",
                type: "bytea",
                nullable: false,
                defaultValue: new byte[0]);

            migrationBuilder.AddColumn<string>(
                name: "told",
                table: "write_receipts",
                type: "character varying(2000)",
                maxLength: 2000,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "revision",
                table: "treatments",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<decimal>(
                name: "filled_ml",
                table: "pots",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: false,
                defaultValue: 0m);

            migrationBuilder.AddColumn<int>(
                name: "filling",
                table: "pots",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<Guid>(
                name: "last_out_event_id",
                table: "pots",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "newest_event_id",
                table: "pots",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "put_away_at",
                table: "materials",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "line_id",
                table: "layers",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddUniqueConstraint(
                name: "ak_layers_treatment_id_id",
                table: "layers",
                columns: new[] { "treatment_id", "id" });

            migrationBuilder.CreateTable(
                name: "blobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    type = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_blobs", x => x.id);
                    table.CheckConstraint("ck_blobs_size", "octet_length(bytes) <= 33554432");
                    table.ForeignKey(
                        name: "fk_blobs_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "slice_versions",
                columns: table => new
                {
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    slice = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    version = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_slice_versions", x => new { x.workshop_id, x.slice });
                    table.CheckConstraint("ck_slice_versions_slice", "slice in ('plan', 'shelf', 'stock', 'work')");
                    table.ForeignKey(
                        name: "fk_slice_versions_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "spent_writes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_spent_writes", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "treatment_revisions",
                columns: table => new
                {
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    stored_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    actor = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_treatment_revisions", x => new { x.treatment_id, x.number });
                    table.CheckConstraint("ck_treatment_revisions_number", "number > 0");
                    table.ForeignKey(
                        name: "fk_treatment_revisions_treatments_treatment_id",
                        column: x => x.treatment_id,
                        principalTable: "treatments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "work_events",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    sequence = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    actor = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    device = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    told_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    received_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    note = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    pot_id = table.Column<Guid>(type: "uuid", nullable: true),
                    other_pot_id = table.Column<Guid>(type: "uuid", nullable: true),
                    twin_id = table.Column<Guid>(type: "uuid", nullable: true),
                    undoes_id = table.Column<Guid>(type: "uuid", nullable: true),
                    before_id = table.Column<Guid>(type: "uuid", nullable: true),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: true),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: true),
                    line_id = table.Column<Guid>(type: "uuid", nullable: true),
                    filling = table.Column<int>(type: "integer", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_work_events", x => x.id);
                    table.CheckConstraint("ck_work_events_given", "(kind = 'given') = (zone_id is not null) and (zone_id is null) = (line_id is null)");
                    table.CheckConstraint("ck_work_events_kind", "kind in ('made', 'topped up', 'joined', 'poured out', 'split off', 'given', 'thrown away', 'corrected', 'moved', 'taken back')");
                    table.CheckConstraint("ck_work_events_other", "other_pot_id is null or other_pot_id <> pot_id");
                    table.CheckConstraint("ck_work_events_undoes", "(kind = 'taken back') = (undoes_id is not null)");
                    table.ForeignKey(
                        name: "fk_work_events_layers_layer_id",
                        column: x => x.layer_id,
                        principalTable: "layers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_pots_other_pot_id",
                        column: x => x.other_pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_pots_pot_id",
                        column: x => x.pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_work_events_before_id",
                        column: x => x.before_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_work_events_undoes_id",
                        column: x => x.undoes_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_events_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "jobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    subject_id = table.Column<Guid>(type: "uuid", nullable: false),
                    state = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    steps = table.Column<int>(type: "integer", nullable: false),
                    all_steps = table.Column<int>(type: "integer", nullable: false),
                    asked_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    ended_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    blob_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_jobs", x => x.id);
                    table.CheckConstraint("ck_jobs_state", "state in ('waiting', 'running', 'done', 'failed', 'cancelled')");
                    table.CheckConstraint("ck_jobs_steps", "steps >= 0 and all_steps >= steps");
                    table.ForeignKey(
                        name: "fk_jobs_blobs_blob_id",
                        column: x => x.blob_id,
                        principalTable: "blobs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "fk_jobs_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "revision_layers",
                columns: table => new
                {
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_revision_layers", x => new { x.treatment_id, x.revision, x.position });
                    table.CheckConstraint("ck_revision_layers_position", "position >= 0 and position < 100");
                    table.ForeignKey(
                        name: "fk_revision_layers_layers_treatment_id_layer_id",
                        columns: x => new { x.treatment_id, x.layer_id },
                        principalTable: "layers",
                        principalColumns: new[] { "treatment_id", "id" },
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revision_layers_treatment_revisions_treatment_id_revision",
                        columns: x => new { x.treatment_id, x.revision },
                        principalTable: "treatment_revisions",
                        principalColumns: new[] { "treatment_id", "number" },
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "done_layers",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: false),
                    pot_id = table.Column<Guid>(type: "uuid", nullable: true),
                    filling = table.Column<int>(type: "integer", nullable: true),
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    sequence = table.Column<long>(type: "bigint", nullable: false),
                    times = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_done_layers", x => x.id);
                    table.CheckConstraint("ck_done_layers_times", "times > 0");
                    table.ForeignKey(
                        name: "fk_done_layers_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_done_layers_pots_pot_id",
                        column: x => x.pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_done_layers_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_done_layers_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "work_amounts",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    drops = table.Column<int>(type: "integer", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_work_amounts", x => new { x.event_id, x.material_id });
                    table.CheckConstraint("ck_work_amounts_drops", "drops > 0");
                    table.CheckConstraint("ck_work_amounts_ml", "ml <> 0");
                    table.ForeignKey(
                        name: "fk_work_amounts_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_amounts_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "work_pieces",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_work_pieces", x => new { x.event_id, x.piece_id });
                    table.ForeignKey(
                        name: "fk_work_pieces_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_work_pieces_work_events_event_id",
                        column: x => x.event_id,
                        principalTable: "work_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.Sql("""
                alter table layers drop constraint uq_layers_position;
                update layers set line_id = id;
                alter table layers alter column line_id drop default;

                -- What every treatment is now becomes its first revision.
                insert into treatment_revisions (treatment_id, number, stored_at, actor) select id, 1, changed_at, 'before revisions' from treatments;
                update treatments set revision = 1;
                insert into revision_layers (treatment_id, revision, position, layer_id) select treatment_id, 1, position, id from layers;

                -- Receipts of before held whole answers; their ids stay spent.
                insert into spent_writes (id) select id from write_receipts;
                delete from write_receipts;

                -- Pot events become the stream of work. Which event stood before each, and which filling it found, is told once, pot by pot.
                create temp table moved_events on commit drop as select id, pot_id, at, kind, undoes_id, null::uuid as before_id, 0 as filling from pot_events;
                create unique index on moved_events (id);
                do $$
                declare
                  e record;
                  pot uuid;
                  newest uuid;
                  last_out uuid;
                  n int;
                begin
                  for e in
                    select m.*, coalesce((select sum(a.ml) from pot_event_amounts a where a.event_id = m.id), 0) as ml
                    from moved_events m order by m.pot_id, m.at, m.kind = 'taken back', m.id
                  loop
                    if pot is distinct from e.pot_id then
                      pot := e.pot_id; newest := null; last_out := null; n := 0;
                    end if;
                    if (e.ml > 0) = (e.kind <> 'taken back') and e.ml <> 0 then
                      n := n + 1;
                    end if;
                    update moved_events set before_id = newest, filling = n where id = e.id;
                    if e.kind = 'taken back' then
                      newest := (select before_id from moved_events where id = e.undoes_id);
                    else
                      newest := e.id;
                      if e.ml < 0 then
                        last_out := e.id;
                      end if;
                    end if;
                    update pots set filling = n, newest_event_id = newest, last_out_event_id = last_out where id = pot;
                  end loop;
                end $$;
                update pots p set filled_ml = coalesce((
                  select sum(a.ml) from pot_events e join pot_event_amounts a on a.event_id = e.id
                  where e.pot_id = p.id and e.kind in ('made', 'topped up', 'joined', 'split off') and not exists (select from pot_events u where u.undoes_id = e.id)), 0);
                insert into work_events (id, workshop_id, actor, device, kind, told_at, received_at, note, pot_id, other_pot_id, twin_id, undoes_id, before_id, zone_id, layer_id, line_id, filling)
                select e.id, p.workshop_id, 'before the stream', 'before the stream', e.kind, e.at, e.at, e.note, e.pot_id, e.other_pot_id, e.twin_id, e.undoes_id, m.before_id, e.zone_id,
                  (select l.id from layers l where l.id = e.layer_id), case when e.zone_id is not null then coalesce(e.layer_id, gen_random_uuid()) end, case when e.kind = 'given' then m.filling end
                from pot_events e join moved_events m on m.id = e.id join pots p on p.id = e.pot_id order by e.at, e.kind = 'taken back', e.id;
                insert into work_amounts (event_id, material_id, ml, drops) select event_id, material_id, ml, drops from pot_event_amounts;
                insert into work_pieces (event_id, piece_id) select event_id, piece_id from pot_event_pieces;
                insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                select e.zone_id, e.line_id, p.piece_id, e.pot_id, e.filling, (array_agg(e.id order by e.sequence))[1], min(e.sequence), count(*)
                from work_events e join work_pieces p on p.event_id = e.id
                where e.kind = 'given' and not exists (select from work_events u where u.undoes_id = e.id) group by 1, 2, 3, 4, 5;
                """);

            migrationBuilder.DropTable(
                name: "pot_event_amounts");

            migrationBuilder.DropTable(
                name: "pot_event_pieces");

            migrationBuilder.DropTable(
                name: "pot_events");

            migrationBuilder.DropColumn(
                name: "body",
                table: "write_receipts");

            migrationBuilder.DropColumn(
                name: "path",
                table: "write_receipts");

            migrationBuilder.DropColumn(
                name: "status",
                table: "write_receipts");

            migrationBuilder.DropColumn(
                name: "position",
                table: "layers");

            migrationBuilder.CreateIndex(
                name: "ix_write_receipts_at",
                table: "write_receipts",
                column: "at");

            migrationBuilder.AddCheckConstraint(
                name: "ck_write_receipts_hash",
                table: "write_receipts",
                sql: "octet_length(body_hash) = 32");

            migrationBuilder.CreateIndex(
                name: "ix_pots_workshop_id_made_at",
                table: "pots",
                columns: new[] { "workshop_id", "made_at" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_pots_filled",
                table: "pots",
                sql: "filled_ml >= 0 and filling >= 0");

            migrationBuilder.CreateIndex(
                name: "ix_materials_workshop_id_maker_name",
                table: "materials",
                columns: new[] { "workshop_id", "maker", "name" },
                unique: true,
                filter: "put_away_at is null");

            migrationBuilder.CreateIndex(
                name: "ix_layers_line_id",
                table: "layers",
                column: "line_id");

            migrationBuilder.CreateIndex(
                name: "ix_blobs_at",
                table: "blobs",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_blobs_workshop_id",
                table: "blobs",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_done_layers_event_id",
                table: "done_layers",
                column: "event_id");

            migrationBuilder.CreateIndex(
                name: "ix_done_layers_piece_id",
                table: "done_layers",
                column: "piece_id");

            migrationBuilder.CreateIndex(
                name: "ix_done_layers_pot_id",
                table: "done_layers",
                column: "pot_id");

            migrationBuilder.CreateIndex(
                name: "ix_done_layers_zone_id_line_id_piece_id_pot_id_filling",
                table: "done_layers",
                columns: new[] { "zone_id", "line_id", "piece_id", "pot_id", "filling" },
                unique: true)
                .Annotation("Npgsql:NullsDistinct", false);

            migrationBuilder.CreateIndex(
                name: "ix_jobs_blob_id",
                table: "jobs",
                column: "blob_id");

            migrationBuilder.CreateIndex(
                name: "ix_jobs_state_asked_at",
                table: "jobs",
                columns: new[] { "state", "asked_at" });

            migrationBuilder.CreateIndex(
                name: "ix_jobs_workshop_id",
                table: "jobs",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_revision_layers_layer_id",
                table: "revision_layers",
                column: "layer_id");

            migrationBuilder.CreateIndex(
                name: "ix_revision_layers_treatment_id_layer_id",
                table: "revision_layers",
                columns: new[] { "treatment_id", "layer_id" });

            migrationBuilder.CreateIndex(
                name: "ix_revision_layers_treatment_id_revision_layer_id",
                table: "revision_layers",
                columns: new[] { "treatment_id", "revision", "layer_id" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_work_amounts_material_id",
                table: "work_amounts",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_events_before_id",
                table: "work_events",
                column: "before_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_events_layer_id",
                table: "work_events",
                column: "layer_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_events_other_pot_id",
                table: "work_events",
                column: "other_pot_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_events_pot_id_sequence",
                table: "work_events",
                columns: new[] { "pot_id", "sequence" });

            migrationBuilder.CreateIndex(
                name: "ix_work_events_sequence",
                table: "work_events",
                column: "sequence",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_work_events_undoes_id",
                table: "work_events",
                column: "undoes_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_work_events_workshop_id",
                table: "work_events",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_events_zone_id",
                table: "work_events",
                column: "zone_id");

            migrationBuilder.CreateIndex(
                name: "ix_work_pieces_piece_id",
                table: "work_pieces",
                column: "piece_id");

            migrationBuilder.AddForeignKey(
                name: "fk_layers_treatments_treatment_id",
                table: "layers",
                column: "treatment_id",
                principalTable: "treatments",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_pot_contents_pots_pot_id",
                table: "pot_contents",
                column: "pot_id",
                principalTable: "pots",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_materials_material_id",
                table: "stock_moves",
                column: "material_id",
                principalTable: "materials",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_stock_moves_undoes_id",
                table: "stock_moves",
                column: "undoes_id",
                principalTable: "stock_moves",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_work_events_work_event_id",
                table: "stock_moves",
                column: "work_event_id",
                principalTable: "work_events",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            // Two that refer to each other come together: these are looked at when everything is in.
            migrationBuilder.Sql("""
                alter table treatments add constraint fk_treatments_newest_revision foreign key (id, revision) references treatment_revisions (treatment_id, number) deferrable initially deferred;
                alter table pots add constraint fk_pots_newest_event foreign key (newest_event_id) references work_events (id) deferrable initially deferred;
                alter table pots add constraint fk_pots_last_out_event foreign key (last_out_event_id) references work_events (id) deferrable initially deferred;
                """);

            // What is in a pot and what is done are what the stream comes to, and the database sees to it: with the rights of the owner,
            // since whoever serves may only add to the stream.
            migrationBuilder.Sql("""
                create or replace function pot_filled() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                declare pot uuid := (select pot_id from work_events where id = new.event_id);
                begin
                  update pot_contents set ml = ml + new.ml where pot_id = pot and material_id = new.material_id;
                  if not found and pot is not null then
                    insert into pot_contents (pot_id, material_id, ml) values (pot, new.material_id, new.ml);
                  end if;
                  return null;
                end $$;
                create trigger pot_filled after insert on work_amounts for each row execute function pot_filled();

                create function work_laid() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  insert into done_layers (zone_id, line_id, piece_id, pot_id, filling, event_id, sequence, times)
                  select e.zone_id, e.line_id, new.piece_id, e.pot_id, e.filling, e.id, e.sequence, 1 from work_events e where e.id = new.event_id and e.kind = 'given'
                  on conflict (zone_id, line_id, piece_id, pot_id, filling) do update set times = done_layers.times + 1;
                  return null;
                end $$;
                create trigger work_laid after insert on work_pieces for each row execute function work_laid();

                create function work_taken_back() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  delete from done_layers d using work_events e, work_pieces p
                  where e.id = new.undoes_id and e.kind = 'given' and p.event_id = e.id and (d.zone_id, d.line_id, d.piece_id) = (e.zone_id, e.line_id, p.piece_id)
                    and (d.pot_id, d.filling) is not distinct from (e.pot_id, e.filling) and d.times = 1;
                  update done_layers d set times = d.times - 1 from work_events e, work_pieces p
                  where e.id = new.undoes_id and e.kind = 'given' and p.event_id = e.id and (d.zone_id, d.line_id, d.piece_id) = (e.zone_id, e.line_id, p.piece_id)
                    and (d.pot_id, d.filling) is not distinct from (e.pot_id, e.filling);
                  return null;
                end $$;
                create trigger work_taken_back after insert on work_events for each row when (new.undoes_id is not null) execute function work_taken_back();

                create or replace function stock_moved() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
                begin
                  if pg_trigger_depth() = 1 then
                    update materials set stock_ml = stock_ml + new.ml where id = new.material_id;
                  end if;
                  return null;
                end $$;
                alter function stock_typed() security definer set search_path = public, pg_temp;

                drop function pot_event_kept cascade;
                create function kept() returns trigger language plpgsql as $$
                begin
                  raise exception '% is only ever added to', tg_table_name using errcode = 'restrict_violation';
                end $$;
                create trigger kept before delete on pots for each row execute function kept();
                create trigger kept before update or delete on work_events for each row execute function kept();
                create trigger kept before update or delete on work_amounts for each row execute function kept();
                create trigger kept before update or delete on work_pieces for each row execute function kept();
                create trigger kept before update or delete on layers for each row execute function kept();
                create trigger kept before update or delete on treatment_revisions for each row execute function kept();
                create trigger kept before update or delete on revision_layers for each row execute function kept();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
