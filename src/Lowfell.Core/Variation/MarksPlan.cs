using Lowfell.Core.Layers;

namespace Lowfell.Core.Variation;

/// <summary>
/// Lays marks differently from piece to piece so that they belong together all the same. No piece has a place in common with the one before it; the places
/// are used about equally, for of those that are free one is taken that was used least; sizes are skewed (few large, many small) and
/// come out at their mean, for they are drawn without putting back from equal parts of their distribution. What is laid on a piece depends on
/// the seed and the pieces before it: adding pieces changes none.
/// </summary>
public static class MarksPlan
{
    /// <summary>A face is seen as so many places all over it, or along one of its edges.</summary>
    private const int AllOver = 9, Along = 6;

    /// <summary>A strip is one row of places, a square three by three.</summary>
    private static (int Across, int Down) Grid(Face face)
    {
        var down = Math.Clamp((int)Math.Round(Math.Sqrt(AllOver * face.HeightMm / face.WidthMm)), 1, AllOver);
        return ((int)Math.Ceiling((double)AllOver / down), down);
    }

    /// <summary>Heaviness at its wildest, either way.</summary>
    private const double WildestHeaviness = 0.5;

    /// <summary>So many spots are tried in a place.</summary>
    private const int Spots = 12;

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
            var marks = new List<PlacedMark>();
            for (var n = 0; n < count; n++)
            {
                var least = free.Min(p => used[p]);
                var among = free.Where(p => used[p] == least).ToList();
                var place = among[chance.Below(among.Count)];
                free.Remove(place);
                used[place]++;
                marks.Add(In(places[place], place, sizes.Next(), wish, face, chance, marks, i > 0 ? plan[i - 1].Marks : []));
            }

