using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127101035_PlansOfPieces")]
    public partial class PlansOfPieces : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_trials_sets_set_id",
                table: "trials");

            migrationBuilder.DropIndex(
                name: "ix_trials_set_id",
                table: "trials");

            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_details",
                table: "layers");

            migrationBuilder.DropColumn(
                name: "set_id",
                table: "trials");

            migrationBuilder.AddColumn<decimal>(
                name: "face_width_mm",
                table: "zones",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "number",
                table: "zones",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "design_id",
                table: "trials",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "number",
                table: "pieces",
                type: "integer",
                nullable: true);

            migrationBuilder.AlterColumn<decimal>(
                name: "details",
                table: "layers",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true,
                oldClrType: typeof(int),
                oldType: "integer",
                oldNullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "variation_dealt",
                table: "layers",
                type: "boolean",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "variation_habit",
                table: "layers",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "variation_marks",
                table: "layers",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "variation_mm",
                table: "layers",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "variation_spread",
                table: "layers",
                type: "numeric(12,4)",
                precision: 12,
                scale: 4,
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "trial_id",
                table: "calibrations",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "base_plans",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    workshop_id = table.Column<Guid>(type: "uuid", nullable: false),
                    design_id = table.Column<Guid>(type: "uuid", nullable: false),
                    body = table.Column<string>(type: "jsonb", nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_base_plans", x => x.id);
                    table.CheckConstraint("ck_base_plans_body", "length(body::text) <= 400000");
                    table.ForeignKey(
                        name: "fk_base_plans_designs_design_id",
                        column: x => x.design_id,
                        principalTable: "designs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_base_plans_workshops_workshop_id",
                        column: x => x.workshop_id,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "marks_done",
                columns: table => new
                {
                    zone_id = table.Column<Guid>(type: "uuid", nullable: false),
                    line_id = table.Column<Guid>(type: "uuid", nullable: false),
                    piece_id = table.Column<Guid>(type: "uuid", nullable: false),
                    marks = table.Column<int>(type: "integer", nullable: false),
                    mean_mm = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    note = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_marks_done", x => new { x.zone_id, x.line_id, x.piece_id });
                    table.CheckConstraint("ck_marks_done_figures", "marks between 0 and 50 and mean_mm between 0.1 and 200");
                    table.ForeignKey(
                        name: "fk_marks_done_pieces_piece_id",
                        column: x => x.piece_id,
                        principalTable: "pieces",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_marks_done_zones_zone_id",
                        column: x => x.zone_id,
                        principalTable: "zones",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_face_width",
                table: "zones",
                sql: "face_width_mm > 0 and face_width_mm <= 10000");

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_number",
                table: "zones",
                sql: "number between 1 and 100000");

            migrationBuilder.CreateIndex(
                name: "ix_trials_design_id",
                table: "trials",
                column: "design_id");

            migrationBuilder.AddCheckConstraint(
                name: "ck_pieces_number",
                table: "pieces",
                sql: "number between 1 and 2000");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_details",
                table: "layers",
                sql: "details > 0 and details <= 1000");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_variation",
                table: "layers",
                sql: "variation_mm between 0.3 and 200 and variation_marks between 0.2 and 5 and variation_spread between 0 and 1");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_variation_habit",
                table: "layers",
                sql: "variation_habit in ('anywhere', 'from ground', 'from above', 'at edges', 'at joints', 'under others')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_variation_seed",
                table: "layers",
                sql: "variation_seed is not null or (variation_habit is null and variation_mm is null and variation_marks is null and variation_spread is null and variation_dealt is null)");

            migrationBuilder.CreateIndex(
                name: "ix_calibrations_trial_id",
                table: "calibrations",
                column: "trial_id");

            migrationBuilder.CreateIndex(
                name: "ix_base_plans_design_id",
                table: "base_plans",
                column: "design_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_base_plans_workshop_id",
                table: "base_plans",
                column: "workshop_id");

            migrationBuilder.CreateIndex(
                name: "ix_marks_done_piece_id",
                table: "marks_done",
                column: "piece_id");

            migrationBuilder.AddForeignKey(
                name: "fk_calibrations_trials_trial_id",
                table: "calibrations",
                column: "trial_id",
                principalTable: "trials",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "fk_trials_designs_design_id",
                table: "trials",
                column: "design_id",
                principalTable: "designs",
                principalColumn: "id",
                onDelete: ReferentialAction.SetNull);

            // The turn of every piece in its design, and of every zone in its set; where there are some already, in the order their ids were made in.
            migrationBuilder.Sql("""
                create function piece_number() returns trigger language plpgsql as $$
                begin
                  if new.number is null or (tg_op = 'UPDATE' and new.design_id <> old.design_id) then
                    select coalesce(max(number), 0) + 1 into new.number from pieces where design_id = new.design_id;
                    if new.number > 2000 then
                      select min(n) into new.number from generate_series(1, 2000) n where not exists (select from pieces p where p.design_id = new.design_id and p.number = n);
                    end if;
                  end if;
                  return new;
                end $$;
                create function zone_number() returns trigger language plpgsql as $$
                begin
                  if new.number is null then
                    select coalesce(max(z.number), 0) + 1 into new.number from zones z join designs d on d.id = z.design_id where d.set_id = (select set_id from designs where id = new.design_id);
                  end if;
                  return new;
                end $$;
                alter table pieces disable trigger user;
                alter table zones disable trigger user;
                update pieces p set number = n.turn from (select id, row_number() over (partition by design_id order by left(id::text, 13), length(label), label) as turn from pieces) n where n.id = p.id and n.turn <= 2000;
                update zones z set number = n.turn from (select z.id, row_number() over (partition by d.set_id order by left(z.id::text, 13), d.position, z.position) as turn from zones z join designs d on d.id = z.design_id) n where n.id = z.id;
                alter table pieces enable trigger user;
                alter table zones enable trigger user;
                create trigger number before insert or update of design_id on pieces for each row execute function piece_number();
                create trigger number before insert on zones for each row execute function zone_number();
                """);

            // Trays and marks are undone like the rest. A plan that a layer had as a mere number stays as usual in all that can be asked of it now: how such
            // layers lie is reckoned from the layer, and not kept with it.
            migrationBuilder.Sql("""
                create trigger journal after insert or update or delete on base_plans for each row execute function journal_kept('id');
                create trigger journal after insert or update or delete on marks_done for each row execute function journal_kept('zone_id,line_id,piece_id');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
