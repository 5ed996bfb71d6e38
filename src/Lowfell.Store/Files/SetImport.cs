using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Store.Files;

/// <summary>Why a file is no set that can be taken in.</summary>
public sealed class NotASet(string why) : Exception(why);

/// <summary>
/// Takes in a set that was told elsewhere, as a new one: every row under an id of its own, names that are taken made others, materials that are on
/// the shelf already used as they are. The database's own constraints stand; whatever breaks one ends it, and nothing is stored.
/// </summary>
public sealed class SetImport(LowfellDb db, Guid workshop, CancellationToken stop)
{
    private const int MostRows = 250_000, LongestText = 4000;

    private readonly IReadOnlyList<SetTable> tables = SetTable.All(db);
    private readonly Dictionary<string, Guid> ids = [];

    /// <summary>The set as it is here, and the ids of its photographs in the order of the file.</summary>
    public async Task<(Guid Set, IReadOnlyList<(Guid Photo, JsonObject Row)> Photos)> Take(JsonObject document)
    {
        Check(document);
        var rows = tables.ToDictionary(t => t.Name, t => document[t.Name]!.AsArray().Select(r => r!.AsObject()).ToList());
        foreach (var table in tables.Where(t => t.HasId))
            for (var i = 0; i < rows[table.Name].Count; i++)
                ids.Add(FormattableString.Invariant($"{table.Prefix}{i + 1}"), Guid.CreateVersion7());
        await Rename(rows);
        await Known(rows["materials"], rows["calibrations"]);
        var components = rows["mix_components"].ToLookup(c => c["mix_id"]!.GetValue<string>());
        try
        {
            foreach (var table in tables.Where(t => t.Name != "photos"))
                await Put(table, rows[table.Name], components);
            await db.Database.ExecuteSqlRawAsync("set constraints all immediate", stop);
        }
        catch (PostgresException refused) when (refused.SqlState.StartsWith("22", StringComparison.Ordinal) || refused.SqlState.StartsWith("23", StringComparison.Ordinal))
        {
            throw new NotASet($"The file does not hold together: {refused.MessageText}.");
        }

        return (ids["s1"], rows["photos"].Select((r, i) => (ids[FormattableString.Invariant($"f{i + 1}")], Placed(tables.Single(t => t.Name == "photos"), r, i))).ToList());
    }

    /// <summary>Every table and column that there has to be, and nothing else, of the right kind; rows counted as they stand; references to rows there are.</summary>
    private void Check(JsonObject document)
    {
        if (document["lowfell"]?.GetValueKind() != JsonValueKind.String || document["lowfell"]!.GetValue<string>() != "set")
            throw new NotASet("This is no file of a Lowfell set.");
        if (document["version"] is not JsonValue number || !number.TryGetValue<int>(out var version) || version < 1)
            throw new NotASet("The file does not say which version it is of.");
        if (version > SetExport.Version)
            throw new NotASet($"The file is of version {version}; this Lowfell reads up to version {SetExport.Version}. Take a newer Lowfell.");
        OlderSets.Lift(document, version);
        if (document.Select(x => x.Key).Except(["lowfell", "version", .. tables.Select(t => t.Name)]).FirstOrDefault() is { } stranger)
            throw new NotASet($"“{stranger}” is nothing that a set has.");
        var counts = new Dictionary<string, int>();
        foreach (var later in tables.Where(t => t.IsLater && !document.ContainsKey(t.Name)))
            document[later.Name] = new JsonArray();
        foreach (var table in tables)
        {
            if (document[table.Name] is not JsonArray list || list.Count > MostRows)
                throw new NotASet($"“{table.Name}” has to be a list of at most {MostRows} rows.");
            if (table.HasId)
                counts[table.Prefix] = list.Count;
        }

        if (counts["s"] != 1)
            throw new NotASet("A file holds one set.");
        foreach (var table in tables)
        {
            var list = document[table.Name]!.AsArray();
            for (var i = 0; i < list.Count; i++)
                Check(table, list[i], i, counts);
        }
    }

