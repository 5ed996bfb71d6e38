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
    [InlineData("insert into revision_layers select treatment_id, revision, position, layer_id from revision_layers", "pk_revision_layers")]
    [InlineData("insert into revision_layers select treatment_id, revision, position + 50, layer_id from revision_layers", "ix_revision_layers_treatment_id_revision_layer_id")]
    [InlineData("update treatments set revision = revision + 1", "fk_treatments_newest_revision")]
    [InlineData("update pots set newest_event_id = gen_random_uuid()", "fk_pots_newest_event")]
    [InlineData("insert into write_receipts values (gen_random_uuid(), now(), 'x', '{}')", "ck_write_receipts_hash")]
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

    [Theory]
    [InlineData("{\"coats\": 0}", "ck_layers_coats")]
    [InlineData("{\"technique\": \"conjuring\"}", "ck_layers_technique")]
    [InlineData("{\"thinner_id\": null, \"paint_parts\": 1}", "ck_layers_dilution")]
    [InlineData("{\"wait_minutes\": -1}", "ck_layers_wait")]
    [InlineData("{\"treatment_id\": \"00000000-0000-0000-0000-000000000001\"}", "fk_layers_treatments")]
    public async Task A_new_layer_must_make_sense(string change, string constraint)
    {
        var error = await Assert.ThrowsAsync<PostgresException>(() => LowfellServer.Execute(server.Connection,
            $"insert into layers select (jsonb_populate_record(null::layers, to_jsonb(l) || jsonb_build_object('id', gen_random_uuid()) || '{change}')).* from layers l limit 1"));
        Assert.StartsWith(constraint, error.ConstraintName);
    }

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

    /// <summary>Tables, indexes and checks of the mapping are those that the migrations made.</summary>
    [Fact]
    public async Task No_migration_is_missing()
    {
        await using var db = server.Db();
        Assert.False(db.Database.HasPendingModelChanges());
        Assert.Empty(await db.Database.GetPendingMigrationsAsync(TestContext.Current.CancellationToken));
    }
}
