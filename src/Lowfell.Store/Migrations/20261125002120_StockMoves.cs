using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    public partial class StockMoves : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
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
                    undoes_id = table.Column<Guid>(type: "uuid", nullable: true)
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
                        name: "fk_stock_moves_stock_moves_undoes_id",
                        column: x => x.undoes_id,
                        principalTable: "stock_moves",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_material_id_at",
                table: "stock_moves",
                columns: new[] { "material_id", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_undoes_id",
                table: "stock_moves",
                column: "undoes_id",
                unique: true);

            // What is there already is where the history begins.
            migrationBuilder.Sql("insert into stock_moves (id, material_id, kind, ml, reason, at) select gen_random_uuid(), id, 'opening', stock_ml, 'what was there', now() from materials where stock_ml > 0;");

            // Stock is the sum of its moves, and the database sees to it: a move changes the stock, a stock that is typed in writes a
            // move. Each trigger acts only on what came from outside, so that neither answers the other.
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
                declare was numeric := case tg_op when 'INSERT' then 0 else old.stock_ml end;
                begin
                  if pg_trigger_depth() = 1 and new.stock_ml <> was then
                    insert into stock_moves (id, material_id, kind, ml, reason, at)
                    values (gen_random_uuid(), new.id, case tg_op when 'INSERT' then 'opening' else 'corrected' end, new.stock_ml - was, 'typed in on the shelf', now());
                  end if;
                  return null;
                end $$;
                create trigger stock_typed after insert or update of stock_ml on materials for each row execute function stock_typed();

                create function stock_kept() returns trigger language plpgsql as $$
                begin
                  if tg_op = 'UPDATE' or pg_trigger_depth() = 1 then
                    raise exception 'stock moves are only ever added' using errcode = 'restrict_violation';
                  end if;
                  return old;
                end $$;
                create trigger stock_kept before update or delete on stock_moves for each row execute function stock_kept();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop trigger stock_typed on materials; drop function stock_typed; drop trigger stock_moved on stock_moves; drop function stock_moved; drop trigger stock_kept on stock_moves; drop function stock_kept;");

            migrationBuilder.DropTable(
                name: "stock_moves");
        }
    }
}
