namespace Lowfell.Core.Bases;

/// <summary>
/// One texture on a base. Outlines are drawn one texture over the other from the last to the first, each cut off at the outline of the base: the last one is
/// the ground and has none. The area is what stays to be seen of it, mm².
/// </summary>
public sealed record GroundArea(double AreaMm2, IReadOnlyList<IReadOnlyList<(double X, double Y)>> Outlines);

/// <summary>
/// Divides the top of a base among its textures, each where it belongs and with the share that was asked for. Every texture has a field of its own, which is cut where
/// what lies above comes to that share of what those before it left.
/// </summary>
public sealed class Ground
{
    /// <summary>Nodes of the grid on which fields are drawn, across; and points in which they are measured.</summary>
    private const int Nodes = 41, Points = 84, Waves = 6;

    /// <summary>How far the grid stands out over the box around a base, as a share.</summary>
    private const double Over = 1.08;

    private readonly BaseWish wish;
    private readonly List<(double X, double Y)> points = new(Points * Points);

    /// <summary>The grounds of all bases of a wish.</summary>
    public Ground(BaseWish wish)
    {
        this.wish = wish;
        var (hx, hy) = wish.Shape.Half;
        for (var j = 0; j < Points; j++)
            for (var i = 0; i < Points; i++)
            {
                var p = (X: ((i + 0.5) / Points * 2 - 1) * hx, Y: ((j + 0.5) / Points * 2 - 1) * hy);
                if (wish.Shape.Has(p.X, p.Y))
                    points.Add(p);
            }
    }

    /// <summary>The textures of one base, in the order of the wish.</summary>
    public IReadOnlyList<GroundArea> Of(BasePlan plan)
    {
        var (hx, hy) = wish.Shape.Half;
        var (each, left) = (wish.Shape.AreaMm2 / points.Count, points);
        var areas = new List<GroundArea>();
        for (var t = 0; t < wish.Textures.Count; t++)
        {
            if (t == wish.Textures.Count - 1)
            {
                areas.Add(new(left.Count * each, []));
                break;
            }

            var grid = Grid(Field(wish.Textures[t].Place, t, plan), hx, hy);
            var values = new double[left.Count];
            for (var i = 0; i < values.Length; i++)
                values[i] = Between(grid, left[i].X, left[i].Y, hx, hy);
            var many = Math.Clamp((int)Math.Round(wish.Textures[t].Share * points.Count), 0, values.Length);
            var level = Level(values, many);
            var (rest, got) = (new List<(double, double)>(left.Count - many), 0);
            for (var i = 0; i < values.Length; i++)
                if (values[i] > level)
                    got++;
                else
                    rest.Add(left[i]);
            left = rest;
            areas.Add(new(got * each, got == 0 ? [] : Contour.Of(Cut(grid, level), Nodes, (i, j) => (Math.Round((i / (Nodes - 1) * 2 - 1) * hx * Over, 2), Math.Round((j / (Nodes - 1) * 2 - 1) * hy * Over, 2)))));
        }

        return areas;
    }

    /// <summary>The level that so many values lie above.</summary>
    private static double Level(double[] values, int many)
    {
        if (many == 0)
            return double.MaxValue;
        var sorted = values.ToArray();
        Array.Sort(sorted);
        return many >= sorted.Length ? sorted[0] - 1 : (sorted[^many] + sorted[^(many + 1)]) / 2;
    }

    private static double[] Grid(Func<double, double, double> field, double hx, double hy)
    {
        var grid = new double[Nodes * Nodes];
        for (var j = 0; j < Nodes; j++)
            for (var i = 0; i < Nodes; i++)
                grid[j * Nodes + i] = field(((double)i / (Nodes - 1) * 2 - 1) * hx * Over, ((double)j / (Nodes - 1) * 2 - 1) * hy * Over);
        return grid;
    }

