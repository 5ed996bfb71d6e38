namespace Lowfell.Core.Bases;

/// <summary>
/// Lays out the bases of a tray one after the other. A base is a small composition: rocks gather on one side, tufts of several sizes lean
/// against them, reeds stand together at the far side or nearby, and the rest stays open. Places are tried as dart throwing tries them (Cook 1986, ACM
/// Transactions on Graphics 5), and of several compositions that keep the rules the one is taken that differs most from the base before.
/// A plan depends on the seed, its number and the plan before it: adding bases changes none.
/// </summary>
public static class Arranger
{
    /// <summary>The weight of a composition lies this far from the middle at least, as a share of the reach.</summary>
    public const double LeastOffCentre = 0.12;

    /// <summary>Two neighbours in the tray differ by at least this: see <see cref="Difference"/>.</summary>
    public const double LeastDifference = 0.25;

    private const int Compositions = 10, MostCompositions = 60, Darts = 40;

    /// <summary>Radii as a share of the reach, smallest first: few large, more small ones.</summary>
    private static readonly double[] rocks = [0.1, 0.15, 0.24], tufts = [0.08, 0.12, 0.17], reeds = [0.06, 0.08];

    /// <summary>Bases of a tray, in their order.</summary>
    /// <param name="wish">What is wanted on each.</param>
    /// <param name="seed">Any number; another is another tray.</param>
    /// <param name="count">How many.</param>
    public static IReadOnlyList<BasePlan> Tray(BaseWish wish, int seed, int count)
    {
        var plans = new List<BasePlan>(count);
        for (var i = 0; i < count; i++)
            plans.Add(Next(wish, seed, i, plans.Count > 0 ? plans[^1] : null));
        return plans;
    }

    private static BasePlan Next(BaseWish wish, int seed, int index, BasePlan? before)
    {
        var chance = Chance.Of(seed, index);
        BasePlan? best = null;
        var most = double.MinValue;
        for (var n = 0; n < MostCompositions && (n < Compositions || most < LeastDifference); n++)
        {
            var plan = Compose(wish, chance);
            var apart = before is null ? 1 : Difference(plan, before, wish.Shape);
            var score = apart - (Rules.Broken(plan, wish).Count > 0 ? 10 : 0);
            if (score > most)
                (best, most) = (plan, score);
        }

        return best!;
    }

    private static BasePlan Compose(BaseWish wish, Chance chance)
    {
        var placed = new List<Element>();
        var reach = wish.Shape.ReachMm;

        // The side that the composition leans to, and how far out.
        var (turn, out_) = (chance.Next() * 2 * Math.PI, 0.35 + 0.3 * chance.Next());
        double fx = Math.Cos(turn) * out_ * reach, fy = Math.Sin(turn) * out_ * reach;
        for (var n = chance.Count(wish.Rocks); n > 0; n--)
            Try(ElementKind.Rock, Size(rocks, chance), () => Around(fx, fy, 0.45 * reach, chance));
        for (var n = chance.Count(wish.Tufts); n > 0; n--)
        {
            // Against a rock where there is one, and now and then by itself.
            var radius = Size(tufts, chance);
            var rock = placed.Where(e => e.Kind == ElementKind.Rock).OrderBy(_ => chance.Next()).Select(e => (Element?)e).FirstOrDefault();
            Try(ElementKind.Tuft, radius, () => rock is { } r && chance.Next() < 0.75 ? Beside(r, radius, wish.GapMm, chance) : Around(fx, fy, 0.8 * reach, chance));
        }

        if (chance.Count(wish.Reeds) is > 0 and var many)
        {
            var (rx, ry) = Around(fx, fy, 0.9 * reach, chance);
            for (var n = 0; n < many; n++)
                Try(ElementKind.Reed, Size(reeds, chance), () => Around(rx, ry, 0.25 * reach, chance));
        }

        return new BasePlan(placed);

        void Try(ElementKind kind, double share, Func<(double X, double Y)> where)
        {
            for (var dart = 0; dart < Darts; dart++)
            {
                var (x, y) = where();
                var e = new Element(kind, Math.Round(x, 2), Math.Round(y, 2), Math.Round(share * reach, 2));
                if (!Rules.Fits(e, placed, wish))
                    continue;
                placed.Add(e);
                return;
            }
        }

        double Size(double[] of, Chance c) => of[Math.Min(of.Length - 1, (int)(c.Next() * c.Next() * of.Length))];

        (double, double) Beside(Element rock, double share, double gap, Chance c)
        {
            var a = c.Next() * 2 * Math.PI;
            var d = rock.RadiusMm + share * reach + gap;
            return (rock.X + Math.Cos(a) * d, rock.Y + Math.Sin(a) * d);
        }
    }

