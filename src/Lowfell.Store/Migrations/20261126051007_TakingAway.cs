using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Lowfell.Store.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(LowfellDb))]
    [Migration("20261126051007_TakingAway")]
    public partial class TakingAway : PastMigration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_region",
                table: "layers");

            migrationBuilder.DropCheckConstraint(
                name: "ck_layers_technique",
                table: "layers");

            // The fluid is called what it is, now that chipping through it is a layer of its own.
            // Layers are only ever added to, but a word may be written anew.
            migrationBuilder.Sql("alter table layers disable trigger user; update layers set technique = 'chipping fluid' where technique = 'fluid chip'; alter table layers enable trigger user");

            migrationBuilder.AddColumn<int>(
                name: "details",
                table: "layers",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "down_to",
                table: "layers",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "fades",
                table: "layers",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "preparation",
                table: "layers",
                type: "character varying(40)",
                maxLength: 40,
                nullable: false,
                defaultValue: "none");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_details",
                table: "layers",
                sql: "details between 1 and 1000");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_preparation",
                table: "layers",
                sql: "preparation in ('none', 'left open', 'spread on card', 'drained on card', 'shaken', 'mixed and rested', 'warmed and shaken')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_region",
                table: "layers",
                sql: "region in ('all', 'raised', 'recess', 'upward', 'lower third', 'edges', 'spots', 'within rim', 'around feet', 'leading edges', 'one in four', 'recessed line')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_layers_technique",
                table: "layers",
                sql: "technique in ('prime', 'directional light', 'base coat', 'overbrush', 'dry brush', 'sponge', 'stipple', 'patch', 'all-over wash', 'pin wash', 'filter', 'glaze', 'edge line', 'painted chip', 'chipping fluid', 'scratch', 'streak', 'speckle', 'dust', 'pigment', 'varnish', 'seal texture', 'texture paste', 'render', 'crackle paste', 'crackle medium', 'glue and scatter', 'rock', 'tuft', 'decal', 'mask', 'unmask', 'clean up excess', 'trim and touch up', 'rim', 'assemble', 'weight', 'inspect', 'chip through', 'rub back', 'marking', 'run off', 'stencil', 'wet blend', 'hit')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("Migrations go forward only; an earlier state is in a backup.");
    }
}
