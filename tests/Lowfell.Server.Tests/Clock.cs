namespace Lowfell.Server.Tests;

/// <summary>A clock that is set by hand.</summary>
internal sealed class Clock(DateTimeOffset start) : TimeProvider
{
    public DateTimeOffset Now { get; set; } = start;

    public override DateTimeOffset GetUtcNow() => Now;
}
