using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Plan;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Remarks;

/// <summary>One remedy over a whole set: looked at first, then stored all or none, and put back as one.</summary>
internal static class SetRemedies
{
    private const int MostStacks = 500;

    public static async Task<Results<Ok<SetRemedyReading>, ProblemHttpResult>> Apply(
        Guid setId, SetRemedyIn ask, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Require(OrderCheck.Rules.Any(r => r.Id == ask.Rule), "rule", "Give the id of a rule.");
        faults.Require(!string.IsNullOrEmpty(ask.Remedy), "remedy", "Give the id of a remedy.");
        var store = ask.Store == true;
        faults.Require(!store || ask.Versions is not null, "versions", "Give the versions of the treatments that were shown.");
        if (faults.Any)
            return faults.ToProblem();
        var (changes, leftOut, stacks) = Try(graph, ask.Rule!, ask.Remedy!);
        var reading = new SetRemedyReading(store, changes, leftOut, Math.Round(changes.Sum(c => c.Change.Minutes), 1));
        if (!store)
            return TypedResults.Ok(reading);
        var shown = ask.Versions!.OfType<VersionOf>().ToDictionary(v => v.TreatmentId, v => v.Version);
        if (shown.Count != changes.Count || changes.Any(c => !shown.TryGetValue(c.TreatmentId, out var v) || v != c.Version))
            return Problems.Changed("set", reading with { Stored = false });
        var notes = changes.ToDictionary(c => c.TreatmentId, c => c.Before.ToDictionary(l => l.Id, l => l.Note));
        var versions = await StoreAll(db, clock, stacks.Select(s => new Prepared(s.Key, shown[s.Key], s.Value, s.Value.Select(l => notes[s.Key].GetValueOrDefault(l.Id, "")).ToList())).ToList(), stop);
        return versions is null
            ? Problems.Changed("set", reading with { Stored = false })
            : TypedResults.Ok(reading with { Changes = changes.Select(c => c with { Version = versions[c.TreatmentId] }).ToList() });
    }

    private static (List<TreatmentChange> Changes, List<string> LeftOut, Dictionary<Guid, IReadOnlyList<Layer>> Stacks) Try(SetGraph graph, string rule, string remedy)
    {
        var changes = new List<TreatmentChange>();
        var leftOut = new List<string>();
        var stacks = new Dictionary<Guid, IReadOnlyList<Layer>>();
        var zones = graph.Designs.SelectMany(d => d.Zones.Select(z => (Design: d, Zone: z))).ToList();
        foreach (var sharing in zones.GroupBy(x => x.Zone.TreatmentId))
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

    private static string Name((DesignRow Design, ZoneRow Zone) at) => $"{at.Design.Name}, {at.Zone.Name}";

    public static async Task<Results<Ok<IReadOnlyList<VersionOf>>, ProblemHttpResult>> PutBack(
        Guid setId, StacksIn ask, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        var asked = ask.Stacks ?? [];
        faults.Require(asked.Count is > 0 and <= MostStacks, "stacks", $"Give from 1 to {MostStacks} stacks.");
        var stacks = new List<Prepared>();
        for (var i = 0; i < Math.Min(asked.Count, MostStacks); i++)
        {
            var own = new Faults();
            own.Require(asked[i] is not null && graph.Treatments.ContainsKey(asked[i]!.TreatmentId), "treatmentId", "This treatment is not used in the set.");
            own.Require(asked[i]?.Version is not null, "version", "Give the version you edited from.");
            var layers = LayerWords.Read(asked[i]?.Layers, graph.Materials, own);
            foreach (var fault in own.All)
                faults.Add($"stacks[{i}].{fault.Field}", fault.Message);
            if (!own.Any)
                stacks.Add(new Prepared(asked[i]!.TreatmentId, asked[i]!.Version!.Value, layers!, asked[i]!.Layers!.Select(l => l!.Note ?? "").ToList()));
        }

        faults.Require(stacks.Select(s => s.Treatment).Distinct().Count() == stacks.Count, "stacks", "Each treatment only once.");
        var owner = graph.Treatments.Values.SelectMany(t => t.Layers).ToDictionary(l => l.Id, l => l.TreatmentId);
        faults.Require(stacks.All(s => s.Layers.All(l => owner.GetValueOrDefault(l.Id, s.Treatment) == s.Treatment)), "stacks", "A layer id belongs to another treatment. Give copied layers new ids.");
        if (faults.Any)
            return faults.ToProblem();
        var versions = await StoreAll(db, clock, stacks, stop);
        return versions is null
            ? Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "A treatment was changed in another window since. Nothing was put back.")
            : TypedResults.Ok<IReadOnlyList<VersionOf>>(versions.Select(v => new VersionOf(v.Key, v.Value)).ToList());
    }

    private sealed record Prepared(Guid Treatment, uint Version, IReadOnlyList<Layer> Layers, IReadOnlyList<string> Notes);

    /// <summary>New versions by treatment; null, and nothing stored, when one of them had changed.</summary>
    private static async Task<Dictionary<Guid, uint>?> StoreAll(LowfellDb db, TimeProvider clock, IReadOnlyList<Prepared> stacks, CancellationToken stop)
    {
        // Within a write with a receipt there is a transaction already; a savepoint keeps its parts together.
        var outer = db.Database.CurrentTransaction;
        await using var own = outer is null ? await db.Database.BeginTransactionAsync(stop) : null;
        if (outer is not null)
            await outer.CreateSavepointAsync("stacks", stop);
        var writer = new StackWriter(db, clock);
        foreach (var stack in stacks)
        {
            if (await writer.Write(stack.Treatment, stack.Version, stack.Layers, stack.Notes, stop))
                continue;
            await (outer is null ? own!.RollbackAsync(stop) : outer.RollbackToSavepointAsync("stacks", stop));
            return null;
        }

        var ids = stacks.Select(s => s.Treatment).ToList();
        var versions = await db.Treatments.AsNoTracking().Where(t => ids.Contains(t.Id)).ToDictionaryAsync(t => t.Id, t => t.Version, stop);
        if (own is not null)
            await own.CommitAsync(stop);
        return versions;
    }
}
