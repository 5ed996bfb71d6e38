namespace Lowfell.Core.Precedence;

/// <summary>Why one layer of a piece comes before another.</summary>
public enum Why
{
    /// <summary>It lies below it on the same zone, or the later would soil it: the order of the treatment.</summary>
    Stack,

    /// <summary>Nothing reaches it once the piece is together.</summary>
    Assembly,

    /// <summary>It is known to stand finished before anything else is begun.</summary>
    Finished,

    /// <summary>Spray goes where the air goes: before what stands finished within its reach.</summary>
    Spray,

    /// <summary>It would soil the rim.</summary>
    Rim,

    /// <summary>It would wash or wipe off what lies loose beside it.</summary>
    Loose,
}

/// <summary>One layer of a piece comes before another.</summary>
/// <param name="First">Index of the earlier among the steps of the piece.</param>
/// <param name="Second">Index of the later.</param>
/// <param name="Why">For what reason.</param>
/// <param name="FirstOn">The zone, by its index, on which the earlier counts.</param>
/// <param name="SecondOn">The zone on which the later counts.</param>
public sealed record Before(int First, int Second, Why Why, int FirstOn, int SecondOn)
{
    /// <summary>It can be turned round, for a price.</summary>
    public bool IsPriced => Why is Why.Spray or Why.Rim or Why.Loose;
}

/// <summary>Minutes with hands on, over all pieces.</summary>
/// <param name="RepairMinutes">To repair what was soiled.</param>
/// <param name="MaskMinutes">To mask it and take that off again; null where no mask helps.</param>
public readonly record struct Price(double RepairMinutes, double? MaskMinutes = null)
{
    /// <summary>Whichever is less.</summary>
    public double Minutes => Math.Min(RepairMinutes, MaskMinutes ?? RepairMinutes);
}
