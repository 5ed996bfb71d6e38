using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Lowfell.Server.Tests;

/// <summary>Two workshops on one server, each with all there can be: neither sees nor changes anything of the other.</summary>
public sealed partial class OtherWorkshopTests(LowfellServer server) : FileDesk(server), IClassFixture<LowfellServer>
{
    /// <summary>Stands in every name of the other workshop, for answers that have no ids.</summary>
    private const string Mark = "‡";

    private static readonly string[] names = ["Name", "Label"];

    [GeneratedRegex("[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}")]
    private static partial Regex Id();

    /// <summary>One of everything of a workshop, by the names that paths and questions have for it.</summary>
    private sealed record Things(string Workshop, IReadOnlyDictionary<string, string> Ids);

    /// <summary>Tables whose rows have an id of their own.</summary>
    private static IEnumerable<(IEntityType Type, string Table, string Key)> Tables(DbContext db) =>
        from type in db.Model.GetEntityTypes()
        let key = type.FindPrimaryKey()?.Properties
        where key is [{ ClrType: var clr }] && clr == typeof(Guid)
        select (type, type.GetTableName()!, key[0].GetColumnName());

    /// <summary>A question whose tables and columns come from the model.</summary>
    private static FormattableString Sql(string text, params object[] values) => FormattableStringFactory.Create(text, values);

    private async Task<HashSet<string>> AllIds()
    {
        await using var db = Server.Db();
        var all = new HashSet<string>();
        foreach (var (_, table, key) in Tables(db))
            all.UnionWith((await db.Database.SqlQuery<Guid>(Sql($"select {key} as \"Value\" from {table}")).ToListAsync(Stop)).Select(id => id.ToString()));
        return all;
    }

    /// <summary>Another workshop with a set of the demo in it, every name of it marked; the ids of all its rows.</summary>
    private async Task<(Things Theirs, HashSet<string> Rows)> Another()
    {
        var file = await Out(await Demo());
        var before = await AllIds();
        var workshop = await Elsewhere();
        var (status, taken) = await In(workshop, file);
        Assert.True(status == 200, taken.ToJsonString());
        await Server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/recipes", new { name = "Old brick", parts = new[] { new { materialId = (await Server.Get($"/api/shelf/{workshop}/materials"))[0]!.Text("id"), parts = 1 } } });
        var rows = await AllIds();
        rows.ExceptWith(before);
        await using var db = Server.Db();
        foreach (var (type, table, key) in Tables(db))
            foreach (var name in names.Select(n => type.FindProperty(n)?.GetColumnName()).OfType<string>())
                await db.Database.ExecuteSqlAsync(Sql($"update {table} set {name} = left({name}, 50) || ' {Mark}' where {key} = any ({{0}})", rows.Select(Guid.Parse).ToArray()), Stop);
        return (await Of(workshop), rows);
    }

    private async Task<Things> Of(string workshop)
    {
        var set = (await Server.Get($"/api/workshops/{workshop}/sets"))[0]!.Text("id");
        var sheet = await Server.Get($"/api/plan/sets/{set}");
        var design = sheet["designs"]!.AsArray().First(d => d!["zones"]!.AsArray().Count > 0)!;
        var zone = await Server.Get($"/api/plan/zones/{design["zones"]![0]!.Text("id")}");
        var material = (await Server.Get($"/api/shelf/{workshop}/materials"))[0]!.Text("id");
        var pieces = (await Server.Get($"/api/sets/{set}"))["designs"]!.AsArray().First(d => d!.Text("id") == design.Text("id"))!["pieces"]!;
        return new(workshop, new Dictionary<string, string>
        {
            ["workshopId"] = workshop,
            ["setId"] = set,
            ["designId"] = design.Text("id"),
            ["zoneId"] = zone["zone"]!.Text("id"),
            ["treatmentId"] = zone.Text("treatmentId"),
            ["layerId"] = zone["layers"]![1]!.Text("id"),
            ["materialId"] = material,
            ["material"] = material,
            ["pieceId"] = pieces[0]!.Text("id"),
            ["pot"] = (await Server.Get($"/api/pots/{set}"))["pots"]![0]!.Text("id"),
        });
    }

    /// <summary>A path with its ids filled in, the first of them from one workshop and the others from another; null where it asks for something else.</summary>
    private static string? Filled(string path, Things first, Things others)
    {
        var at = 0;
        var fits = true;
        var filled = Regex.Replace(path, @"\{(\w+)\}", m =>
        {
            var name = m.Groups[1].Value switch { "id" when path.Contains("/materials/", StringComparison.Ordinal) => "material", "id" when path.Contains("/pots/", StringComparison.Ordinal) => "pot", var other => other };
            var from = at++ == 0 ? first : others;
            fits &= from.Ids.ContainsKey(name);
            return from.Ids.GetValueOrDefault(name, "");
        });
        return fits ? filled : null;
    }

    private static string Asked(JsonNode question, Things of)
    {
        var values = (question["parameters"]?.AsArray() ?? []).Where(p => p!.Text("in") == "query").Select(p => p!.Text("name"))
            .Select(n => (n, of.Ids.GetValueOrDefault(n) ?? n switch { "minutes" => "30", "q" => "a", "key" => "x", _ => null }))
            .Where(v => v.Item2 is not null).Select(v => $"{v.n}={v.Item2}");
        return string.Join('&', values) is { Length: > 0 } all ? "?" + all : "";
    }

    private async Task<List<(string Path, JsonNode Question)>> Questions() =>
        (await Server.Get("/openapi/v1.json"))["paths"]!.AsObject().Where(p => p.Value!["get"] is not null && !p.Key.Contains("/changes/", StringComparison.Ordinal)).Select(p => (p.Key, p.Value!["get"]!)).ToList();

