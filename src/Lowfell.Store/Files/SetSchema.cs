using System.Text.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Store.Files;

/// <summary>The schema of the file of a set, made from what is really read and written.</summary>
public static class SetSchema
{
    private static readonly JsonSerializerOptions json = new() { WriteIndented = true, Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    public static string Write(LowfellDb db)
    {
        var tables = SetTable.All(db);
        var properties = new JsonObject { ["lowfell"] = new JsonObject { ["const"] = "set" }, ["version"] = new JsonObject { ["const"] = SetExport.Version } };
        foreach (var table in tables)
            properties[table.Name] = new JsonObject { ["type"] = "array", ["items"] = Row(table) };
        return new JsonObject
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = "set.json in the file of a Lowfell set",
            ["description"] = "Rows are counted: the third zone is z3, and what refers to it says z3. Lines (line1, line2, …) are layers through all versions of a treatment. Photographs are photos/1.jpg and so on beside it, in the order of the list.",
            ["type"] = "object",
            ["properties"] = properties,
            ["required"] = new JsonArray([.. properties.Select(p => p.Key).Where(k => !tables.Any(t => t.Name == k && t.IsLater)).Select(k => (JsonNode)k)]),
            ["additionalProperties"] = false,
        }.ToJsonString(json) + "\n";
    }

    private static JsonObject Row(SetTable table)
    {
        var properties = new JsonObject();
        if (table.HasId)
            properties["id"] = Pattern(table.Prefix);
        foreach (var column in table.Columns)
            properties[column.Name] = Optional(Value(table, column), column.Optional);
        return new JsonObject { ["type"] = "object", ["properties"] = properties, ["required"] = new JsonArray([.. properties.Select(p => p.Key).Where(k => !table.Columns.Any(c => c.Name == k && c.IsLater)).Select(k => (JsonNode)k)]), ["additionalProperties"] = false };
    }

    private static JsonObject Pattern(string prefix) => new() { ["type"] = "string", ["pattern"] = $"^{prefix}[1-9][0-9]*$" };

    private static JsonObject Optional(JsonObject value, bool optional) => optional ? new JsonObject { ["anyOf"] = new JsonArray(value, new JsonObject { ["type"] = "null" }) } : value;

    private static JsonObject Value(SetTable table, SetColumn column)
    {
        if (column.IsReference)
            return Pattern(SetTable.IsLine(table.Name, column.Name) ? SetTable.LinePrefix : SetTable.To(column.Name));
        if (column.Type == typeof(bool))
            return new JsonObject { ["type"] = "boolean" };
        if (column.Type == typeof(int) || column.Type == typeof(long))
            return new JsonObject { ["type"] = "integer" };
        if (column.Type == typeof(decimal) || column.Type == typeof(double))
            return new JsonObject { ["type"] = "number" };
        if (column.Type == typeof(DateTimeOffset))
            return new JsonObject { ["type"] = "string", ["format"] = "date-time" };
        if (column.Type == typeof(DateOnly))
            return new JsonObject { ["type"] = "string", ["format"] = "date" };
        if (column.Type.IsArray)
            return new JsonObject { ["type"] = "array", ["items"] = new JsonObject { ["type"] = "string" } };
        if (column.Type.IsEnum)
            return new JsonObject { ["enum"] = new JsonArray([.. Enum.GetValues(column.Type).Cast<object>().Select(v => (JsonNode)Words(column.Type, v))]) };
        var text = new JsonObject { ["type"] = "string" };
        if (column.Name == TellingBody.Column)
            text["maxLength"] = TellingBody.Longest;
        if (column.Longest is { } longest)
            text["maxLength"] = longest;
        return text;
    }

    private static string Words(Type type, object value) => (string)typeof(Core.Words.EnumWords).GetMethod(nameof(Core.Words.EnumWords.Of))!.MakeGenericMethod(type).Invoke(null, [value])!;
}
