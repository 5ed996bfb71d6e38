using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Jobs;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Remarks;

/// <summary>Remarks over a whole set: what to do, trying it, doing it, living with it.</summary>
public static class RemarksEndpoints
{
    private const int LongestReason = 500;

    public static void MapRemarks(this IEndpointRouteBuilder app)
    {
        var plan = app.MapGroup("/api/plan").WithTags("Remarks");
        plan.MapGet("/sets/{setId:guid}/remarks", OfSet).WithName("setRemarks").WithSummary("Everything the rules say of a set, gathered by what to do; of a large set that nobody has asked about yet, only how large it is.").ProducesProblem(404);
        plan.MapPost("/sets/{setId:guid}/remarks/job", Ask).WithName("workOutRemarks").WithSummary("Has the remarks of a large set worked out as a job.").Writes<JobTold, JobDto>(JobBook.Tell, StatusCodes.Status202Accepted);
        plan.MapGet("/sets/{setId:guid}/care", CareSheets.Of).WithName("careSheet").WithSummary("The usual cautions for the work of a set, or of one design.").ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/change", Change).WithName("previewChange").WithSummary("What an edit would do to colours, amounts, minutes and remarks.").ProducesProblem(400).ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/accepted", Accept).WithName("acceptFinding").Writes<AcceptedDto>();
        plan.MapPost("/accepted/{id:guid}/take-back", TakeBack).WithName("takeBackAcceptance").Writes<AcceptedDto>();
        plan.MapPost("/sets/{setId:guid}/remedies", SetRemedies.Apply).WithName("remedySet").WithSummary("Applies one remedy wherever it helps over a set; without store it is only told what would change.").Writes<RemedyTold, SetRemedyReading>(SetRemedies.Tell);
        plan.MapPut("/sets/{setId:guid}/stacks", SetRemedies.PutBack).WithName("storeStacks").WithSummary("Stores several stacks, all or none.").Writes<StacksTold, IReadOnlyList<VersionOf>>(SetRemedies.Tell);
    }

    private static async Task<Results<Ok<RemarksReading>, Accepted<LargeSet>, ProblemHttpResult>> OfSet(Guid setId, LowfellDb db, SetGraphs graphs, SetRemarksJob job, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (!SetRemarks.IsLong(graph))
            return TypedResults.Ok(await graph.OfAll(nameof(SetRemarks), () => SetRemarks.Of(graph)));
        return await job.Known(db, graph, stop) is { } known ? TypedResults.Ok(known) : TypedResults.Accepted((string?)null, new LargeSet(setId, graph.Places.Count));
    }

    private static async Task<Outcome<JobTold>> Ask(Guid setId, Write write, SetGraphs graphs) =>
        await graphs.OfSet(write.Db, setId, write.Stop) is { } graph ? await JobBook.Ask(write, graph.Workshop.Id, SetRemarksJob.Word, setId) : Problems.NotFound("set");

    private static async Task<Results<Ok<ChangeDto>, ProblemHttpResult>> Change(Guid zoneId, ChangeIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var before = Draft.Read(at, ask.Layers, faults);
        var after = Draft.Read(at, ask.After, faults, "after");
        return faults.Any ? faults.ToProblem() : TypedResults.Ok(Word(StackChange.Between(before!, after!)));
    }

    internal static ChangeDto Word(StackChange c) => new(
        SeenAtPositions.Of(c.Before), SeenAtPositions.Of(c.After),
        new PositionsDto(Math.Round(c.Difference.Raised, 2), Math.Round(c.Difference.Field, 2), Math.Round(c.Difference.Recess, 2)), Math.Round(c.Minutes, 1),
        c.Amounts.Select(a => new AmountChangeDto(a.Material.Id, a.Material.Name, Math.Round(a.Ml, 2))).ToList(), Word(c.Gone), Word(c.Come));

    internal static List<ChangedFinding> Word(IEnumerable<Finding> findings) =>
        findings.Where(f => !f.IsCare).Select(f => new ChangedFinding(f.Rule, f.Severity, f.Title)).ToList();

    private static async Task<Outcome<AcceptedDto>> Accept(Guid zoneId, AcceptIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var faults = new Faults();
        faults.Text(entry.Reason, "reason", LongestReason);
        faults.Require(entry.Rule is not null, "rule", "Give the rule of the remark.");
        faults.Require(entry.LayerId is not null, "layerId", "Give the layer the remark hangs on.");
        faults.Require(entry.Facts is not null, "facts", "Give the facts that were shown with the remark.");
        if (faults.Any)
            return faults.ToProblem();
        var view = at.View;
        var finding = OrderCheck.Glance(view).FirstOrDefault(f => OrderCheck.Key(view, f) == (entry.Rule!, entry.LayerId!.Value) && OrderCheck.FactsOf(view, f) == entry.Facts);
        if (finding is null)
            return Problems.Of(StatusCodes.Status409Conflict, "facts-changed", "This remark no longer stands as it was shown. Look at the zone again before living with it.");
        if (new ZoneRemarks(at.Graph, at.Zone, view).Accepted(finding) is { } already)
            return new AcceptedDto(already.Id, already.Reason, already.AcceptedAt);
        var row = new AcceptedFindingRow
        {
            ZoneId = zoneId,
            Rule = entry.Rule!,
            LayerId = entry.LayerId!.Value,
            Facts = entry.Facts!,
            Why = finding.Why,
            Reason = entry.Reason!.Trim(),
            AcceptedAt = write.Now,
        };
        write.Db.Add(row);
        write.Says($"Lives with a remark on {at.Name}");
        await write.Save();
        return new AcceptedDto(row.Id, row.Reason, row.AcceptedAt);
    }

    private static async Task<Outcome<AcceptedDto>> TakeBack(Guid id, Write write)
    {
        var db = write.Db;
        var workshop = await (
            from accepted in db.AcceptedFindings
            join zone in db.Zones on accepted.ZoneId equals zone.Id
            join design in db.Designs on zone.DesignId equals design.Id
            join theSet in db.Sets on design.SetId equals theSet.Id
            where accepted.Id == id
            select (Guid?)theSet.WorkshopId).FirstOrDefaultAsync(write.Stop);
        if (workshop is not { } of)
            return Problems.NotFound("accepted remark");
        write.In(of);
        var row = await db.AcceptedFindings.FirstAsync(a => a.Id == id, write.Stop);
        row.TakenBackAt ??= write.Now;
        write.Says("No longer lives with a remark");
        await write.Save();
        return new AcceptedDto(row.Id, row.Reason, row.AcceptedAt);
    }
}
