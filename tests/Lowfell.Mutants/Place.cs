namespace Lowfell.Mutants;

/// <summary>A fault that could be put into the code: what stands at a span of a file, and what would stand there instead.</summary>
/// <param name="File">The file, from the top of the checkout.</param>
/// <param name="Start">Where it begins in the text.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Line">The line, counted from 1.</param>
/// <param name="Kind">What kind of fault.</param>
/// <param name="Instead">What is written there for fault number n: with it on, the faulty; with it off, as it was.</param>
/// <param name="Says">The fault in short.</param>
/// <param name="Once">Whether it is worked out once and kept for all that comes after.</param>
public sealed record Place(string File, int Start, int Length, int Line, string Kind, Func<int, string> Instead, string Says, bool Once)
{
    public bool Meets(Place other) => File == other.File && Start < other.Start + other.Length && other.Start < Start + Length;
}
