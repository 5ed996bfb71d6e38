using System.Text.Json.Serialization;
using Lowfell.Core.Mixing.Reading;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Calc;

/// <summary>A dilution as typed; <c>percent</c> says what a bare percentage means, left out it is asked.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record DilutionIn(string? Text, PercentMeaning? Percent);

/// <summary>One reading: paint and thinner in whole parts (of several components each its own, the thinner last), their shares of the mix, and the reading in words.</summary>
public sealed record DilutionReadingOut(IReadOnlyList<string> Parts, IReadOnlyList<double> ShareOfMix, string Says);

/// <summary>How far a named consistency reaches.</summary>
public sealed record DilutionRangeOut(IReadOnlyList<string> Thickest, IReadOnlyList<string> Thinnest);

/// <summary>What was read. Of an ambiguous text parts and shares are left open; the readings are what to choose from.</summary>
public sealed record DilutionOut(
    IReadOnlyList<string>? Parts, IReadOnlyList<double>? ShareOfMix, bool Ambiguous, string Question, IReadOnlyList<DilutionReadingOut> Readings, DilutionRangeOut? Range);

/// <summary>Reads dilutions, for scripts and for the page.</summary>
internal static class DilutionCalc
{
    public static Results<Ok<DilutionOut>, ProblemHttpResult> Read(DilutionIn ask) => Word(ask.Text, ask.Percent);

    /// <summary>The same by the workshop's house rule.</summary>
    public static async Task<Results<Ok<DilutionOut>, ProblemHttpResult>> InTheHouse(Guid workshopId, DilutionIn ask, LowfellDb db, CancellationToken stop) =>
        await db.Workshops.AsNoTracking().Where(w => w.Id == workshopId).Select(w => w.HouseRules).FirstOrDefaultAsync(stop) is { } rules
            ? Word(ask.Text, ask.Percent ?? rules.BarePercent)
            : Problems.NotFound("workshop");

    private static Results<Ok<DilutionOut>, ProblemHttpResult> Word(string? text, PercentMeaning? percent)
    {
        var faults = new Faults();
        var read = DilutionReader.Read(text ?? "", percent);
        faults.Require(read.Fault.Length == 0, "text", read.Fault);
        if (faults.Any)
            return faults.ToProblem();
        var readings = read.Readings.Select(Word).ToList();
        return TypedResults.Ok(new DilutionOut(
            read.IsAmbiguous ? null : readings[0].Parts, read.IsAmbiguous ? null : readings[0].ShareOfMix, read.IsAmbiguous, read.Question, readings,
            read.Range is var (thick, thin) ? new DilutionRangeOut(Word(thick).Parts, Word(thin).Parts) : null));
    }

    private static DilutionReadingOut Word(RatioReading r)
    {
        var parts = (r.Components.Count > 0 ? r.Components : [r.Paint]).Append(r.Thinner).ToList();
        return new(parts.ConvertAll(p => p.ToString()), parts.ConvertAll(p => Math.Round(p.ShareOf(r.Paint + r.Thinner), 6)), r.Says);
    }
}
