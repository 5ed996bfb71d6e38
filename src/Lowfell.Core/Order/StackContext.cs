using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Precedence;

namespace Lowfell.Core.Order;

/// <summary>What the set asks of every zone. Scale is the n of 1:n.</summary>
public sealed record SetTerms(int Scale, double TableMetres, Sheen TargetSheen, Handling Handling);

/// <summary>A zone that touches the one in question, with its own layers.</summary>
/// <param name="Name">Its name, for the remark.</param>
/// <param name="Zone">Its measures.</param>
/// <param name="Layers">Its layers, bottom first; the same list object when both zones share a treatment.</param>
/// <param name="Mean">Its finished colour, meant over its relief; worked out at the first question.</param>
public sealed record Neighbour(string Name, Zone Zone, IReadOnlyList<Layer> Layers, Lazy<Seen> Mean);

/// <summary>A pot that one layer was, or will be, laid from on some of the pieces.</summary>
public sealed record PotUse(Guid Layer, string Label, IReadOnlyList<MixPart> Paint, Dilution? Dilution, IReadOnlyList<string> Pieces);

/// <summary>How far a piece has come: layers already on it, and minutes since the last of them was laid.</summary>
public sealed record Progress(int Laid, double MinutesSinceLast)
{
    public static readonly Progress None = new(0, 0);
}

/// <summary>Everything around a stack that rules may look at.</summary>
public sealed record StackContext(Zone Zone, SetTerms Set, HouseRules HouseRules, Climate Climate, IReadOnlyList<Material> Shelf)
{
    /// <summary>The sheen this zone should end with.</summary>
    public Sheen TargetSheen => Zone.TargetSheen ?? Set.TargetSheen;

    /// <summary>Pieces the stack goes on.</summary>
    public int Pieces { get; init; } = 1;

    /// <summary>Zones that touch this one.</summary>
    public IReadOnlyList<Neighbour> Neighbours { get; init; } = [];

    /// <summary>The piece that the zone is part of; null where nothing is known of one.</summary>
    public PieceAround? Piece { get; init; }

    /// <summary>Cut edges are a zone of their own on this design, with layers of their own.</summary>
    public bool EdgesApart { get; init; }

    /// <summary>Marks of the casting frame are to be looked for on this zone: false where another zone of the design speaks for the piece.</summary>
    public bool LooksForGates { get; init; } = true;

    /// <summary>Pots that layers are laid from, where more than one is known.</summary>
    public IReadOnlyList<PotUse> Pots { get; init; } = [];

    /// <summary>How quick the hands are.</summary>
    public Pace Pace { get; init; } = Pace.Usual;

    /// <summary>Layers that are already on the piece.</summary>
    public Progress Progress { get; init; } = Progress.None;
}