    private static void Check(SetTable table, JsonNode? node, int at, Dictionary<string, int> counts)
    {
        var where = FormattableString.Invariant($"{table.Name}[{at}]");
        if (node is not JsonObject row)
            throw new NotASet($"{where} has to be an object.");
        if (table.HasId && (row["id"]?.GetValueKind() != JsonValueKind.String || row["id"]!.GetValue<string>() != FormattableString.Invariant($"{table.Prefix}{at + 1}")))
            throw new NotASet($"{where}.id has to be {table.Prefix}{at + 1}: rows are counted.");
        foreach (var later in table.Columns.Where(c => c.IsLater && !row.ContainsKey(c.Name)))
            row[later.Name] = null;
        if (row.Count != table.Columns.Count + (table.HasId ? 1 : 0))
            throw new NotASet($"{where} has to have {string.Join(", ", table.Columns.Select(c => c.Name))}.");
        foreach (var column in table.Columns)
        {
            if (!row.TryGetPropertyValue(column.Name, out var value))
                throw new NotASet($"{where}.{column.Name} is missing.");
            if (value is null ? !column.Optional : !Fits(table, column, value, at, counts))
                throw new NotASet($"{where}.{column.Name} cannot be {(value is null ? "empty" : Shortened(value.ToJsonString()))}.");
        }
    }

    private static string Shortened(string text) => text.Length <= 40 ? text : text[..39] + "…";

    private static bool Fits(SetTable table, SetColumn column, JsonNode value, int at, Dictionary<string, int> counts)
    {
        var kind = value.GetValueKind();
        if (column.IsReference)
            return kind == JsonValueKind.String && Refers(table, column, value.GetValue<string>(), at, counts);
        if (column.Type == typeof(bool))
            return kind is JsonValueKind.True or JsonValueKind.False;
        if (column.Type == typeof(int) || column.Type == typeof(long))
            return kind == JsonValueKind.Number && int.TryParse(value.ToJsonString(), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out _);
        if (column.Type == typeof(decimal) || column.Type == typeof(double))
            return kind == JsonValueKind.Number && decimal.TryParse(value.ToJsonString(), NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out _);
        if (column.Type == typeof(DateTimeOffset))
            return kind == JsonValueKind.String && DateTimeOffset.TryParse(value.GetValue<string>(), CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var instant) && instant.Year is > 1970 and < 3000;
        if (column.Type == typeof(DateOnly))
            return kind == JsonValueKind.String && DateOnly.TryParseExact(value.GetValue<string>(), "yyyy-MM-dd", out var day) && day.Year is > 1970 and < 3000;
        if (column.Type.IsArray)
            return value is JsonArray { Count: <= 50 } list && list.All(x => x?.GetValueKind() == JsonValueKind.String && Plain(x.GetValue<string>(), 100));
        if (kind == JsonValueKind.String)
            return Plain(value.GetValue<string>(), column.Name == TellingBody.Column ? TellingBody.Longest : column.Longest ?? LongestText);

        // House rules and the like are kept as they are told.
        return false;
    }

    private static bool Plain(string text, int longest) => text.Length <= longest && !text.Any(c => char.IsControl(c) && c is not ('\n' or '\t'));

    /// <summary>Refers to a row there is; an event only to one before it, a piece to a whole one.</summary>
    private static bool Refers(SetTable table, SetColumn column, string name, int at, Dictionary<string, int> counts)
    {
        var split = name.IndexOfAny(['0', '1', '2', '3', '4', '5', '6', '7', '8', '9']);
        if (split <= 0 || !int.TryParse(name[split..], NumberStyles.None, CultureInfo.InvariantCulture, out var number) || number < 1)
            return false;
        var prefix = name[..split];
        if (SetTable.IsLine(table.Name, column.Name))
            return prefix == SetTable.LinePrefix && number <= MostRows;
        if (prefix != SetTable.To(column.Name) || number > counts[prefix])
            return false;
        return (table.Name, column.Name) switch
        {
            ("work_events", "undoes_id") or ("work_events", "before_id") or ("pieces", "parent_id") => number <= at,
            ("treatments", "came_from_id") => number != at + 1,
            _ => true,
        };
    }

    /// <summary>Names of which there can be only one in a workshop are others here when they are taken.</summary>
    private async Task Rename(Dictionary<string, List<JsonObject>> rows)
    {
        var sets = await db.Sets.Where(s => s.WorkshopId == workshop && s.PutAwayAt == null).Select(s => s.Name).ToListAsync(stop);
        var pots = await db.Pots.Where(p => p.WorkshopId == workshop).Select(p => p.Label).ToListAsync(stop);
        Free(rows["sets"], "name", sets.ToHashSet(), 120);
        Free(rows["pots"], "label", pots.ToHashSet(), 80);
    }

