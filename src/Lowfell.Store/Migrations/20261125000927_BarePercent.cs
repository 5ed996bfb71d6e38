using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    public partial class BarePercent : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "house_rules_bare_percent",
                table: "workshops",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddCheckConstraint(
                name: "ck_workshops_house_rules_bare_percent",
                table: "workshops",
                sql: "house_rules_bare_percent in ('of the mix', 'added')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_workshops_house_rules_bare_percent",
                table: "workshops");

            migrationBuilder.DropColumn(
                name: "house_rules_bare_percent",
                table: "workshops");
        }
    }
}
