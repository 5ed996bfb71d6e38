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
        else if (value?.Length > longest)
            Add(field, $"At most {longest} characters; this has {value.Length}.");
        else if (value?.Any(c => char.IsControl(c) && c is not ('\n' or '\t')) == true)
            Add(field, "Take out the control characters.");
    }

    /// <summary>A number within bounds.</summary>
    public void Range(decimal? value, string field, decimal low, decimal high)
    {
        if (value is { } v && (v < low || v > high))
            Add(field, FormattableString.Invariant($"Give a number from {low:0.####} to {high:0.####}."));
    }

    public ProblemHttpResult ToProblem() => Problems.Of(StatusCodes.Status400BadRequest, "invalid", "Some entries need another look.", list);
}
