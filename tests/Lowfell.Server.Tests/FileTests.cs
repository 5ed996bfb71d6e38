using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>A whole set as a file, and back.</summary>
public sealed class FileTests(LowfellServer server) : FileDesk(server), IClassFixture<LowfellServer>
{
    [Fact]
    public async Task The_demo_with_a_photograph_goes_out_comes_in_elsewhere_and_goes_out_the_same()
    {
        var set = await Demo();
        Assert.Equal(201, (await new Painter(Server, 0, "files").Send(HttpMethod.Post, $"/api/log/{set}/photos", new { id = Guid.NewGuid(), data = Convert.ToBase64String(Camera.Photo(80, 50)), takenAt = "2026-10-31T20:00:00Z" })).Status);
        await RoundTrip(set);

        // In the workshop it came from it is a second set, on the same shelf; the first is as it was.
        var before = await Out(set);
        var workshop = (await Home()).Text("id");
        var shelf = (await Server.Get($"/api/shelf/{workshop}/materials")).AsArray().Count;
        var (status, twin) = await In(workshop, before);
        Assert.Equal((200, "Harrowmere Sluice (2)"), (status, status == 200 ? twin.Text("name") : twin.ToJsonString()));
        Assert.Equal(shelf, (await Server.Get($"/api/shelf/{workshop}/materials")).AsArray().Count);
        Assert.Equal(before, await Out(set));

        // What is really on the pieces came with it.
        foreach (var of in new[] { set, twin.Text("setId") })
        {
            var zone = (await Server.Get($"/api/plan/sets/{of}"))["designs"]![0]!["zones"]!.AsArray().Single(z => z!.Text("name") == "Tide band")!.Text("id");
            var cores = (await Server.Get($"/api/pieces/{of}/cores?zoneId={zone}"))["pieces"]!.AsArray();
            Assert.Equal(["other pot"], cores.Single(p => p!.Text("label") == "W5")!["differences"]!.AsArray().Select(d => d!.Text("fault")));
            Assert.Equal(1, cores.Single(p => p!.Text("label") == "W3")!["cells"]!.AsArray().Sum(c => c!["wipes"]!.GetValue<int>()));
        }

        await using var db = Server.Db();
        Assert.Equal(0, await Lowfell.Store.PieceBook.Differences(db, Guid.Parse(workshop), Stop));
    }

    /// <summary>A file that was written when the first version of the schema was new, kept as it was.</summary>
    [Fact]
    public async Task A_file_of_the_first_version_comes_in()
    {
        var (status, taken) = await In(await Elsewhere(), await File.ReadAllBytesAsync(Path.Combine(AppContext.BaseDirectory, "set-file-1.zip"), Stop));
        Assert.True(status == 200, taken.ToJsonString());
        var set = taken.Text("setId");
        Assert.Equal(43, (await Server.Get($"/api/plan/sets/{set}"))["pieces"]!.GetValue<int>());
        Assert.NotEmpty((await Server.Get($"/api/log/{set}"))["entries"]!.AsArray());
        await RoundTrip(set);
    }

