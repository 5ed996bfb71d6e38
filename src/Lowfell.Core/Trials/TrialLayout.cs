
namespace Lowfell.Core.Trials;

/// <summary>
/// A full factorial on a tile: every level of every factor with every other, in stripes, quarters or a grid. Of all ways to lay the factors
/// across and down, one inside the other, that is taken which moves the tape least often; stripes inside stripes run back and forth, so
/// that where an outer stripe ends the inner one goes on and needs no tape.
/// </summary>
public sealed class TrialLayout
{
    /// <summary>A field is no smaller: a brush needs room, and so does an eye.</summary>
    public const double SmallestCellMm = 8;

    private readonly int[][] columns, rows;

    private TrialLayout(Tile tile, IReadOnlyList<FactorShape> factors, Axis across, Axis down)
    {
        (Tile, Factors) = (tile, factors);
        (columns, rows) = (across.Sequence, down.Sequence);
        (Across, Down) = (across.Factors, down.Factors);
        Cells = Fields().ToList();
        Steps = factors.Select((_, f) => StepsOf(f)).ToList();
        MaskingMoves = Steps.Sum(s => s.Sum(x => x.Masks.Count));
    }

    public Tile Tile { get; }
    public IReadOnlyList<FactorShape> Factors { get; }

    /// <summary>Factors that run across and down, the outer first.</summary>
    public IReadOnlyList<int> Across { get; }
    public IReadOnlyList<int> Down { get; }

    /// <summary>Row by row from the upper left, numbered from 1.</summary>
    public IReadOnlyList<TrialCell> Cells { get; }

    /// <summary>For each factor the steps it is laid in: in none of them do two levels meet wet.</summary>
    public IReadOnlyList<IReadOnlyList<TrialStep>> Steps { get; }

    /// <summary>How often tape is laid.</summary>
    public int MaskingMoves { get; }

    /// <summary>Lays factors out on a tile; null with words where they do not fit.</summary>
    /// <param name="tile">What there is room on.</param>
    /// <param name="factors">One to three, in the order in which they are laid.</param>
    /// <param name="held">The level of each factor that is to be held beside the model: that field lies at the edge.</param>
    /// <exception cref="ArgumentException">No factors or too many, or levels beside what they can be.</exception>
    public static (TrialLayout? Layout, string Refusal) Of(Tile tile, IReadOnlyList<FactorShape> factors, IReadOnlyList<int> held)
    {
        if (factors.Count is 0 or > FactorShape.MostFactors || factors.Any(f => f.Levels is < FactorShape.FewestLevels or > FactorShape.MostLevels) || held.Count != factors.Count)
            throw new ArgumentException("One to three factors of two to five levels each, with the level that is held of each.", nameof(factors));
        TrialLayout? best = null;
        var bestMoves = int.MaxValue;
        foreach (var (across, down) in Ways(factors.Count))
        {
            int n = Product(factors, across), m = Product(factors, down);
            if (tile.UsedWidthMm / n < SmallestCellMm || tile.UsedHeightMm / m < SmallestCellMm)
                continue;
            foreach (var edge in new[] { true, false })
            {
                var layout = new TrialLayout(tile, factors, new Axis(factors, across, edge ? held : null), new Axis(factors, down, edge ? null : held));
                if (layout.AtEdge(held) && (layout.MaskingMoves < bestMoves || (layout.MaskingMoves == bestMoves && layout.Squareness < best!.Squareness)))
                    (best, bestMoves) = (layout, layout.MaskingMoves);
            }
        }

        return best is null ? (null, Refuse(tile, factors)) : (best, "");
    }

    /// <summary>Whether the field with these levels lies at an edge of the tile.</summary>
    public bool AtEdge(IReadOnlyList<int> levels)
    {
        int column = Array.FindIndex(columns, c => Across.All(f => c[f] == levels[f])), row = Array.FindIndex(rows, r => Down.All(f => r[f] == levels[f]));
        return column == 0 || column == columns.Length - 1 || row == 0 || row == rows.Length - 1;
    }

    /// <summary>How far fields are from squares: 0 is a square.</summary>
    private double Squareness => Math.Abs(Math.Log(Tile.UsedWidthMm / columns.Length / (Tile.UsedHeightMm / rows.Length)));

    /// <summary>Every way to lay factors across and down, and one inside the other.</summary>
    private static IEnumerable<(int[] Across, int[] Down)> Ways(int factors)
    {
        for (var mask = 0; mask < 1 << factors; mask++)
            foreach (var across in Orders(Enumerable.Range(0, factors).Where(f => (mask & (1 << f)) != 0).ToArray()))
                foreach (var down in Orders(Enumerable.Range(0, factors).Where(f => (mask & (1 << f)) == 0).ToArray()))
                    yield return (across, down);
    }