    private static void Free(List<JsonObject> rows, string column, HashSet<string> taken, int longest)
    {
        foreach (var row in rows)
        {
            var name = row[column]!.GetValue<string>();
            for (var i = 2; !taken.Add(row[column]!.GetValue<string>()); i++)
                row[column] = name[..Math.Min(name.Length, longest - 5)] + FormattableString.Invariant($" ({i})");
        }
    }

    /// <summary>Materials that are on the shelf just as they are told are those; others of the same name come beside them.</summary>
    private async Task Known(List<JsonObject> materials, List<JsonObject> calibrations)
    {
        var table = tables.Single(t => t.Name == "materials");
        await using var ask = new NpgsqlCommand("select id, to_jsonb(m)::text from materials m where workshop_id = @workshop and put_away_at is null", (NpgsqlConnection)db.Database.GetDbConnection());
        ask.Parameters.AddWithValue("workshop", workshop);
        var (here, names) = (new Dictionary<string, Guid>(), new HashSet<string>());
        await using (var reader = await ask.ExecuteReaderAsync(stop))
            while (await reader.ReadAsync(stop))
            {
                var row = (JsonObject)JsonNode.Parse(reader.GetString(1))!;
                here.TryAdd(Words(table, row), reader.GetGuid(0));
                names.Add(Name(row));
            }

        for (var i = materials.Count - 1; i >= 0; i--)
            if (here.TryGetValue(Words(table, materials[i]), out var known))
            {
                var name = FormattableString.Invariant($"m{i + 1}");
                ids[name] = known;
                materials[i]["id"] = null;
                calibrations.RemoveAll(c => c["material_id"]!.GetValue<string>() == name);
            }
            else
            {
                var name = materials[i]["name"]!.GetValue<string>();
                for (var n = 2; !names.Add(Name(materials[i])); n++)
                    materials[i]["name"] = name[..Math.Min(name.Length, 114)] + FormattableString.Invariant($" ({n})");
            }
    }

    private static string Name(JsonObject row) => row["maker"]!.GetValue<string>() + "\n" + row["name"]!.GetValue<string>();

    /// <summary>All that is told of a material; numbers by their value, however they are written.</summary>
    private static string Words(SetTable table, JsonObject row) => string.Join('\n', table.Columns.Select(c => row[c.Name] is JsonValue value && value.GetValueKind() == JsonValueKind.Number
        ? decimal.Parse(value.ToJsonString(), CultureInfo.InvariantCulture).ToString("0.############", CultureInfo.InvariantCulture) : row[c.Name]?.ToJsonString() ?? "null"));

    /// <summary>A row with ids of its own in place of counted names.</summary>
    private JsonObject Placed(SetTable table, JsonObject row, int at)
    {
        var placed = new JsonObject();
        if (table.HasId)
            placed["id"] = ids[FormattableString.Invariant($"{table.Prefix}{at + 1}")];
        foreach (var column in table.Columns)
            placed[column.Name] = row[column.Name] switch
            {
                null => null,
                var value when column.Name == SetTable.RecipeColumn => Recipe(value.GetValue<string>()),
                var value when column.IsReference => Id(value.GetValue<string>()),
                var value when column.Name == TellingBody.Column => TellingBody.Read(value.GetValue<string>(), Id) ?? throw new NotASet($"{table.Name}[{at}].body is no document."),
                var value when column.Name == SetTable.DeviceColumn => $"{ids["s1"]:n} {Shortened(value.GetValue<string>())}"[..Math.Min(60, 33 + value.GetValue<string>().Length)],
                var value => value.DeepClone(),
            };
        return placed;
    }

    private Guid Id(string name)
    {
        if (!ids.TryGetValue(name, out var id))
            ids[name] = id = Guid.CreateVersion7();
        return id;
    }

    private string Recipe(string told)
    {
        if (told.Length == 0)
            return "";
        var parts = told.Split('+').Select(p => p.Split('*')).ToList();
        if (parts.Any(p => p.Length != 2 || !ids.ContainsKey(p[0]) || p[0][0] != 'm' || p[1].Length is 0 or > 20))
            throw new NotASet($"“{Shortened(told)}” is no recipe of its materials.");
        return string.Join('+', parts.Select(p => (Material: ids[p[0]], Parts: p[1])).OrderBy(p => p.Material).Select(p => $"{p.Material:n}*{p.Parts}"));
    }

