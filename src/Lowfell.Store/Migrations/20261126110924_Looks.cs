using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126110924_Looks")]
    public partial class Looks : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_zones_target_sheen",
                table: "zones");

            migrationBuilder.DropCheckConstraint(
                name: "ck_workshops_house_rules_pin_wash_sheen",
                table: "workshops");

            migrationBuilder.DropCheckConstraint(
                name: "ck_sets_target_sheen",
                table: "sets");

            migrationBuilder.DropCheckConstraint(
                name: "ck_materials_sheen",
                table: "materials");

            migrationBuilder.AddColumn<int>(
                name: "looks",
                table: "materials",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.Sql("""
                update materials m set looks = c.n
                from (select material_id, count(*) as n from calibrations where taken_back_at is null group by material_id) c
                where c.material_id = m.id
                """);

            migrationBuilder.AddCheckConstraint(
                name: "ck_zones_target_sheen",
                table: "zones",
                sql: "target_sheen in ('matt', 'eggshell', 'satin', 'gloss')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_house_rules_pin_wash_sheen",
                table: "workshops",
                sql: "house_rules_pin_wash_sheen in ('matt', 'eggshell', 'satin', 'gloss')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_sets_target_sheen",
                table: "sets",
                sql: "target_sheen in ('matt', 'eggshell', 'satin', 'gloss')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_materials_sheen",
                table: "materials",
                sql: "sheen in ('matt', 'eggshell', 'satin', 'gloss')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
