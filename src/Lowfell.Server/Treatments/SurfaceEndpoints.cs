using Lowfell.Core.Layers;
using Lowfell.Core.Treatments;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Treatments;

/// <summary>A treatment as one order over its surfaces: read whole, layers laid over more or fewer of them, surfaces named, treatments brought together.</summary>
internal static class SurfaceEndpoints
{
    public const int MostSurfaces = 120, MostLayers = 400;

    public static void MapSurfaces(this RouteGroupBuilder group)
    {
        var one = group.MapGroup("/treatments/{treatmentId:guid}");
        one.MapGet("/order", Order).WithName("treatmentOrder").WithSummary("All layers of a treatment in one order, each with the surfaces it goes over.").ProducesProblem(404);
        one.MapPut("/surfaces", Surfaces).WithName("storeSurfaces").WithSummary("Names and order of surfaces, and which stand on which.").Writes<TreatmentTold, TreatmentOrder>(Tell);
        one.MapPost("/surfaces/{surfaceId:guid}/leave-out", LeaveOut).WithName("leaveDetailOut").WithSummary("Leaves a detail out: it is painted over with the surface it stands on.").Writes<TreatmentTold, TreatmentOrder>(Tell);
        one.MapPost("/steps", Begin).WithName("addStep").WithSummary("A new layer over some or all surfaces, and the details on them.").Writes<TreatmentTold, TreatmentOrder>(Tell);
        one.MapPut("/steps/{stepId:guid}/over", Over).WithName("storeOver").WithSummary("Has a layer go over these surfaces; where it lay it stays as it was.").Writes<TreatmentTold, TreatmentOrder>(Tell);
        one.MapPut("/steps/{stepId:guid}/place", Move).WithName("placeStep").WithSummary("Moves a layer to just above another, on all its surfaces.").Writes<TreatmentTold, TreatmentOrder>(Tell);
        one.MapPost("/together", Together).WithName("bringTogether").WithSummary("Brings other treatments into this one: every zone keeps the stack it had, and what is done stays done.").Writes<TreatmentTold, TreatmentOrder>(Tell);
    }

