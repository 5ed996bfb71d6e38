using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>One treatment over the zones of a piece: an edit of one surface is one of that alone, and layers go over as many as are asked for.</summary>
public sealed class SurfaceTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private readonly Weaver weaver = new(server);

    [Fact]
    public async Task A_layer_goes_over_more_surfaces_and_back_under_the_lines_it_had()
    {
        var order = await weaver.Woven("Reed dredger");
        var (id, surfaces) = (order["id"]!, order["surfaces"]!.AsArray().Select(s => s!["id"]!.GetValue<Guid>()).ToList());
        var before = await weaver.Stacks();
        var varnish = order["steps"]!.AsArray().First(s => s!["layer"]!.Text("technique") == "varnish")!;
        var (step, was) = (varnish["layer"]!.Text("id"), varnish["over"]![0]!);
        async Task<JsonNode> Over(params Guid[] over)
        {
            var now = await server.Get($"/api/treatments/{id}/order");
            return await weaver.Sent(HttpMethod.Put, $"/api/treatments/{id}/steps/{step}/over", new { version = now["version"], over });
        }

        JsonArray Lays(JsonNode of) => of["steps"]!.AsArray().Single(s => s!["layer"]!.Text("id") == step)!["over"]!.AsArray();
        var all = await Over([.. surfaces]);
        Assert.Equal(surfaces.Order(), Lays(all).Select(l => l!["surfaceId"]!.GetValue<Guid>()).Order());
        var two = surfaces.First(s => s != was["surfaceId"]!.GetValue<Guid>());
        var line = Lays(all).Single(l => l!["surfaceId"]!.GetValue<Guid>() == two)!.Text("lineId");

        // Elsewhere for a while, and back on both: under the lines of then.
        await Over(surfaces.Last(s => s != two && s != was["surfaceId"]!.GetValue<Guid>()));
        var again = Lays(await Over(was["surfaceId"]!.GetValue<Guid>(), two));
        Assert.Equal([was.Text("lineId"), line], again.OrderBy(l => l!["surfaceId"]!.GetValue<Guid>() == two).Select(l => l!.Text("lineId")));
        await Over(was["surfaceId"]!.GetValue<Guid>());
        Weaver.Same(before, await weaver.Stacks());
        Assert.Equal(400, (await server.Send(HttpMethod.Put, $"/api/treatments/{id}/steps/{step}/over", new { version = 1, over = Array.Empty<Guid>() })).Status);
        Assert.Equal(409, (await server.Send(HttpMethod.Put, $"/api/treatments/{id}/steps/{step}/over", new { version = 1, over = new[] { two } })).Status);
    }

    [Fact]
    public async Task A_new_layer_lies_on_its_surfaces_and_their_details_and_where_it_is_moved_to()
    {
        var order = await weaver.Woven("Pump house");
        var (id, surfaces) = (order["id"]!, order["surfaces"]!.AsArray());
        var (walls, glass) = (surfaces.Single(s => s!["zones"]![0]!.Text("zone") == "Walls")!, surfaces.Single(s => s!["zones"]![0]!.Text("zone") == "Window glass")!);
        var named = await weaver.Sent(HttpMethod.Put, $"/api/treatments/{id}/surfaces", new
        {
            version = order["version"],
            surfaces = surfaces.Select(s => new { id = s!["id"], name = s.Text("name"), onId = s.Text("id") == glass.Text("id") ? walls["id"] : null }),
        });
        var layer = new { id = Guid.NewGuid(), technique = "dust", paint = Array.Empty<object>(), coats = 1, region = "all", strength = 1, tool = "brush", drying = "air", optional = false, note = "over all of it" };
        var top = named["steps"]!.AsArray()[^1]!["layer"]!.Text("id");
        var added = await weaver.Sent(HttpMethod.Post, $"/api/treatments/{id}/steps", new { version = named["version"], layer, over = new[] { walls["id"] }, aboveId = top });
        var dust = added["steps"]!.AsArray()[^1]!;
        Assert.Equal(("dust", "over all of it"), (dust["layer"]!.Text("technique"), dust["layer"]!.Text("note")));
        Assert.Equal(new[] { walls.Text("id"), glass.Text("id") }.Order(), dust["over"]!.AsArray().Select(l => l!.Text("surfaceId")).Order());
        foreach (var surface in new[] { walls, glass })
            Assert.Equal("dust", (await weaver.Sheet(surface["zones"]![0]!["zoneId"]!.GetValue<Guid>()))["layers"]!.AsArray()[^1]!.Text("technique"));
        var moved = await weaver.Sent(HttpMethod.Put, $"/api/treatments/{id}/steps/{dust["layer"]!.Text("id")}/place", new { version = added["version"], aboveId = (Guid?)null });
        Assert.Equal("dust", moved["steps"]![0]!["layer"]!.Text("technique"));
        Assert.Equal("dust", (await weaver.Sheet(walls["zones"]![0]!["zoneId"]!.GetValue<Guid>()))["layers"]![0]!.Text("technique"));
        var wrong = await server.Send(HttpMethod.Put, $"/api/treatments/{id}/surfaces", new { version = moved["version"], surfaces = surfaces.Select(s => new { id = s!["id"], name = "", onId = s["id"] }) });
        Assert.Equal((400, "surfaces[0].name"), (wrong.Status, wrong.Body.Fields().First()));
    }

    [Fact]
    public async Task Two_painters_on_two_surfaces_of_a_treatment_both_store_and_on_one_the_second_is_told()
    {
        await weaver.Woven("Jetty section");
        var zones = await weaver.Zones("Jetty section");
        var (one, two) = (await weaver.Sheet(zones[0]), await weaver.Sheet(zones[1]));
        Assert.Equal(one.Text("treatmentId"), two.Text("treatmentId"));
        object Edit(JsonNode sheet, int coats)
        {
            var layers = sheet["layers"]!.Copy().AsArray();
            layers[1]!["coats"] = coats;
            return new { version = sheet["version"], revision = sheet["revision"], layers };
        }

        await weaver.Sent(HttpMethod.Put, $"/api/plan/zones/{zones[0]}/stack", Edit(one, 4));
        await weaver.Sent(HttpMethod.Put, $"/api/plan/zones/{zones[1]}/stack", Edit(two, 5));
        Assert.Equal((4, 5), ((await weaver.Sheet(zones[0]))["layers"]![1]!["coats"]!.GetValue<int>(), (await weaver.Sheet(zones[1]))["layers"]![1]!["coats"]!.GetValue<int>()));
        Assert.Equal(409, (await server.Send(HttpMethod.Put, $"/api/plan/zones/{zones[0]}/stack", Edit(one, 6))).Status);
        Assert.Equal(4, (await weaver.Sheet(zones[0]))["layers"]![1]!["coats"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_zone_parts_with_what_lies_on_it_and_the_others_stay()
    {
        await weaver.Woven("Mud-and-salt base");
        var before = await weaver.Stacks();
        var zone = (await weaver.Zones("Mud-and-salt base"))[1];
        await weaver.Sent(HttpMethod.Post, $"/api/zones/{zone}/part", new { name = "By itself" });
        Weaver.Same(before, await weaver.Stacks());
        var own = await server.Get($"/api/treatments/{(await weaver.Sheet(zone)).Text("treatmentId")}/order");
        Assert.Equal(("By itself", 1, (await weaver.Sheet(zone))["layers"]!.AsArray().Count), (own.Text("name"), own["surfaces"]!.AsArray().Count, own["steps"]!.AsArray().Count));
    }

    /// <summary>A zone that becomes a detail changes nothing that is seen, taken or done; left out, it is painted with its surface.</summary>
    [Fact]
    public async Task A_zone_that_becomes_a_detail_changes_nothing_and_one_that_is_left_out_has_the_layers_of_its_surface()
    {
        var order = await weaver.Woven("Lock-wall straight");
        var (id, surfaces) = (order["id"]!, order["surfaces"]!.AsArray());
        var zones = await weaver.Zones("Lock-wall straight");
        Guid Taking(JsonNode surface) => surface["zones"]!.AsArray().Select(z => z!["zoneId"]!.GetValue<Guid>()).First(zones.Contains);
        JsonNode Named(string zone) => surfaces.Single(s => s!["zones"]!.AsArray().Any(z => z!.Text("zone") == zone && zones.Contains(z!["zoneId"]!.GetValue<Guid>())))!;
        var (wall, ring) = (Named("Brick field"), Named("Mooring ring"));
        async Task<string> Estimates() => (await server.Get($"/api/estimates/{await server.SetId()}")).ToJsonString();
        async Task<JsonNode> OnWalls(bool isDetail)
        {
            var now = await server.Get($"/api/treatments/{id}/order");
            return await weaver.Sent(HttpMethod.Put, $"/api/treatments/{id}/surfaces", new { version = now["version"], surfaces = now["surfaces"]!.AsArray().Select(s => new { id = s!["id"], name = s.Text("name"), onId = isDetail && s.Text("id") == ring.Text("id") ? wall["id"] : null }) });
        }

        var (stacks, estimates) = (await weaver.Stacks(), await Estimates());
        var marked = await OnWalls(true);
        Weaver.Same(stacks, await weaver.Stacks());
        Assert.Equal(estimates, await Estimates());
        var (refused, why) = await server.Send(HttpMethod.Post, $"/api/treatments/{id}/surfaces/{wall.Text("id")}/leave-out", new { version = marked["version"] });
        Assert.Equal((400, "surfaceId"), (refused, why.Fields().Single()));

        await weaver.Sent(HttpMethod.Post, $"/api/treatments/{id}/surfaces/{ring.Text("id")}/leave-out", new { version = marked["version"] });
        JsonNode shown = await weaver.Sheet(Taking(wall)), left = await weaver.Sheet(Taking(ring));
        string Figures(JsonNode sheet) => string.Join('\n', sheet["layers"]!.AsArray().Select(l =>
        {
            var layer = l!.Copy().AsObject();
            layer.Remove("id");
            return layer.ToJsonString();
        }));
        Assert.Equal(Figures(shown), Figures(left));

        // On no other zone is anything laid otherwise.
        var those = ring["zones"]!.AsArray().Select(z => z!["zoneId"]!.GetValue<Guid>()).ToHashSet();
        foreach (var (zone, was) in stacks.Where(s => !those.Contains(s.Key)))
            Assert.StartsWith((await weaver.Sheet(zone))["layers"]!.ToJsonString(), was, StringComparison.Ordinal);

        // Undone, it is as it was; and it stands by itself again without a trace.
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/workshops/{await server.WorkshopId()}/undo", new { })).Status);
        await OnWalls(false);
        Weaver.Same(stacks, await weaver.Stacks());
        Assert.Equal(estimates, await Estimates());
    }
}
