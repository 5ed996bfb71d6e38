using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Treatments;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Shelf;

/// <summary>What another material, or another strength of it, does to a zone: its colour before and after, and the remarks that go and come.</summary>
public sealed record ZoneEffect(Guid SetId, Guid ZoneId, string Zone, string Before, string After, double Difference, IReadOnlyList<string> Gone, IReadOnlyList<string> Come);

/// <summary>What a change of a material does where it is used, the zones that differ most first.</summary>
/// <param name="Treatments">Treatments it is in.</param>
/// <param name="Layers">Layers of theirs.</param>
/// <param name="Zones">Zones whose colour or remarks change.</param>
/// <param name="Unchanged">Zones that have it and do not.</param>
public sealed record UseEffect(int Treatments, int Layers, IReadOnlyList<ZoneEffect> Zones, int Unchanged);

/// <summary>The material to be put wherever another is used.</summary>
public sealed record ReplaceIn(Guid? With);

/// <summary>What a replacement came to.</summary>
public sealed record ReplaceTold(int Treatments);

/// <summary>Materials in use: what a change would do is told before it is stored, and one is replaced by another everywhere in one step.</summary>
internal static class InUse
{
    private const double Nothing = 0.05;

    public static void MapInUse(this RouteGroupBuilder shelf)
    {
        shelf.MapPost("/materials/{id:guid}/effect", Look).WithName("materialEffect").WithSummary("What a change of a material would do to every zone it is used on.").ProducesProblem(400).ProducesProblem(404);
        shelf.MapPost("/materials/{id:guid}/replace/effect", LookAtReplacing).WithName("replaceEffect").WithSummary("What another material would do wherever this one is used.").ProducesProblem(400).ProducesProblem(404);
        shelf.MapPost("/materials/{id:guid}/replace", Replace).WithName("replaceMaterial").WithSummary("Puts another material wherever this one is used, in one step.").Writes<ReplaceTold>();
    }