    private static async Task<Results<Ok<TreatmentOrder>, ProblemHttpResult>> Order(Guid treatmentId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(treatmentId, db, graphs, stop) is { } order ? TypedResults.Ok(order) : Problems.NotFound("treatment");

    private static async Task<TreatmentOrder> Tell(TreatmentTold told, Telling telling) => (await Read(told.TreatmentId, telling.Db, telling.Graphs, telling.Stop))!;

    private static async Task<TreatmentOrder?> Read(Guid id, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if ((await Revisions.Newest(db, [id], null, stop)).GetValueOrDefault(id) is not { } row)
            return null;
        var treatment = StoredLayer.ToCore(row, (await graphs.ShelfOf(db, row.WorkshopId, stop)).Materials, await Revisions.Mixes(db, row.Layers, stop));
        var uses = (await (
            from z in db.Zones.AsNoTracking()
            join d in db.Designs on z.DesignId equals d.Id
            join s in db.Sets on d.SetId equals s.Id
            where z.TreatmentId == id && z.PutAwayAt == null && d.PutAwayAt == null && s.PutAwayAt == null
            orderby s.Name, d.Position, z.Position
            select new { z.SurfaceId, Zone = z, d.Substrate, Use = new TreatmentUse(z.Id, z.Name, d.Name, s.Id, s.Name) }).ToListAsync(stop)).ToLookup(u => u.SurfaceId);
        var colours = treatment.Surfaces.SelectMany(s => Colours(s.Id, treatment, Library.Face(uses[s.Id].FirstOrDefault()?.Zone, uses[s.Id].FirstOrDefault()?.Substrate ?? default))).ToDictionary(c => c.On, c => c.Colour);
        return new TreatmentOrder(
            row.Id, row.Name, row.Version, row.Revision, treatment.Surfaces.Select(s => new SurfaceEntry(s.Id, s.Name, s.On, uses[s.Id].Select(u => u.Use).ToList())).ToList(),
            treatment.Steps.Select(s => new StepDto(
                LayerWords.ToDto(s.Layer) with { Id = s.Id, Note = s.Note }, Words(s.Layer),
                s.Over.Select(l => new LayDto(l.Surface, l.Line, colours[(l.Surface, l.Line)], l.Own is null ? null : LayerWords.ToDto(s.Laid(l.Line)!))).ToList())).ToList());
    }

    private static string Words(Layer layer)
    {
        var paint = string.Join(" + ", layer.Paint.Select(p => p.Material.Name));
        return $"{EnumWords.Of(layer.Technique)}{(paint.Length > 0 ? $", {paint}" : "")}{(layer.Coats > 1 ? $", {layer.Coats} coats" : "")}";
    }

    /// <summary>The field's colour after each layer of a surface.</summary>
    private static IEnumerable<((Guid Surface, Guid Line) On, string Colour)> Colours(Guid surface, Treatment treatment, Zone face)
    {
        var stack = treatment.Stack(surface);
        var run = StackPrediction.Compute(face, stack);
        return stack.Select((l, i) => ((surface, l.Id), run[i].Field.Colour.ToString()));
    }

    /// <summary>The treatment that is to be written, with its newest revision; null where there is none.</summary>
    private static async Task<TreatmentRow?> Find(Guid id, Write write)
    {
        var row = (await Revisions.Newest(write.Db, [id], null, write.Stop)).GetValueOrDefault(id);
        if (row is not null)
            write.In(row.WorkshopId);
        return row;
    }

    private static void Check(IReadOnlyList<Guid>? over, TreatmentRow row, Faults faults) => faults.Require(
        over is { Count: > 0 } && over.All(o => row.Surfaces.Any(s => s.SurfaceId == o)) && over.Distinct().Count() == over.Count, "over", "Name at least one surface of this treatment, each once.");

    /// <summary>Stores an edit of a treatment's order.</summary>
    private static async Task<Outcome<TreatmentTold>> Store(TreatmentRow row, uint? version, Func<Treatment, Treatment> make, Write write, SetGraphs graphs)
    {
        var materials = (await graphs.ShelfOf(write.Db, row.WorkshopId, write.Stop)).Materials;
        return await new StackWriter(write, materials).Store([new TreatmentEdit(row.Id, version!.Value, make)]) is { } stored
            ? new TreatmentTold(row.Id, stored[0]) : Problems.Changed("treatment", (await Read(row.Id, write.Db, graphs, write.Stop))!);
    }

    private static async Task<Outcome<TreatmentTold>> Begin(Guid treatmentId, StepIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(entry.Layer is not null, "layer", "Give the layer.");
        faults.Require(row.Layers.Count < MostLayers, "layer", $"At most {MostLayers} layers in a treatment.");
        Check(entry.Over, row, faults);
        faults.Require(entry.AboveId is not { } above || row.Layers.Any(l => l.StepId == above), "aboveId", "The treatment has no such layer.");
        if (faults.Any || LayerWords.Read([entry.Layer], (await graphs.ShelfOf(write.Db, row.WorkshopId, write.Stop)).Materials, faults) is not [var layer])
            return faults.ToProblem();
        return await Store(row, entry.Version, was => Cover.Begin(was, layer, entry.Layer!.Note ?? "", entry.Over!.ToHashSet(), entry.AboveId), write, graphs);
    }

    private static async Task<Outcome<TreatmentTold>> Over(Guid treatmentId, Guid stepId, OverIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row || row.Layers.All(l => l.StepId != stepId))
            return Problems.NotFound("layer");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        Check(entry.Over, row, faults);
        if (faults.Any)
            return faults.ToProblem();

        // Where it lay once it goes by the line it had there: what was done of it then is done.
        var lines = await Lines(treatmentId, stepId, null, write);
        return await Store(row, entry.Version, was => Cover.Of(was, stepId, entry.Over!.ToHashSet(), surface => lines.GetValueOrDefault((stepId, surface))), write, graphs);
    }

