using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261127115420_TileRelief")]
    public partial class TileRelief : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "relief",
                table: "trials",
                type: "character varying(40)",
                maxLength: 40,
                nullable: true);

            migrationBuilder.AddCheckConstraint(
                name: "ck_trials_relief",
                table: "trials",
                sql: "relief in ('smooth', 'light', 'deep')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
