using System.Globalization;
using Lowfell.Core.Colour;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Http;

/// <summary>One thing wrong with a request: where, and what to do.</summary>
public sealed record Fault(string Field, string Message);

/// <summary>Collects what is wrong with a request, so that everything is told at once.</summary>
public sealed class Faults
{
    private readonly List<Fault> list = [];

    public bool Any => list.Count > 0;

    public IReadOnlyList<Fault> All => list;

    public void Add(string field, string message)
    {
        // A request can be wrong in a million places; nobody reads past the first fifty.
        if (list.Count < 50)
            list.Add(new Fault(field, message));
    }

    /// <summary>Adds a fault unless the condition holds.</summary>
    public void Require(bool holds, string field, string message)
    {
        if (!holds)
            Add(field, message);
    }

    /// <summary>A needed text within a length.</summary>
    public void Text(string? value, string field, int longest, bool needed = true)
    {
        if (needed && string.IsNullOrWhiteSpace(value))
            Add(field, "Write something here.");
        else if (needed && !value!.EnumerateRunes().Any(IsSeen))
            Add(field, "Write something that can be seen: this has only invisible characters.");
        else if (value?.Length > longest)
            Add(field, $"At most {longest} characters; this has {value.Length}.");
        else if (value?.Any(c => char.IsControl(c) && c is not ('\n' or '\t')) == true)
            Add(field, "Take out the control characters.");
    }

    /// <summary>Whether a character leaves a mark: not blank, not a mark of direction or joining, not unassigned.</summary>
    private static bool IsSeen(System.Text.Rune rune) => System.Text.Rune.GetUnicodeCategory(rune) is not (
        UnicodeCategory.Control or UnicodeCategory.Format or UnicodeCategory.SpaceSeparator or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator
        or UnicodeCategory.OtherNotAssigned or UnicodeCategory.PrivateUse or UnicodeCategory.Surrogate or UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark)
        && rune.Value is not (0x115F or 0x1160 or 0x2800 or 0x3164 or 0xFFA0);

    /// <summary>A finite number within bounds.</summary>
    public void Range(double? value, string field, double low, double high)
    {
        if (value is { } v && !(v >= low && v <= high))
            Add(field, FormattableString.Invariant($"Give a number from {low:0.####} to {high:0.####}."));
    }

    /// <summary>A whole number within bounds.</summary>
    public void Range(int? value, string field, int low, int high)
    {
        if (value is { } v && (v < low || v > high))
            Add(field, FormattableString.Invariant($"Give a whole number from {low} to {high}."));
    }

    /// <summary>A number within bounds.</summary>
    public void Range(decimal? value, string field, decimal low, decimal high)
    {
        if (value is { } v && (v < low || v > high))
            Add(field, FormattableString.Invariant($"Give a number from {low:0.####} to {high:0.####}."));
    }

    /// <summary>A colour, null where none is given and none is needed.</summary>
    public SrgbColour? Colour(string? text, string field, bool needed = true)
    {
        if (SrgbColour.TryParse(text, out var colour))
            return colour;
        if (needed || !string.IsNullOrEmpty(text))
            Add(field, "Write a hash and six hexadecimal digits, for example #6b4f2a.");
        return null;
    }

    /// <summary>An id that the client made.</summary>
    public void Id(Guid? value, string field) =>
        Require(value is not null && value != Guid.Empty, field, "Give an id of its own, so that it counts once however often it is sent.");

    /// <summary>The refusal of a single entry.</summary>
    public static ProblemHttpResult One(string field, string message)
    {
        var faults = new Faults();
        faults.Add(field, message);
        return faults.ToProblem();
    }

    public ProblemHttpResult ToProblem() => Problems.Of(StatusCodes.Status400BadRequest, "invalid", "Some entries need another look.", list);
}
