using Lowfell.Core.Layers;

namespace Lowfell.Core.Estimates;

/// <summary>What a workshop knows of its own hands at one technique; null keeps the rule of thumb.</summary>
/// <param name="SetUpMinutes">To get ready, once a batch.</param>
/// <param name="CleanUpMinutes">To clean, once a batch.</param>
/// <param name="MinutesPerCm2">Of the region.</param>
/// <param name="MinutesPerCm">Of joint or edge.</param>
/// <param name="MinutesPerPiece">Handling.</param>
/// <param name="MinutesPerDetail">For each letter, hit, tuft.</param>
/// <param name="Learning">Share of the minutes that remains with each doubling of the batch, 0..1.</param>
/// <param name="Factor">All of the hands' minutes times this: what logged times have come to.</param>
/// <param name="Error">How far off it usually is, as a share.</param>
public sealed record PaceFigures(
    double? SetUpMinutes = null, double? CleanUpMinutes = null, double? MinutesPerCm2 = null, double? MinutesPerCm = null, double? MinutesPerPiece = null, double? MinutesPerDetail = null,
    double? Learning = null, double? Factor = null, double? Error = null);

/// <summary>How quick the hands of a workshop are, by technique.</summary>
public sealed class Pace(IReadOnlyDictionary<Technique, PaceFigures> own) : IEquatable<Pace>
{
    private static readonly PaceFigures none = new();

    /// <summary>Rules of thumb alone.</summary>
    public static Pace Usual { get; } = new(new Dictionary<Technique, PaceFigures>());

    /// <summary>What the workshop says itself.</summary>
    public IReadOnlyDictionary<Technique, PaceFigures> Own => own;

    /// <summary>Figures of a technique with a tool, the workshop's where it has them.</summary>
    public TechniqueFigures Figures(Technique technique, Tool tool)
    {
        var usual = TechniqueTable.For(technique, tool);
        return !own.TryGetValue(technique, out var mine) ? usual : usual with
        {
            SetUpMinutes = mine.SetUpMinutes ?? usual.SetUpMinutes,
            CleanUpMinutes = mine.CleanUpMinutes ?? usual.CleanUpMinutes,
            MinutesPerCm2 = mine.MinutesPerCm2 ?? usual.MinutesPerCm2,
            MinutesPerCm = mine.MinutesPerCm ?? usual.MinutesPerCm,
            MinutesPerDetail = mine.MinutesPerDetail ?? usual.MinutesPerDetail,
        };
    }

    /// <summary>The workshop's own figures of a technique; all null where it has none.</summary>
    public PaceFigures Of(Technique technique) => own.GetValueOrDefault(technique, none);

    /// <summary>How far off the minutes of a technique usually are, as a share.</summary>
    public double Error(Technique technique) => Of(technique).Error ?? HandsOn.TypicalError;

    public bool Equals(Pace? other) => other is not null && own.Count == other.Own.Count && own.All(o => other.Own.TryGetValue(o.Key, out var theirs) && theirs == o.Value);

    public override bool Equals(object? obj) => Equals(obj as Pace);

    public override int GetHashCode() => own.Count;
}
