namespace Lowfell.Core.Trials;

/// <summary>What a trial is laid on: a base, a card, an offcut. True sizes, mm; of a round one the largest square inside it is used.</summary>
/// <param name="WidthMm">Across.</param>
/// <param name="HeightMm">Down.</param>
/// <param name="Round">It is round or oval.</param>
public readonly record struct Tile(double WidthMm, double HeightMm, bool Round = false)
{
    public const double LeastMm = 15, MostMm = 300;

    /// <summary>The width that can be laid out, mm.</summary>
    public double UsedWidthMm => Round ? WidthMm / Math.Sqrt(2) : WidthMm;

    /// <summary>The height that can be laid out, mm.</summary>
    public double UsedHeightMm => Round ? HeightMm / Math.Sqrt(2) : HeightMm;
}

/// <summary>How the levels of a factor are laid: what masking one beside the other takes.</summary>
/// <param name="Coats">
/// Of a factor in coats the number of each level: coat goes over coat, and each needs one line. Null where every level is a paint or a mix of its own.
/// </param>
/// <param name="None">The level that leaves the layer out; −1 where none does.</param>
/// <param name="Levels">How many levels there are, 2 to 5.</param>
public sealed record FactorShape(int Levels, IReadOnlyList<int>? Coats = null, int None = -1)
{
    public const int FewestLevels = 2, MostLevels = 5, MostFactors = 3;

    /// <summary>How often tape is laid along a line that has two levels at its sides: once for every time one side is painted and the other is not.</summary>
    public int Moves(int a, int b) => a == b ? 0 : Coats is not null ? Math.Abs(Coats[a] - Coats[b]) : (a == None ? 0 : 1) + (b == None ? 0 : 1);
}

/// <summary>One field of the tile: which level of each factor it has, and where it lies, mm from the upper left corner of what is laid out.</summary>
public sealed record TrialCell(int Number, IReadOnlyList<int> Levels, double LeftMm, double TopMm, double WidthMm, double HeightMm);

/// <summary>A line to mask along: upright at so many mm from the left, or level at so many mm from the top; it runs over all of the tile.</summary>
public readonly record struct MaskLine(bool Upright, double AtMm);

/// <summary>One step of laying a factor: these levels at once, with tape along these lines. Of coats the how-many-eth it is, counted from 1.</summary>
public sealed record TrialStep(int Factor, IReadOnlyList<int> Levels, IReadOnlyList<MaskLine> Masks, int Coat);
