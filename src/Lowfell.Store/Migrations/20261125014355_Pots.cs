using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    public partial class Pots : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "pot_event_id",
                table: "stock_moves",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "density_g_per_ml",
                table: "materials",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "drop_ml",
                table: "materials",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "pots",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    label = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    vessel = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    recipe_key = table.Column<string>(type: "character varying(600)", maxLength: 600, nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    life_began_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    good_until = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    note = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    changed_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pots", x => x.id);
                    table.CheckConstraint("ck_pots_life", "life_began_at <= good_until");
                    table.CheckConstraint("ck_pots_vessel", "vessel in ('palette', 'wet palette', 'jar')");
                    table.ForeignKey(
                        name: "fk_pots_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "pot_contents",
                columns: table => new
                {
                    pot_id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pot_contents", x => new { x.pot_id, x.material_id });
                    table.CheckConstraint("ck_pot_contents_ml", "ml >= 0");
                    table.ForeignKey(
                        name: "fk_pot_contents_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pot_contents_pots_pot_id",
                        column: x => x.pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pot_events",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    pot_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    note = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    other_pot_id = table.Column<Guid>(type: "uuid", nullable: true),
                    twin_id = table.Column<Guid>(type: "uuid", nullable: true),
                    undoes_id = table.Column<Guid>(type: "uuid", nullable: true),
                    zone_id = table.Column<Guid>(type: "uuid", nullable: true),
                    layer_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pot_events", x => x.id);
                    table.CheckConstraint("ck_pot_events_given", "(kind = 'given') = (zone_id is not null)");
                    table.CheckConstraint("ck_pot_events_kind", "kind in ('made', 'topped up', 'joined', 'poured out', 'split off', 'given', 'thrown away', 'corrected', 'moved', 'taken back')");
                    table.CheckConstraint("ck_pot_events_other", "other_pot_id is null or other_pot_id <> pot_id");
                    table.CheckConstraint("ck_pot_events_undoes", "(kind = 'taken back') = (undoes_id is not null)");
                    table.ForeignKey(
                        name: "fk_pot_events_pot_events_undoes_id",
                        column: x => x.undoes_id,
                        principalTable: "pot_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pot_events_pots_other_pot_id",
                        column: x => x.other_pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pot_events_pots_pot_id",
                        column: x => x.pot_id,
                        principalTable: "pots",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_pot_events_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "pot_event_amounts",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    drops = table.Column<int>(type: "integer", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pot_event_amounts", x => new { x.event_id, x.material_id });
                    table.CheckConstraint("ck_pot_event_amounts_drops", "drops > 0");
                    table.CheckConstraint("ck_pot_event_amounts_ml", "ml <> 0");
                    table.ForeignKey(
                        name: "fk_pot_event_amounts_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pot_event_amounts_pot_events_event_id",
                        column: x => x.event_id,
                        principalTable: "pot_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pot_event_pieces",
                columns: table => new
                {
                    event_id = table.Column<Guid>(type: "uuid", nullable: false),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pot_event_pieces", x => new { x.event_id, x.piece_id });
                    table.ForeignKey(
                        name: "fk_pot_event_pieces_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pot_event_pieces_pot_events_event_id",
                        column: x => x.event_id,
                        principalTable: "pot_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_pot_event_id",
                table: "stock_moves",
                column: "pot_event_id");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_density",
                table: "materials",
                sql: "density_g_per_ml between 0.3 and 8");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_drop",
                table: "materials",
                sql: "drop_ml between 0.005 and 0.5");

            migrationBuilder.CreateIndex(
                name: "ix_pot_contents_material_id",
                table: "pot_contents",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_pot_event_amounts_material_id",
                table: "pot_event_amounts",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_pot_event_pieces_piece_id",
                table: "pot_event_pieces",
                column: "piece_id");

            migrationBuilder.CreateIndex(
                name: "ix_pot_events_other_pot_id",
                table: "pot_events",
                column: "other_pot_id");

            migrationBuilder.CreateIndex(
                name: "ix_pot_events_pot_id_at",
                table: "pot_events",
                columns: new[] { "pot_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_pot_events_undoes_id",
                table: "pot_events",
                column: "undoes_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pot_events_zone_id",
                table: "pot_events",
                column: "zone_id");

            migrationBuilder.CreateIndex(
                name: "ix_pots_workshop_id_label",
                table: "pots",
                columns: new[] { "workshop_id", "label" },
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_pot_events_pot_event_id",
                table: "stock_moves",
                column: "pot_event_id",
                principalTable: "pot_events",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            // What is in a pot is the sum of its events, and the database sees to it: amounts fill and empty it, nothing else does,
            // and what has happened is never changed. The row is looked for first, since a check sees a proposed row before a conflict.
            migrationBuilder.Sql("""
                create function pot_filled() returns trigger language plpgsql as $$
                declare pot uuid := (select pot_id from pot_events where id = new.event_id);
                begin
                  update pot_contents set ml = ml + new.ml where pot_id = pot and material_id = new.material_id;
                  if not found then
                    insert into pot_contents (pot_id, material_id, ml) values (pot, new.material_id, new.ml);
                  end if;
                  return null;
                end $$;
                create trigger pot_filled after insert on pot_event_amounts for each row execute function pot_filled();

                create function pot_contents_kept() returns trigger language plpgsql as $$
                begin
                  if pg_trigger_depth() = 1 then
                    raise exception 'a pot is filled and emptied by its events' using errcode = 'restrict_violation';
                  end if;
                  return case tg_op when 'DELETE' then old else new end;
                end $$;
                create trigger pot_contents_kept before insert or update or delete on pot_contents for each row execute function pot_contents_kept();

                create function pot_event_kept() returns trigger language plpgsql as $$
                begin
                  raise exception 'what happened to a pot is only ever added to' using errcode = 'restrict_violation';
                end $$;
                create trigger pot_kept before delete on pots for each row execute function pot_event_kept();
                create trigger pot_event_kept before update or delete on pot_events for each row execute function pot_event_kept();
                create trigger pot_event_kept before update or delete on pot_event_amounts for each row execute function pot_event_kept();
                create trigger pot_event_kept before update or delete on pot_event_pieces for each row execute function pot_event_kept();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop function pot_filled cascade; drop function pot_contents_kept cascade; drop function pot_event_kept cascade;");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_pot_events_pot_event_id",
                table: "stock_moves");

            migrationBuilder.DropTable(
                name: "pot_contents");

            migrationBuilder.DropTable(
                name: "pot_event_amounts");

            migrationBuilder.DropTable(
                name: "pot_event_pieces");

            migrationBuilder.DropTable(
                name: "pot_events");

            migrationBuilder.DropTable(
                name: "pots");

            migrationBuilder.DropIndex(
                name: "ix_stock_moves_pot_event_id",
                table: "stock_moves");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_density",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_drop",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "pot_event_id",
                table: "stock_moves");

            migrationBuilder.DropColumn(
                name: "density_g_per_ml",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "drop_ml",
                table: "materials");
        }
    }
}
