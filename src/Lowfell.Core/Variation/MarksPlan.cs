namespace Lowfell.Core.Variation;

/// <summary>
/// Lays marks differently from piece to piece so that they belong together all the same. No piece has a place in common with the one before it; the places
/// are used about equally, for of those that are free one is taken that was used least; sizes are skewed (few large, many small) and
/// come out at their mean, for they are drawn without putting back from equal parts of their distribution. What is laid on a piece depends on
/// the seed and the pieces before it: adding pieces changes none.
/// </summary>
public static class MarksPlan
{
    /// <summary>A face is seen as so many places across, and down where marks go all over it.</summary>
    private const int Across = 3, Down = 3;

    /// <summary>Sizes are drawn from so many equal parts.</summary>
    private const int Parts = 8;

    /// <summary>The spread of sizes, as that of a normal distribution of their logarithms, at its wildest; and of heaviness.</summary>
    private const double WildestSize = 0.8, WildestHeaviness = 0.5;

    /// <summary>A mark is no smaller and no larger than this share of the mean.</summary>
    private const double SmallestShare = 0.2;

    /// <summary>The marks of a row of pieces.</summary>
    /// <param name="wish">What is asked.</param>
    /// <param name="face">The face they all have.</param>
    /// <param name="seed">Any number; another is another plan.</param>
    /// <param name="pieces">How many, at least 0.</param>
    public static IReadOnlyList<PieceMarks> For(VariationWish wish, Face face, int seed, int pieces)
    {
        var (chance, places) = (new Chance(seed), Places(wish.Habit, face));
        var (used, sizes) = (new int[places.Count], new Sizes(wish, chance));
        var plan = new List<PieceMarks>(pieces);
        double owed = 0;
        for (var i = 0; i < pieces; i++)
        {
            var before = i > 0 ? plan[i - 1].Marks.Select(m => m.Place).ToHashSet() : [];
            owed += wish.MarksAPiece;

            // As many as are owed, one more or less where it is wild; never more than there is room for beside the neighbour.
            var free = Enumerable.Range(0, places.Count).Where(p => !before.Contains(p)).ToList();
            var wild = wish.Spread * (chance.Next() * 2 - 1);
            var count = Math.Clamp((int)Math.Round(owed + wild), wish.MarksAPiece >= 1 ? 1 : 0, Math.Max(0, Math.Min(free.Count, places.Count - Math.Max(1, (int)Math.Ceiling(wish.MarksAPiece)))));
            owed -= count;
            var marks = new List<Mark>();
            for (var n = 0; n < count; n++)
            {
                var least = free.Min(p => used[p]);
                var among = free.Where(p => used[p] == least).ToList();
                var place = among[chance.Below(among.Count)];
                free.Remove(place);
                used[place]++;
                marks.Add(In(places[place], place, sizes.Next(), wish, face, chance));
            }

            plan.Add(new PieceMarks(marks.OrderByDescending(m => m.SizeMm).ToList()));
        }

        return plan;
    }

    /// <summary>How many places a face has for marks of a habit.</summary>
    public static int PlaceCount(Habit habit, Face face) => Places(habit, face).Count;

    private readonly record struct Box(double Left, double Top, double Width, double Height);

    private static List<Box> Places(Habit habit, Face face)
    {
        double w = face.WidthMm, h = face.HeightMm, edge = Math.Min(w, h) * 0.18;
        List<Box> Row(double top, double height, int count) => Enumerable.Range(0, count).Select(i => new Box(w * i / count, top, w / count, height)).ToList();
        return habit switch
        {
            Habit.FromGround => Row(h * 0.7, h * 0.3, 2 * Across),
            Habit.FromAbove => Row(0, h * 0.3, 2 * Across),
            Habit.AtEdges => [.. Row(0, edge, Across), .. Row(h - edge, edge, Across), new(0, edge, edge, h / 2 - edge), new(0, h / 2, edge, h / 2 - edge), new(w - edge, edge, edge, h / 2 - edge), new(w - edge, h / 2, edge, h / 2 - edge)],
            Habit.UnderAnchors when face.Anchors.Count > 0 => face.Anchors.SelectMany(a => new[] { new Box(a.X - edge / 2, a.Y, edge, edge), new Box(a.X - edge / 2, a.Y + edge, edge, edge) }).ToList(),
            _ => Enumerable.Range(0, Down).SelectMany(r => Row(h * r / Down, h / Down, Across)).ToList(),
        };
    }

