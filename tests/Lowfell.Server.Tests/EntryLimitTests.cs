using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>What may be entered: each field is taken at its limit and refused just past it, and everything that is wrong is told at once.</summary>
public sealed class EntryLimitTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    /// <summary>A field, what it may be at the most and at the least, and what is just past that.</summary>
    private sealed record Limit(string Field, JsonNode?[] At, JsonNode?[] Past);

    /// <summary>Something that is entered, and the limits of its fields.</summary>
    private sealed record Entry(string Name, string Method, string Path, string Body, params Limit[] Limits);

    private static Limit Text(string field, int longest) => new(field, [new string('x', longest)], [new string('x', longest + 1)]);

    private static Limit Number(string field, decimal low, decimal high, decimal step = 1) => new(field, [low, high], [low - step, high + step]);

    private const string Layer = """{ "layers": [{ "id": "01990000-0000-7000-8000-000000000001", "technique": "base coat", "paint": [{ "materialId": "{material}", "parts": 1 }], "coats": 1, "region": "all", "strength": 1, "tool": "brush", "drying": "air", "note": "", "varied": { "seed": 1 } }], "version": 1, "revision": 999 }""";
    private const string Wish = """{ "version": 999, "wish": { "seed": 1, "shape": { "outline": "round", "widthMm": 32, "heightMm": 32 }, "textures": [{ "place": "anywhere", "share": 0.5 }, { "place": "anywhere", "share": 0.5 }], "flats": [{ "kind": "foot", "x": 0, "y": 0, "widthMm": 5, "heightMm": 5, "turn": 0 }], "rocks": 1, "tufts": 1, "reeds": 1, "planks": 0, "spread": 0.5, "columns": 6, "cork": 0 } }""";
    private const string Times = """{ "hours": [[0, 100]], "setups": [{ "id": "a", "minutes": 1, "cleanMinutes": 1 }], "operations": [{ "id": "o", "minutes": 1, "setup": "a" }, { "id": "p", "minutes": 1, "after": [{ "operation": "o", "minWait": 1 }] }] }""";

    private static readonly Entry[] entries =
    [
        new("a zone", "PUT", "/api/zones/{zone}", """{ "version": 999 }""", Text("name", 120), Number("areaCm2", 0.01m, 100_000, 0.001m), Number("edgeMm", 0, 1_000_000), Number("faceWidthMm", 0.1m, 10_000, 0.01m),
            Number("jointMm", 0, 1_000_000), Number("smallestDetailMm", 0.01m, 1000, 0.001m), Number("surfaceLengthMm", 0.01m, 10_000, 0.001m), Number("surfaceHeightMm", 0.01m, 10_000, 0.001m), Number("rivetMm", 0.05m, 10_000, 0.01m), Number("position", 0, 1000)),
        new("the measures of a zone", "PUT", "/api/plan/zones/{zone}", """{ "version": 999 }""", Text("name", 120), Number("areaCm2", 0.01m, 100_000, 0.001m), Number("edgeMm", 0, 1_000_000), Number("jointMm", 0, 1_000_000)),
        new("a guess", "POST", "/api/sets/{set}/zone-guess", """{ "relief": "deep" }""", Number("areaCm2", 0, 100_000, 0.001m), Number("surfaceLengthMm", 0.01m, 10_000, 0.001m), Number("surfaceHeightMm", 0.01m, 10_000, 0.001m)),
        new("a copy of a zone", "POST", "/api/zones/{zone}/copies", "{}", Text("name", 120)),
        new("a copy of a design", "POST", "/api/designs/{design}/copies", "{}", Text("name", 120)),
        new("a copy of a set", "POST", "/api/sets/{set}/copies", "{}", Text("name", 120)),
        new("pieces", "POST", "/api/designs/{design}/pieces", """{ "labels": ["a"] }""", Text("labels[0]", 40)),
        new("a piece", "PUT", "/api/pieces/{piece}", """{ "version": 999 }""", Text("label", 40), Text("rimNumber", 20)),
        new("a design", "PUT", "/api/designs/{design}", """{ "version": 999 }""", Text("name", 120), Number("position", 0, 1000)),
        new("a set", "PUT", "/api/sets/{set}", """{ "version": 999 }""", Text("name", 120), Number("scale", 1, 1000), Number("tableMetres", 0.1m, 10, 0.01m), Number("reserveMl", 0, 100, 0.01m), Number("rank", 0, 1000)),
        new("a first design", "POST", "/api/plan/sets/{set}/designs", """{ "name": "a", "silhouette": "wall", "substrate": "board", "pieces": 1, "zones": [{ "name": "z", "areaCm2": 0, "relief": "deep", "edgeMm": 1, "jointMm": 1, "up": 0, "ground": "#808080" }] }""",
            Text("name", 120), Text("zones[0].name", 120), Number("zones[0].edgeMm", 0, 1_000_000), Number("zones[0].jointMm", 0, 1_000_000), Number("zones[0].up", 0, 1, 0.01m)),
        new("layers", "PUT", "/api/plan/zones/{zone}/stack", Layer, Number("layers[0].coats", 1, 20), Number("layers[0].strength", 0, 3, 0.01m), Number("layers[0].waitMinutes", 0, 43_200), Number("layers[0].markMm", 0.01m, 200, 0.001m),
            Number("layers[0].details", 0.01m, 1000, 0.001m), Text("layers[0].note", 500), Number("layers[0].varied.seed", 1, 1_000_000), Number("layers[0].varied.meanMm", 0.3m, 200, 0.01m), Number("layers[0].varied.marks", 0.2m, 5, 0.01m), Number("layers[0].varied.spread", 0, 1, 0.01m)),
        new("a material", "PUT", "/api/shelf/materials/{material}", """{ "version": 999, "name": "a", "kind": "paint", "carrier": "water acrylic" }""", Text("name", 120), Text("maker", 120), Text("code", 40), Text("hazards", 500), Text("notes", 1000),
            Number("coatsToHide", 0.25m, 12, 0.01m), Number("solidsFraction", 0, 1, 0.01m), Number("mostThinnerShare", 0, 0.99m, 0.001m), Number("dropMl", 0.005m, 0.5m, 0.001m), Number("densityGPerMl", 0.3m, 8, 0.01m),
            Number("stockMl", 0, 1_000_000), Number("packMl", 0, 1_000_000), Number("price", 0, 1_000_000)),
        new("what dries", "PUT", "/api/shelf/materials/{material}", """{ "version": 999, "name": "a", "kind": "paint", "carrier": "water acrylic", "recoatMinutes": 100000, "cureMinutes": 100000 }""", Number("touchMinutes", 0, 100_000)),
        new("what cures", "PUT", "/api/shelf/materials/{material}", """{ "version": 999, "name": "a", "kind": "paint", "carrier": "water acrylic", "touchMinutes": 10, "recoatMinutes": 20 }""", Number("cureMinutes", 20, 100_000)),
        new("what is recoated", "PUT", "/api/shelf/materials/{material}", """{ "version": 999, "name": "a", "kind": "paint", "carrier": "water acrylic", "touchMinutes": 10, "cureMinutes": 100000 }""", Number("recoatMinutes", 10, 100_000)),
        new("a bottle", "PUT", "/api/shelf/materials/{material}/bottle", """{ "version": 999, "drops": 20, "ml": 1 }""", Number("densityGPerMl", 0.3m, 8, 0.01m)),
        new("the nearest", "POST", "/api/shelf/{workshop}/nearest", """{ "colour": "#808080" }""", Number("count", 1, 50)),
        new("a start", "POST", "/api/plan/zones/{zone}/start", """{ "layers": [], "position": "field", "wanted": "#808080" }""", Number("count", 1, 50)),
        new("a workshop", "PUT", "/api/workshops/{workshop}", """{ "version": 999, "name": "a", "temperatureC": 20, "relativeHumidity": 0.5, "painters": ["A.B."] }""", Text("name", 120), Number("temperatureC", -10, 45, 0.1m), Number("relativeHumidity", 0, 1, 0.01m),
            Text("currency", 8), Number("tableMetres", 0.1m, 10, 0.01m), Number("dryingPlaces", 0, 500), Text("painters[0]", 4)),
        new("a treatment", "PUT", "/api/treatments/{treatment}", """{ "version": 999 }""", Text("name", 120)),
        new("a copy of a treatment", "POST", "/api/treatments/{treatment}/copies", "{}", Text("name", 120)),
        new("a version", "PUT", "/api/treatments/{treatment}/versions/1/name", "{}", Text("name", 120)),
        new("a mix", "POST", "/api/workshops/{workshop}/recipes", """{ "name": "a", "parts": [] }""", Text("name", 120), Text("note", 500)),
        new("a jar", "POST", "/api/pots/{set}/jar", """{ "parts": [] }""", Number("totalMl", 0.1m, 5000, 0.01m), Number("needleMm", 0.1m, 2, 0.01m), Number("bar", 0.1m, 10, 0.01m)),
        new("a pot", "POST", "/api/pots/{set}", """{ "label": "P", "vessel": "jar", "amounts": [] }""", Text("label", 80), Text("note", 500)),
        new("what goes in by drops", "POST", "/api/pots/{set}", """{ "label": "P", "vessel": "jar", "amounts": [{ "materialId": "{material}" }] }""", Number("amounts[0].drops", 1, 20_000)),
        new("what goes in by ml", "POST", "/api/pots/{set}", """{ "label": "P", "vessel": "jar", "amounts": [{ "materialId": "{material}" }] }""", Number("amounts[0].ml", 0.0001m, 5000, 0.0001m)),
        new("the name of a pot", "PUT", "/api/pots/{set}/{pot}", "{}", Text("label", 80), Text("note", 500)),
        new("a lived-with remark", "POST", "/api/plan/zones/{zone}/accepted", """{ "rule": "none", "layerId": "01990000-0000-7000-8000-000000000001", "facts": "" }""", Text("reason", 500)),
        new("a move of stock", "POST", "/api/stock/{workshop}/moves", """{ "moves": [{ "kind": "bought", "ml": 1 }] }""", Text("moves[0].reason", 500), Number("moves[0].ml", 0.0001m, 1_000_000, 0.0001m)),
        new("a trial", "POST", "/api/trials/{set}", """{ "id": "01990000-0000-7000-8000-000000000002", "zoneId": "{zone}", "name": "t", "factors": [], "tile": { "widthMm": 40, "heightMm": 30, "round": false } }""", Text("name", 120), Number("tile.widthMm", 15, 300), Number("tile.heightMm", 15, 300)),
        new("a match", "POST", "/api/pieces/{set}/match", """{ "pieceIds": [] }""", Number("count", 1, 100), Text("name", 120)),
        new("a photograph", "POST", "/api/log/{set}/photos", """{ "data": "AAAA" }""", Text("words", 500)),
        new("what did not fit", "POST", "/api/bench/{workshop}/unfit", """{ "told": "{}" }""", Text("why", 500)),
        new("a tray", "PUT", "/api/bases/{set}/{base}", Wish, Number("wish.seed", 1, 1_000_000), Number("wish.shape.widthMm", 15, 300), Number("wish.shape.heightMm", 15, 300), Number("wish.marginMm", 0, 20, 0.01m), Number("wish.spread", 0, 1, 0.01m), Number("wish.columns", 1, 12),
            Number("wish.rocks", 0, 12, 0.01m), Number("wish.tufts", 0, 12, 0.01m), Number("wish.reeds", 0, 12, 0.01m), Number("wish.planks", 0, 12, 0.01m), Number("wish.cork", 0, 12, 0.01m)),
        new("what is on a base", "PUT", "/api/bases/{set}/{base}", Wish, Number("wish.textures[1].share", 0, 1, 0.01m), Number("wish.flats[0].widthMm", 0.5m, 300, 0.01m), Number("wish.flats[0].heightMm", 0.5m, 300, 0.01m)),
        new("a timetable", "POST", "/api/sessions/{workshop}", """{ "number": 999, "from": "anew", "careful": false }""", Number("atOnce", 1, 500), Number("lateMinutes", 0, 600)),
        new("an order", "POST", "/api/calc/order", """{ "substrate": "board", "zone": {}, "set": {}, "climate": {}, "layers": [{ "technique": "base coat", "material": { "name": "Any", "kind": "paint", "carrier": "water acrylic", "colour": "#808080" } }] }""",
            Number("set.pieces", 1, 10_000), Number("set.scale", 1, 1000), Number("set.metres", 0.1m, 100, 0.01m), Number("climate.temperatureC", -10, 45, 0.1m), Number("climate.relativeHumidity", 0, 1, 0.01m),
            Number("zone.areaCm2", 0.01m, 100_000, 0.001m), Number("zone.edgeMm", 0, 1_000_000), Number("zone.jointMm", 0, 1_000_000), Number("zone.smallestDetailMm", 0.01m, 1000, 0.001m)),
        new("layers of an order", "POST", "/api/calc/order", """{ "substrate": "board", "zone": {}, "layers": [{ "technique": "base coat", "material": { "name": "Any", "kind": "paint", "carrier": "water acrylic", "colour": "#808080" } }] }""", Number("minutesSinceLast", 0, 10_000_000),
            Number("layers[0].coats", 1, 20), Number("layers[0].strength", 0, 3, 0.01m), Number("layers[0].waitMinutes", 0, 100_000), Number("layers[0].markMm", 0.01m, 200, 0.001m), Number("layers[0].details", 1, 1000)),
        new("hours", "POST", "/api/calc/order", """{ "substrate": "board", "zone": {}, "layers": [{ "technique": "base coat", "material": { "name": "Any", "kind": "paint", "carrier": "water acrylic", "colour": "#808080" } }] }""", Number("layers[0].waitHours", 0, 2000)),
        new("a card", "POST", "/api/shelf/photo", """{ "card": [0.18, 0.18, 0.18], "sample": [0.1, 0.1, 0.1] }""", Number("cardReflectance", 0.05m, 1, 0.01m)),
        new("times", "POST", "/api/calc/schedule", Times, Number("painters", 1, 20), Number("dryingPlaces", 1, 5000), Number("due", 0, 10_000_000), Number("setups[0].minutes", 0, 10_000_000), Number("setups[0].cleanMinutes", 0, 10_000_000),
            Number("operations[0].minutes", 0, 10_000_000), Number("operations[0].hotAirMinutes", 0, 10_000_000), Number("operations[0].wetMinutes", 0, 10_000_000), Number("operations[1].after[0].minWait", 0, 10_000_000), Number("operations[1].after[0].maxWait", 0, 10_000_000), Text("operations[0].id", 200)),
    ];

    public static TheoryData<string> Names => [.. entries.Select(e => e.Name)];

    [Theory]
    [MemberData(nameof(Names))]
    public async Task Each_field_is_taken_at_its_limit_and_refused_just_past_it(string name)
    {
        var entry = entries.Single(e => e.Name == name);
        for (var round = 0; round < 2; round++)
        {
            var (status, past) = await Send(entry, l => l.Past[round % l.Past.Length]);
            Assert.True(status == 400, $"{status} {past.ToJsonString()}");
            Assert.True(entry.Limits.All(l => past.Fields().Contains(l.Field)), past.ToJsonString());
            var (_, at) = await Send(entry, l => l.At[round % l.At.Length]);
            Assert.DoesNotContain(at is JsonObject answer && answer["errors"] is JsonArray errors ? errors : [], e => entry.Limits.Any(l => l.Field == e!.Text("field")) && IsLimit(e!.Text("message")));
        }
    }

    /// <summary>It may be refused for something else, such as a name that is taken.</summary>
    private static bool IsLimit(string message) => message.StartsWith("At most", StringComparison.Ordinal) || message.StartsWith("Give a", StringComparison.Ordinal);

    private async Task<(int Status, JsonNode Body)> Send(Entry entry, Func<Limit, JsonNode?> value)
    {
        var body = JsonNode.Parse(await Named(entry.Body))!;
        foreach (var limit in entry.Limits)
            Put(body, limit.Field, value(limit));
        return await server.Send(new HttpMethod(entry.Method), await Named(entry.Path), body);
    }

    /// <summary>Writes a value where a fault would name it: "layers[0].varied.seed".</summary>
    private static void Put(JsonNode body, string field, JsonNode? value)
    {
        var steps = field.Replace("[", ".[", StringComparison.Ordinal).Split('.');
        var at = body;
        foreach (var step in steps[..^1])
            at = step[0] == '[' ? at[int.Parse(step[1..^1])]! : at[step]!;
        if (steps[^1][0] == '[')
            at[int.Parse(steps[^1][1..^1])] = value?.DeepClone();
        else
            at[steps[^1]] = value?.DeepClone();
    }

    /// <summary>The ids of the demo in the place of what they are of.</summary>
    private async Task<string> Named(string text)
    {
        await using var db = server.Db();
        var at = await db.Zones.Where(z => db.Designs.Any(d => d.Id == z.DesignId && d.Silhouette == Lowfell.Store.Rows.Silhouette.Base)).OrderBy(z => z.Id).Select(z => new { z.Id, z.TreatmentId, z.DesignId, Piece = db.Pieces.Where(p => p.DesignId == z.DesignId).OrderBy(p => p.Id).First().Id, Set = db.Designs.First(d => d.Id == z.DesignId).SetId }).FirstAsync(TestContext.Current.CancellationToken);
        var paint = await db.Materials.OrderBy(m => m.Id).Select(m => m.Id).FirstAsync(TestContext.Current.CancellationToken);
        var pot = await db.Pots.OrderBy(p => p.Id).Select(p => p.Id).FirstAsync(TestContext.Current.CancellationToken);
        return text.Replace("{set}", $"{at.Set}").Replace("{workshop}", $"{await server.WorkshopId()}").Replace("{zone}", $"{at.Id}").Replace("{design}", $"{at.DesignId}").Replace("{base}", $"{at.DesignId}")
            .Replace("{piece}", $"{at.Piece}").Replace("{treatment}", $"{at.TreatmentId}").Replace("{material}", $"{paint}").Replace("{pot}", $"{pot}");
    }
}
