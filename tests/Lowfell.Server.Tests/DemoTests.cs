using System.IO.Compression;
using System.Text;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>The demo as it is loaded; nothing here writes, so that no order of tests matters.</summary>
public sealed class DemoTests(LowfellServer server) : FileDesk(server), IClassFixture<LowfellServer>
{
    /// <summary>Every measure, layer, pot and word of it. Where it was meant to change, what was told now lies beside the tests, to be packed (gzip -n) in the place of what is kept.</summary>
    [Fact]
    public async Task The_demo_is_as_it_is_kept()
    {
        var set = Opened(await Out(await Demo()))["set.json"];
        var shelf = await Server.Http.GetByteArrayAsync($"/api/shelf/{await Server.WorkshopId()}/materials.csv", Stop);
        foreach (var (name, told) in new[] { ("demo-set.json", set), ("demo-shelf.csv", shelf) })
        {
            var at = Path.Combine(AppContext.BaseDirectory, name);
            await File.WriteAllBytesAsync(at, told, Stop);
            await using var packed = new GZipStream(File.OpenRead(at + ".gz"), CompressionMode.Decompress);
            var kept = (await new StreamReader(packed).ReadToEndAsync(Stop)).Split('\n');
            var now = Encoding.UTF8.GetString(told).Split('\n');
            Assert.Equal(kept.Zip(now).Where(x => x.First != x.Second).Take(5), []);
            Assert.Equal(kept.Length, now.Length);
        }
    }

    [Fact]
    public async Task The_demo_has_seven_designs_and_43_pieces_each_zone_with_five_to_twelve_layers()
    {
        var overview = await Server.Get($"/api/plan/sets/{await Server.SetId()}");
        Assert.Equal(7, overview["designs"]!.AsArray().Count);
        Assert.Equal(43, overview["pieces"]!.GetValue<int>());
        var zones = overview["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).ToList();
        Assert.All(zones, z => Assert.InRange(z!["layers"]!.GetValue<int>(), 5, 12));
        Assert.True(zones.Count(z => z!["stops"]!.GetValue<int>() + z["cautions"]!.GetValue<int>() + z["hints"]!.GetValue<int>() > 0) >= 6);
        Assert.InRange((await Server.Get($"/api/shelf/{await Server.WorkshopId()}/materials")).AsArray().Count, 55, 70);
    }

    [Fact]
    public async Task Dredgers_have_sub_assemblies_that_are_not_counted_twice()
    {
        await using var db = Server.Db();
        Assert.Equal(4, await db.Pieces.CountAsync(p => p.ParentId != null, TestContext.Current.CancellationToken));
    }
}
