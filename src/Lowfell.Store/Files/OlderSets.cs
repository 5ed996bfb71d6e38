using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Store.Files;

/// <summary>Brings a document of an earlier version to what it would say today. What is not as that version had it is left, and refused with the rest.</summary>
internal static class OlderSets
{
    public static void Lift(JsonObject document, int version)
    {
        if (version < 2)
            OneSurface(document);
    }

    /// <summary>Before version 2 a treatment had one surface, and a layer lay on it under the line it was known by.</summary>
    private static void OneSurface(JsonObject document)
    {
        var (treatments, layers, revisions) = (Rows(document, "treatments"), Rows(document, "layers"), Rows(document, "treatment_revisions"));
        var first = revisions.Where(r => Text(r, "treatment_id") is not null && r["number"]?.GetValueKind() == JsonValueKind.Number).GroupBy(r => Text(r, "treatment_id")!)
            .ToDictionary(g => g.Key, g => g.MinBy(r => r["number"]!.ToJsonString().PadLeft(20))!["number"]!);
        document["surfaces"] = List(treatments.Select((t, i) => new JsonObject { ["id"] = Counted("u", i), ["treatment_id"] = Counted("t", i) }));
        document["revision_surfaces"] = List(treatments.Select((t, i) => new JsonObject
        {
            ["treatment_id"] = Counted("t", i),
            ["revision"] = first.GetValueOrDefault(Counted("t", i))?.DeepClone(),
            ["position"] = 0,
            ["surface_id"] = Counted("u", i),
            ["name"] = t["name"]?.DeepClone(),
            ["on_id"] = null,
        }));
        document["layer_surfaces"] = List(layers.Select((l, i) => new JsonObject
        {
            ["layer_id"] = Counted("l", i),
            ["treatment_id"] = l["treatment_id"]?.DeepClone(),
            ["surface_id"] = Surface(l),
            ["line_id"] = l["line_id"]?.DeepClone(),
            ["differs"] = 0,
            ["coats"] = 1,
            ["region"] = "all",
            ["fades"] = false,
            ["strength"] = 1,
            ["optional"] = false,
            ["mark_mm"] = null,
            ["details"] = null,
            ["down_to"] = null,
            ["variation_seed"] = null,
            ["variation_habit"] = null,
            ["variation_mm"] = null,
            ["variation_marks"] = null,
            ["variation_spread"] = null,
            ["variation_dealt"] = null,
        }));
        foreach (var layer in layers)
            if (layer.Remove("line_id", out var line))
                layer["step_id"] = line;
        foreach (var revision in revisions)
            revision["surfaces_of"] = Text(revision, "treatment_id") is { } of ? first.GetValueOrDefault(of)?.DeepClone() : null;
        foreach (var zone in Rows(document, "zones"))
            zone["surface_id"] = Surface(zone);
    }

    private static List<JsonObject> Rows(JsonObject document, string table) => document[table] is JsonArray list ? list.OfType<JsonObject>().ToList() : [];

    private static JsonArray List(IEnumerable<JsonObject> rows) => new([.. rows.Select(r => (JsonNode)r)]);

    private static string Counted(string prefix, int at) => FormattableString.Invariant($"{prefix}{at + 1}");

    private static string? Text(JsonObject row, string column) => row[column] is JsonValue value && value.TryGetValue<string>(out var text) ? text : null;

    /// <summary>The one surface of the treatment that a row names.</summary>
    private static string? Surface(JsonObject row) =>
        Text(row, "treatment_id") is { Length: > 1 } name && name[0] == 't' && int.TryParse(name[1..], NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? Counted("u", number - 1) : null;
}
