using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261123195621_First")]
    public partial class First : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "workshops",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    temperature_c = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    relative_humidity = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false),
                    house_rules_base_texture = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_dry_brush_cleaning = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_hot_air_on_wash = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_natural_sand = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_paint_on_frame = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_pigments = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_pin_wash_sheen = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_recess_colour = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_sand_glue = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    house_rules_solvent_products = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_workshops", x => x.id);
                    table.CheckConstraint("ck_workshops_house_rules_base_texture", "house_rules_base_texture in ('before priming', 'after painting')");
                    table.CheckConstraint("ck_workshops_house_rules_dry_brush_cleaning", "house_rules_dry_brush_cleaning in ('carry over', 'clean')");
                    table.CheckConstraint("ck_workshops_house_rules_hot_air_on_wash", "house_rules_hot_air_on_wash in ('never', 'allowed')");
                    table.CheckConstraint("ck_workshops_house_rules_natural_sand", "house_rules_natural_sand in ('painted', 'natural')");
                    table.CheckConstraint("ck_workshops_house_rules_paint_on_frame", "house_rules_paint_on_frame in ('on frame', 'cut out first')");
                    table.CheckConstraint("ck_workshops_house_rules_pigments", "house_rules_pigments in ('fix when handled', 'leave loose')");
                    table.CheckConstraint("ck_workshops_house_rules_pin_wash_sheen", "house_rules_pin_wash_sheen in ('matt', 'satin', 'gloss')");
                    table.CheckConstraint("ck_workshops_house_rules_recess_colour", "house_rules_recess_colour in ('before', 'after')");
                    table.CheckConstraint("ck_workshops_house_rules_sand_glue", "house_rules_sand_glue in ('PVA', 'instant glue')");
                    table.CheckConstraint("ck_workshops_house_rules_solvent_products", "house_rules_solvent_products in ('full process', 'water only')");
                    table.CheckConstraint("ck_workshops_humidity", "relative_humidity between 0 and 1");
                    table.CheckConstraint("ck_workshops_temperature", "temperature_c between -10 and 45");
                });

            migrationBuilder.CreateTable(
                name: "write_receipts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    path = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    status = table.Column<int>(type: "integer", nullable: false),
                    body = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_write_receipts", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "materials",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    maker = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    code = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    kind = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    carrier = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    colour = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: true),
                    over_black = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: true),
                    over_white = table.Column<string>(type: "character varying(7)", maxLength: 7, nullable: true),
                    coats_to_hide = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    sheen = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    solids_fraction = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    thinners = table.Column<string[]>(type: "text[]", nullable: false),
                    coverage_cm2per_ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    touch_minutes = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    recoat_minutes = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    cure_minutes = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    window_minutes = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    heat_safe = table.Column<bool>(type: "boolean", nullable: false),
                    stock_ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    pack_ml = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    price = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    hazards = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false),
                    notes = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_materials", x => x.id);
                    table.CheckConstraint("ck_materials_card", "(over_black is null) = (over_white is null)");
                    table.CheckConstraint("ck_materials_carrier", "carrier in ('water acrylic', 'solvent acrylic', 'enamel', 'oil', 'alcohol', 'dry', 'PVA', 'cyanoacrylate', 'none')");
                    table.CheckConstraint("ck_materials_coats_to_hide", "coats_to_hide between 0.25 and 12");
                    table.CheckConstraint("ck_materials_colour", "colour ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_materials_dry", "touch_minutes >= 0 and recoat_minutes >= touch_minutes and cure_minutes >= recoat_minutes");
                    table.CheckConstraint("ck_materials_kind", "kind in ('primer', 'paint', 'ink', 'wash', 'filter', 'glaze medium', 'varnish', 'thinner', 'medium', 'pigment', 'pencil', 'texture paste', 'filler', 'crackle paste', 'crackle medium', 'chipping fluid', 'glue', 'aggregate', 'tuft', 'decal')");
                    table.CheckConstraint("ck_materials_over_black", "over_black ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_materials_over_white", "over_white ~ '^#[0-9a-f]{6}$'");
                    table.CheckConstraint("ck_materials_sheen", "sheen in ('matt', 'satin', 'gloss')");
                    table.CheckConstraint("ck_materials_solids", "solids_fraction between 0 and 1");
                    table.CheckConstraint("ck_materials_stock", "stock_ml >= 0 and pack_ml >= 0 and price >= 0");
                    table.CheckConstraint("ck_materials_thinners", "thinners <@ array['water', 'acrylic thinner', 'lacquer thinner', 'white spirit', 'alcohol']::text[]");
                    table.ForeignKey(
                        name: "fk_materials_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "mixes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    recipe_key = table.Column<string>(type: "character varying(600)", maxLength: 600, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_mixes", x => x.id);
                    table.ForeignKey(
                        name: "fk_mixes_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "sets",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    scale = table.Column<int>(type: "integer", nullable: false),
                    table_metres = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    handling = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    target_sheen = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    due_date = table.Column<DateOnly>(type: "date", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sets", x => x.id);
                    table.CheckConstraint("ck_sets_handling", "handling in ('display', 'careful', 'hard play')");
                    table.CheckConstraint("ck_sets_scale", "scale between 1 and 1000");
                    table.CheckConstraint("ck_sets_table_metres", "table_metres between 0.1 and 10");
                    table.CheckConstraint("ck_sets_target_sheen", "target_sheen in ('matt', 'satin', 'gloss')");
                    table.ForeignKey(
                        name: "fk_sets_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "treatments",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    changed_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_treatments", x => x.id);
                    table.ForeignKey(
                        name: "fk_treatments_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "mix_components",
                columns: table => new
                {
                    mix_id = table.Column<Guid>(type: "uuid", nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    parts = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_mix_components", x => new { x.mix_id, x.material_id });
                    table.CheckConstraint("ck_mix_components_parts", "parts > 0");
                    table.ForeignKey(
                        name: "fk_mix_components_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_mix_components_mixes_mix_id",
                        column: x => x.mix_id,
                        principalTable: "mixes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "designs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    set_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    silhouette = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    substrate = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_designs", x => x.id);
                    table.CheckConstraint("ck_designs_silhouette", "silhouette in ('wall', 'corner', 'house', 'cottage', 'jetty', 'boat', 'base')");
                    table.CheckConstraint("ck_designs_substrate", "substrate in ('printed plastic', 'moulded plastic', 'resin', 'metal', 'board', 'foam', 'plaster', 'wood')");
                    table.ForeignKey(
                        name: "fk_designs_sets_set_id",
                        column: x => x.set_id,
                        principalTable: "sets",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "layers",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    technique = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    material_id = table.Column<Guid>(type: "uuid", nullable: true),
                    mix_id = table.Column<Guid>(type: "uuid", nullable: true),
                    thinner_id = table.Column<Guid>(type: "uuid", nullable: true),
                    paint_parts = table.Column<int>(type: "integer", nullable: true),
                    thinner_parts = table.Column<int>(type: "integer", nullable: true),
                    coats = table.Column<int>(type: "integer", nullable: false),
                    region = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    strength = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    tool = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    drying = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    wait_minutes = table.Column<int>(type: "integer", nullable: true),
                    optional = table.Column<bool>(type: "boolean", nullable: false),
                    note = table.Column<string>(type: "character varying(500)", maxLength: 500, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_layers", x => x.id);
                    table.CheckConstraint("ck_layers_coats", "coats between 1 and 20");
                    table.CheckConstraint("ck_layers_dilution", "(thinner_id is null) = (paint_parts is null) and (thinner_id is null) = (thinner_parts is null)");
                    table.CheckConstraint("ck_layers_drying", "drying in ('air', 'hot air')");
                    table.CheckConstraint("ck_layers_paint", "material_id is null or mix_id is null");
                    table.CheckConstraint("ck_layers_parts", "paint_parts > 0 and thinner_parts > 0");
                    table.CheckConstraint("ck_layers_position", "position >= 0 and position < 100");
                    table.CheckConstraint("ck_layers_region", "region in ('all', 'raised', 'recess', 'upward', 'lower third', 'edges', 'spots')");
                    table.CheckConstraint("ck_layers_strength", "strength between 0 and 3");
                    table.CheckConstraint("ck_layers_technique", "technique in ('prime', 'directional light', 'base coat', 'overbrush', 'dry brush', 'sponge', 'stipple', 'patch', 'all-over wash', 'pin wash', 'filter', 'glaze', 'edge line', 'painted chip', 'fluid chip', 'scratch', 'streak', 'speckle', 'dust', 'pigment', 'varnish', 'seal texture', 'texture paste', 'render', 'crackle paste', 'crackle medium', 'glue and scatter', 'rock', 'tuft', 'decal', 'mask', 'unmask', 'clean up excess', 'trim and touch up', 'rim', 'assemble', 'weight', 'inspect')");
                    table.CheckConstraint("ck_layers_tool", "tool in ('brush', 'airbrush', 'spray can', 'sponge', 'swab', 'spatula', 'fingers')");
                    table.CheckConstraint("ck_layers_wait", "wait_minutes between 0 and 43200");
                    table.ForeignKey(
                        name: "fk_layers_materials_material_id",
                        column: x => x.material_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_layers_materials_thinner_id",
                        column: x => x.thinner_id,
                        principalTable: "materials",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_layers_mixes_mix_id",
                        column: x => x.mix_id,
                        principalTable: "mixes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_layers_treatments_treatment_id",
                        column: x => x.treatment_id,
                        principalTable: "treatments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pieces",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    design_id = table.Column<Guid>(type: "uuid", nullable: false),
                    label = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    rim_number = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    parent_id = table.Column<Guid>(type: "uuid", nullable: true),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pieces", x => x.id);
                    table.CheckConstraint("ck_pieces_parent", "parent_id is null or parent_id <> id");
                    table.ForeignKey(
                        name: "fk_pieces_designs_design_id",
                        column: x => x.design_id,
                        principalTable: "designs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_pieces_pieces_parent_id",
                        column: x => x.parent_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "zones",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    design_id = table.Column<Guid>(type: "uuid", nullable: false),
                    treatment_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    area_cm2 = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    relief = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    up_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    side_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    down_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    raised_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    field_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    recess_share = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    edge_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    joint_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    smallest_detail_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: false),
                    handling = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: true),
                    target_sheen = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: true),
                    before_assembly = table.Column<bool>(type: "boolean", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_zones", x => x.id);
                    table.CheckConstraint("ck_zones_area", "area_cm2 > 0 and area_cm2 <= 100000");
                    table.CheckConstraint("ck_zones_handling", "handling in ('display', 'careful', 'hard play')");
                    table.CheckConstraint("ck_zones_lengths", "edge_mm >= 0 and joint_mm >= 0 and smallest_detail_mm > 0");
                    table.CheckConstraint("ck_zones_orientation", "up_share >= 0 and side_share >= 0 and down_share >= 0 and abs(up_share + side_share + down_share - 1) < 0.001");
                    table.CheckConstraint("ck_zones_relief", "relief in ('smooth', 'light', 'deep')");
                    table.CheckConstraint("ck_zones_shares", "raised_share >= 0 and field_share >= 0 and recess_share >= 0 and abs(raised_share + field_share + recess_share - 1) < 0.001");
                    table.CheckConstraint("ck_zones_target_sheen", "target_sheen in ('matt', 'satin', 'gloss')");
                    table.ForeignKey(
                        name: "fk_zones_designs_design_id",
                        column: x => x.design_id,
                        principalTable: "designs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_zones_treatments_treatment_id",
                        column: x => x.treatment_id,
                        principalTable: "treatments",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "zone_touches",
                columns: table => new
                {
                    first_zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    second_zone_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_zone_touches", x => new { x.first_zone_id, x.second_zone_id });
                    table.CheckConstraint("ck_zone_touches_once", "first_zone_id < second_zone_id");
                    table.ForeignKey(
                        name: "fk_zone_touches_zones_first_zone_id",
                        column: x => x.first_zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_zone_touches_zones_second_zone_id",
                        column: x => x.second_zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_designs_set_id_name",
                table: "designs",
                columns: new[] { "set_id", "name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_layers_material_id",
                table: "layers",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_layers_mix_id",
                table: "layers",
                column: "mix_id");

            migrationBuilder.CreateIndex(
                name: "ix_layers_thinner_id",
                table: "layers",
                column: "thinner_id");

            migrationBuilder.CreateIndex(
                name: "ix_layers_treatment_id_position",
                table: "layers",
                columns: new[] { "treatment_id", "position" });

            migrationBuilder.CreateIndex(
                name: "ix_materials_workshop_id_maker_name",
                table: "materials",
                columns: new[] { "workshop_id", "maker", "name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_mix_components_material_id",
                table: "mix_components",
                column: "material_id");

            migrationBuilder.CreateIndex(
                name: "ix_mixes_workshop_id_recipe_key",
                table: "mixes",
                columns: new[] { "workshop_id", "recipe_key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pieces_design_id_label",
                table: "pieces",
                columns: new[] { "design_id", "label" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_pieces_parent_id",
                table: "pieces",
                column: "parent_id");

            migrationBuilder.CreateIndex(
                name: "ix_sets_workshop_id_name",
                table: "sets",
                columns: new[] { "workshop_id", "name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_treatments_workshop_id",
                table: "treatments",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_zone_touches_second_zone_id",
                table: "zone_touches",
                column: "second_zone_id");

            migrationBuilder.CreateIndex(
                name: "ix_zones_design_id_name",
                table: "zones",
                columns: new[] { "design_id", "name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_zones_treatment_id",
                table: "zones",
                column: "treatment_id");

            // Positions are unique, but only once the transaction ends: layers swap places within one.
            migrationBuilder.Sql("alter table layers add constraint uq_layers_position unique (treatment_id, position) deferrable initially deferred;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "layers");

            migrationBuilder.DropTable(
                name: "mix_components");

            migrationBuilder.DropTable(
                name: "pieces");

            migrationBuilder.DropTable(
                name: "write_receipts");

            migrationBuilder.DropTable(
                name: "zone_touches");

            migrationBuilder.DropTable(
                name: "materials");

            migrationBuilder.DropTable(
                name: "mixes");

            migrationBuilder.DropTable(
                name: "zones");

            migrationBuilder.DropTable(
                name: "designs");

            migrationBuilder.DropTable(
                name: "treatments");

            migrationBuilder.DropTable(
                name: "sets");

            migrationBuilder.DropTable(
                name: "workshops");
        }
    }
}
