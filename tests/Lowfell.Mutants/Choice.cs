using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Lowfell.Mutants;

/// <summary>A fault that was chosen, and by which seed.</summary>
public sealed record Chosen(int Number, int Seed, Place Place);

/// <summary>Which faults are tried: by chance, the same for the same seed.</summary>
public static class Choice
{
    /// <summary>The core decides; what stores and serves mostly carries.</summary>
    private static readonly (string Project, double Share)[] weights = [("Lowfell.Core", 0.65), ("Lowfell.Store", 0.15), ("Lowfell.Server", 0.2)];

    /// <summary>"7", "1-5" or "1,4,9".</summary>
    public static IReadOnlyList<int> Seeds(string words) => words.Split(',').SelectMany(part => part.Split('-') is [var from, var to]
        ? Enumerable.Range(Number(from), Number(to) - Number(from) + 1) : [Number(part)]).ToList();

    private static int Number(string word) => int.Parse(word, CultureInfo.InvariantCulture);

    /// <summary>
    /// So many of each seed; none inside another, so that each stands by itself. A seed draws each fault by what it is, not by its number:
    /// an edit elsewhere leaves the choice as it was.
    /// </summary>
    public static List<Chosen> Of(Tree tree, IReadOnlyList<int> seeds, int wanted)
    {
        var places = weights.ToDictionary(w => w.Project, w => All(tree, w.Project).ToArray());
        var chosen = new List<Chosen>();
        foreach (var seed in seeds)
            foreach (var (project, share) in weights)
            {
                var most = (int)Math.Round(wanted * share);

                // As many of every kind, as far as they go.
                var kinds = places[project].OrderBy(p => Lot(seed, p.Named), StringComparer.Ordinal).GroupBy(p => p.Place.Kind).OrderBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g => new Queue<Place>(g.Select(p => p.Place))).ToList();
                for (var taken = 0; taken < most && kinds.Exists(k => k.Count > 0);)
                    foreach (var kind in kinds.Where(k => k.Count > 0))
                        if (kind.Dequeue() is var place && taken < most && !chosen.Exists(c => c.Place.Meets(place)))
                        {
                            chosen.Add(new Chosen(chosen.Count, seed, place));
                            taken++;
                        }
            }

        return chosen;
    }

    /// <summary>All faults of some lines, each written as "src/Lowfell.Core/Colour/Lab.cs:43", or with one kind after it, ":term": to ask again about what was not noticed.</summary>
    public static List<Chosen> At(Tree tree, IReadOnlyList<string> lines)
    {
        var chosen = new List<Chosen>();
        foreach (var (place, _) in weights.SelectMany(w => All(tree, w.Project)))
            if ((lines.Contains($"{place.File}:{place.Line}") || lines.Contains($"{place.File}:{place.Line}:{place.Kind}")) && !chosen.Exists(c => c.Place.Meets(place)))
                chosen.Add(new Chosen(chosen.Count, 0, place));
        return chosen;
    }

    /// <summary>Every fault of a project, with a name that it keeps while the rest of its file is edited.</summary>
    private static IEnumerable<(Place Place, string Named)> All(Tree tree, string project) => tree.Sources(project).SelectMany(s => Places.Of(s.File, s.Text))
        .GroupBy(p => (p.File, p.Kind, p.Says)).SelectMany(g => g.Select((p, i) => (p, $"{p.File} {p.Kind} {p.Says} {i}")));

    private static string Lot(int seed, string named) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes($"{seed} {named}")));
}