    [Fact]
    public async Task No_question_about_one_is_answered_with_anything_of_another()
    {
        var mine = await Of((await Home()).Text("id"));
        var (theirs, rows) = await Another();
        var (asked, full, crossed) = (0, 0, 0);
        foreach (var (path, question) in await Questions())
        {
            // What is mine, asked for by me: nothing of theirs is in it. What is theirs, asked for by them, is full of it.
            if (Filled(path, mine, mine) is not { } own || !path.Contains('{', StringComparison.Ordinal))
                continue;
            asked++;
            Assert.Equal([], Theirs(await Answer(own + Asked(question, mine))).Select(found => $"{path}: {found}"));
            if (Theirs(await Answer(Filled(path, theirs, theirs)! + Asked(question, theirs))).Count > 0)
                full++;

            // My set with something of theirs.
            foreach (var between in new[] { Filled(path, mine, theirs)! + Asked(question, mine), own + Asked(question, theirs) }.Where(b => b != own + Asked(question, mine)))
            {
                crossed++;
                var given = string.Concat(theirs.Ids.Values.Select(v => v + " "));
                Assert.Equal([], Theirs(await Answer(between)).Where(found => !given.Contains(found, StringComparison.Ordinal)).Select(found => $"{between}: {found}"));
            }
        }

        Assert.True(asked > 40 && full > 25 && crossed > 8, $"{asked} asked, {full} full of theirs, {crossed} crossed");
        List<string> Theirs(string text) => [.. Id().Matches(text).Select(m => m.Value).Where(rows.Contains).Distinct(), .. text.Contains(Mark, StringComparison.Ordinal) ? new[] { $"…{text[Math.Max(0, text.IndexOf(Mark, StringComparison.Ordinal) - 40)..text.IndexOf(Mark, StringComparison.Ordinal)]}…" } : []];
        async Task<string> Answer(string path)
        {
            using var answer = await Server.Http.GetAsync(path, Stop);
            Assert.True((int)answer.StatusCode is 200 or 404 or 400 or 409 or 422, $"{path}: {answer.StatusCode}");
            return await answer.Content.ReadAsStringAsync(Stop);
        }
    }

    /// <summary>All that is stored of a workshop, in one word.</summary>
    private async Task<string> Whole(HashSet<string> rows)
    {
        await using var db = Server.Db();
        var ids = rows.Select(Guid.Parse).ToArray();
        var all = "";
        foreach (var (_, table, key) in Tables(db))
            all += $"{table} {(await db.Database.SqlQuery<string>(Sql($"select coalesce(md5(string_agg(t::text, ' ' order by {key})), '') as \"Value\" from {table} t where {key} = any ({{0}})", ids)).ToListAsync(Stop))[0]}\n";
        return all;
    }

    [Fact]
    public async Task No_write_to_one_changes_anything_of_another()
    {
        var mine = await Of((await Home()).Text("id"));
        var (theirs, rows) = await Another();
        var before = await Whole(rows);

        // Mine first, theirs after it: refused, whatever it says.
        var crossed = 0;
        foreach (var (path, methods) in (await Server.Get("/openapi/v1.json"))["paths"]!.AsObject())
            foreach (var method in methods!.AsObject().Select(m => m.Key).Where(m => m is "post" or "put" or "delete"))
                if (Filled(path, mine, theirs) is { } between && between != Filled(path, mine, mine))
                {
                    crossed++;
                    var (status, said) = await Server.Send(new HttpMethod(method.ToUpperInvariant()), between, method == "delete" ? null : new { version = 1 });
                    Assert.True(status is >= 400 and < 500, $"{method} {between}: {status} {said.ToJsonString()}");
                }

        Assert.True(crossed > 10, $"{crossed} crossed");

        // What they did last is not undone from here, by its turn or by its name.
        var theirStep = (await Server.Get($"/api/workshops/{theirs.Workshop}/steps"))["done"]![0]!.Text("id");
        var (undone, why) = await Server.Send(HttpMethod.Post, $"/api/workshops/{mine.Workshop}/undo", new { step = theirStep });
        Assert.True((undone, why.Text("code")) == (409, "nothing-to-turn"), $"{undone} {why.ToJsonString()}");
        while ((await Server.Send(HttpMethod.Post, $"/api/workshops/{mine.Workshop}/undo", new { })).Status == 200)
        {
        }

        // Work on their pieces told at my bench is kept as what did not fit, and is no work.
        var (told, answer) = await Server.Send(HttpMethod.Post, $"/api/bench/{mine.Workshop}/events", new JsonObject
        {
            ["sentAt"] = DateTimeOffset.UtcNow,
            ["events"] = new JsonArray(new JsonObject
            {
                ["id"] = Guid.NewGuid(),
                ["number"] = 1,
                ["kind"] = "begun",
                ["toldAt"] = DateTimeOffset.UtcNow.AddMinutes(-1),
                ["zoneId"] = theirs.Ids["zoneId"],
                ["layerId"] = theirs.Ids["layerId"],
                ["pieceIds"] = new JsonArray(theirs.Ids["pieceId"]),
            }),
        });
        Assert.True(told == 200, answer.ToJsonString());
        Assert.Equal(1, (await Server.Get($"/api/bench/{mine.Workshop}/unfit"))["waiting"]!.GetValue<int>());
        Assert.Equal(0, (await Server.Get($"/api/bench/{theirs.Workshop}/unfit"))["waiting"]!.GetValue<int>());
        Assert.Equal(before, await Whole(rows));
    }
}