    private static async Task<Results<Ok<UseEffect>, ProblemHttpResult>> Look(Guid id, MaterialIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Materials.AsNoTracking().FirstOrDefaultAsync(m => m.Id == id, stop) is not { } row)
            return Problems.NotFound("material");
        var faults = MaterialEntry.Check(entry);
        if (faults.Any)
            return faults.ToProblem();
        MaterialEntry.Fill(row, entry);
        return TypedResults.Ok(await Effect(db, graphs, row.WorkshopId, id, row.ToCore(), stop));
    }

    private static async Task<Results<Ok<UseEffect>, ProblemHttpResult>> LookAtReplacing(Guid id, ReplaceIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Materials.AsNoTracking().FirstOrDefaultAsync(m => m.Id == id, stop) is not { } row)
            return Problems.NotFound("material");
        return Other(entry, id, (await graphs.ShelfOf(db, row.WorkshopId, stop)).Materials) is { } with
            ? TypedResults.Ok(await Effect(db, graphs, row.WorkshopId, id, with, stop)) : NoOther();
    }

    private static Material? Other(ReplaceIn entry, Guid id, IReadOnlyDictionary<Guid, Material> shelf) => entry.With is { } other && other != id ? shelf.GetValueOrDefault(other) : null;

    private static ProblemHttpResult NoOther() => Faults.One("with", "Give another material of this shelf.");

    private static async Task<Outcome<ReplaceTold>> Replace(Guid id, ReplaceIn entry, Write write, SetGraphs graphs)
    {
        if (await write.Db.Materials.AsNoTracking().FirstOrDefaultAsync(m => m.Id == id, write.Stop) is not { } row)
            return Problems.NotFound("material");
        write.In(row.WorkshopId);
        var shelf = (await graphs.ShelfOf(write.Db, row.WorkshopId, write.Stop)).Materials;
        if (Other(entry, id, shelf) is not { } with)
            return NoOther();
        Step Replaced(Step step) => step with { Layer = With(step.Layer, id, with), Over = step.Over.Select(l => l.Own is { } own ? l with { Own = With(own, id, with) } : l).ToList() };
        var stacks = (await Using(write.Db, row.WorkshopId, id, shelf, write.Stop))
            .Select(u => new TreatmentEdit(u.Treatment.Id, u.Treatment.Version, was => was with { Steps = was.Steps.Select(s => Has(s.Layer, id) ? Replaced(s) : s).ToList() })).ToList();
        if (stacks.Count > 0 && await new StackWriter(write, shelf).Store(stacks) is null)
            return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "A stack was changed in another window meanwhile. Look again, then replace it.");
        write.Says($"Replaced {row.Name} by {with.Name} in {stacks.Count} treatment{(stacks.Count == 1 ? "" : "s")}");
        return new ReplaceTold(stacks.Count);
    }

    /// <summary>A layer with one material in the place of another, in its pot and its thinner.</summary>
    private static Layer With(Layer layer, Guid id, Material with)
    {
        if (layer.Paint.All(p => p.Material.Id != id) && layer.Dilution?.Thinner.Id != id)
            return layer;

        // Where it is in the mix already, their parts go together.
        var paint = layer.Paint.Select(p => p.Material.Id == id ? new MixPart(with, p.Parts) : p).GroupBy(p => p.Material.Id)
            .Select(g => g.Aggregate((a, b) => new MixPart(a.Material, a.Parts + b.Parts))).ToList();
        return layer with { Paint = paint, Dilution = layer.Dilution is { } d && d.Thinner.Id == id ? d with { Thinner = with } : layer.Dilution };
    }

    /// <summary>Every treatment of a workshop that has a material in its newest version.</summary>
    private static async Task<List<(TreatmentRow Treatment, List<Layer> Layers)>> Using(LowfellDb db, Guid workshop, Guid id, IReadOnlyDictionary<Guid, Material> shelf, CancellationToken stop)
    {
        var newest = Revisions.Layers(db);
        var ids = await newest.Where(l => l.MaterialId == id || l.ThinnerId == id || l.Mix!.Components.Any(c => c.MaterialId == id)).Select(l => l.TreatmentId).Distinct().ToListAsync(stop);
        var treatments = await db.Treatments.AsNoTracking().Where(t => ids.Contains(t.Id) && t.WorkshopId == workshop && t.PutAwayAt == null).OrderBy(t => t.Id).ToListAsync(stop);
        var rows = (await newest.Where(l => ids.Contains(l.TreatmentId)).ToListAsync(stop)).ToLookup(l => l.TreatmentId);
        var mixes = await Revisions.Mixes(db, rows.SelectMany(r => r), stop);
        return treatments.Select(t => (t, rows[t.Id].Select(l => StoredLayer.ToCore(l, shelf, mixes)).ToList())).ToList();
    }

    private static async Task<UseEffect> Effect(LowfellDb db, SetGraphs graphs, Guid workshop, Guid id, Material with, CancellationToken stop)
    {
        var effects = new List<ZoneEffect>();
        var unchanged = 0;
        foreach (var set in await db.Sets.Where(s => s.WorkshopId == workshop && s.PutAwayAt == null).Select(s => s.Id).ToListAsync(stop))
        {
            if (await graphs.OfSet(db, set, stop) is not { } graph)
                continue;
            var found = graph.Places.AsParallel().AsOrdered().Where(p => p.Layers.Any(l => Has(l, id))).Select(p => Effect(p, id, with)).ToList();
            effects.AddRange(found.OfType<ZoneEffect>());
            unchanged += found.Count(f => f is null);
        }

        var shelf = (await graphs.ShelfOf(db, workshop, stop)).Materials;
        var used = await Using(db, workshop, id, shelf, stop);
        return new UseEffect(used.Count, used.Sum(u => u.Layers.Count(l => Has(l, id))), effects.OrderByDescending(e => e.Difference).ToList(), unchanged);
    }

    private static bool Has(Layer layer, Guid id) => layer.Paint.Any(p => p.Material.Id == id) || layer.Dilution?.Thinner.Id == id;

    private static ZoneEffect? Effect(Place place, Guid id, Material with)
    {
        var layers = place.Layers.Select(l => With(l, id, with)).ToList();
        StackView now = place.View, then = new(place.Context, layers);
        Seen was = now.Predictions[^1].Average, will = then.Predictions[^1].Average;
        var before = Titles(place, now);
        var after = Titles(place, then);
        var difference = Math.Round(ColourDifference.Ciede2000(was.Lab, will.Lab), 2);
        var (gone, come) = (before.Where(b => !after.ContainsKey(b.Key)).Select(b => b.Value).ToList(), after.Where(a => !before.ContainsKey(a.Key)).Select(a => a.Value).ToList());
        return difference < Nothing && gone.Count == 0 && come.Count == 0
            ? null : new ZoneEffect(place.Graph.Set.Id, place.Zone.Id, $"{place.Zone.Name}, {place.Design.Name}", was.Colour.ToString(), will.Colour.ToString(), difference, gone, come);
    }

    private static Dictionary<(string, Guid, Severity), string> Titles(Place place, StackView view)
    {
        var found = new Dictionary<(string, Guid, Severity), string>();
        foreach (var finding in new ZoneRemarks(place.Graph, place.Zone, view).Open(OrderCheck.Glance(view)))
        {
            var (rule, layer) = OrderCheck.Key(view, finding);
            found.TryAdd((rule, layer, finding.Severity), finding.Title);
        }

        return found;
    }
}
