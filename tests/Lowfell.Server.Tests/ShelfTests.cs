using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

public sealed class ShelfTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static JsonObject Paint(string name) => new() { ["name"] = name, ["maker"] = "Tarnside", ["kind"] = "paint", ["carrier"] = "water acrylic", ["colour"] = "#6b4f2a" };

    private async Task<string> List() => $"/api/shelf/{await server.WorkshopId()}/materials";

    [Fact]
    public async Task A_new_paint_gets_usual_figures_and_says_that_its_hiding_is_an_estimate()
    {
        var (status, card) = await server.Send(HttpMethod.Post, await List(), Paint("Withy Bark"));
        Assert.Equal(201, status);
        Assert.Equal("estimated", card.Text("opticsSource"));
        Assert.Equal(35, card["recoatMinutes"]!.GetValue<decimal>());
        Assert.Equal(3, card["drawdowns"]!.AsArray().Count);
        var entry = Paint("Withy Bark, card");
        (entry["overBlack"], entry["overWhite"]) = ("#5a4222", "#6b4f2a");
        (_, card) = await server.Send(HttpMethod.Post, await List(), entry);
        Assert.Equal("contrast card", card.Text("opticsSource"));
        Assert.Equal("#5a4222", card["drawdowns"]![0]!.Text("overBlack"));
    }

    [Theory]
    [InlineData("name", "\"\"")]
    [InlineData("colour", "\"#12\"")]
    [InlineData("colour", "null")]
    [InlineData("kind", "null")]
    [InlineData("carrier", "null")]
    [InlineData("stockMl", "-1")]
    [InlineData("solidsFraction", "1.5")]
    [InlineData("coatsToHide", "0")]
    public async Task Impossible_entries_name_their_field_and_store_nothing(string field, string value)
    {
        var before = (await server.Get(await List())).AsArray().Count;
        var entry = Paint("Impossible " + field);
        entry[field] = JsonNode.Parse(value);
        var (status, problem) = await server.Send(HttpMethod.Post, await List(), entry);
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
        Assert.DoesNotContain((await server.Get(await List())).AsArray(), m => m!.Text("name") == "Impossible " + field);
        Assert.True(before >= 60);
    }

    [Fact]
    public async Task Names_of_five_thousand_characters_and_impossible_cards_are_refused()
    {
        var (status, problem) = await server.Send(HttpMethod.Post, await List(), Paint(new string('x', 5000)));
        Assert.Equal((400, "name"), (status, problem.Fields().Single()));
        var swapped = Paint("Swapped card");
        (swapped["overBlack"], swapped["overWhite"]) = ("#eeeeee", "#333333");
        (status, problem) = await server.Send(HttpMethod.Post, await List(), swapped);
        Assert.Equal((400, "overBlack"), (status, problem.Fields().Single()));
        var half = Paint("Half card");
        half["overBlack"] = "#333333";
        Assert.Equal(["overWhite"], (await server.Send(HttpMethod.Post, await List(), half)).Body.Fields());
    }

    [Fact]
    public async Task The_same_name_of_the_same_maker_is_there_once()
    {
        Assert.Equal(201, (await server.Send(HttpMethod.Post, await List(), Paint("Twice Told"))).Status);
        var (status, problem) = await server.Send(HttpMethod.Post, await List(), Paint("Twice Told"));
        Assert.Equal((409, "already-there"), (status, problem.Text("code")));
    }

    [Fact]
    public async Task Two_editors_of_one_material_are_both_told()
    {
        var (_, card) = await server.Send(HttpMethod.Post, await List(), Paint("Contested"));
        var path = $"/api/shelf/materials/{card.Text("id")}";
        JsonObject Edit(string notes)
        {
            var entry = Paint("Contested");
            (entry["version"], entry["notes"]) = (card["version"]!.Copy(), notes);
            return entry;
        }

        Assert.Equal(200, (await server.Send(HttpMethod.Put, path, Edit("first"))).Status);
        var (status, problem) = await server.Send(HttpMethod.Put, path, Edit("second"));
        Assert.Equal(409, status);
        Assert.Equal("first", problem["current"]!.Text("notes"));
    }

    [Fact]
    public async Task What_is_used_says_where_and_a_name_that_was_taken_away_is_free_again()
    {
        var umber = (await server.Get(await List())).AsArray().Single(m => m!.Text("name") == "Bog Umber")!;
        Assert.True(umber["uses"]!.GetValue<int>() > 0);
        var uses = (await server.Get($"/api/shelf/materials/{umber.Text("id")}/uses")).AsArray();
        Assert.Contains(uses, u => u!.Text("treatment") == "Lock brick" && u!["zones"]!.AsArray().Count == 2);
        var (_, card) = await server.Send(HttpMethod.Post, await List(), Paint("Never Used"));
        Assert.Equal(204, (await server.Send(HttpMethod.Delete, $"/api/shelf/materials/{card.Text("id")}", null)).Status);
        Assert.DoesNotContain((await server.Get(await List())).AsArray(), m => m!.Text("name") == "Never Used");

        // Its name is free again.
        Assert.Equal(201, (await server.Send(HttpMethod.Post, await List(), Paint("Never Used"))).Status);
    }

    [Fact]
    public async Task A_new_workshop_gets_its_first_set_from_a_preset()
    {
        var (status, workshop) = await server.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" });
        Assert.Equal(201, status);
        foreach (var preset in (await server.Get("/api/plan/presets")).AsArray())
        {
            var design = new JsonObject
            {
                ["name"] = preset!["name"]!.Copy(),
                ["pieces"] = preset["pieces"]!.Copy(),
                ["substrate"] = preset["substrate"]!.Copy(),
                ["silhouette"] = preset["silhouette"]!.Copy(),
                ["zones"] = preset["zones"]!.Copy(),
            };
            var body = new JsonObject
            {
                ["workshopId"] = workshop["id"]!.Copy(),
                ["name"] = "Set of " + preset.Text("kind"),
                ["scale"] = 56,
                ["tableMetres"] = 0.9,
                ["design"] = design,
            };
            (status, var made) = await server.Send(HttpMethod.Post, "/api/plan/sets", body);
            Assert.Equal(201, status);
            var overview = await server.Get($"/api/plan/sets/{made.Text("setId")}");
            var zones = overview["designs"]![0]!["zones"]!.AsArray();
            Assert.Equal(preset["zones"]!.AsArray().Count, zones.Count);
            Assert.All(zones, z => Assert.True(z!["layers"]!.GetValue<int>() >= 4));
            Assert.All(zones, z => Assert.Equal(0, z!["stops"]!.GetValue<int>()));
            Assert.Equal(409, (await server.Send(HttpMethod.Post, "/api/plan/sets", body)).Status);
        }
    }

    [Fact]
    public async Task A_first_set_with_mistakes_names_every_field()
    {
        var body = new JsonObject
        {
            ["workshopId"] = await server.WorkshopId(),
            ["name"] = "",
            ["scale"] = 0,
            ["tableMetres"] = 99,
            ["design"] = JsonNode.Parse("""{"name":"x","pieces":0,"substrate":"board","zones":[{"name":"A","areaCm2":-4},{"name":"A","areaCm2":1}]}"""),
        };
        var (status, problem) = await server.Send(HttpMethod.Post, "/api/plan/sets", body);
        Assert.Equal(400, status);
        Assert.Equal(["design.pieces", "design.zones", "design.zones[0].areaCm2", "name", "scale", "tableMetres"], problem.Fields().Order());
    }

    private static JsonObject FirstSet(string name, JsonObject design, string? workshop = null) => new()
    {
        ["workshop"] = workshop,
        ["name"] = name,
        ["scale"] = 48,
        ["tableMetres"] = 0.9,
        ["design"] = design,
    };

    private static JsonObject Dyke(params JsonObject[] zones) => new() { ["name"] = "Dyke", ["pieces"] = 2, ["substrate"] = "foam", ["zones"] = new JsonArray([.. zones]) };

    private static JsonObject Zone(string name) => new() { ["name"] = name, ["areaCm2"] = 40, ["relief"] = "deep" };

    [Fact]
    public async Task A_workshop_comes_with_its_first_set_or_not_at_all()
    {
        async Task<int> Workshops() => (await server.Get("/api/workshops")).AsArray().Count;
        var before = await Workshops();
        var (status, problem) = await server.Send(HttpMethod.Post, "/api/plan/sets", FirstSet("Causeway", Dyke(Zone("Bank"), Zone("Bank")), "Loft bench"));
        Assert.Equal((400, "design.zones"), (status, problem.Fields().Single()));
        (status, problem) = await server.Send(HttpMethod.Post, "/api/plan/sets", FirstSet("Causeway", Dyke(Zone("Bank")), "  "));
        Assert.Equal((400, "workshop"), (status, problem.Fields().Single()));
        Assert.Equal(before, await Workshops());
        var key = Guid.NewGuid();
        (status, var made) = await server.Send(HttpMethod.Post, "/api/plan/sets", FirstSet("Causeway", Dyke(Zone("Bank")), "Loft bench"), key);
        Assert.Equal(201, status);
        Assert.Equal(made.Text("setId"), (await server.Send(HttpMethod.Post, "/api/plan/sets", FirstSet("Causeway", Dyke(Zone("Bank")), "Loft bench"), key)).Body.Text("setId"));
        Assert.Equal(before + 1, await Workshops());

        // It has the plain materials once, and its layers are of them.
        var workshop = (await server.Get("/api/workshops")).AsArray().Single(w => w!.Text("name") == "Loft bench")!;
        var shelf = (await server.Get($"/api/shelf/{workshop.Text("id")}/materials")).AsArray();
        Assert.Equal(shelf.Count, shelf.Select(m => m!.Text("name")).Distinct().Count());
        var layers = (await server.Get($"/api/plan/zones/{made.Text("firstZoneId")}"))["layers"]!.AsArray();
        Assert.All(layers, l => Assert.Contains(shelf, m => m!.Text("id") == l!["paint"]![0]!.Text("materialId")));
    }

    [Fact]
    public async Task A_zone_begins_bare_with_the_usual_or_with_a_treatment_that_is_there()
    {
        var (_, made) = await server.Send(HttpMethod.Post, "/api/plan/sets", FirstSet("Sluice gate", Dyke(Zone("Bank")), "Barn bench"));
        var first = await server.Get($"/api/plan/zones/{made.Text("firstZoneId")}");
        var workshop = (await server.Get("/api/workshops")).AsArray().Single(w => w!.Text("name") == "Barn bench")!.Text("id");
        var treatment = (await server.Get($"/api/plan/workshops/{workshop}/treatments")).AsArray().Single()!;
        Assert.Equal(first.Text("treatmentId"), treatment.Text("id"));
        Assert.Equal(first["layers"]!.AsArray().Count, treatment["layers"]!.GetValue<int>());
        JsonObject shares = Zone("Same"), bare = Zone("Bare");
        (shares["treatmentId"], bare["startingLayers"]) = (treatment.Text("id"), false);
        var path = $"/api/plan/sets/{made.Text("setId")}/designs";
        var design = Dyke(shares, bare, Zone("Usual"));
        design["name"] = "Weir";
        var (status, _) = await server.Send(HttpMethod.Post, path, design);
        Assert.Equal(201, status);
        var zones = (await server.Get($"/api/plan/sets/{made.Text("setId")}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Weir")!["zones"]!.AsArray();
        Assert.Equal([treatment["layers"]!.GetValue<int>(), 0, 5], zones.Select(z => z!["layers"]!.GetValue<int>()));
        Assert.Equal(treatment.Text("id"), (await server.Get($"/api/plan/zones/{zones[0]!.Text("id")}")).Text("treatmentId"));

        // One of another bench is none of this one.
        var foreign = Zone("Foreign");
        foreign["treatmentId"] = (await server.Get($"/api/plan/workshops/{await server.WorkshopId()}/treatments")).AsArray()[0]!.Text("id");
        (status, var problem) = await server.Send(HttpMethod.Post, path, new JsonObject { ["name"] = "Pier", ["pieces"] = 1, ["substrate"] = "wood", ["zones"] = new JsonArray(Zone("Deck"), foreign) });
        Assert.Equal((400, "zones[1].treatmentId"), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task The_usual_layers_follow_the_house()
    {
        async Task<List<string>> Begins(string workshop, string? answer)
        {
            var (_, bench) = await server.Send(HttpMethod.Post, "/api/workshops", new { name = workshop });
            var house = $"/api/workshops/{bench.Text("id")}/house-rules";
            if (answer is not null)
                await server.Send(HttpMethod.Put, house, new JsonObject { ["version"] = (await server.Get(house))["version"]!.Copy(), ["answers"] = new JsonObject { ["recess colour"] = answer } });
            var set = FirstSet("Causeway", Dyke(Zone("Bank")));
            set["workshopId"] = bench.Text("id");
            var (status, made) = await server.Send(HttpMethod.Post, "/api/plan/sets", set);
            Assert.Equal(201, status);
            var zone = await server.Get($"/api/plan/zones/{made.Text("firstZoneId")}");
            Assert.DoesNotContain(zone["reading"]!["findings"]!.AsArray(), f => f!.Text("severity") == "stop");
            return zone["layers"]!.AsArray().Select(l => l!.Text("technique")).ToList();
        }

        Assert.Contains("overbrush", await Begins("Shed bench", null));
        Assert.DoesNotContain("overbrush", await Begins("Yard bench", "after"));
    }

    [Fact]
    public async Task What_is_taken_off_the_shelf_can_be_put_back()
    {
        var (_, paint) = await server.Send(HttpMethod.Post, await List(), Paint("Brought Back"));
        var path = $"/api/shelf/materials/{paint.Text("id")}";
        await server.Send(HttpMethod.Delete, path, null);
        Assert.DoesNotContain((await server.Get(await List())).AsArray(), m => m!.Text("name") == "Brought Back");
        var (status, back) = await server.Send(HttpMethod.Post, path + "/bring-back", null);
        Assert.Equal((200, "Brought Back"), (status, back.Text("name")));
        Assert.Contains((await server.Get(await List())).AsArray(), m => m!.Text("id") == paint.Text("id"));

        // Its name may have been given away meanwhile.
        await server.Send(HttpMethod.Delete, path, null);
        await server.Send(HttpMethod.Post, await List(), Paint("Brought Back"));
        (status, back) = await server.Send(HttpMethod.Post, path + "/bring-back", null);
        Assert.Equal((409, "name"), (status, back.Fields().Single()));
        Assert.Equal(404, (await server.Send(HttpMethod.Post, $"/api/shelf/materials/{Guid.NewGuid()}/bring-back", null)).Status);
    }

    [Fact]
    public async Task A_card_comes_with_what_is_usual_for_the_kind()
    {
        var (status, preview) = await server.Send(HttpMethod.Post, "/api/shelf/drawdown", new { kind = "paint", carrier = "enamel", colour = "#4a3527" });
        Assert.Equal(200, status);
        Assert.Equal(preview["usual"]!["touchMinutes"]!.GetValue<decimal>(), preview["card"]!["touchMinutes"]!.GetValue<decimal>());
        Assert.Equal(0.05m, preview["usual"]!["dropMl"]!.GetValue<decimal>());
        (_, var wash) = await server.Send(HttpMethod.Post, "/api/shelf/drawdown", new { kind = "paint", carrier = "water acrylic", colour = "#4a3527" });
        Assert.True(wash["usual"]!["cureMinutes"]!.GetValue<decimal>() < preview["usual"]!["cureMinutes"]!.GetValue<decimal>());
    }
}
