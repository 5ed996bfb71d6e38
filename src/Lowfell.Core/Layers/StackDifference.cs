using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Layers;

/// <summary>What changed from one stack to another, in words: "wash 1:2 → 1:3", "varnish added". Layers are tied by their id.</summary>
public static class StackDifference
{
    private const string Neat = "neat";

    /// <summary>One phrase for every layer that came, went or changed; a last one for another order. Empty where nothing a painter does differs.</summary>
    public static IReadOnlyList<string> Phrases(IReadOnlyList<Layer> before, IReadOnlyList<Layer> after)
    {
        var was = before.ToDictionary(l => l.Id);
        var will = after.ToDictionary(l => l.Id);
        var phrases = new List<string>();
        foreach (var layer in after)
            if (!was.TryGetValue(layer.Id, out var old))
                phrases.Add($"{Name(layer)} added");
            else if (Changes(old, layer).ToList() is { Count: > 0 } changes)
                phrases.Add($"{(old.Technique == layer.Technique ? Name(layer) : $"{Name(old)} → {Name(layer)}")}{(changes[0].Length > 0 ? " " : "")}{string.Join(", ", changes)}".TrimEnd());
        phrases.AddRange(before.Where(l => !will.ContainsKey(l.Id)).Select(l => $"{Name(l)} removed"));
        if (!before.Where(l => will.ContainsKey(l.Id)).Select(l => l.Id).SequenceEqual(after.Where(l => was.ContainsKey(l.Id)).Select(l => l.Id)))
            phrases.Add("another order");
        return phrases;
    }

    /// <summary>The phrases in one line, no longer than so many; the rest is counted.</summary>
    public static string Line(IReadOnlyList<Layer> before, IReadOnlyList<Layer> after, int most = 3)
    {
        var phrases = Phrases(before, after);
        return phrases.Count == 0 ? "notes" : phrases.Count <= most ? string.Join(", ", phrases) : $"{string.Join(", ", phrases.Take(most))} and {phrases.Count - most} more";
    }

    private static string Name(Layer layer) => EnumWords.Of(layer.Technique);

    /// <summary>In what one layer is otherwise than another, each in words; nothing where they are the same application.</summary>
    public static IEnumerable<string> Changes(Layer a, Layer b)
    {
        if (a.Technique != b.Technique)
            yield return "";
        if (Paint(a) != Paint(b))
            yield return $"{Paint(a)} → {Paint(b)}";
        if (Thinned(a) != Thinned(b))
            yield return $"{Thinned(a)} → {Thinned(b)}";
        if (a.Coats != b.Coats)
            yield return $"{a.Coats} → {b.Coats} coats";
        if (a.Strength != b.Strength)
            yield return FormattableString.Invariant($"{100 * a.Strength:0} → {100 * b.Strength:0} %");
        if (a.Region != b.Region)
            yield return $"on {EnumWords.Of(a.Region)} → {EnumWords.Of(b.Region)}";
        if (a.Fades != b.Fades)
            yield return b.Fades ? "fading" : "no longer fading";
        if (a.Tool != b.Tool)
            yield return $"{EnumWords.Of(a.Tool)} → {EnumWords.Of(b.Tool)}";
        if (a.Drying != b.Drying)
            yield return $"drying in {EnumWords.Of(a.Drying)} → {EnumWords.Of(b.Drying)}";
        if (a.WaitMinutes != b.WaitMinutes)
            yield return $"wait {Wait(a)} → {Wait(b)}";
        if (a.Preparation != b.Preparation)
            yield return b.Preparation == Preparation.None ? "no longer prepared" : EnumWords.Of(b.Preparation);
        if (a.Optional != b.Optional)
            yield return b.Optional ? "may be left out" : "no longer optional";
        if (a.MarkMm != b.MarkMm)
            yield return FormattableString.Invariant($"marks {a.MarkMm?.ToString("0.##", null) ?? "as usual"} → {b.MarkMm?.ToString("0.##", null) ?? "as usual"} mm");
        if (a.Details != b.Details)
            yield return $"{a.Details?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture) ?? "as many as usual"} → {b.Details?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture) ?? "as many as usual"} details";
        if (a.DownTo != b.DownTo)
            yield return "to another depth";
        if (a.Varied != b.Varied)
            yield return "laid otherwise on each piece";
    }

    private static string Wait(Layer l) => l.WaitMinutes is { } minutes ? Duration.Words(minutes) : "as long as it takes";

    private static string Paint(Layer l) => l.Paint.Count switch
    {
        0 => "nothing",
        1 => l.Paint[0].Material.Name,
        _ => string.Join(" + ", l.Paint.Select(p => $"{p.Material.Name} {p.Parts}")),
    };

    private static string Thinned(Layer l) => l.Dilution is { } d ? $"{d}" : Neat;
}
