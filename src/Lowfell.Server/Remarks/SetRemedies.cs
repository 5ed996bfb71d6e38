using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Remarks;

/// <summary>One remedy over a whole set: looked at first, then stored all or none, and put back as one.</summary>
internal static class SetRemedies
{
    private const int MostStacks = 500;

    public static async Task<Outcome<RemedyTold>> Apply(Guid setId, SetRemedyIn ask, Write write, SetGraphs graphs)
    {
        if (await graphs.OfSet(write.Db, setId, write.Stop) is not { } graph)
            return Problems.NotFound("set");
        write.In(graph.Workshop.Id);
        var faults = new Faults();
        faults.Require(OrderCheck.Rules.Any(r => r.Id == ask.Rule), "rule", "Give the id of a rule.");
        faults.Require(!string.IsNullOrEmpty(ask.Remedy), "remedy", "Give the id of a remedy.");
        var store = ask.Store == true;
        faults.Require(!store || ask.Versions is not null, "versions", "Give the versions of the treatments that were shown.");
        if (faults.Any)
            return faults.ToProblem();
        var (changes, leftOut, stacks) = Try(graph, ask.Rule!, ask.Remedy!);
        var reading = new SetRemedyReading(false, changes, leftOut, Math.Round(changes.Sum(c => c.Change.Minutes), 1));
        if (!store)
            return Outcome<RemedyTold>.Look(TypedResults.Ok(reading));
        var shown = ask.Versions!.OfType<VersionOf>().GroupBy(v => v.TreatmentId).ToDictionary(g => g.Key, g => g.First().Version);
        if (shown.Count != changes.Count || changes.Any(c => !shown.TryGetValue(c.TreatmentId, out var v) || v != c.Version))
            return Problems.Changed("set", reading);
        var notes = changes.ToDictionary(c => c.TreatmentId, c => c.Before.ToDictionary(l => l.Id, l => l.Note));
        var prepared = stacks.Select(s => new PreparedStack(s.Key, shown[s.Key], s.Value, s.Value.Select(l => notes[s.Key].GetValueOrDefault(l.Id, "")).ToList(), graph.Layers(s.Key))).ToList();
        return await new StackWriter(write).Store(prepared) is null ? Problems.Changed("set", reading) : new RemedyTold(setId, prepared.Select(s => s.Treatment).ToList());
    }

    /// <summary>What was stored: the treatments at the versions they have now. What each was before is in the look that came first.</summary>
    public static async Task<SetRemedyReading> Tell(RemedyTold told, Telling telling)
    {
        var versions = await Versions(told.Treatments, telling);
        return new SetRemedyReading(true, [], [], 0, versions);
    }

    public static async Task<IReadOnlyList<VersionOf>> Tell(StacksTold told, Telling telling) => await Versions(told.Treatments, telling);

    private static async Task<IReadOnlyList<VersionOf>> Versions(IReadOnlyList<Guid> treatments, Telling telling) =>
        await telling.Db.Treatments.AsNoTracking().Where(t => treatments.Contains(t.Id)).Select(t => new VersionOf(t.Id, t.Version)).ToListAsync(telling.Stop);

    private static (List<TreatmentChange> Changes, List<string> LeftOut, Dictionary<Guid, IReadOnlyList<Layer>> Stacks) Try(SetGraph graph, string rule, string remedy)
    {
        var changes = new List<TreatmentChange>();
        var leftOut = new List<string>();
        var stacks = new Dictionary<Guid, IReadOnlyList<Layer>>();
        foreach (var sharing in graph.Places.GroupBy(x => x.Zone.TreatmentId))
        {
            var rows = sharing.ToDictionary(x => x.Zone.Id);
            var places = sharing.Select(x => new StackPlace(x.Zone.Id, graph.Context(x.Zone, x.Design))).ToList();
            var before = graph.Layers(sharing.Key);
            var done = SetRemedy.Apply(places, before, rule, remedy, (p, v, f) => new ZoneRemarks(graph, rows[p.Zone].Zone, v).Accepted(f) is not null, Guid.CreateVersion7);
            leftOut.AddRange(done.Refused.Select(z => Name(rows[z])));
            if (done.Applied == 0)
                continue;
            stacks[sharing.Key] = done.Layers;
            var treatment = graph.Treatments[sharing.Key];
            changes.Add(new TreatmentChange(
                treatment.Id, treatment.Name, treatment.Version, sharing.Select(Name).ToList(), done.Applied, Sum(places.Select(p => StackChange.Between(new StackView(p.Context, before), new StackView(p.Context, done.Layers))).ToList()),
                before.Select((l, i) => LayerWords.ToDto(l) with { Note = treatment.Layers[i].Note }).ToList()));
        }

        return (changes, leftOut, stacks);
    }

    /// <summary>Minutes and amounts over every zone; colours of the first, which stands for the others; each kind of remark once.</summary>
    private static ChangeDto Sum(List<StackChange> changes) => RemarksEndpoints.Word(changes[0] with
    {
        Minutes = changes.Sum(c => c.Minutes),
        Amounts = changes.SelectMany(c => c.Amounts).GroupBy(a => a.Material.Id).Select(g => new AmountChange(g.First().Material, g.Sum(a => a.Ml))).OrderByDescending(a => Math.Abs(a.Ml)).ToList(),
        Gone = changes.SelectMany(c => c.Gone).ToList(),
        Come = changes.SelectMany(c => c.Come).ToList(),
    });

    private static string Name(Place at) => $"{at.Design.Name}, {at.Zone.Name}";

    public static async Task<Outcome<StacksTold>> PutBack(Guid setId, StacksIn ask, Write write, SetGraphs graphs)
    {
        if (await graphs.OfSet(write.Db, setId, write.Stop) is not { } graph)
            return Problems.NotFound("set");
        write.In(graph.Workshop.Id);
        var faults = new Faults();
        var asked = ask.Stacks ?? [];
        faults.Require(asked.Count is > 0 and <= MostStacks, "stacks", $"Give from 1 to {MostStacks} stacks.");
        var writer = new StackWriter(write);
        var stacks = new List<PreparedStack>();
        for (var i = 0; i < Math.Min(asked.Count, MostStacks); i++)
        {
            var stack = asked[i];
            faults.Require(stack is not null && graph.Treatments.ContainsKey(stack.TreatmentId), $"stacks[{i}].treatmentId", "This treatment is not used in the set.");
            faults.Require(stack?.Version is not null, $"stacks[{i}].version", "Give the version you edited from.");
            if (stack is { Version: { } version } && await writer.Read(graph, stack.TreatmentId, version, stack.Layers, $"stacks[{i}].layers", faults) is { } read)
                stacks.Add(read);
        }

        faults.Require(stacks.Select(s => s.Treatment).Distinct().Count() == stacks.Count, "stacks", "Each treatment only once.");
        if (faults.Any)
            return faults.ToProblem();
        return await writer.Store(stacks) is null
            ? Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "A treatment was changed in another window since. Nothing was put back.")
            : new StacksTold(stacks.Select(s => s.Treatment).ToList());
    }
}
