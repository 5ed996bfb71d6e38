using System.Collections.Concurrent;
using System.Text.Json;
using System.Text.Json.Serialization;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Store;

/// <summary>The pace of a workshop's hands as it is stored: JSON by the words of techniques.</summary>
public static class StoredPace
{
    private static readonly JsonSerializerOptions json = new() { PropertyNamingPolicy = JsonNamingPolicy.CamelCase, DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };

    /// <summary>What workshops said last; few texts, asked for with every zone.</summary>
    private static readonly ConcurrentDictionary<string, Pace> read = new();

    private const int Most = 200;

    public static Pace Read(string text)
    {
        if (text.Length <= 2)
            return Pace.Usual;
        if (read.Count > Most)
            read.Clear();
        return read.GetOrAdd(text, _ =>
        {
            var words = Enum.GetValues<Technique>().ToDictionary(t => EnumWords.Of(t));
            return new Pace((JsonSerializer.Deserialize<Dictionary<string, PaceFigures>>(text, json) ?? []).Where(p => words.ContainsKey(p.Key)).ToDictionary(p => words[p.Key], p => p.Value));
        });
    }

    public static string Write(Pace pace) => JsonSerializer.Serialize(pace.Own.OrderBy(p => p.Key).ToDictionary(p => EnumWords.Of(p.Key), p => p.Value), json);
}
