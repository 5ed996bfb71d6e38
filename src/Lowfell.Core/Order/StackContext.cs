using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order;

/// <summary>What the set asks of every zone. Scale is the n of 1:n.</summary>
public sealed record SetTerms(int Scale, double TableMetres, Sheen TargetSheen, Handling Handling);

/// <summary>Everything around a stack that rules may look at.</summary>
public sealed record StackContext(Zone Zone, SetTerms Set, HouseRules HouseRules, Climate Climate, IReadOnlyList<Material> Shelf)
{
    /// <summary>The sheen this zone should end with.</summary>
    public Sheen TargetSheen => Zone.TargetSheen ?? Set.TargetSheen;
}
