using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>What the log teaches: it is told beside what is estimated, and taken over only when the painter says so.</summary>
internal static class LearnedEndpoints
{
    private const decimal MostMinutes = 100_000;

    public static void MapLearned(this RouteGroupBuilder log)
    {
        log.MapGet("/learned", Of).WithName("learned").WithSummary("What logged times say of techniques, and touches of drying; estimates with their range.").ProducesProblem(404);
        log.MapPost("/learned/drying", TakeOver).WithName("takeOverDrying").WithSummary("Puts a material's drying times as they were seen to be. It can be undone.").Writes<DryingTold, LearnedReading>(Tell);
    }

    public sealed record DryingTold(Guid SetId, Guid MaterialId);

    private static async Task<Results<Ok<LearnedReading>, ProblemHttpResult>> Of(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(setId, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("set");

    private static async Task<LearnedReading?> Read(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } first)
            return null;
        var sets = new List<SetGraph> { first };
        foreach (var id in await db.Sets.Where(s => s.WorkshopId == first.Workshop.Id && s.Id != setId).Select(s => s.Id).ToListAsync(stop))
            if (await graphs.OfSet(db, id, stop) is { } graph)
                sets.Add(graph);
        return await new LearnedReader(sets, db, stop).Read();
    }

    private static async Task<LearnedReading> Tell(DryingTold told, Telling telling) => (await Read(told.SetId, telling.Db, telling.Graphs, telling.Stop))!;

    private static async Task<Outcome<DryingTold>> TakeOver(Guid setId, DryingIn entry, Write write, SetGraphs graphs)
    {
        if (await Read(setId, write.Db, graphs, write.Stop) is not { } reading)
            return Problems.NotFound("set");
        write.In(reading.WorkshopId);
        var faults = new Faults();
        var learned = reading.Drying.FirstOrDefault(d => d.MaterialId == entry.MaterialId);
        faults.Require(learned is not null, "materialId", "Nothing was seen of this material's drying.");
        faults.Require(learned is null || (learned.Factor != 1 && learned.Factor == entry.Factor), "factor", "More was seen meanwhile, or too little to learn from. Look again before taking it over.");
        if (faults.Any)
            return faults.ToProblem();
        await write.Hold<MaterialRow>(entry.MaterialId!.Value);
        var row = await write.Db.Materials.FirstAsync(m => m.Id == entry.MaterialId, write.Stop);
        var factor = (decimal)learned!.Factor;
        decimal Scaled(decimal minutes) => Math.Min(MostMinutes, decimal.Round(minutes * factor, 1));
        (row.TouchMinutes, row.RecoatMinutes, row.CureMinutes) = (Scaled(row.TouchMinutes), Scaled(row.RecoatMinutes), Scaled(row.CureMinutes));
        write.Says($"Took over how {row.Name} was seen to dry");
        await write.Save();
        return new DryingTold(setId, row.Id);
    }
}