    [Fact]
    public async Task Trials_bases_and_noted_marks_come_along()
    {
        var set = await Demo();
        var zone = (await Server.ZoneId("Mud-and-salt base", "Fen mud")).ToString();
        var layers = (await Server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray();
        JsonNode Coats(int coats)
        {
            var other = layers[3]!.Copy();
            other["coats"] = coats;
            return other;
        }

        var (kept, trial) = await Server.Send(HttpMethod.Post, $"/api/trials/{set}", new JsonObject
        {
            ["id"] = Guid.NewGuid(),
            ["zoneId"] = zone,
            ["name"] = "How much ground?",
            ["tile"] = new JsonObject { ["widthMm"] = 40, ["heightMm"] = 30 },
            ["factors"] = new JsonArray(new JsonObject { ["layerId"] = layers[3]!["id"]!.DeepClone(), ["levels"] = new JsonArray(Coats(1), Coats(2), Coats(3)) }),
        });
        Assert.True(kept == 201, trial.ToJsonString());
        Assert.Equal(200, (await Server.Send(HttpMethod.Put, $"/api/trials/{set}/{trial.Text("id")}/looks", new JsonObject { ["cell"] = "1", ["position"] = "field", ["observed"] = "#403830" })).Status);
        async Task<JsonNode> Tray(string of)
        {
            var root = $"/api/bases/{of}";
            return await Server.Get($"{root}/{(await Server.Get(root))["designs"]![0]!.Text("designId")}");
        }

        // Two of the bases are as a hand has them.
        var tray = await Tray(set);
        var at = $"/api/bases/{set}/{tray.Text("designId")}";
        Assert.Equal(200, (await Server.Send(HttpMethod.Put, at, new JsonObject { ["wish"] = tray["wish"]!.DeepClone() })).Status);
        foreach (var label in new[] { "B7", "B3" })
        {
            tray = await Tray(set);
            Assert.Equal(200, (await Server.Send(HttpMethod.Put, $"{at}/hand", new JsonObject { ["version"] = tray["version"]!.DeepClone(), ["pieceId"] = tray["bases"]!.AsArray().Single(b => b!.Text("label") == label)!["pieceId"]!.DeepClone(), ["elements"] = new JsonArray(new JsonObject { ["kind"] = "tuft", ["x"] = 5, ["y"] = 6, ["radiusMm"] = 2 }) })).Status);
        }

        var (status, taken) = await In(await Elsewhere(), await Out(set));
        Assert.True(status == 200, taken.ToJsonString());
        var there = taken.Text("setId");
        await RoundTrip(there);
        static string Lies(JsonNode t) => string.Join('\n', t["bases"]!.AsArray().Select(b => b!.Text("label") + b!["elements"]!.ToJsonString() + b["textures"]!.ToJsonString()));
        Assert.Equal(Lies(await Tray(set)), Lies(await Tray(there)));
        var other = (await Server.Get($"/api/trials/{there}"))["trials"]!.AsArray().Single()!;
        Assert.Equal(1, other["looks"]!.GetValue<int>());
        Assert.Equal(3, (await Server.Get($"/api/trials/{there}/{other.Text("id")}"))["cells"]!.AsArray().Count);

        // The coping that came out otherwise is in the demo.
        var stipple = (await Server.Get($"/api/variation/{there}"))["layers"]!.AsArray().First(l => l!.Text("technique") == "stipple" && l!["varied"]!.GetValue<bool>())!;
        var plan = await Server.Get($"/api/variation/{there}/{stipple.Text("treatmentId")}/{stipple.Text("layerId")}");
        Assert.Equal(1, plan["zones"]!.AsArray().Sum(z => z!["figures"]!["otherwise"]!.GetValue<int>()));
    }

    [Fact]
    public async Task Hostile_files_are_refused_with_the_reason_and_change_nothing()
    {
        var set = await Demo();
        var good = Opened(await Out(set));
        var text = Encoding.UTF8.GetString(good["set.json"]);
        byte[] With(Action<JsonObject> change)
        {
            var document = JsonNode.Parse(text)!.AsObject();
            change(document);
            return Zipped([("set.json", Encoding.UTF8.GetBytes(document.ToJsonString())), .. good.Where(g => g.Key != "set.json").Select(g => (g.Key, g.Value))]);
        }

        byte[] Row(string table, string column, JsonNode? value, int at = 0) => With(d => d[table]![at]![column] = value);
        byte[] Said(string json) => Zipped(("set.json", Encoding.UTF8.GetBytes(json)));
        var whole = await Out(set);
        var hostile = new Dictionary<string, byte[]>
        {
            ["words"] = "not a zip, honestly"u8.ToArray(),
            ["nothing"] = [],
            ["cut short"] = whole[..(whole.Length / 2)],
            ["a body that is none"] = With(d => d["base_plans"] = new JsonArray(new JsonObject { ["body"] = "[1, 2", ["created_at"] = "2026-01-01T00:00:00+00:00", ["design_id"] = "d1", ["set_id"] = "s1" })),
            ["no document"] = Zipped(("other.json", "{}"u8.ToArray())),
            ["a path upwards"] = Zipped(("set.json", good["set.json"]), ("../../etc/passwd", "x"u8.ToArray())),
            ["a path from the root"] = Zipped(("set.json", good["set.json"]), ("/tmp/x.jpg", "x"u8.ToArray())),
            ["a path in disguise"] = Zipped(("set.json", good["set.json"]), ("photos/..\\1.jpg", "x"u8.ToArray())),
            ["a program beside it"] = Zipped(("set.json", good["set.json"]), ("run.sh", "x"u8.ToArray())),
            ["twice the same"] = Zipped(("set.json", good["set.json"]), ("set.json", good["set.json"])),
            ["a bomb of a picture"] = Zipped(("set.json", good["set.json"]), ("photos/1.jpg", new byte[150_000_000])),
            ["a bomb of a document"] = Zipped(("set.json", Enumerable.Repeat((byte)' ', 100_000_000).ToArray())),
            ["no JSON"] = Said("{ set"),
            ["a list"] = Said("[]"),
            ["null"] = Said("null"),
            ["too deep"] = Said(string.Concat(Enumerable.Repeat("{\"a\":", 500)) + "1" + new string('}', 500)),
            ["a name twice"] = Said("{\"lowfell\":\"set\",\"lowfell\":\"set\",\"version\":1}"),
            ["another kind"] = With(d => d["lowfell"] = 7),
            ["of the future"] = With(d => d["version"] = 99),
            ["of no version"] = With(d => d.Remove("version")),
            ["a table missing"] = With(d => d.Remove("zones")),
            ["a table too many"] = With(d => d["users"] = new JsonArray()),
            ["a column too many"] = Row("zones", "workshop_id", "w1"),
            ["a column missing"] = With(d => d["zones"]![0]!.AsObject().Remove("area_cm2")),
            ["rows that are none"] = With(d => d["zones"]![0] = 5),
            ["words for a number"] = Row("zones", "area_cm2", "large"),
            ["an empty name"] = Row("zones", "name", null),
            ["a number out of the world"] = With(d => d["zones"]![0]!["area_cm2"] = JsonNode.Parse("1" + new string('0', 40))),
            ["an area below nothing"] = Row("zones", "area_cm2", -5),
            ["a zone that is not there"] = Row("work_events", "zone_id", "z9999", 10),
            ["a zone that is a piece"] = Row("work_events", "zone_id", "p1", 10),
            ["a name of another system"] = Row("zones", "treatment_id", Guid.NewGuid().ToString()),
            ["a row counted wrongly"] = Row("zones", "id", "z7"),
            ["an event that undoes itself"] = With(d => (d["work_events"]![3]!["undoes_id"], d["work_events"]![3]!["kind"]) = ("e4", "taken back")),
            ["an event that undoes a later one"] = With(d => (d["work_events"]![3]!["undoes_id"], d["work_events"]![3]!["kind"]) = ("e9", "taken back")),
            ["a piece that is its own part"] = Row("pieces", "parent_id", "p1"),
            ["two sets"] = With(d => d["sets"]!.AsArray().Add(d["sets"]![0]!.DeepClone())),
            ["no set"] = With(d => d["sets"] = new JsonArray()),
            ["a name too long"] = Row("sets", "name", new string('x', 5000)),
            ["bells and whistles"] = Row("sets", "name", "bell \a"),
            ["no such technique"] = Row("layers", "technique", "juggle"),
            ["a colour that is none"] = Row("materials", "colour", "#zzzzzz"),
            ["a target that is none"] = With(d => (d["zones"]![0]!["target_colour"], d["zones"]![0]!["target_position"]) = ("red", "field")),
            ["the end of time"] = Row("work_events", "at", "9999-12-31T23:59:59Z"),
            ["a recipe of nothing"] = Row("pots", "recipe_key", "drop table pots"),
            ["a mix of nothing"] = With(d => d["mix_components"] = new JsonArray()),
            ["a version that is not there"] = Row("treatments", "revision", 77),
            ["two layers in one place"] = With(d => d["revision_layers"]![1]!["position"] = d["revision_layers"]![0]!["position"]!.DeepClone()),
            ["a picture that is none"] = With(d => d["photos"] = new JsonArray(Photo())) is var told ? Zipped(("set.json", Opened(told)["set.json"]), ("photos/1.jpg", "GIF89a"u8.ToArray())) : [],
            ["a picture too few"] = Zipped(("set.json", Opened(With(d => d["photos"] = new JsonArray(Photo())))["set.json"])),
            ["a picture too many"] = Zipped(("set.json", good["set.json"]), ("photos/1.jpg", Camera.Photo(20, 20)), ("photos/2.jpg", Camera.Photo(20, 20)), ("photos/3.jpg", Camera.Photo(20, 20))),
            ["a gap in the pictures"] = Zipped(("set.json", good["set.json"]), ("photos/2.jpg", Camera.Photo(20, 20))),
        };
        var elsewhere = await Elsewhere();
        var before = await Rows();
        foreach (var (what, file) in hostile)
        {
            var (status, body) = await In(elsewhere, file);
            Assert.True(status == 400 && body.Text("code") == "not-a-set" && body.Fields().Single() == "file" && body.Text("detail").Length > 20, $"{what}: {status} {body.ToJsonString()}");
        }

        Assert.Equal(before, await Rows());
        Assert.Equal(404, (await In(Guid.NewGuid().ToString(), whole)).Status);
        Assert.Equal(200, (await In(elsewhere, whole)).Status);
    }

    /// <summary>What is lived with, for a reason, is lived with where the set comes in: the remark stands for the same thing there.</summary>
    [Fact]
    public async Task A_remark_that_is_lived_with_is_lived_with_elsewhere()
    {
        var zones = (await Server.Get($"/api/plan/sets/{await Demo()}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!.Text("id"));
        foreach (var zone in zones)
        {
            if ((await Server.Get($"/api/plan/zones/{zone}"))["reading"]!["findings"]!.AsArray().FirstOrDefault() is not { } finding)
                continue;
            var (accepted, _) = await new Painter(Server, 0, "files").Send(HttpMethod.Post, $"/api/plan/zones/{zone}/accepted", new { rule = finding.Text("rule"), layerId = finding["layers"]![0], facts = finding.Text("facts"), reason = "it is the far side" });
            Assert.Equal(200, accepted);
            var (status, twin) = await In(await Elsewhere(), await Out(await Demo()));
            Assert.True(status == 200, twin.ToJsonString());
            Assert.Equal(1, (await Server.Get($"/api/plan/sets/{twin["setId"]}/remarks"))["accepted"]!.GetValue<int>());
            return;
        }

        Assert.Fail("The demo has nothing to live with.");
    }

    [Fact]
    public async Task The_schema_in_the_documents_is_that_of_what_goes_out()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "docs", "set-file.schema.json")))
            folder = folder.Parent;
        await using var db = Server.Db();
        var schema = await File.ReadAllTextAsync(Path.Combine(folder!.FullName, "docs", "set-file.schema.json"), Stop);
        Assert.Equal(Lowfell.Store.Files.SetSchema.Write(db), schema);

