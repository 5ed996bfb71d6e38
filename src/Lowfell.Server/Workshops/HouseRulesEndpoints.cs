using Lowfell.Core.Mixing.Reading;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Workshops;

/// <summary>One answer to a school; what it gains and costs in a sentence each.</summary>
public sealed record AnswerDto(string Word, string Text, string Gains, string Costs);

/// <summary>A school as a question, the answer in force, and the rules that depend on it.</summary>
public sealed record QuestionDto(School School, string Question, string Answer, IReadOnlyList<AnswerDto> Answers, IReadOnlyList<string> Rules);

/// <summary>The answers in force; a bare percentage is asked about as long as its meaning is null.</summary>
public sealed record HouseRulesDto(Guid WorkshopId, string Workshop, uint Version, IReadOnlyList<QuestionDto> Questions, PercentMeaning? BarePercent);

/// <summary>Answers by school, in their words; schools left out keep theirs.</summary>
public sealed record HouseRulesIn(uint? Version, IReadOnlyDictionary<string, string>? Answers);

/// <summary>What a bare percentage means from now on; null asks again.</summary>
public sealed record BarePercentIn(PercentMeaning? Meaning);

/// <summary>A remark that goes or comes with other house rules.</summary>
public sealed record MovedRemark(string Design, string Zone, Guid ZoneId, Severity Severity, string Rule, string Title);

/// <summary>What other house rules would do to one set.</summary>
public sealed record HouseEffect(Guid SetId, string Set, IReadOnlyList<MovedRemark> Gone, IReadOnlyList<MovedRemark> Come);

/// <summary>The workshop's answers where practitioners disagree.</summary>
public static class HouseRulesEndpoints
{
    private const int MostSets = 20;

    public static void MapHouseRules(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/workshops/{workshopId:guid}/house-rules").WithTags("Workshops");
        group.MapGet("/", Get).WithName("houseRules").ProducesProblem(404);
        group.MapPost("/preview", Preview).WithName("previewHouseRules").WithSummary("Remarks that other house rules would take away or bring, set by set.").ProducesProblem(400).ProducesProblem(404);
        group.MapPut("/bare-percent", RememberPercent).WithName("rememberPercent").WithSummary("Remembers what a bare percentage of thinner means in this house.").Writes<HouseTold, HouseRulesDto>(Tell);
        group.MapPut("/", Put).WithName("storeHouseRules").Writes<HouseTold, HouseRulesDto>(Tell);
    }

    private static async Task<Results<Ok<HouseRulesDto>, ProblemHttpResult>> Get(Guid workshopId, LowfellDb db, CancellationToken stop) =>
        await db.Workshops.AsNoTracking().FirstOrDefaultAsync(w => w.Id == workshopId, stop) is { } row ? TypedResults.Ok(Word(row)) : Problems.NotFound("workshop");

    private static async Task<Results<Ok<IReadOnlyList<HouseEffect>>, ProblemHttpResult>> Preview(Guid workshopId, HouseRulesIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Workshops.AsNoTracking().Include(w => w.Sets.OrderBy(s => s.Name)).FirstOrDefaultAsync(w => w.Id == workshopId, stop) is not { } row)
            return Problems.NotFound("workshop");
        var faults = new Faults();
        var rules = Read(row.HouseRules, entry.Answers, faults);
        if (faults.Any)
            return faults.ToProblem();
        var effects = new List<HouseEffect>();
        foreach (var set in row.Sets.Take(MostSets))
            if (await graphs.OfSet(db, set.Id, stop) is { } graph)
                effects.Add(Effect(graph, rules));
        return TypedResults.Ok<IReadOnlyList<HouseEffect>>(effects);
    }

    private static HouseEffect Effect(SetGraph graph, HouseRules rules)
    {
        var moved = graph.Places.AsParallel().AsOrdered().Select(x =>
        {
            var layers = graph.Layers(x.Zone);
            StackView now = new(graph.Context(x.Zone, x.Design), layers), then = new(graph.Context(x.Zone, x.Design, rules), layers);
            var was = new ZoneRemarks(graph, x.Zone, now).Open(OrderCheck.Glance(now));
            var will = new ZoneRemarks(graph, x.Zone, then).Open(OrderCheck.Glance(then));
            var wasKeys = was.Select(f => (OrderCheck.Key(now, f), f.Title, f.Severity)).ToHashSet();
            var willKeys = will.Select(f => (OrderCheck.Key(then, f), f.Title, f.Severity)).ToHashSet();
            MovedRemark Say(Finding f) => new(x.Design.Name, x.Zone.Name, x.Zone.Id, f.Severity, f.Rule, f.Title);
            return (Gone: was.Where(f => !willKeys.Contains((OrderCheck.Key(now, f), f.Title, f.Severity))).Select(Say).ToList(),
                Come: will.Where(f => !wasKeys.Contains((OrderCheck.Key(then, f), f.Title, f.Severity))).Select(Say).ToList());
        }).ToList();
        return new HouseEffect(graph.Set.Id, graph.Set.Name, moved.SelectMany(m => m.Gone).ToList(), moved.SelectMany(m => m.Come).ToList());
    }

    /// <summary>What a change of house rules comes to.</summary>
    private sealed record HouseTold(Guid WorkshopId, uint Version);

    private static async Task<HouseRulesDto> Tell(HouseTold told, Telling telling) => Word(await telling.Db.Workshops.AsNoTracking().FirstAsync(w => w.Id == told.WorkshopId, telling.Stop));

    private static async Task<Outcome<HouseTold>> Put(Guid workshopId, HouseRulesIn entry, Write write)
    {
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        var rules = Read(row.HouseRules, entry.Answers, faults);
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("page of house rules", Word(row));
        write.Says("Changed the house rules");
        row.HouseRules = rules;
        await write.Save();
        return new HouseTold(workshopId, row.Version);
    }

    /// <summary>One answer of its own, so that the last one given stands; there is nothing to overwrite.</summary>
    private static async Task<Outcome<HouseTold>> RememberPercent(Guid workshopId, BarePercentIn entry, Write write)
    {
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        write.In(workshopId);
        write.Says("Changed what a bare percentage means");
        row.HouseRules = row.HouseRules with { BarePercent = entry.Meaning };
        await write.Save();
        return new HouseTold(workshopId, row.Version);
    }

    private static HouseRules Read(HouseRules rules, IReadOnlyDictionary<string, string>? answers, Faults faults)
    {
        faults.Require(answers is { Count: > 0 }, "answers", "Give at least one answer.");
        foreach (var (name, word) in answers ?? new Dictionary<string, string>())
        {
            if (Core.Words.EnumWords.Read<School>(name) is not { } school)
                faults.Add($"answers.{name}", $"No such question. There are: {string.Join(", ", Core.Words.EnumWords.All<School>())}.");
            else if (word is null || Schools.With(rules, school, word) is not { } with)
                faults.Add($"answers.{name}", $"Answer with one of: {string.Join(", ", Schools.All.First(q => q.School == school).Answers.Select(a => a.Word))}.");
            else
                rules = with;
        }

        return rules;
    }

    private static HouseRulesDto Word(Store.Rows.WorkshopRow row) => new(row.Id, row.Name, row.Version, Schools.All.Select(q => new QuestionDto(
        q.School, q.Question, Schools.Word(row.HouseRules, q.School), q.Answers.Select(a => new AnswerDto(a.Word, a.Text, a.Gains, a.Costs)).ToList(),
        OrderCheck.Rules.Where(r => r.Facts.Schools.Contains(q.School)).Select(r => r.Id).ToList())).ToList(), row.HouseRules.BarePercent);
}
