using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261125022607_Bench")]
    public partial class Bench : PastMigration
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

            migrationBuilder.AddColumn<string>(
                name: "house_rules_bare_percent",
                table: "workshops",
                type: "character varying(40)",
                maxLength: 40,
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

            migrationBuilder.AddColumn<decimal>(
                name: "hiding_factor",
                table: "materials",
                type: "numeric(16,12)",
                precision: 16,
                scale: 12,
                nullable: false,
                defaultValue: 1m);

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
                name: "tint_factor",
                table: "materials",
                type: "numeric(16,12)",
                precision: 16,
                scale: 12,
                nullable: false,
                defaultValue: 1m);

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

            migrationBuilder.CreateTable(
                name: "stock_moves",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    reason = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    undoes_id = table.Column<Guid>(type: "uuid", nullable: true),
                    pot_event_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_moves", x => x.id);
                    table.CheckConstraint("ck_stock_moves_kind", "kind in ('opening', 'bought', 'used', 'thrown away', 'lent', 'returned', 'corrected')");
                    table.CheckConstraint("ck_stock_moves_ml", "ml <> 0");
                    table.CheckConstraint("ck_stock_moves_sign", "case kind when 'bought' then ml > 0 when 'returned' then ml > 0 when 'opening' then ml > 0 when 'corrected' then true else ml < 0 end");
                    table.ForeignKey(
                        name: "fk_stock_moves_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_stock_moves_pot_events_pot_event_id",
                        column: x => x.pot_event_id,
                        principalTable: "pot_events",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_stock_moves_stock_moves_undoes_id",
                        column: x => x.undoes_id,
                        principalTable: "stock_moves",
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
                name: "ck_workshops_house_rules_bare_percent",
                table: "workshops",
                sql: "house_rules_bare_percent in ('of the mix', 'added')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_density",
                table: "materials",
                sql: "density_g_per_ml between 0.3 and 8");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_drop",
                table: "materials",
                sql: "drop_ml between 0.005 and 0.5");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_lustre",
                table: "materials",
                sql: "lustre in ('plain', 'metal', 'glass', 'glow')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_strength",
                table: "materials",
                sql: "hiding_factor between 0.5 and 2 and tint_factor between 0.5 and 2");

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

            migrationBuilder.CreateIndex(
                name: "ix_calibrations_material_id_at",
                table: "calibrations",
                columns: new[] { "material_id", "at" });

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

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_material_id_at",
                table: "stock_moves",
                columns: new[] { "material_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_pot_event_id",
                table: "stock_moves",
                column: "pot_event_id");

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_undoes_id",
                table: "stock_moves",
                column: "undoes_id",
                unique: true);

            // What is there already is where the history begins.
            migrationBuilder.Sql("insert into stock_moves (id, material_id, kind, ml, reason, at) select gen_random_uuid(), id, 'opening', stock_ml, 'what was there', now() from materials where stock_ml > 0;");

            // Stock is the sum of its moves, and the database sees to it: a move changes the stock, a stock that is typed in writes a
            // move. Each trigger acts only on what came from outside, so that neither answers the other;
            // what is typed in by thousands, as a file is, is written down at once.
            migrationBuilder.Sql("""
                create function stock_moved() returns trigger language plpgsql as $$
                begin
                  if pg_trigger_depth() = 1 then
                    update materials set stock_ml = stock_ml + new.ml where id = new.material_id;
                  end if;
                  return null;
                end $$;
                create trigger stock_moved after insert on stock_moves for each row execute function stock_moved();

                create function stock_typed() returns trigger language plpgsql as $$
                begin
                  if pg_trigger_depth() = 1 then
                    if tg_op = 'INSERT' then
                      insert into stock_moves (id, material_id, kind, ml, reason, at)
                      select gen_random_uuid(), id, 'opening', stock_ml, 'typed in on the shelf', now() from typed where stock_ml <> 0;
                    else
                      insert into stock_moves (id, material_id, kind, ml, reason, at)
                      select gen_random_uuid(), typed.id, 'corrected', typed.stock_ml - was.stock_ml, 'typed in on the shelf', now()
                      from typed join was on was.id = typed.id where typed.stock_ml <> was.stock_ml;
                    end if;
                  end if;
                  return null;
                end $$;
                create trigger stock_opened after insert on materials referencing new table as typed for each statement execute function stock_typed();
                create trigger stock_typed after update on materials referencing old table as was new table as typed for each statement execute function stock_typed();

                create function stock_kept() returns trigger language plpgsql as $$
                begin
                  if tg_op = 'UPDATE' or pg_trigger_depth() = 1 then
                    raise exception 'stock moves are only ever added' using errcode = 'restrict_violation';
                  end if;
                  return old;
                end $$;
                create trigger stock_kept before update or delete on stock_moves for each row execute function stock_kept();
                """);

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
            migrationBuilder.Sql("drop function stock_typed cascade; drop function stock_moved cascade; drop function stock_kept cascade; drop function pot_filled cascade; drop function pot_contents_kept cascade; drop function pot_event_kept cascade;");

            migrationBuilder.DropTable(
                name: "accepted_findings");

            migrationBuilder.DropTable(
                name: "calibrations");

            migrationBuilder.DropTable(
                name: "pot_contents");

            migrationBuilder.DropTable(
                name: "pot_event_amounts");

            migrationBuilder.DropTable(
                name: "pot_event_pieces");

            migrationBuilder.DropTable(
                name: "stock_moves");

            migrationBuilder.DropTable(
                name: "pot_events");

            migrationBuilder.DropTable(
                name: "pots");

            migrationBuilder.DropCheckConstraint(
                name: "ck_zones_target",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_zones_target_position",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_workshops_house_rules_bare_percent",
                table: "workshops");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_density",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_drop",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_lustre",
                table: "materials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_strength",
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
                name: "target_colour",
                table: "zones");

            migrationBuilder.DropColumn(
                name: "target_position",
                table: "zones");

            migrationBuilder.DropColumn(
                name: "house_rules_bare_percent",
                table: "workshops");

            migrationBuilder.DropColumn(
                name: "density_g_per_ml",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "drop_ml",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "hiding_factor",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "lustre",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "most_thinner_share",
                table: "materials");

            migrationBuilder.DropColumn(
                name: "tint_factor",
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
