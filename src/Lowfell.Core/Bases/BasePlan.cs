using Lowfell.Core.Layers;

namespace Lowfell.Core.Bases;

/// <summary>Where a texture lies on a base.</summary>
public enum TexturePlace
{
    /// <summary>In drifts, where the ground happens to be.</summary>
    Anywhere,

    /// <summary>About the reeds, and the tufts where there are none.</summary>
    ByReeds,

    /// <summary>At the foot of rocks.</summary>
    ByRocks,

    /// <summary>Around what stands on the base: dust that feet raise.</summary>
    ByFeet,

    /// <summary>A band from rim to rim; nothing grows on it, and planks lie along it.</summary>
    Path,

    /// <summary>One still patch of water or wet ground; nothing stands in it.</summary>
    Puddle,
}

/// <summary>A texture and its share of the top, 0..1. The last one of a wish is the ground: it has what the others leave.</summary>
public readonly record struct Texture(TexturePlace Place, double Share);

/// <summary>What is wanted on every base of a tray.</summary>
/// <param name="Shape">Of all bases.</param>
/// <param name="MarginMm">The rim, kept free, by how they are handled.</param>
/// <param name="Flats">Kept free as well.</param>
/// <param name="Textures">What the top is made of; at least one.</param>
/// <param name="Rocks">How many on the mean.</param>
/// <param name="Tufts">Tufts, in several sizes.</param>
/// <param name="Reeds">Reeds; they stand together.</param>
/// <param name="Planks">Planks.</param>
/// <param name="Cork">Pieces of cork, that stand for rock where a ledge is wanted.</param>
/// <param name="Spread">From 0, shy, to 1, wild: how much numbers differ from base to base.</param>
/// <param name="Columns">Bases in a row of the tray.</param>
/// <param name="GapMm">The least room between two things.</param>
public sealed record BaseWish(
    BaseShape Shape, double MarginMm, IReadOnlyList<Flat> Flats, IReadOnlyList<Texture> Textures, double Rocks, double Tufts, double Reeds, double Planks = 0, double Cork = 0, double Spread = 0.5, int Columns = 6, double GapMm = 0.5)
{
    /// <summary>How much of the rim is left free: what lies nearer is rubbed off by fingers, mm.</summary>
    public static double MarginFor(Handling handling) => handling switch { Handling.Display => 0.5, Handling.Careful => 1, _ => 2 };
}

/// <summary>One base as it is laid out: what lies on it, and how its ground leans.</summary>
public sealed record BasePlan(IReadOnlyList<Element> Elements, Lean Lean)
{
    /// <summary>Where the weight of the composition lies, by area, as a share of the reach: 0 is the middle.</summary>
    public (double X, double Y) Weight(BaseShape shape)
    {
        var all = Elements.Sum(e => e.AreaMm2);
        return all == 0 ? (0, 0) : (Elements.Sum(e => e.X * e.AreaMm2) / all / shape.ReachMm, Elements.Sum(e => e.Y * e.AreaMm2) / all / shape.ReachMm);
    }
}

/// <summary>
/// How the ground of a base leans: towards where its composition gathers, and by waves of its own. Path and puddle are bodies that nothing may stand in.
/// </summary>
/// <param name="X">Of the side it leans to, as a share of the reach.</param>
/// <param name="Y">The other way.</param>
/// <param name="Seed">Of its waves.</param>
/// <param name="Path">The path; null without one.</param>
/// <param name="Puddle">The puddle; null without one.</param>
public sealed record Lean(double X, double Y, ulong Seed, Body? Path = null, Body? Puddle = null)
{
    /// <summary>What nothing may stand in.</summary>
    public IEnumerable<Body> Open
    {
        get
        {
            if (Path is { } path)
                yield return path;
            if (Puddle is { } puddle)
                yield return puddle;
        }
    }
}
