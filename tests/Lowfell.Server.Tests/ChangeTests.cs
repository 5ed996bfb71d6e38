using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>Everything that can be said of a thing can be changed, read back, undone and done again.</summary>
public sealed class ChangeTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    /// <summary>Thing, field, another value: every attribute of every thing of the plan.</summary>
    public static TheoryData<string, string, string> Attributes { get; } = new()
    {
        { "workshop", "name", "\"Fen Row loft\"" }, { "workshop", "temperatureC", "23" }, { "workshop", "relativeHumidity", "0.41" }, { "workshop", "airMoves", "true" },
        { "workshop", "currency", "\"£\"" }, { "workshop", "tableMetres", "1.4" }, { "workshop", "handling", "\"hard play\"" }, { "workshop", "targetSheen", "\"eggshell\"" },
        { "workshop", "timeZone", "\"Europe/Paris\"" }, { "workshop", "painters", "[\"AB\",\"CD\"]" }, { "workshop", "inches", "true" }, { "workshop", "hours", "\"Mon 19:00-21:00\"" }, { "workshop", "dryingPlaces", "3" },
        { "set", "name", "\"Fen Sluice\"" }, { "set", "scale", "72" }, { "set", "tableMetres", "1.1" }, { "set", "handling", "\"display\"" }, { "set", "targetSheen", "\"satin\"" },
        { "set", "dueDate", "\"2027-02-03\"" }, { "set", "reserveMl", "3.5" }, { "set", "rank", "0" },
        { "design", "name", "\"Lock-wall long\"" }, { "design", "silhouette", "\"corner\"" }, { "design", "substrate", "\"resin\"" }, { "design", "position", "3" },
        { "piece", "label", "\"W99\"" }, { "piece", "rimNumber", "\"99\"" }, { "piece", "spare", "true" },
        { "zone", "name", "\"Stone field\"" }, { "zone", "position", "2" }, { "zone", "areaCm2", "301.5" }, { "zone", "relief", "\"light\"" }, { "zone", "edgeMm", "777" }, { "zone", "jointMm", "1888" },
        { "zone", "smallestDetailMm", "0.7" }, { "zone", "handling", "\"hard play\"" }, { "zone", "targetSheen", "\"gloss\"" }, { "zone", "cutEdge", "true" }, { "zone", "beforeAssembly", "true" },
        { "zone", "surface", "\"panels\"" }, { "zone", "surfaceLengthMm", "12.5" }, { "zone", "surfaceHeightMm", "8.5" }, { "zone", "rivetMm", "2.5" }, { "zone", "across", "true" },
        { "zone", "up+side+down", "[0.25,0.5,0.25]" }, { "zone", "raised+field+recess", "[0.3,0.4,0.3]" }, { "zone", "touches", "[]" },
        { "treatment", "name", "\"Sluice brick\"" },
    };

    [Theory]
    [MemberData(nameof(Attributes))]
    public async Task Every_attribute_is_changed_undone_and_done_again(string thing, string fields, string value)
    {
        var painter = new Painter(server, 0, $"{thing} {fields}");
        await painter.Begin();
        var before = await Read(thing);
        var names = fields.Split('+');
        var body = new JsonObject { ["version"] = before["version"]!.Copy() };
        for (var i = 0; i < names.Length; i++)
            body[names[i]] = names.Length > 1 ? JsonNode.Parse(value)![i]!.Copy() : JsonNode.Parse(value);
        if (fields == "scale")
            body["measuresFollow"] = true;
        var id = before["id"] ?? before["treatmentId"]!;
        await painter.Do(HttpMethod.Put, $"/api/{thing}s/{id}", body);
        var after = await Read(thing);
        foreach (var name in names)
        {
            // What is given as it was before, such as the first place among one, is no change.
            Assert.True(Same(body[name], after[name]), $"{name}: {after[name]?.ToJsonString()}");
            if (name is not "rank")
                Assert.False(Same(before[name], after[name]), name);
        }

        if (fields is "rank")
            return;
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(before, await Read(thing));
        Assert.Equal(200, (await painter.Redo()).Status);
        AssertSame(after, await Read(thing));
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(before, await Read(thing));
    }

    /// <summary>Field and another value: every attribute of a material. Stock is what its moves come to, and is typed for the first time only.</summary>
    public static TheoryData<string, string> OfMaterials { get; } = new()
    {
        { "name", "\"Wet Slate, new tin\"" }, { "maker", "\"Tarnside Two\"" }, { "code", "\"T-199\"" }, { "kind", "\"ink\"" }, { "carrier", "\"enamel\"" }, { "colour", "\"#313a41\"" },
        { "overBlack", "\"#20262a\"" }, { "overWhite", "\"#3a444b\"" }, { "coatsToHide", "2.5" }, { "sheen", "\"satin\"" }, { "solidsFraction", "0.52" }, { "thinners", "[\"white spirit\"]" },
        { "touchMinutes", "17" }, { "recoatMinutes", "44" }, { "cureMinutes", "2000" }, { "heatSafe", "false" }, { "packMl", "21" }, { "price", "4.5" }, { "hazards", "\"keep it off the skin\"" },
        { "notes", "\"shake it long\"" }, { "lustre", "\"metal\"" }, { "mostThinnerShare", "0.4" }, { "dropMl", "0.041" }, { "densityGPerMl", "1.31" },
    };

    [Theory]
    [MemberData(nameof(OfMaterials))]
    public async Task Every_attribute_of_a_material_is_changed_undone_and_done_again(string field, string value)
    {
        var painter = new Painter(server, 0, $"material {field}");
        await painter.Begin();
        var shelf = $"/api/shelf/{painter.Workshop}/materials";
        var id = (await server.Get(shelf)).AsArray().Single(m => m!.Text("name") == "Wet Slate")!["id"]!.ToString();
        async Task<JsonNode> Now() => (await server.Get(shelf)).AsArray().Single(m => m!["id"]!.ToString() == id)!;
        var before = await Now();
        var body = before.Copy().AsObject();
        foreach (var own in body.Select(e => e.Key).Where(k => !OfMaterials.Select(o => o.Data.Item1).Contains(k) && k is not ("version" or "stockMl")).ToList())
            body.Remove(own);
        body[field] = JsonNode.Parse(value);

        // A card says more of a colour than a colour does, and both together are too much.
        if (field is "overBlack" or "overWhite")
            (body["overBlack"], body["overWhite"], body["colour"]) = ("#20262a", "#3a444b", null);
        await painter.Do(HttpMethod.Put, $"/api/shelf/materials/{id}", body);
        var after = await Now();
        Assert.True(Same(body[field], after[field]), $"{field}: {after[field]?.ToJsonString()}");
        Assert.False(Same(before[field], after[field]), field);
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(before, await Now());
        Assert.Equal(200, (await painter.Redo()).Status);
        AssertSame(after, await Now());
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(before, await Now());
    }

    /// <summary>Field and another value: every attribute of a layer, its mix and its dilution among them.</summary>
    public static TheoryData<string, string> OfLayers { get; } = new()
    {
        { "technique", "\"stipple\"" }, { "paint", "MIX" }, { "dilution", "THINNED" }, { "coats", "4" }, { "region", "\"upward\"" }, { "strength", "0.6" }, { "tool", "\"sponge\"" },
        { "drying", "\"hot air\"" }, { "waitMinutes", "95" }, { "optional", "true" }, { "note", "\"thin edges first\"" }, { "markMm", "1.25" }, { "varied", """{"seed":77,"habit":"at joints","meanMm":4.5,"marks":2.5,"spread":0.8,"dealt":false}""" }, { "downTo", "FIRST" },
        { "details", "12" }, { "fades", "true" }, { "preparation", "ANY" },
    };

    [Theory]
    [MemberData(nameof(OfLayers))]
    public async Task Every_attribute_of_a_layer_is_changed_undone_and_done_again(string field, string value)
    {
        var painter = new Painter(server, 0, $"layer {field}");
        await painter.Begin();
        var zone = $"/api/plan/zones/{(await Read("zone"))["id"]}";
        var shelf = (await server.Get($"/api/shelf/{painter.Workshop}/materials")).AsArray();
        string Material(string name) => shelf.Single(m => m!.Text("name") == name)!["id"]!.ToString();
        const int At = 1;
        var before = await server.Get(zone);
        var layers = before["layers"]!.Copy().AsArray();
        layers[At]![field] = value switch
        {
            "MIX" => JsonNode.Parse($$"""[{ "materialId": "{{Material("Wet Slate")}}", "parts": 5 }, { "materialId": "{{Material("Rust Bloom")}}", "parts": 2 }]"""),
            "THINNED" => JsonNode.Parse($$"""{ "thinnerId": "{{Material("Tarnside Thinner")}}", "paint": 3, "thinner": 2 }"""),
            "FIRST" => layers[0]!["id"]!.Copy(),
            "ANY" => shelf.SelectMany(m => m!["preparations"]!.AsArray()).First(p => p!.ToString() != "none")!.Copy(),
            _ => JsonNode.Parse(value),
        };
        await painter.Do(HttpMethod.Put, $"{zone}/stack", new { version = before["version"], layers });
        var after = await server.Get(zone);
        Assert.Equal(layers[At]![field]!.ToJsonString(), after["layers"]![At]![field]!.ToJsonString());
        Assert.NotEqual(before["layers"]![At]![field]?.ToJsonString(), after["layers"]![At]![field]!.ToJsonString());
        string Layers(JsonNode of) => of["layers"]!.ToJsonString();
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(Layers(before), Layers(await server.Get(zone)));
        Assert.Equal(200, (await painter.Redo()).Status);
        Assert.Equal(Layers(after), Layers(await server.Get(zone)));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(Layers(before), Layers(await server.Get(zone)));
    }

    [Theory]
    [InlineData("label", "Old brick two")]
    [InlineData("note", "a drop of retarder in it")]
    public async Task What_a_pot_is_called_and_noted_is_changed_undone_and_done_again(string field, string value)
    {
        var painter = new Painter(server, 0, $"pot {field}");
        await painter.Begin();
        var pots = $"/api/pots/{await server.SetId()}";
        var id = (await server.Get(pots))["pots"]![0]!["id"]!.ToString();
        async Task<JsonNode> Now() => (await server.Get(pots))["pots"]!.AsArray().Single(p => p!["id"]!.ToString() == id)!;
        var before = await Now();
        await painter.Do(HttpMethod.Put, $"{pots}/{id}", new JsonObject { [field] = value });
        Assert.Equal(value, (await Now()).Text(field));
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(before, await Now());
        Assert.Equal(200, (await painter.Redo()).Status);
        Assert.Equal(value, (await Now()).Text(field));
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    private static bool Same(JsonNode? a, JsonNode? b)
    {
        if (a is JsonValue x && b is JsonValue y && decimal.TryParse(x.ToString(), CultureInfo.InvariantCulture, out var m) && decimal.TryParse(y.ToString(), CultureInfo.InvariantCulture, out var n))
            return m == n;
        return JsonNode.DeepEquals(a, b);
    }

    /// <summary>The same but for the version of the row.</summary>
    private static void AssertSame(JsonNode expected, JsonNode actual)
    {
        static string Text(JsonNode node)
        {
            var copy = node.Copy().AsObject();
            foreach (var own in new[] { "version", "designs", "pieces", "zones", "sets", "revision", "changedAt" })
                copy.Remove(own);
            return copy.ToJsonString();
        }

        Assert.Equal(Text(expected), Text(actual));
    }

    private async Task<JsonNode> Read(string thing)
    {
        if (thing == "workshop")
            return (await server.Get("/api/workshops"))[0]!;
        if (thing == "treatment")
            return (await server.Get($"/api/workshops/{await server.WorkshopId()}/treatments")).AsArray().Single(t => t!["uses"]!.AsArray().Any(u => u!["zone"]!.ToString() == "Tide band" && u["design"]!.ToString() == "Lock-wall corner"))!;
        var set = await server.Get($"/api/sets/{await server.SetId()}");
        var design = set["designs"]!.AsArray().Single(d => d!["zones"]!.AsArray().Count == 5 && d["pieces"]!.AsArray().Count == 8)!;
        return thing switch
        {
            "set" => set,
            "design" => design,
            "zone" => design["zones"]!.AsArray().Single(z => z!.Text("treatment") is "Lock brick")!,

            // Ids of one instant come in any order; W2 is the one whose label is taken.
            _ => design["pieces"]!.AsArray().Where(p => p!.Text("label") != "W2").OrderBy(p => p!["id"]!.ToString(), StringComparer.Ordinal).First()!,
        };
    }

    [Fact]
    public async Task What_may_be_empty_is_made_empty()
    {
        var painter = new Painter(server, 0, "emptier");
        await painter.Begin();
        var set = await Read("set");
        await painter.Do(HttpMethod.Put, $"/api/sets/{set["id"]}", new { version = set["version"], dueDate = "2027-03-01" });
        set = await Read("set");
        await painter.Do(HttpMethod.Put, $"/api/sets/{set["id"]}", new { version = set["version"], clear = new[] { "dueDate" } });
        Assert.Null((await Read("set"))["dueDate"]);
        var zone = await Read("zone");
        await painter.Do(HttpMethod.Put, $"/api/zones/{zone["id"]}", new { version = zone["version"], handling = "display", targetSheen = "gloss" });
        zone = await Read("zone");
        await painter.Do(HttpMethod.Put, $"/api/zones/{zone["id"]}", new { version = zone["version"], clear = new[] { "handling", "targetSheen", "surfaceLengthMm", "surfaceHeightMm" } });
        zone = await Read("zone");
        Assert.All(new[] { "handling", "targetSheen", "surfaceLengthMm", "surfaceHeightMm" }, f => Assert.Null(zone[f]));
        for (var i = 0; i < 3; i++)
            Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Theory]
    [InlineData("sets", "name", "\" \"")]
    [InlineData("sets", "scale", "0")]
    [InlineData("sets", "scale", "72")]
    [InlineData("sets", "tableMetres", "40")]
    [InlineData("designs", "name", "\"Lock-wall corner\"")]
    [InlineData("pieces", "label", "\"W2\"")]
    [InlineData("zones", "areaCm2", "-1")]
    [InlineData("zones", "up", "0.9")]
    [InlineData("zones", "name", "\"Coping\"")]
    [InlineData("zones", "surfaceLengthMm", "0")]
    [InlineData("zones", "clear", "[\"name\"]")]
    [InlineData("workshops", "timeZone", "\"Middle Fen\"")]
    [InlineData("workshops", "painters", "[\"A\",\"B\",\"C\",\"D\",\"E\"]")]
    public async Task What_cannot_be_is_refused_with_its_field(string things, string field, string value)
    {
        var row = await Read(things[..^1]);
        var before = row.ToJsonString();
        var body = new JsonObject { ["version"] = row["version"]!.Copy(), [field] = JsonNode.Parse(value) };
        var (status, problem) = await server.Send(HttpMethod.Put, $"/api/{things}/{row["id"]}", body);
        Assert.True(status is 400 or 409, $"{status}");
        Assert.Contains(problem.Fields(), f => f.StartsWith(field == "scale" && value == "72" ? "measuresFollow" : field, StringComparison.Ordinal));
        Assert.Equal(before, (await Read(things[..^1])).ToJsonString());
    }

    [Fact]
    public async Task A_scale_takes_the_measures_with_it_or_leaves_them()
    {
        var painter = new Painter(server, 0, "scaler");
        await painter.Begin();
        var set = await Read("set");
        var zone = await Read("zone");
        await painter.Do(HttpMethod.Put, $"/api/sets/{set["id"]}", new { version = set["version"], scale = 112, measuresFollow = true });
        var half = await Read("zone");
        Assert.Equal(zone["areaCm2"]!.GetValue<decimal>() / 4, half["areaCm2"]!.GetValue<decimal>(), 2);
        Assert.Equal(zone["jointMm"]!.GetValue<decimal>() / 2, half["jointMm"]!.GetValue<decimal>(), 2);
        Assert.Equal(zone["surfaceLengthMm"]!.GetValue<decimal>() / 2, half["surfaceLengthMm"]!.GetValue<decimal>(), 2);
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(zone, await Read("zone"));
        set = await Read("set");
        await painter.Do(HttpMethod.Put, $"/api/sets/{set["id"]}", new { version = set["version"], scale = 112, measuresFollow = false });
        Assert.Equal(zone["areaCm2"]!.GetValue<decimal>(), (await Read("zone"))["areaCm2"]!.GetValue<decimal>());
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    /// <summary>A treatment on twelve zones of three sets: an edit is for all, a parting for one, and each version is there again.</summary>
    [Fact]
    public async Task Each_zone_has_what_the_painter_was_told()
    {
        var painter = new Painter(server, 0, "linker");
        await painter.Begin();
        var first = await server.SetId();
        var sets = new List<Guid> { first };
        for (var i = 0; i < 2; i++)
            sets.Add((await painter.Do(HttpMethod.Post, $"/api/sets/{first}/copies", new { }))["id"]!.GetValue<Guid>());
        var zones = new List<JsonNode>();
        foreach (var set in sets)
            zones.AddRange((await server.Get($"/api/sets/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Take(4)!);
        var treatment = zones[0]["treatmentId"]!.GetValue<Guid>();
        foreach (var zone in zones.Where(z => z["treatmentId"]!.GetValue<Guid>() != treatment))
            await painter.Do(HttpMethod.Post, $"/api/zones/{zone["id"]}/link", new { version = zone["version"], treatmentId = treatment });
        async Task<List<int>> Coats() => (await Task.WhenAll(zones.Select(z => server.Get($"/api/plan/zones/{z["id"]}")))).Select(s => s["layers"]![1]!["coats"]!.GetValue<int>()).ToList();
        async Task Edit(int zone, int coats)
        {
            var sheet = await server.Get($"/api/plan/zones/{zones[zone]["id"]}");
            var layers = sheet["layers"]!.Copy();
            layers[1]!["coats"] = coats;
            await painter.Do(HttpMethod.Put, $"/api/plan/zones/{zones[zone]["id"]}/stack", new { version = sheet["version"], layers });
        }

        Assert.True((await server.Get($"/api/plan/zones/{zones[0]["id"]}"))["sharedWith"]!.AsArray().Count >= 11);
        await Edit(5, 7);
        Assert.All(await Coats(), c => Assert.Equal(7, c));
        await painter.Do(HttpMethod.Post, $"/api/zones/{zones[3]["id"]}/part", new { });
        await Edit(3, 4);
        await Edit(0, 3);
        var coats = await Coats();
        Assert.Equal(4, coats[3]);
        Assert.All(coats.Where((_, i) => i != 3), c => Assert.Equal(3, c));
        var own = (await server.Get($"/api/plan/zones/{zones[3]["id"]}"))["treatmentId"]!.GetValue<Guid>();
        var parted = (await server.Get($"/api/workshops/{painter.Workshop}/treatments")).AsArray().Single(t => t!["id"]!.GetValue<Guid>() == own)!;
        Assert.Equal(treatment, parted["cameFromId"]!.GetValue<Guid>());

        // An old version once more: for all that share it, and not for the one that parted.
        var versions = (await server.Get($"/api/treatments/{treatment}/versions")).AsArray();
        var oldest = versions[^1]!;
        var now = (await server.Get($"/api/workshops/{painter.Workshop}/treatments")).AsArray().Single(t => t!["id"]!.GetValue<Guid>() == treatment)!;
        await painter.Do(HttpMethod.Post, $"/api/treatments/{treatment}/versions/{oldest["number"]}/bring-back", new { version = now["version"] });
        coats = await Coats();
        Assert.Equal(4, coats[3]);
        Assert.All(coats.Where((_, i) => i != 3), c => Assert.Equal(oldest["layers"]![1]!["coats"]!.GetValue<int>(), c));
        while ((await painter.Undo()).Status == 200)
        {
        }

        Assert.Single((await server.Get($"/api/workshops/{painter.Workshop}/sets")).AsArray());
    }

    [Fact]
    public async Task Versions_say_what_changed_and_can_be_named()
    {
        var painter = new Painter(server, 0, "versions");
        await painter.Begin();
        var zone = await server.ZoneId("Reed dredger", "Deck");
        var sheet = await server.Get($"/api/plan/zones/{zone}");
        var layers = sheet["layers"]!.Copy().AsArray();
        layers.RemoveAt(layers.Count - 1);
        layers[1]!["coats"] = 6;
        await painter.Do(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new { version = sheet["version"], layers });
        var path = $"/api/treatments/{sheet["treatmentId"]}/versions";
        var newest = (await server.Get(path))[0]!;
        Assert.Contains("→ 6 coats", newest.Text("words"), StringComparison.Ordinal);
        Assert.Contains("removed", newest.Text("words"), StringComparison.Ordinal);
        Assert.True(newest["current"]!.GetValue<bool>());
        Assert.Equal(layers.Count, newest["strata"]!.AsArray().Count);
        await painter.Do(HttpMethod.Put, $"{path}/{newest["number"]}/name", new { name = "Short deck" });
        Assert.Equal("Short deck", (await server.Get(path))[0]!.Text("name"));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Null((await server.Get(path))[0]!["name"]);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task A_treatment_that_zones_have_cannot_be_put_away_and_a_copy_of_it_can()
    {
        var zone = await server.Get($"/api/plan/zones/{await server.ZoneId("Jetty section", "Rope")}");
        var (used, why) = await server.Send(HttpMethod.Post, $"/api/treatments/{zone.Text("treatmentId")}/put-away", new { });
        Assert.Equal((409, "in-use", "A zone has this treatment. Give it another one first."), (used, why.Text("code"), why.Text("detail")));
        var (copied, copy) = await server.Send(HttpMethod.Post, $"/api/treatments/{zone.Text("treatmentId")}/copies", new { name = "Rope again" });
        Assert.True(copied is 200 or 201, copy.ToJsonString());
        await using var db = server.Db();
        var own = await db.Treatments.Where(t => t.Name == "Rope again").Select(t => t.Id).SingleAsync(TestContext.Current.CancellationToken);
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/treatments/{own}/put-away", new { })).Status);
    }

    /// <summary>Each figure of a layer, changed alone, is a change: it is stored, and a version of its own.</summary>
    [Fact]
    public async Task Every_figure_of_a_layer_is_stored_by_itself()
    {
        var zone = await server.ZoneId("Jetty section", "Timber");
        JsonNode Varied(string field, JsonNode value)
        {
            var varied = new JsonObject { ["seed"] = 5, ["habit"] = "from ground", ["meanMm"] = 4, ["marks"] = 2, ["spread"] = 0.4, ["dealt"] = false };
            varied[field] = value;
            return varied;
        }

        var at = (await server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray().ToList().FindIndex(l => l!.Text("technique") == "dry brush");
        foreach (var (field, value) in new (string, JsonNode)[]
        {
            ("coats", 3), ("strength", 0.65), ("region", "lower third"), ("fades", true), ("optional", true), ("tool", "sponge"), ("drying", "hot air"), ("waitMinutes", 77), ("markMm", 1.25), ("details", 12), ("note", "by the window"),
            ("varied", Varied("seed", 5)), ("varied", Varied("seed", 6)), ("varied", Varied("marks", 3)), ("varied", Varied("spread", 0.7)), ("varied", Varied("dealt", true)), ("varied", Varied("meanMm", 6)), ("varied", Varied("habit", "from above")),
        })
        {
            var was = await server.Get($"/api/plan/zones/{zone}");
            var layers = was["layers"]!.Copy();
            layers[at]![field] = value.DeepClone();
            var (status, now) = await server.Send(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new { version = was["version"], layers });
            Assert.True(status == 200, $"{field}: {now.ToJsonString()}");
            Assert.NotEqual(was["revision"]!.GetValue<int>(), now["revision"]!.GetValue<int>());
            var stored = (await server.Get($"/api/plan/zones/{zone}"))["layers"]![at]![field]!;
            Assert.True(JsonNode.DeepEquals(JsonNode.Parse(value.ToJsonString()), JsonNode.Parse(stored.ToJsonString())), $"{field}: {stored.ToJsonString()} for {value.ToJsonString()}");
        }
    }
}
