namespace Lowfell.Core.Bases;

/// <summary>
/// Lays out the bases of a tray one after the other. A base is a small composition: rocks gather on one side, some of them halves against the rim, tufts
/// of several sizes lean against them, reeds stand together, and the rest stays open. Places are tried as dart throwing tries them (Cook 1986, ACM
/// Transactions on Graphics 5), and of several compositions that keep the rules the one is taken that differs most from its neighbours in the tray.
/// A plan depends on the seed, its number and the plans before it: adding bases changes none.
/// </summary>
public static class Arranger
{
    /// <summary>The weight of a composition lies this far from the middle at least, as a share of the reach.</summary>
    public const double LeastOffCentre = 0.12;

    /// <summary>Two neighbours in the tray differ by at least this: see <see cref="Difference"/>.</summary>
    public const double LeastDifference = 0.25;

    private const int Compositions = 8, MostCompositions = 80, Darts = 40;

    /// <summary>One rock in three is a half against the rim; three tufts in four lean against a rock.</summary>
    private const double Halves = 0.33, Leaning = 0.75;

    /// <summary>Radii as a share of the reach, smallest first: few large, more small ones. Planks are so long and so wide.</summary>
    private static readonly double[] rocks = [0.1, 0.15, 0.24], tufts = [0.08, 0.12, 0.17], reeds = [0.06, 0.08], corks = [0.18, 0.25, 0.34], planks = [0.45, 0.6, 0.75];

    private const double PlankWide = 0.05;

    /// <summary>Bases of a tray, in their order.</summary>
    /// <param name="wish">What is wanted on each.</param>
    /// <param name="seed">Any number; another is another tray.</param>
    /// <param name="count">How many.</param>
    public static IReadOnlyList<BasePlan> Tray(BaseWish wish, int seed, int count)
    {
        var plans = new List<(BasePlan Plan, Masses Masses)>(count);
        for (var i = 0; i < count; i++)
            plans.Add(Next(wish, seed, i, Neighbours(i, wish.Columns).Where(n => n < i).Select(n => plans[n].Masses).ToList()));
        return plans.Select(p => p.Plan).ToList();
    }

    /// <summary>The places in a tray beside a place; every second row is set off by half a base.</summary>
    public static IEnumerable<int> Neighbours(int index, int columns)
    {
        var (row, column) = (index / columns, index % columns);
        var off = row % 2 == 0 ? -1 : 0;
        foreach (var (r, c) in new[] { (row, column - 1), (row, column + 1), (row - 1, column + off), (row - 1, column + off + 1), (row + 1, column + off), (row + 1, column + off + 1) })
            if (r >= 0 && c >= 0 && c < columns)
                yield return r * columns + c;
    }

    private static (BasePlan, Masses) Next(BaseWish wish, int seed, int index, IReadOnlyList<Masses> before)
    {
        var chance = Chance.Of(seed, index);
        (BasePlan Plan, Masses Masses)? best = null;
        var most = double.MinValue;
        for (var n = 0; n < MostCompositions && (n < Compositions || most < LeastDifference); n++)
        {
            var plan = Compose(wish, chance);
            var masses = Masses.Of(plan, wish.Shape);
            var apart = before.Count == 0 ? 1 : before.Min(masses.Apart);
            if (apart > most && (Rules.Broken(plan, wish).Count > 0 ? apart - 10 : apart) is var score && score > most)
                (best, most) = ((plan, masses), score);
        }

        return best!.Value;
    }

