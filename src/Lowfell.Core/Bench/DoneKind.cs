namespace Lowfell.Core.Bench;

/// <summary>What happens to layers on pieces at the bench.</summary>
public enum DoneKind
{
    /// <summary>Hands are on it from now on.</summary>
    Begun,

    /// <summary>It is laid.</summary>
    Given,

    /// <summary>The hands are off it for a while.</summary>
    Paused,

    /// <summary>It is left out on these pieces, for a reason.</summary>
    Skipped,

    /// <summary>It is taken off again, to be tried once more.</summary>
    Wiped,

    /// <summary>Something went wrong; what saved it is told as well.</summary>
    Mishap,

    /// <summary>It was dried with the dryer.</summary>
    HotAir,

    /// <summary>Something to remember.</summary>
    Noted,

    /// <summary>A difference between pieces that is to stay, for a reason.</summary>
    Accepted,
}