        // Every row that goes out has just what the schema says, of the kind it says.
        var document = JsonNode.Parse(Opened(await Out(await Demo()))["set.json"])!.AsObject();
        var tables = JsonNode.Parse(schema)!["properties"]!.AsObject();
        Assert.Equal(tables.Select(t => t.Key), document.Select(t => t.Key));
        foreach (var (name, rows) in document.Where(t => t.Value is JsonArray))
            foreach (var row in rows!.AsArray().Select(r => r!.AsObject()))
            {
                var columns = tables[name]!["items"]!["properties"]!.AsObject();
                Assert.Equal(columns.Select(c => c.Key), row.Select(c => c.Key));
                Assert.All(row, c => Assert.True(Fits(columns[c.Key]!, c.Value), $"{name}.{c.Key}: {c.Value}"));
            }
    }

    /// <summary>As far as these schemas go: kinds, patterns, words, and what may be empty.</summary>
    private static bool Fits(JsonNode schema, JsonNode? value)
    {
        if (schema["anyOf"] is JsonArray any)
            return any.Any(s => Fits(s!, value));
        if (schema["enum"] is JsonArray words)
            return value is not null && words.Any(w => w!.ToString() == value.ToString());
        var kind = value?.GetValueKind().ToString() ?? "Null";
        return schema["type"]!.ToString() switch
        {
            "null" => kind == "Null",
            "boolean" => kind is "True" or "False",
            "integer" => kind == "Number" && !value!.ToJsonString().Contains('.', StringComparison.Ordinal),
            "number" => kind == "Number",
            "array" => kind == "Array",
            _ => kind == "String" && (schema["pattern"] is not { } pattern || System.Text.RegularExpressions.Regex.IsMatch(value!.ToString(), pattern.ToString())),
        };
    }

    private static JsonObject Photo() => new()
    {
        ["id"] = "f1",
        ["actor"] = "EW",
        ["event_id"] = null,
        ["height"] = 40,
        ["piece_id"] = null,
        ["put_away_at"] = null,
        ["set_id"] = "s1",
        ["taken_at"] = "2026-11-01T12:00:00Z",
        ["width"] = 64,
        ["words"] = "",
        ["zone_id"] = null,
    };

    /// <summary>How many rows there are of everything that a file brings.</summary>
    private async Task<string> Rows()
    {
        await using var db = Server.Db();
        return string.Join(' ', await db.Database.SqlQuery<long>($"""
            select count(*) as "Value" from sets union all select count(*) from materials union all select count(*) from layers union all select count(*) from work_events
            union all select count(*) from pots union all select count(*) from photos union all select count(*) from blobs union all select count(*) from mixes union all select count(*) from pieces
            """).ToListAsync(Stop));
    }
}