    private static BasePlan Compose(BaseWish wish, Chance chance)
    {
        var placed = new List<Element>();
        var (shape, reach) = (wish.Shape, wish.Shape.ReachMm);

        // The side that the composition leans to, and how far out.
        var (turn, out_) = (chance.Next() * 2 * Math.PI, 0.35 + 0.3 * chance.Next());
        double fx = Math.Cos(turn) * out_ * reach, fy = Math.Sin(turn) * out_ * reach;
        var lean = new Lean(Math.Cos(turn) * out_, Math.Sin(turn) * out_, chance.Whole(), PathOf(wish, turn, chance), null);
        lean = lean with { Puddle = PuddleOf(wish, lean, chance) };
        for (var n = Count(wish.Planks); n > 0; n--)
            Try(ElementKind.Plank, planks[chance.Below(planks.Length)], PlankAt);
        for (var n = Count(wish.Cork); n > 0; n--)
            Try(ElementKind.Cork, Size(corks), r => new(ElementKind.Cork, 0, 0, r), (fx, fy, 0.5));
        for (var n = Count(wish.Rocks); n > 0; n--)
        {
            var share = Size(rocks);
            if (chance.Next() >= Halves || !Try(ElementKind.Rock, share, r => HalfAt(shape, wish.MarginMm, turn, r, chance)))
                Try(ElementKind.Rock, share, r => new(ElementKind.Rock, 0, 0, r), (fx, fy, 0.45));
        }

        for (var n = Count(wish.Tufts); n > 0; n--)
        {
            var share = Size(tufts);
            var stones = placed.Where(e => e.Kind is ElementKind.Rock or ElementKind.Cork).ToList();
            Try(ElementKind.Tuft, share, r =>
            {
                if (stones.Count == 0 || chance.Next() >= Leaning)
                    return At(new Element(ElementKind.Tuft, 0, 0, r), Around(fx, fy, 0.8 * reach));
                var rock = stones[chance.Below(stones.Count)];
                var (a, d) = (chance.Next() * 2 * Math.PI, rock.RadiusMm + r + wish.GapMm);
                return new(ElementKind.Tuft, rock.X + Math.Cos(a) * d, rock.Y + Math.Sin(a) * d, r);
            });
        }

        if (Count(wish.Reeds) is > 0 and var many)
        {
            var (rx, ry) = Around(fx, fy, 0.9 * reach);
            for (var n = 0; n < many; n++)
                Try(ElementKind.Reed, Size(reeds), r => new(ElementKind.Reed, 0, 0, r), (rx, ry, 0.25));
        }

        return new BasePlan(placed, lean);

        bool Try(ElementKind kind, double share, Func<double, Element> make, (double X, double Y, double Reach)? around = null)
        {
            for (var dart = 0; dart < Darts; dart++)
            {
                var e = make(Math.Round(share * reach, 2));
                if (around is { } a)
                    e = At(e, Around(a.X, a.Y, a.Reach * reach));
                e = e with { X = Math.Round(e.X, 2), Y = Math.Round(e.Y, 2), Turn = Math.Round(e.Turn) };
                if (!Rules.Fits(e, placed, wish, lean))
                    continue;
                placed.Add(e);
                return true;
            }

            return false;
        }

        // Along the path where there is one, else any way.
        Element PlankAt(double length)
        {
            var wide = Math.Round(PlankWide * reach, 2);
            var e = new Element(ElementKind.Plank, 0, 0, wide, length - 2 * wide, (lean.Path?.Turn ?? chance.Next() * 180) + (chance.Next() - 0.5) * 24);
            return lean.Path is { } path
                ? At(e, (path.X + (chance.Next() - 0.5) * path.LengthMm * 0.7 * Math.Cos(path.Turn * Math.PI / 180), path.Y + (chance.Next() - 0.5) * path.LengthMm * 0.7 * Math.Sin(path.Turn * Math.PI / 180)))
                : At(e, Around(fx, fy, 0.8 * reach));
        }

        static Element At(Element e, (double X, double Y) at) => e with { X = at.X, Y = at.Y };

        (double X, double Y) Around(double x, double y, double far)
        {
            var (a, d) = (chance.Next() * 2 * Math.PI, Math.Sqrt(chance.Next()) * far);
            return (x + Math.Cos(a) * d, y + Math.Sin(a) * d);
        }

        double Size(double[] of) => of[Math.Min(of.Length - 1, (int)(chance.Next() * chance.Next() * of.Length))];

        // As many as are wished on the mean: more or fewer where it is wild.
        int Count(double mean) => mean <= 0 ? 0 : Math.Max(0, (int)Math.Floor(mean + (chance.Next() + chance.Next() - 1) * wish.Spread * mean + chance.Next()));
    }