    private static (double X, double Y) Around(double x, double y, double reach, Chance chance)
    {
        var (turn, far) = (chance.Next() * 2 * Math.PI, Math.Sqrt(chance.Next()) * reach);
        return (x + Math.Cos(turn) * far, y + Math.Sin(turn) * far);
    }

    /// <summary>
    /// How much two bases differ, 0 (the same) to 1: the mass of either that would have to be carried, over a grid of soft spots of each kind.
    /// </summary>
    public static double Difference(BasePlan a, BasePlan b, BaseShape shape)
    {
        const int Grid = 8;
        var (hx, hy) = shape.Half;
        double apart = 0, all = 0;
        foreach (var kind in Enum.GetValues<ElementKind>())
            for (var i = 0; i < Grid; i++)
                for (var j = 0; j < Grid; j++)
                {
                    double x = ((i + 0.5) / Grid * 2 - 1) * hx, y = ((j + 0.5) / Grid * 2 - 1) * hy;
                    double p = Spot(a, kind, x, y, shape.ReachMm), q = Spot(b, kind, x, y, shape.ReachMm);
                    apart += Math.Abs(p - q);
                    all += p + q;
                }

        return all == 0 ? 0 : apart / all;
    }

    private static double Spot(BasePlan plan, ElementKind kind, double x, double y, double reach)
    {
        var sum = 0.0;
        foreach (var e in plan.Elements)
            if (e.Kind == kind)
                sum += e.RadiusMm * e.RadiusMm * Math.Exp(-((e.X - x) * (e.X - x) + (e.Y - y) * (e.Y - y)) / (2 * 0.05 * reach * reach));
        return sum;
    }
}

/// <summary>What holds of every base, and what is broken where a hand moved something.</summary>
public static class Rules
{
    /// <summary>Whether something fits where it is among others.</summary>
    public static bool Fits(Element e, IReadOnlyList<Element> others, BaseWish wish) =>
        wish.Shape.Holds(e.X, e.Y, e.RadiusMm, wish.MarginMm)
        && wish.Flats.All(f => Math.Sqrt((e.X - f.X) * (e.X - f.X) + (e.Y - f.Y) * (e.Y - f.Y)) >= e.RadiusMm + f.RadiusMm)
        && others.All(o => e.DistanceTo(o) >= e.RadiusMm + o.RadiusMm + wish.GapMm - 1e-9);

    /// <summary>Everything that is broken, in words; nothing where all is well.</summary>
    public static IReadOnlyList<string> Broken(BasePlan plan, BaseWish wish)
    {
        var broken = new List<string>();
        for (var i = 0; i < plan.Elements.Count; i++)
        {
            var e = plan.Elements[i];
            var name = e.Kind.ToString().ToLowerInvariant();
            if (!wish.Shape.Holds(e.X, e.Y, e.RadiusMm, wish.MarginMm))
                broken.Add($"A {name} lies over the rim.");
            if (wish.Flats.Any(f => Math.Sqrt((e.X - f.X) * (e.X - f.X) + (e.Y - f.Y) * (e.Y - f.Y)) < e.RadiusMm + f.RadiusMm))
                broken.Add($"A {name} lies where something is to stand.");
            for (var j = 0; j < i; j++)
                if (e.DistanceTo(plan.Elements[j]) < e.RadiusMm + plan.Elements[j].RadiusMm + wish.GapMm - 0.02)
                    broken.Add($"A {name} and a {plan.Elements[j].Kind.ToString().ToLowerInvariant()} are too close.");
        }

        var (x, y) = plan.Weight(wish.Shape);
        if (plan.Elements.Count > 1 && Math.Sqrt(x * x + y * y) < Arranger.LeastOffCentre)
            broken.Add("The weight lies in the middle: move something to one side.");
        return broken;
    }
}
