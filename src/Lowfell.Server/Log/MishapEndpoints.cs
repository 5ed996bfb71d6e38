using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>What goes wrong at a technique: here first, then in general.</summary>
public sealed record MishapsOf(Technique Technique, IReadOnlyList<KnownMishap> Mishaps);

internal static class MishapEndpoints
{
    public static void MapMishaps(this RouteGroupBuilder log) =>
        log.MapGet("/mishaps", Of).WithName("mishaps").WithSummary("What goes wrong, and what saves it: what happened here first, then what happens to everybody. Of one technique, or of all that are used.").ProducesProblem(400).ProducesProblem(404);

    private static async Task<Results<Ok<IReadOnlyList<MishapsOf>>, ProblemHttpResult>> Of(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop, string? technique = null)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Require(technique is null or "" || EnumWords.Read<Technique>(technique) is not null, "technique", "There is no technique of this name.");
        if (faults.Any)
            return faults.ToProblem();
        var told = await MishapBook.Read(db, graph.Workshop.Id, stop);
        var of = technique is { Length: > 0 } ? [EnumWords.Read<Technique>(technique)!.Value] : graph.Places.SelectMany(p => p.Layers).Select(l => l.Technique).Distinct().Order().ToList();
        return TypedResults.Ok<IReadOnlyList<MishapsOf>>(of.Select(t => new MishapsOf(t, Mishaps.For(t, told))).Where(m => m.Mishaps.Count > 0).ToList());
    }
}
