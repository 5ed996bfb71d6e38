using Lowfell.Core.Layers;

namespace Lowfell.Store.Rows;

/// <summary>One look at a finished layer, and how far it moved a material's strength. Kept for good; taken back, it only stops counting.</summary>
public sealed class CalibrationRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid MaterialId { get; init; }
    public DateTimeOffset At { get; init; }

    /// <summary>Where it was seen, in words: the zone may be gone one day.</summary>
    public required string Place { get; init; }

    /// <summary>The trial that taught it, where one did.</summary>
    public Guid? TrialId { get; init; }

    public Position Position { get; init; }
    public required string Observed { get; init; }

    /// <summary>What had been predicted there, and what is predicted after this step.</summary>
    public required string PredictedBefore { get; init; }

    public required string PredictedAfter { get; init; }

    /// <summary>Factors by which this look moved the strength.</summary>
    public decimal HidingStep { get; init; }

    public decimal TintStep { get; init; }
    public DateTimeOffset? TakenBackAt { get; set; }
}
