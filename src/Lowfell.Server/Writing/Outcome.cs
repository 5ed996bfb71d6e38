using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Writing;

/// <summary>
/// What a step came to: done, with the few ids and versions that are needed to tell the answer now and whenever it is asked for again;
/// or answered without anything being stored, as refusals are and looks at what a write would do.
/// </summary>
public sealed class Outcome<T> : IResult, IOutcome where T : class
{
    private Outcome(T? told, IResult? answer) => (Told, Answer) = (told, answer);

    public T? Told { get; }
    public IResult? Answer { get; }
    object? IOutcome.Told => Told;

    public static implicit operator Outcome<T>(T told) => new(told, null);
    public static implicit operator Outcome<T>(ProblemHttpResult refusal) => new(null, refusal);

    /// <summary>An answer to a look: nothing was written.</summary>
    public static Outcome<T> Look(IResult answer) => new(null, answer);

    /// <summary>Outcomes are answered by the pipeline; one that gets here was mapped without it.</summary>
    public Task ExecuteAsync(HttpContext httpContext) => throw new InvalidOperationException("A write must be mapped with Writes.");
}

/// <summary>An outcome of any kind.</summary>
internal interface IOutcome
{
    object? Told { get; }
    IResult? Answer { get; }
}

/// <summary>What a write tells that has no more to tell than that it was done.</summary>
public sealed record Nothing;