    private async Task Put(SetTable table, List<JsonObject> rows, ILookup<string, JsonObject> components)
    {
        var placed = rows.Select((r, i) => (Row: r, At: i)).Where(x => !IsHere(table, x.Row)).Select(x => Placed(table, x.Row, x.At)).ToList();
        if (table.Name == "mixes")
            placed = await Mixes(placed, components);

        // What a remark rests on names materials by their ids: it is found anew once the set is here.
        if (table.Name == "accepted_findings")
            for (var i = 0; i < placed.Count; i++)
                placed[i]["facts"] = FormattableString.Invariant($"told elsewhere {i + 1}");
        if (table.Name == "zone_touches")
            foreach (var row in placed)
                if (row["first_zone_id"]!.GetValue<Guid>().CompareTo(row["second_zone_id"]!.GetValue<Guid>()) > 0)
                    (row["first_zone_id"], row["second_zone_id"]) = (row["second_zone_id"]!.DeepClone(), row["first_zone_id"]!.DeepClone());
        if (placed.Count == 0)
            return;
        var extra = table.Columns.Select(c => c.Name).ToList();
        if (table.HasId)
            extra.Add("id");
        if (HasWorkshop(table))
        {
            extra.Add("workshop_id");
            foreach (var row in placed)
                row["workshop_id"] = workshop;
        }

        if (table.Name == "mixes")
            extra.Add(SetTable.RecipeColumn);
        if (table.Name == "accepted_findings")
            extra.AddRange(["facts", "id"]);
        if (table.Name is "calibrations" or "base_plans")
            extra.Add("id");
        if (table.Name is "accepted_findings" or "calibrations" or "base_plans")
            foreach (var row in placed)
                row["id"] = Guid.CreateVersion7();
        if (table.Name == "materials")
        {
            extra.Add("stock_ml");
            foreach (var row in placed)
                row["stock_ml"] = 0;
        }

        var columns = string.Join(", ", extra.Distinct());
        var json = new StringBuilder("[").AppendJoin(',', placed.Select(p => p.ToJsonString())).Append(']').ToString();
        await using var put = new NpgsqlCommand(
            $"insert into {table.Stored} ({columns}) select {string.Join(", ", extra.Distinct().Select(c => $"r.{c}"))} from jsonb_array_elements(@rows::jsonb) with ordinality e(v, n) cross join lateral jsonb_populate_record(null::{table.Stored}, e.v) r order by e.n",
            (NpgsqlConnection)db.Database.GetDbConnection());
        put.Parameters.AddWithValue("rows", json);
        await put.ExecuteNonQueryAsync(stop);
    }

    /// <summary>It is in the workshop already, and not put in again.</summary>
    private bool IsHere(SetTable table, JsonObject row) => table.Name switch
    {
        "materials" => row["id"] is null,
        "mix_components" => known.Contains(row["mix_id"]!.GetValue<string>()),
        _ => false,
    };

    private bool HasWorkshop(SetTable table) => db.Model.GetEntityTypes().Single(t => t.GetTableName() == table.Stored).FindProperty("WorkshopId") is not null;

    /// <summary>Mixes of the file that are there already, or twice in it.</summary>
    private readonly HashSet<string> known = [];

    /// <summary>A mix is there once in a workshop, by what is in it.</summary>
    private async Task<List<JsonObject>> Mixes(List<JsonObject> placed, ILookup<string, JsonObject> components)
    {
        var here = await db.Mixes.Where(m => m.WorkshopId == workshop).ToDictionaryAsync(m => m.RecipeKey, m => m.Id, stop);
        var put = new List<JsonObject>();
        for (var i = 0; i < placed.Count; i++)
        {
            var name = FormattableString.Invariant($"x{i + 1}");
            var key = MixRecipe.Key(components[name].Select(c => (ids[c["material_id"]!.GetValue<string>()], c["parts"]!.GetValue<int>())));
            if (key.Length == 0)
                throw new NotASet($"The mix {name} has nothing in it.");
            if (here.TryGetValue(key, out var there))
            {
                ids[name] = there;
                known.Add(name);
                continue;
            }

            here[key] = ids[name];
            placed[i][SetTable.RecipeColumn] = key;
            put.Add(placed[i]);
        }

        return put;
    }
}
