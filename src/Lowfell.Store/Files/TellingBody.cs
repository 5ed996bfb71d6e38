using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Lowfell.Store.Files;

/// <summary>
/// What a row keeps as a document, such as how bases are laid out: told with counted names in place of ids, in one order of its members, so that the same is told the same.
/// </summary>
internal static partial class TellingBody
{
    public const string Column = "body";

    /// <summary>A name in a document is told as "of z3": nobody writes that by chance.</summary>
    private const string Of = "of ";

    /// <summary>Longer than any trial or tray.</summary>
    public const int Longest = 400_000;

    /// <summary>With names in place of ids.</summary>
    public static string Tell(JsonNode body, Func<Guid, string> name) =>
        Ordered(JsonNode.Parse(DocumentIds.Told(body.ToJsonString(), id => Of + name(id))))!.ToJsonString();

    /// <summary>With ids in place of names; null where it is no document.</summary>
    public static JsonNode? Read(string told, Func<string, Guid> id)
    {
        try
        {
            return JsonNode.Parse(Names().Replace(told, m => $"\"{id(m.Groups[1].Value)}\""), documentOptions: new JsonDocumentOptions { MaxDepth = 32 }) as JsonObject;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static JsonNode? Ordered(JsonNode? node) => node switch
    {
        JsonObject o => new JsonObject(o.OrderBy(p => p.Key, StringComparer.Ordinal).Select(p => KeyValuePair.Create(p.Key, Ordered(p.Value)))),
        JsonArray a => new JsonArray([.. a.Select(Ordered)]),
        _ => node?.DeepClone(),
    };

    [GeneratedRegex("\"of ((?:m|z|p|line)[1-9][0-9]{0,6})\"")]
    private static partial Regex Names();
}
