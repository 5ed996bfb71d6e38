using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Work by chance, as benches have it: chains of layers on groups of pieces, with waits, windows, set-ups and evenings.</summary>
public static class WorkSamples
{
    private static readonly SetUp[] setUps = [new("airbrush", 8, 10, Spray: true), new("brush", 2, 2), new("wash", 2, 2), new("spirit", 4, 5), new("sponge", 2, 1)];

    /// <summary>Evenings of two and a half hours four times a week, and a longer Saturday.</summary>
    public static List<Stretch> Evenings(int weeks)
    {
        var hours = new List<Stretch>();
        for (var day = 0; day < weeks * 7; day++)
        {
            var midnight = day * 1440;
            if (day % 7 is 0 or 2 or 3)
                hours.Add(new(midnight + 1170, midnight + 1320));
            else if (day % 7 == 5)
                hours.Add(new(midnight + 600, midnight + 780));
        }

        var first = hours[0].Start;
        return hours.Select(h => new Stretch(h.Start - first, h.End - first)).ToList();
    }

    /// <summary>Work of so many operations at least.</summary>
    public static Work Some(int seed, int operations, int? painters = null, bool hard = true)
    {
        var random = new Random(seed);
        var made = new List<Operation>();
        var apart = new List<(int, int)>();
        while (made.Count < operations)
        {
            var layers = Math.Min(operations - made.Count, random.Next(3, 8));
            var before = -1;
            var window = false;
            for (var i = 0; i < layers; i++)
            {
                var set = window ? 3 : random.Next(10) == 0 ? -1 : random.Next(setUps.Length);
                var wait = random.Next(5) switch { 0 => 1440, 1 => 300, 2 => 20, _ => random.Next(30, 200) };
                After[] after = before < 0 ? [] : window ? [new(before, 15, random.Next(40, 160))] : [new(before, wait)];
                if (random.Next(6) == 0 && made.Count > 4 && before >= 0)
                    after = [.. after, new(random.Next(0, before), random.Next(0, 60))];
                made.Add(new($"w{made.Count}", random.Next(4, 40), set, set >= 0 && setUps[set].Spray && random.Next(3) == 0 ? random.Next(2, 6) : 0, random.Next(10, 90)) { After = after.DistinctBy(a => a.Operation).ToArray() });
                if (hard && random.Next(12) == 0 && made.Count > 3)
                    apart.Add((random.Next(0, made.Count - 1), made.Count - 1));
                window = hard && !window && random.Next(5) == 0;
                before = made.Count - 1;
            }
        }

        var hours = Evenings(12);
        return new Work
        {
            Hours = hours,
            Spraying = hard && random.Next(3) == 0 ? hours.Select(h => h with { End = h.Start + 100 }).ToList() : null,
            Painters = painters ?? (hard ? random.Next(1, 4) : 1),
            SetUps = setUps,
            Operations = made,
            NotWetTogether = apart,
            DryingPlaces = hard && random.Next(3) == 0 ? random.Next(2, 5) : null,
        };
    }

    /// <summary>Pieces that all go through the same layers.</summary>
    public static Work Line(int pieces, int layers, int weeks = 60)
    {
        var made = new List<Operation>();
        for (var layer = 0; layer < layers; layer++)
            for (var piece = 0; piece < pieces; piece++)
            {
                var window = layer % 7 == 4;
                made.Add(new($"p{piece}-l{layer}", 2 + layer % 4, layer % setUps.Length)
                {
                    After = layer == 0 ? [] : [new((layer - 1) * pieces + piece, window ? 10 : layer % 5 == 0 ? 600 : 40, window ? 1600 : null)],
                });
            }

        return new Work { Hours = Evenings(weeks), SetUps = setUps, Operations = made };
    }
}