    /// <summary>The field less a level, and below 0 all along the border so that outlines close there, out of sight.</summary>
    private static double[] Cut(double[] grid, double level)
    {
        var cut = new double[grid.Length];
        for (var j = 0; j < Nodes; j++)
            for (var i = 0; i < Nodes; i++)
                cut[j * Nodes + i] = i is 0 or Nodes - 1 || j is 0 or Nodes - 1 ? -1 : grid[j * Nodes + i] - level is var v && v != 0 ? v : 1e-12;
        return cut;
    }

    /// <summary>A field between its nodes.</summary>
    private static double Between(double[] grid, double x, double y, double hx, double hy)
    {
        double u = (x / (hx * Over) + 1) / 2 * (Nodes - 1), v = (y / (hy * Over) + 1) / 2 * (Nodes - 1);
        int i = (int)u, j = (int)v;
        double a = u - i, b = v - j;
        var at = j * Nodes + i;
        return (grid[at] * (1 - a) + grid[at + 1] * a) * (1 - b) + (grid[at + Nodes] * (1 - a) + grid[at + Nodes + 1] * a) * b;
    }

    /// <summary>How much a texture belongs at a point: more is more.</summary>
    private Func<double, double, double> Field(TexturePlace place, int number, BasePlan plan)
    {
        var reach = wish.Shape.ReachMm;
        var noise = Noise(plan.Lean.Seed + (ulong)number, reach);
        var middle = new Body(plan.Lean.X * reach, plan.Lean.Y * reach, 0);
        Func<double, double, double> Near(IEnumerable<Body> bodies, double rough)
        {
            var all = bodies.ToArray() is { Length: > 0 } some ? some : [middle];
            return (x, y) =>
            {
                var (nearest, point) = (double.MaxValue, new Body(x, y, 0));
                foreach (var b in all)
                    nearest = Math.Min(nearest, point.GapTo(b));
                return -nearest / reach + rough * noise(x, y);
            };
        }

        IEnumerable<Body> Of(ElementKind kind) => plan.Elements.Where(e => e.Kind == kind).Select(e => e.Body);
        switch (place)
        {
            case TexturePlace.ByReeds:
                return Near(Of(ElementKind.Reed).Any() ? Of(ElementKind.Reed) : Of(ElementKind.Tuft), 0.06);
            case TexturePlace.ByRocks:
                return Near(Of(ElementKind.Rock).Concat(Of(ElementKind.Cork)), 0.06);
            case TexturePlace.ByFeet:
                return Near(wish.Flats.Select(f => f.Body), 0.05);
            case TexturePlace.Path when plan.Lean.Path is { } path:
                return Near([path], 0.02);
            case TexturePlace.Puddle when plan.Lean.Puddle is { } puddle:
                return Near([puddle], 0.03);
            default:
                // Drifts lie away from where rocks and reeds gather; a second one turns aside from the first.
                var turn = Math.Atan2(plan.Lean.Y, plan.Lean.X) + Math.PI + number * 2.4;
                var (dx, dy) = (Math.Cos(turn) / reach, Math.Sin(turn) / reach);
                return (x, y) => x * dx + y * dy + 0.35 * noise(x, y);
        }
    }

    /// <summary>Waves in all directions, the long ones strongest: about -1 to 1.</summary>
    private static Func<double, double, double> Noise(ulong seed, double reach)
    {
        var chance = Chance.From(seed);
        var waves = Enumerable.Range(0, Waves).Select(k =>
        {
            var (turn, fine) = (chance.Next() * 2 * Math.PI, (2 + 1.3 * k) / reach);
            return (X: Math.Cos(turn) * fine, Y: Math.Sin(turn) * fine, At: chance.Next() * 2 * Math.PI, High: 1.0 / (k + 1.5));
        }).ToArray();
        return (x, y) =>
        {
            var sum = 0.0;
            foreach (var w in waves)
                sum += w.High * Math.Cos(w.X * x + w.Y * y + w.At);
            return sum;
        };
    }
}
