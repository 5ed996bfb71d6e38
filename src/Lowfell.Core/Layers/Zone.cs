using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>Three figures, one for each position of a relief.</summary>
public readonly record struct Split(double Raised, double Field, double Recess)
{
    /// <summary>The same figure everywhere.</summary>
    public static Split Even(double value) => new(value, value, value);

    public double this[Position position] => position switch
    {
        Position.Raised => Raised,
        Position.Field => Field,
        _ => Recess,
    };

    public static Split operator *(Split split, double factor) => new(split.Raised * factor, split.Field * factor, split.Recess * factor);

    public static Split operator *(Split a, Split b) => new(a.Raised * b.Raised, a.Field * b.Field, a.Recess * b.Recess);

    public static Split operator +(Split a, Split b) => new(a.Raised + b.Raised, a.Field + b.Field, a.Recess + b.Recess);

    public static Split operator -(Split a, Split b) => new(a.Raised - b.Raised, a.Field - b.Field, a.Recess - b.Recess);

    /// <summary>1 where there is anything at all, else 0.</summary>
    public Split WhereAny() => new(Raised > 0 ? 1 : 0, Field > 0 ? 1 : 0, Recess > 0 ? 1 : 0);

    /// <summary>The same figures, none larger than this.</summary>
    public Split AtMost(double most) => new(Math.Min(most, Raised), Math.Min(most, Field), Math.Min(most, Recess));

    public double Largest() => Math.Max(Raised, Math.Max(Field, Recess));

    /// <summary>Sum of the products, for instance the mean film over a zone's area shares.</summary>
    public double Dot(Split other) => Raised * other.Raised + Field * other.Field + Recess * other.Recess;
}

/// <summary>Where the faces of a zone look; the three shares add to 1.</summary>
public readonly record struct Orientation(double Up, double Side, double Down)
{
    public static readonly Orientation Sideways = new(0, 1, 0);
}

/// <summary>A surface of a design that gets its own layers. Lengths in mm, area in cm2 for one piece.</summary>
public sealed record Zone
{
    public required string Name { get; init; }
    public required double AreaCm2 { get; init; }
    public required Substrate Substrate { get; init; }
    public Relief Relief { get; init; } = Relief.Light;
    public Orientation Orientation { get; init; } = Orientation.Sideways;

    /// <summary>Area shares of raised, field and recess; they add to 1.</summary>
    public Split Shares { get; init; } = UsualShares(Relief.Light);

    public double EdgeMm { get; init; }
    public double JointMm { get; init; }
    public double SmallestDetailMm { get; init; } = 1;
    public Handling Handling { get; init; } = Handling.Careful;

    /// <summary>The surface is itself a cut edge of board or plaster.</summary>
    public bool CutEdge { get; init; }

    /// <summary>A brush no longer reaches it once the piece is assembled.</summary>
    public bool BeforeAssembly { get; init; }

    /// <summary>It runs out to the rim of a base.</summary>
    public bool AtRim { get; init; }

    /// <summary>A sheen of its own, such as gloss for glass; null follows the set.</summary>
    public Sheen? TargetSheen { get; init; }

    /// <summary>Shares to start from when nobody has looked closely.</summary>
    public static Split UsualShares(Relief relief) => relief switch
    {
        Relief.Smooth => new(0.06, 0.90, 0.04),
        Relief.Light => new(0.15, 0.70, 0.15),
        _ => new(0.20, 0.58, 0.22),
    };
}

/// <summary>Colour of bare materials before any layer.</summary>
public static class SubstrateTraits
{
    /// <summary>An ordinary colour for each substrate; only what primers leave visible depends on it.</summary>
    public static SrgbColour Colour(Substrate substrate) => SrgbColour.Parse(substrate switch
    {
        Substrate.PrintedPlastic => "#9b9d9b",
        Substrate.MouldedPlastic => "#a3a5a4",
        Substrate.Resin => "#b3afa2",
        Substrate.Metal => "#8b8d90",
        Substrate.Board => "#b08f62",
        Substrate.Foam => "#9fb3b8",
        Substrate.Plaster => "#d9d4c8",
        _ => "#b39468",
    });

    private static readonly Reflectance[] insides = Enum.GetValues<Substrate>().Select(s => Surface.Unstated.Inside(Reflectance.Of(Colour(s)))).ToArray();

    /// <summary>Reflectance of the bare substrate without its own surface: what a film lies on.</summary>
    public static Reflectance Inside(Substrate substrate) => insides[(int)substrate];

    /// <summary>Drinks the first coat, so that it needs a sealer of its own.</summary>
    public static bool IsThirsty(Substrate substrate) =>
        substrate is Substrate.Board or Substrate.Plaster or Substrate.Wood or Substrate.Foam;
}
