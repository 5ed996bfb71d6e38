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
        if (!shown.Keys.ToHashSet().SetEquals(changes.Select(c => c.TreatmentId)) || changes.Any(c => !shown.TryGetValue(c.TreatmentId, out var v) || v != c.Version))
            return Problems.Changed("set", reading);
        var edits = stacks.Select(s => TreatmentEdit.Of(graph, s.Zone, shown[s.Zone.TreatmentId], s.Layers)).ToList();
        return await new StackWriter(write, graph.Materials).Store(edits) is null ? Problems.Changed("set", reading) : new RemedyTold(setId, edits.Select(s => s.Treatment).Distinct().ToList());
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

    private static (List<TreatmentChange> Changes, List<string> LeftOut, List<(ZoneRow Zone, IReadOnlyList<Layer> Layers)> Stacks) Try(SetGraph graph, string rule, string remedy)
    {
        var changes = new List<TreatmentChange>();
        var leftOut = new List<string>();
        var stacks = new List<(ZoneRow Zone, IReadOnlyList<Layer> Layers)>();
        foreach (var sharing in graph.Places.GroupBy(x => x.Zone.SurfaceId))
        {
            var rows = sharing.ToDictionary(x => x.Zone.Id);
            var places = sharing.Select(x => new StackPlace(x.Zone.Id, graph.Context(x.Zone, x.Design))).ToList();
            var (zone, before) = (sharing.First().Zone, sharing.First().Layers);
            var done = SetRemedy.Apply(places, before, rule, remedy, (p, v, f) => new ZoneRemarks(graph, rows[p.Zone].Zone, v).Accepted(f) is not null, Guid.CreateVersion7);
            leftOut.AddRange(done.Refused.Select(z => Name(rows[z])));
            if (done.Applied == 0)
                continue;
            stacks.Add((zone, done.Layers));
            var (treatment, notes) = (sharing.First().Treatment, graph.Rows(zone).Select(r => r.Layer.Note).ToList());
            changes.Add(new TreatmentChange(
                treatment.Id, zone.SurfaceId, treatment.Name, treatment.Version, sharing.Select(Name).ToList(), done.Applied, Sum(places.Select(p => StackChange.Between(new StackView(p.Context, before), new StackView(p.Context, done.Layers))).ToList()),
                before.Select((l, i) => LayerWords.ToDto(l) with { Note = notes[i] }).ToList()));
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
        var writer = new StackWriter(write, graph.Materials);
        var stacks = new List<TreatmentEdit>();
        for (var i = 0; i < Math.Min(asked.Count, MostStacks); i++)
        {
            var stack = asked[i];
            faults.Require(stack is not null && graph.Treatments.ContainsKey(stack.TreatmentId), $"stacks[{i}].treatmentId", "This treatment is not used in the set.");
            faults.Require(stack?.Version is not null, $"stacks[{i}].version", "Give the version you edited from.");
            if (stack is not { Version: { } version } || !graph.Treatments.TryGetValue(stack.TreatmentId, out var treatment))
                continue;
            var surface = stack.SurfaceId ?? (treatment.Surfaces.Count == 1 ? treatment.Surfaces[0].SurfaceId : Guid.Empty);
            faults.Require(treatment.Surfaces.Any(s => s.SurfaceId == surface), $"stacks[{i}].surfaceId", "Name a surface of the treatment.");
            if (await writer.Read(stack.TreatmentId, surface, new StackIn(version, stack.Layers), $"stacks[{i}].layers", faults) is { } read)
                stacks.Add(read);
        }

        faults.Require(asked.Where(s => s is not null).Select(s => (s!.TreatmentId, s.SurfaceId)).Distinct().Count() == asked.Count, "stacks", "Each treatment only once.");
        if (faults.Any)
            return faults.ToProblem();
        return await writer.Store(stacks) is null
            ? Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "A treatment was changed in another window since. Nothing was put back.")
            : new StacksTold(stacks.Select(s => s.Treatment).Distinct().ToList());
    }
}