            plan.Add(new PieceMarks(marks.OrderByDescending(m => m.SizeMm).ToList()));
        }

        return plan;
    }

    /// <summary>How often the place that is used least is used, and the one that is used most.</summary>
    public static (int Least, int Most) Uses(IReadOnlyList<PieceMarks> plan, int places)
    {
        var uses = plan.SelectMany(p => p.Marks).CountBy(m => m.Place).ToDictionary();
        return (Enumerable.Range(0, places).Min(p => uses.GetValueOrDefault(p)), Enumerable.Range(0, places).Max(p => uses.GetValueOrDefault(p)));
    }

    /// <summary>How many places a face has for marks of a habit.</summary>
    public static int PlaceCount(Habit habit, Face face) => Places(habit, face).Count;

    /// <summary>The most marks a piece can have, so that the piece beside it finds places of its own.</summary>
    public static double MostMarks(Habit habit, Face face) => Math.Min(Varied.MostMarks, PlaceCount(habit, face) / 2);

    private readonly record struct Box(double Left, double Top, double Width, double Height);

    private static List<Box> Places(Habit habit, Face face)
    {
        double w = face.WidthMm, h = face.HeightMm, edge = Math.Min(w, h) * 0.18;
        var (across, down) = Grid(face);
        List<Box> Row(double top, double height, int count) => Enumerable.Range(0, count).Select(i => new Box(w * i / count, top, w / count, height)).ToList();
        return habit switch
        {
            Habit.FromGround => Row(h * 0.7, h * 0.3, Along),
            Habit.FromAbove => Row(0, h * 0.3, Along),
            Habit.AtEdges => [.. Row(0, edge, Along / 2), .. Row(h - edge, edge, Along / 2), new(0, edge, edge, h / 2 - edge), new(0, h / 2, edge, h / 2 - edge), new(w - edge, edge, edge, h / 2 - edge), new(w - edge, h / 2, edge, h / 2 - edge)],
            Habit.UnderOthers when face.Anchors.Count > 0 => face.Anchors.SelectMany(a => new[] { new Box(a.X - edge / 2, a.Y, edge, edge), new Box(a.X - edge / 2, a.Y + edge, edge, edge) }).ToList(),
            _ => Enumerable.Range(0, down).SelectMany(r => Row(h * r / down, h / down, across)).ToList(),
        };
    }

    /// <summary>
    /// A mark in a place. What comes from an edge begins there, moss sits on a joint, and the rest lies anywhere. Of several spots
    /// that chance offers the one is taken that lies most clear of the other marks on the piece and on the piece before.
    /// </summary>
    private static PlacedMark In(Box box, int place, double size, VariationWish wish, Face face, Chance chance, IReadOnlyList<PlacedMark> here, IReadOnlyList<PlacedMark> before)
    {
        var heaviness = Math.Round(1 + WildestHeaviness * wish.Spread * (chance.Next() * 2 - 1), 2);
        PlacedMark best = default;
        var least = double.MaxValue;
        for (var n = 0; n < Spots; n++)
        {
            double x = box.Left + box.Width * chance.Next(), y = box.Top + box.Height * chance.Next();
            (x, y) = wish.Habit switch
            {
                Habit.FromGround => (x, face.HeightMm - size / 2),
                Habit.FromAbove => (x, size / 2),
                Habit.AtJoints when face.Courses.Count > 0 => (x, Nearest(face.Courses, y, box.Top, box.Height)),
                Habit.AtJoints when face.Uprights.Count > 0 => (Nearest(face.Uprights, x, box.Left, box.Width), y),
                _ => (x, y),
            };
            var mark = new PlacedMark(Math.Round(Inside(x, size, face.WidthMm), 1), Math.Round(Inside(y, size, face.HeightMm), 1), size, heaviness, place);
            var over = here.Sum(m => Overlap(m, mark)) * 2 + before.Sum(m => Overlap(m, mark));
            if (over >= least)
                continue;
            (best, least) = (mark, over);
            if (over == 0)
                break;
        }

        return best;
    }

    /// <summary>So that the whole of a mark lies on its face, where the face is large enough for it.</summary>
    private static double Inside(double at, double size, double length) => size >= length ? length / 2 : Math.Clamp(at, size / 2, length - size / 2);

    /// <summary>The nearest joint of a place; where it has none, a mark lies where it would have lain.</summary>
    private static double Nearest(IReadOnlyList<double> joints, double at, double from, double length) =>
        joints.Where(c => c >= from && c <= from + length).DefaultIfEmpty(at).MinBy(c => Math.Abs(c - at));

    /// <summary>How deep two marks lie in each other, mm; 0 where they are apart.</summary>
    public static double Overlap(PlacedMark a, PlacedMark b) => Math.Max(0, (a.SizeMm + b.SizeMm) / 2 - Math.Sqrt((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y)));

    /// <summary>Sizes drawn part by part: so many draws have the mean of the whole exactly.</summary>
    private sealed class Sizes(VariationWish wish, Chance chance)
    {
        private const int Orders = 150;

        private readonly double[] shares = MarkSizes.OfParts(wish.Spread);
        private readonly Queue<double> next = [];

        public double Next()
        {
            if (next.Count == 0)
                Fill();
            return Math.Round(next.Dequeue() * wish.MeanMm, 2);
        }

        /// <summary>All parts in an order by chance in which no beginning is far from the mean, in pairs that tremble against each other.</summary>
        private void Fill()
        {
            var best = shares;
            var far = double.MaxValue;
            for (var n = 0; n < Orders; n++)
            {
                var order = shares.OrderBy(_ => chance.Next()).ToArray();
                double sum = 0, most = 0;
                for (var i = 0; i < order.Length; i++)
                    most = Math.Max(most, Math.Abs((sum += order[i]) - (i + 1)));
                if (most < far)
                    (best, far) = (order, most);
            }

            for (var i = 0; i < best.Length; i += 2)
            {
                var by = MarkSizes.Tremble(wish.Spread) * (chance.Next() * 2 - 1) * Math.Min(best[i], best[i + 1]);
                next.Enqueue(best[i] + by);
                next.Enqueue(best[i + 1] - by);
            }
        }
    }
}