    /// <summary>Every order of some things.</summary>
    private static IEnumerable<int[]> Orders(int[] things)
    {
        if (things.Length == 0)
        {
            yield return [];
            yield break;
        }

        for (var i = 0; i < things.Length; i++)
            foreach (var rest in Orders([.. things[..i], .. things[(i + 1)..]]))
                yield return [things[i], .. rest];
    }

    private static int Product(IReadOnlyList<FactorShape> factors, int[] of) => of.Aggregate(1, (n, f) => n * factors[f].Levels);

    private static string Refuse(Tile tile, IReadOnlyList<FactorShape> factors)
    {
        var cells = factors.Aggregate(1, (n, f) => n * f.Levels);
        var (across, down) = Ways(factors.Count).Select(w => (Product(factors, w.Across), Product(factors, w.Down))).OrderBy(w => Math.Max(w.Item1, w.Item2)).First();
        var grown = tile.Round ? Math.Sqrt(2) : 1;
        return FormattableString.Invariant(
            $"{cells} fields of at least {SmallestCellMm:0} mm do not fit on {tile.WidthMm:0} × {tile.HeightMm:0} mm. Take a tile of at least {Math.Ceiling(across * SmallestCellMm * grown):0} × {Math.Ceiling(down * SmallestCellMm * grown):0} mm, or leave a level out.");
    }

    private IEnumerable<TrialCell> Fields()
    {
        double width = Tile.UsedWidthMm / columns.Length, height = Tile.UsedHeightMm / rows.Length;
        for (var y = 0; y < rows.Length; y++)
            for (var x = 0; x < columns.Length; x++)
                yield return new TrialCell(y * columns.Length + x + 1, Factors.Select((_, f) => Across.Contains(f) ? columns[x][f] : rows[y][f]).ToList(), x * width, y * height, width, height);
    }

    /// <summary>
    /// The steps of one factor. Coats go one over the other, each over all that want it: one paint, one edge. Of levels that differ those lie in
    /// one step that are not neighbours: every other one along the line.
    /// </summary>
    private List<TrialStep> StepsOf(int factor)
    {
        var shape = Factors[factor];
        if (shape.Coats is { } coats)
            return Enumerable.Range(1, coats.Max()).Select(c => Step(factor, Enumerable.Range(0, shape.Levels).Where(l => coats[l] >= c).ToList(), c)).ToList();
        var order = OrderOf(factor);
        return Enumerable.Range(0, 2).Select(parity => order.Where((l, i) => i % 2 == parity && l != shape.None).ToList()).Where(l => l.Count > 0).Select(l => Step(factor, l, 1)).ToList();
    }

    /// <summary>The levels as they lie side by side where the factor is first met.</summary>
    private List<int> OrderOf(int factor) => (Across.Contains(factor) ? columns : rows).Select(c => c[factor]).Distinct().ToList();

    private TrialStep Step(int factor, List<int> levels, int coat)
    {
        var upright = Across.Contains(factor);
        var sequence = upright ? columns : rows;
        var size = (upright ? Tile.UsedWidthMm : Tile.UsedHeightMm) / sequence.Length;
        var masks = Enumerable.Range(1, sequence.Length - 1).Where(i => levels.Contains(sequence[i - 1][factor]) != levels.Contains(sequence[i][factor])).Select(i => new MaskLine(upright, i * size)).ToList();
        return new TrialStep(factor, levels, masks, coat);
    }

    /// <summary>Factors along one side of the tile, with the levels of each in the order that moves the tape least.</summary>
    private sealed class Axis
    {
        public Axis(IReadOnlyList<FactorShape> factors, int[] along, IReadOnlyList<int>? heldFirst)
        {
            Factors = along;
            var all = new List<Dictionary<int, int>> { new() };
            foreach (var f in along)
            {
                var order = Best(factors[f], heldFirst?[f]);

                // Back and forth: an inner stripe goes on where the outer one ends.
                all = all.SelectMany((outer, i) => (i % 2 == 0 ? order : order.Reverse()).Select(l => new Dictionary<int, int>(outer) { [f] = l })).ToList();
            }

            var most = factors.Count;
            Sequence = all.Select(d => Enumerable.Range(0, most).Select(f => d.GetValueOrDefault(f, -1)).ToArray()).ToArray();
        }

        public IReadOnlyList<int> Factors { get; }

        /// <summary>For every stripe the level of each factor; −1 of those that lie along the other side.</summary>
        public int[][] Sequence { get; }

        private static int[] Best(FactorShape shape, int? first) => Orders(Enumerable.Range(0, shape.Levels).ToArray())
            .Where(o => first is null || o[0] == first).MinBy(o => Enumerable.Range(1, o.Length - 1).Sum(i => shape.Moves(o[i - 1], o[i])))!;
    }
}
