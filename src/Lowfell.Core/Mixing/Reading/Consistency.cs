namespace Lowfell.Core.Mixing.Reading;

/// <summary>What painters call how thin a paint is, as paint : thinner from thickest to thinnest. Rules of thumb for water acrylics; look at the brush, and the label wins.</summary>
/// <param name="Names">Words that mean it; the first is its own.</param>
/// <param name="Thickest">The thickest it is called by that name.</param>
/// <param name="Usual">What most mean by it.</param>
/// <param name="Thinnest">The thinnest.</param>
public sealed record Consistency(IReadOnlyList<string> Names, (int Paint, int Thinner) Thickest, (int Paint, int Thinner) Usual, (int Paint, int Thinner) Thinnest)
{
    public static readonly IReadOnlyList<Consistency> All =
    [
        new(["yoghurt", "yogurt", "heavy cream", "double cream"], (12, 1), (8, 1), (6, 1)),
        new(["cream", "single cream", "light cream"], (5, 1), (4, 1), (3, 1)),
        new(["milk", "whole milk", "full milk"], (2, 1), (3, 2), (1, 1)),
        new(["skimmed milk", "skim milk", "thin milk"], (1, 1), (2, 3), (1, 2)),
        new(["ink", "tea"], (1, 2), (1, 3), (1, 4)),
        new(["tinted water", "coloured water", "dirty water"], (1, 6), (1, 8), (1, 12)),
    ];
}
