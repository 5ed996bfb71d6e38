using System.Globalization;

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

    /// <summary>So many of each seed; none inside another, so that each stands by itself.</summary>
    public static List<Chosen> Of(Tree tree, IReadOnlyList<int> seeds, int wanted)
    {
        var places = weights.ToDictionary(w => w.Project, w => tree.Sources(w.Project).SelectMany(s => Places.Of(s.File, s.Text)).ToArray());
        var chosen = new List<Chosen>();
        foreach (var seed in seeds)
        {
            var random = new Random(seed);
            foreach (var (project, share) in weights)
            {
                var most = (int)Math.Round(wanted * share);
                var all = places[project].ToArray();
                random.Shuffle(all);

                // As many of every kind, as far as they go.
                var kinds = all.GroupBy(p => p.Kind).OrderBy(g => g.Key, StringComparer.Ordinal).Select(g => new Queue<Place>(g)).ToList();
                for (var taken = 0; taken < most && kinds.Exists(k => k.Count > 0);)
                    foreach (var kind in kinds.Where(k => k.Count > 0))
                        if (kind.Dequeue() is var place && taken < most && !chosen.Exists(c => c.Place.Meets(place)))
                        {
                            chosen.Add(new Chosen(chosen.Count, seed, place));
                            taken++;
                        }
            }
        }

        return chosen;
    }
}