    private static Mark In(Box box, int place, double size, VariationWish wish, Face face, Chance chance)
    {
        // What comes from an edge begins there; the rest lies anywhere in its place.
        var x = box.Left + box.Width * chance.Next();
        var y = wish.Habit switch
        {
            Habit.FromGround => face.HeightMm - size / 2,
            Habit.FromAbove => size / 2,
            _ => box.Top + box.Height * chance.Next(),
        };
        var heaviness = 1 + WildestHeaviness * wish.Spread * (chance.Next() * 2 - 1);
        return new Mark(Math.Round(Math.Clamp(x, 0, face.WidthMm), 1), Math.Round(Math.Clamp(y, 0, face.HeightMm), 1), size, Math.Round(heaviness, 2), place);
    }

    /// <summary>Sizes of a log-normal distribution, drawn part by part: so many draws have the mean of the whole exactly.</summary>
    private sealed class Sizes
    {
        private const int Orders = 150;

        private readonly double[] means;
        private readonly double mean, jitter;
        private readonly Chance chance;
        private readonly Queue<double> next = [];

        public Sizes(VariationWish wish, Chance chance)
        {
            (mean, this.chance) = (wish.MeanMm, chance);
            var sigma = WildestSize * Math.Clamp(wish.Spread, 0, 1);
            jitter = 0.1 * Math.Clamp(wish.Spread, 0, 1);

            // The mean of each part by its middle in ten steps; scaled, so that all of them together have the mean that was asked for.
            var raw = Enumerable.Range(0, Parts).Select(p => Enumerable.Range(0, 10).Average(s => Math.Exp(sigma * Quantile((p + (s + 0.5) / 10) / Parts)))).ToArray();
            means = raw.Select(r => Math.Max(SmallestShare, r * Parts / raw.Sum())).ToArray();
            var over = means.Sum() / Parts;
            means = means.Select(m => m / over).ToArray();
        }

        public double Next()
        {
            if (next.Count == 0)
                Fill();
            return Math.Round(next.Dequeue() * mean, 2);
        }

        /// <summary>All parts in an order by chance in which no beginning is far from the mean, in pairs that tremble against each other.</summary>
        private void Fill()
        {
            var best = means;
            var far = double.MaxValue;
            for (var n = 0; n < Orders; n++)
            {
                var order = means.OrderBy(_ => chance.Next()).ToArray();
                double sum = 0, most = 0;
                for (var i = 0; i < order.Length; i++)
                    most = Math.Max(most, Math.Abs((sum += order[i]) - (i + 1)));
                if (most < far)
                    (best, far) = (order, most);
            }

            for (var i = 0; i < best.Length; i += 2)
            {
                var by = jitter * (chance.Next() * 2 - 1) * Math.Min(best[i], best[i + 1]);
                next.Enqueue(best[i] + by);
                next.Enqueue(best[i + 1] - by);
            }
        }

        /// <summary>Quantiles of the normal distribution, by Acklam's rational approximation (2003), to 1e-9.</summary>
        private static double Quantile(double p)
        {
            ReadOnlySpan<double> a = [-3.969683028665376e+01, 2.209460984245205e+02, -2.759285104469687e+02, 1.383577518672690e+02, -3.066479806614716e+01, 2.506628277459239e+00];
            ReadOnlySpan<double> b = [-5.447609879822406e+01, 1.615858368580409e+02, -1.556989798598866e+02, 6.680131188771972e+01, -1.328068155288572e+01];
            ReadOnlySpan<double> c = [-7.784894002430293e-03, -3.223964580411365e-01, -2.400758277161838e+00, -2.549732539343734e+00, 4.374664141464968e+00, 2.938163982698783e+00];
            ReadOnlySpan<double> d = [7.784695709041462e-03, 3.224671290700398e-01, 2.445134137142996e+00, 3.754408661907416e+00];
            const double Low = 0.02425;
            if (p < Low || p > 1 - Low)
            {
                var q = Math.Sqrt(-2 * Math.Log(Math.Min(p, 1 - p)));
                var x = (((((c[0] * q + c[1]) * q + c[2]) * q + c[3]) * q + c[4]) * q + c[5]) / ((((d[0] * q + d[1]) * q + d[2]) * q + d[3]) * q + 1);
                return p < Low ? x : -x;
            }

            var r = p - 0.5;
            var s = r * r;
            return (((((a[0] * s + a[1]) * s + a[2]) * s + a[3]) * s + a[4]) * s + a[5]) * r / (((((b[0] * s + b[1]) * s + b[2]) * s + b[3]) * s + b[4]) * s + 1);
        }
    }

    /// <summary>The generator of Knuth with the constants of MMIX: the same on every machine.</summary>
    private sealed class Chance(int seed)
    {
        private ulong state = unchecked((ulong)seed * 0x9E3779B97F4A7C15UL + 1);

        public double Next()
        {
            state = unchecked(state * 6364136223846793005UL + 1442695040888963407UL);
            return (state >> 11) * (1.0 / (1UL << 53));
        }

        public int Below(int count) => (int)(Next() * count);
    }
}
