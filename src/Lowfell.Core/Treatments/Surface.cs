using Lowfell.Core.Layers;

namespace Lowfell.Core.Treatments;

/// <summary>A part of a treatment that gets the same layers: "brick", "coping". Zones take one surface each.</summary>
/// <param name="Id">The same through all versions.</param>
/// <param name="Name">As the painter calls it.</param>
/// <param name="On">The surface that it stands on, where it is a detail of one.</param>
public sealed record Surface(Guid Id, string Name, Guid? On = null);

/// <summary>What a layer may have different on one of its surfaces; everything else is shared by all of them.</summary>
[Flags]
public enum Differs
{
    Nothing = 0, Strength = 1, Place = 2, Coats = 4, Mark = 8, Variation = 16, Details = 32, DownTo = 64, Optional = 128,
}

/// <summary>A layer on one surface.</summary>
/// <param name="Surface">Where it lies.</param>
/// <param name="Line">What done work, pins and remarks on that surface hang on.</param>
/// <param name="Differs">What is different there.</param>
/// <param name="Own">A layer of which only what is different counts; null where nothing is.</param>
public sealed record Lay(Guid Surface, Guid Line, Differs Differs = Differs.Nothing, Layer? Own = null);