    /// <summary>The line that a layer has on a surface, or had there in an earlier version: of one layer, or on one surface.</summary>
    private static async Task<Dictionary<(Guid Step, Guid Surface), Guid?>> Lines(Guid treatment, Guid? step, Guid? surface, Write write) => (await (
        from layer in write.Db.Layers
        join lay in write.Db.LayerSurfaces on layer.Id equals lay.LayerId
        where layer.TreatmentId == treatment && (step == null || layer.StepId == step) && (surface == null || lay.SurfaceId == surface)
        select new { layer.StepId, lay.SurfaceId, lay.LineId, lay.LayerId }).ToListAsync(write.Stop))
        .GroupBy(l => (l.StepId, l.SurfaceId)).ToDictionary(g => g.Key, g => (Guid?)g.OrderByDescending(l => l.LayerId).First().LineId);

    private static async Task<Outcome<TreatmentTold>> LeaveOut(Guid treatmentId, Guid surfaceId, LeaveDetailOutIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row || row.Surfaces.All(s => s.SurfaceId != surfaceId))
            return Problems.NotFound("surface");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(row.Surfaces.Single(s => s.SurfaceId == surfaceId).OnId is not null, "surfaceId", "Only a detail can be left out: say first which surface it stands on.");
        if (faults.Any)
            return faults.ToProblem();
        var lines = await Lines(treatmentId, null, surfaceId, write);
        return await Store(row, entry.Version, was => Cover.LeftOut(was, surfaceId, step => lines.GetValueOrDefault((step, surfaceId))), write, graphs);
    }

    private static async Task<Outcome<TreatmentTold>> Move(Guid treatmentId, Guid stepId, PlaceIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row || row.Layers.All(l => l.StepId != stepId))
            return Problems.NotFound("layer");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(entry.AboveId is not { } above || row.Layers.Any(l => l.StepId == above), "aboveId", "The treatment has no such layer.");
        return faults.Any ? faults.ToProblem() : await Store(row, entry.Version, was => Cover.Moved(was, stepId, entry.AboveId), write, graphs);
    }

    private static async Task<Outcome<TreatmentTold>> Surfaces(Guid treatmentId, SurfacesIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        var (faults, asked) = (new Faults(), entry.Surfaces ?? []);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(
            asked.Count == row.Surfaces.Count && asked.Select(s => s?.Id).ToHashSet().SetEquals(row.Surfaces.Select(s => (Guid?)s.SurfaceId)), "surfaces", "Give every surface of the treatment, each once.");
        for (var i = 0; i < asked.Count && !faults.Any; i++)
        {
            faults.Text(asked[i]!.Name, $"surfaces[{i}].name", 120);

            // A detail stands on a surface, and not on another detail.
            faults.Require(asked[i]!.OnId is not { } on || asked.Any(s => s!.Id == on && s.Id != asked[i]!.Id && s.OnId is null), $"surfaces[{i}].onId", "A detail stands on another surface that is no detail itself.");
        }

        if (faults.Any)
            return faults.ToProblem();
        var wanted = asked.Select(s => new Surface(s!.Id!.Value, s.Name!.Trim(), s.OnId)).ToList();
        var stored = await Store(row, entry.Version, was => was with { Surfaces = wanted }, write, graphs);
        write.Says($"Named the surfaces of {row.Name}");
        return stored;
    }

    private static async Task<Outcome<TreatmentTold>> Together(Guid treatmentId, TogetherIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        var (faults, with) = (new Faults(), entry.With ?? []);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(with.Count > 0 && with.All(w => w is { TreatmentId: not null, Version: not null }) && with.Select(w => w?.TreatmentId).Append(treatmentId).Distinct().Count() == with.Count + 1, "with", "Name other treatments, each once and at its version.");
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        var ids = with.Select(w => w!.TreatmentId!.Value).Append(treatmentId).ToList();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from treatments where id = any({ids}) order by id for no key update", write.Stop);
        var rows = await write.Db.Treatments.Where(t => ids.Contains(t.Id) && t.WorkshopId == row.WorkshopId).ToDictionaryAsync(t => t.Id, write.Stop);
        if (rows.Count < ids.Count)
            return Faults.One("with", "This workshop has no such treatment.");
        if (with.Any(w => rows[w!.TreatmentId!.Value].Version != w.Version))
            return Problems.Changed("treatment", (await Read(row.Id, write.Db, graphs, write.Stop))!);
        var newest = await Revisions.Newest(write.Db, ids, null, write.Stop);
        if (newest.Values.Sum(t => t.Surfaces.Count) > MostSurfaces || newest.Values.Sum(t => t.Layers.Count) > MostLayers)
            return Faults.One("with", $"At most {MostLayers} layers over {MostSurfaces} surfaces in a treatment. Keep these as several.");
        if (await write.Db.LeftOut.AnyAsync(l => ids.Contains(l.TreatmentId) && l.TreatmentId != treatmentId, write.Stop))
            return Problems.Of(StatusCodes.Status409Conflict, "left-out", "Layers of one of these are left out for want of time. Put them back first; nothing was changed.");
        var before = await Before(ids, newest.Values.SelectMany(t => t.Surfaces).Select(s => s.SurfaceId).ToList(), write, graphs);
        var others = new List<Treatment>();
        foreach (var other in with.Select(w => newest[w!.TreatmentId!.Value]))
        {
            others.Add(await MoveOver(other, row.Id, write, graphs));
            rows[other.Id].PutAwayAt = write.Now;
        }

        var stored = await Store(row, entry.Version, was => others.Aggregate(was, (all, other) => Cover.Together(all, other, before)), write, graphs);
        if (entry.Name is not null)
            rows[treatmentId].Name = entry.Name.Trim();
        write.Says($"Brought {string.Join(", ", with.Select(w => rows[w!.TreatmentId!.Value].Name))} into {row.Name}");
        await write.Save();
        return stored;
    }

    /// <summary>Lines of some treatments that come before others on any piece that has both: what would soil what stands finished by then.</summary>
    private static async Task<IReadOnlySet<(Guid, Guid)>> Before(IReadOnlyList<Guid> treatments, IReadOnlyList<Guid> surfaces, Write write, SetGraphs graphs)
    {
        var sets = await (from z in write.Db.Zones join d in write.Db.Designs on z.DesignId equals d.Id where treatments.Contains(z.TreatmentId) && z.PutAwayAt == null && d.PutAwayAt == null select d.SetId).Distinct().ToListAsync(write.Stop);
        var before = new HashSet<(Guid, Guid)>();
        foreach (var set in sets)
            if (await graphs.OfSet(write.Db, set, write.Stop) is { } graph)
                foreach (var design in graph.Designs.Where(d => d.Zones.Exists(z => surfaces.Contains(z.SurfaceId))))
                    before.UnionWith(graph.OrderOf(design).Lines());
        return before;
    }

    /// <summary>A treatment under surfaces of another's, to which its zones go over.</summary>
    private static async Task<Treatment> MoveOver(TreatmentRow row, Guid to, Write write, SetGraphs graphs)
    {
        var surfaces = row.Surfaces.ToDictionary(s => s.SurfaceId, _ => Guid.CreateVersion7());
        foreach (var zone in await write.Db.Zones.Where(z => z.TreatmentId == row.Id).ToListAsync(write.Stop))
            (zone.TreatmentId, zone.SurfaceId) = (to, surfaces[zone.SurfaceId]);
        var materials = (await graphs.ShelfOf(write.Db, row.WorkshopId, write.Stop)).Materials;
        return Cover.Renamed(StoredLayer.ToCore(row, materials, await Revisions.Mixes(write.Db, row.Layers, write.Stop)), surfaces);
    }
}
