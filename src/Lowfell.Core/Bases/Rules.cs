using Lowfell.Core.Words;

namespace Lowfell.Core.Bases;

/// <summary>What can be wrong with a base.</summary>
public enum BaseFault
{
    OverRim, OnFlat, TooClose, InTheOpen, Centred,
}

/// <summary>One thing that is broken, by how many mm, and on which elements; none for the whole composition.</summary>
public sealed record Broken(BaseFault Fault, IReadOnlyList<int> Elements, double ByMm, string Words);

/// <summary>What holds of every base, and what is broken where a hand moved something.</summary>
public static class Rules
{
    /// <summary>What is placed is rounded to this; no rule is broken by it, mm.</summary>
    private const double Rounding = 0.02;

    /// <summary>Whether something fits where it is among others.</summary>
    public static bool Fits(Element e, IReadOnlyList<Element> others, BaseWish wish, Lean lean)
    {
        if (!e.IsWithin(wish.Shape, wish.MarginMm))
            return false;
        var body = e.Body;
        foreach (var flat in wish.Flats)
            if (body.GapTo(flat.Body) < 0)
                return false;
        if (e.Kind != ElementKind.Plank)
            foreach (var open in lean.Open)
                if (body.GapTo(open) < 0)
                    return false;
        foreach (var o in others)
            if (body.GapTo(o.Body) < wish.GapMm - 1e-9)
                return false;
        return true;
    }

    /// <summary>The place nearest to where something is in which it fits, mm; null where there is none.</summary>
    public static (double X, double Y)? Nearest(Element e, IReadOnlyList<Element> others, BaseWish wish, Lean lean)
    {
        for (var far = 0.25; far < 2 * Math.Max(wish.Shape.Half.X, wish.Shape.Half.Y); far += 0.25)
            for (var i = 0; i < 24; i++)
            {
                var there = e with { X = Math.Round(e.X + Math.Cos(i * Math.PI / 12) * far, 2), Y = Math.Round(e.Y + Math.Sin(i * Math.PI / 12) * far, 2) };
                if (Fits(there, others, wish, lean))
                    return (there.X, there.Y);
            }

        return null;
    }

    /// <summary>Everything that is broken, in words; nothing where all is well.</summary>
    public static IReadOnlyList<Broken> Broken(BasePlan plan, BaseWish wish)
    {
        var broken = new List<Broken>();
        for (var i = 0; i < plan.Elements.Count; i++)
        {
            var (e, name) = (plan.Elements[i], Name(plan.Elements[i]));
            if (!e.IsWithin(wish.Shape, wish.MarginMm - Rounding))
                broken.Add(new(BaseFault.OverRim, [i], Over(e, wish), Said($"{name} lies over the rim, which is kept free for {wish.MarginMm:0.#} mm.")));
            foreach (var flat in wish.Flats)
                if (e.Body.GapTo(flat.Body) is < -Rounding and var gap)
                    broken.Add(new(BaseFault.OnFlat, [i], -gap, Said($"{name} lies where a {EnumWords.Of(flat.Kind)} is to stand, {-gap:0.0} mm too near.")));
            if (e.Kind != ElementKind.Plank)
                foreach (var open in plan.Lean.Open)
                    if (e.Body.GapTo(open) is < -Rounding and var gap)
                        broken.Add(new(BaseFault.InTheOpen, [i], -gap, $"{name} stands in the {(open == plan.Lean.Path ? "path" : "puddle")}."));
            for (var j = 0; j < i; j++)
                if (e.Body.GapTo(plan.Elements[j].Body) is var room && room < wish.GapMm - Rounding)
                    broken.Add(new(BaseFault.TooClose, [j, i], wish.GapMm - room, Said($"{name} and {Name(plan.Elements[j]).ToLowerInvariant()} are {wish.GapMm - room:0.0} mm too close.")));
        }

        var (x, y) = plan.Weight(wish.Shape);
        if (plan.Elements.Count > 1 && Math.Sqrt(x * x + y * y) < Arranger.LeastOffCentre)
            broken.Add(new(BaseFault.Centred, [], 0, "The weight lies in the middle: move something to one side."));
        return broken;
    }

    private static string Said(FormattableString words) => FormattableString.Invariant(words);

    private static string Name(Element e) => e switch { { Half: true } => "A half rock", { Kind: ElementKind.Cork } => "A piece of cork", _ => $"A {EnumWords.Of(e.Kind)}" };

    private static double Over(Element e, BaseWish wish) => Math.Round(Math.Max(0, e.RadiusMm + wish.MarginMm - wish.Shape.Room(e.X, e.Y)), 2);
}