    /// <summary>A half stone: its flat side against the rim, about where the composition leans to.</summary>
    private static Element HalfAt(BaseShape shape, double margin, double turn, double radius, Chance chance)
    {
        var a = turn + (chance.Next() - 0.5) * 1.6;
        var (hx, hy) = shape.Half;

        // As far out as it lies within, by halving.
        double low = 0, high = Math.Max(hx, hy);
        Element Out(double far)
        {
            double x = Math.Cos(a) * far, y = Math.Sin(a) * far;
            var (ix, iy) = shape.Inward(x, y);
            return new Element(ElementKind.Rock, x, y, radius, 0, Math.Round(Math.Atan2(iy, ix) * 180 / Math.PI), true);
        }

        for (var n = 0; n < 16; n++)
        {
            var far = (low + high) / 2;
            if (Out(far).IsWithin(shape, margin))
                low = far;
            else
                high = far;
        }

        return Out(Math.Max(0, low - 0.02));
    }

    /// <summary>A band past the side that the composition leans to, wide enough for its share of the top.</summary>
    private static Body? PathOf(BaseWish wish, double turn, Chance chance)
    {
        var share = wish.Textures.Where(t => t.Place == TexturePlace.Path).Sum(t => t.Share);
        if (share <= 0)
            return null;
        var (hx, hy) = wish.Shape.Half;
        var length = 2 * Math.Sqrt(hx * hx + hy * hy);
        var across = share * wish.Shape.AreaMm2 / (2 * wish.Shape.ReachMm) / 0.95;
        var off = (0.1 + 0.15 * chance.Next()) * wish.Shape.ReachMm;
        return new Body(-Math.Cos(turn) * off, -Math.Sin(turn) * off, across / 2, length, turn * 180 / Math.PI + 90 + (chance.Next() - 0.5) * 30);
    }

    /// <summary>A puddle on the open side, clear of what stands on the base.</summary>
    private static Body? PuddleOf(BaseWish wish, Lean lean, Chance chance)
    {
        var share = wish.Textures.Where(t => t.Place == TexturePlace.Puddle).Sum(t => t.Share);
        if (share <= 0)
            return null;
        var (radius, reach) = (Math.Sqrt(share * wish.Shape.AreaMm2 / Math.PI), wish.Shape.ReachMm);
        Body? best = null;
        var most = double.MinValue;
        for (var n = 0; n < Darts; n++)
        {
            var (a, d) = (chance.Next() * 2 * Math.PI, Math.Sqrt(chance.Next()) * reach);
            var at = new Body(Math.Round(Math.Cos(a) * d - lean.X * reach * 0.5, 2), Math.Round(Math.Sin(a) * d - lean.Y * reach * 0.5, 2), radius);
            var room = wish.Flats.Select(f => at.GapTo(f.Body)).Append(wish.Shape.Room(at.X, at.Y) - radius - wish.MarginMm).Min();
            if (room > most)
                (best, most) = (at, room);
            if (room >= 0)
                break;
        }

        return best;
    }

    /// <summary>
    /// How much two bases differ, 0 (the same) to 1: the mass of either that would have to be carried, over a grid of soft spots of each kind; where nothing
    /// lies on either, how differently their grounds lean.
    /// </summary>
    public static double Difference(BasePlan a, BasePlan b, BaseShape shape) => Masses.Of(a, shape).Apart(Masses.Of(b, shape));

    /// <summary>For each base of a tray how much it differs from the neighbour it is most like; null for one that has none.</summary>
    public static IReadOnlyList<double?> Likest(IReadOnlyList<BasePlan> tray, BaseWish wish)
    {
        var masses = tray.Select(p => Masses.Of(p, wish.Shape)).ToList();
        return masses.Select((m, i) => Neighbours(i, wish.Columns).Where(n => n < masses.Count).Select(n => (double?)m.Apart(masses[n])).Min()).ToList();
    }
}
