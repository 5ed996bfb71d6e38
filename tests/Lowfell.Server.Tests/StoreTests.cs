using Lowfell.Store.Demo;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>The database itself refuses what must not be.</summary>
public sealed class StoreTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Theory]
    [InlineData("update zones set area_cm2 = -1", "ck_zones_area")]
    [InlineData("update zones set raised_share = 0.9", "ck_zones_shares")]
    [InlineData("update zones set relief = 'bumpy'", "ck_zones_relief")]
    [InlineData("update materials set colour = '#12'", "ck_materials_colour")]
    [InlineData("update materials set stock_ml = -0.1", "ck_materials_stock")]
    [InlineData("update materials set over_black = '#123456', over_white = null", "ck_materials_card")]
    [InlineData("update materials set thinners = array['moonshine']", "ck_materials_thinners")]
    [InlineData("update layers set coats = 0", "ck_layers_coats")]
    [InlineData("update layers set technique = 'conjuring'", "ck_layers_technique")]
    [InlineData("update layers set material_id = mix_id, thinner_id = null, paint_parts = 1 where mix_id is not null", "ck_layers")]
    [InlineData("update layers set position = 0", "uq_layers_position")]
    [InlineData("update mix_components set parts = 0", "ck_mix_components_parts")]
    [InlineData("update workshops set house_rules_hot_air_on_wash = 'sometimes'", "ck_workshops_house_rules_hot_air_on_wash")]
    [InlineData("update zone_touches set first_zone_id = second_zone_id", "ck_zone_touches_once")]
    [InlineData("update pieces set parent_id = id", "ck_pieces_parent")]
    [InlineData("delete from materials where name = 'Bog Umber'", "fk_layers_materials")]
    [InlineData("update sets set scale = 0", "ck_sets_scale")]
    public async Task Constraint_holds(string sql, string constraint)
    {
        var error = await Assert.ThrowsAsync<PostgresException>(() => LowfellServer.Execute(server.Connection, sql));
        Assert.StartsWith(constraint, error.ConstraintName);
    }

    [Fact]
    public async Task Layers_may_swap_places_within_one_transaction() =>
        await LowfellServer.Execute(server.Connection, "update layers set position = 1 - position where position in (0, 1)");

    [Fact]
    public async Task The_demo_is_loaded_into_a_new_database_only()
    {
        await using var db = server.Db();
        Assert.False(await DemoSet.LoadIfNew(db, DateTimeOffset.UnixEpoch, TestContext.Current.CancellationToken));
        Assert.Equal(1, await db.Workshops.CountAsync(w => w.Name == "Fen Row bench", TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task The_model_has_no_change_without_a_migration()
    {
        await using var db = server.Db();
        Assert.False(db.Database.HasPendingModelChanges());
        Assert.Empty(await db.Database.GetPendingMigrationsAsync(TestContext.Current.CancellationToken));
    }
}
