using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Treatments;

/// <summary>Treatments as a library: searched, named, copied, linked to zones of any set and parted from them, put away.</summary>
public static class TreatmentEndpoints
{
    public static void MapTreatments(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Treatments");
        group.MapGet("/workshops/{workshopId:guid}/treatments", Cards).WithName("treatmentLibrary").WithSummary("Every treatment of a workshop with its picture and where it is used; those put away last.").ProducesProblem(404);
        group.MapPut("/treatments/{treatmentId:guid}", Rename).WithName("renameTreatment").Writes<TreatmentTold>();
        group.MapPost("/treatments/{treatmentId:guid}/copies", Copy).WithName("copyTreatment").WithSummary("A new treatment with the same layers, used nowhere yet.").Writes<TreatmentTold>(StatusCodes.Status201Created);
        group.MapPost("/treatments/{treatmentId:guid}/put-away", PutAway).WithName("putAwayTreatment").WithSummary("Takes a treatment that no zone has out of the library.").Writes<TreatmentTold>();
        group.MapPost("/treatments/{treatmentId:guid}/bring-back", BringBack).WithName("bringBackTreatment").Writes<TreatmentTold>();
        group.MapPost("/zones/{zoneId:guid}/link", Link).WithName("linkZone").WithSummary("Gives a zone a treatment of the library: from then on an edit of it is an edit for all that have it.").Writes<LinkTold>();
        group.MapPost("/zones/{zoneId:guid}/part", Part).WithName("partZone").WithSummary("Parts a zone from the others with its treatment: it goes on with one of its own. What is done on it stays done.").Writes<LinkTold>(StatusCodes.Status201Created);
        group.MapVersions();
        group.MapSurfaces();
    }

    private static async Task<Results<Ok<IReadOnlyList<TreatmentCard>>, ProblemHttpResult>> Cards(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        return TypedResults.Ok(await new Library(db, (await graphs.ShelfOf(db, workshopId, stop)).Materials, stop).Cards(workshopId));
    }

    private static async Task<Outcome<TreatmentTold>> Rename(Guid treatmentId, TreatmentIn entry, Write write)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Text(entry.Name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        write.Says($"Renamed the treatment {row.Name} to {entry.Name!.Trim()}");
        row.Name = entry.Name.Trim();
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("treatment", new TreatmentTold(row.Id, (uint)write.Db.Entry(row).Property(nameof(row.Version)).OriginalValue!));
        await write.Save();
        return new TreatmentTold(row.Id, row.Version);
    }

    private static async Task<TreatmentRow?> Find(Guid id, Write write)
    {
        var row = await write.Db.Treatments.FirstOrDefaultAsync(t => t.Id == id, write.Stop);
        if (row is not null)
            write.In(row.WorkshopId);
        return row;
    }

    private static async Task<Outcome<TreatmentTold>> Copy(Guid treatmentId, TreatmentCopyIn entry, Write write)
    {
        if (await Find(treatmentId, write) is not { } was)
            return Problems.NotFound("treatment");
        var faults = new Faults();
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        var copy = await Twin(was, entry.Name?.Trim() ?? $"{Short(was.Name)}, copy", write);
        write.Says($"Copied the treatment {was.Name} as {copy.Name}");
        await write.Save();
        return new TreatmentTold(copy.Id, copy.Version);
    }

    private static string Short(string name) => name.Length > 100 ? name[..100] : name;

    /// <summary>Another treatment with the same layers, which carry their lines on; of one surface, where only that is wanted.</summary>
    private static async Task<TreatmentRow> Twin(TreatmentRow was, string name, Write write, Guid? surface = null)
    {
        var copy = Revisions.Twin(await Revisions.Newest(write.Db, was.Id, write.Stop), name, write.Now, surface);
        Revisions.Begin(write.Db, copy, write.Actor.Name);
        return copy;
    }

    private static async Task<Outcome<TreatmentTold>> PutAway(Guid treatmentId, Write write)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        var uses = await write.Db.Zones.CountAsync(z => z.TreatmentId == treatmentId && z.PutAwayAt == null, write.Stop);
        if (uses > 0)
            return Problems.Of(StatusCodes.Status409Conflict, "in-use", $"{(uses == 1 ? "A zone has" : $"{uses} zones have")} this treatment. Give {(uses == 1 ? "it" : "them")} another one first.");
        write.Says($"Put the treatment {row.Name} away");
        row.PutAwayAt = write.Now;
        await write.Save();
        return new TreatmentTold(row.Id, row.Version);
    }

    private static async Task<Outcome<TreatmentTold>> BringBack(Guid treatmentId, Write write)
    {
        if (await Find(treatmentId, write) is not { } row)
            return Problems.NotFound("treatment");
        write.Says($"Brought the treatment {row.Name} back");
        row.PutAwayAt = null;
        await write.Save();
        return new TreatmentTold(row.Id, row.Version);
    }

    private static async Task<Outcome<LinkTold>> Link(Guid zoneId, LinkIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at || await write.Db.Zones.FirstOrDefaultAsync(z => z.Id == zoneId, write.Stop) is not { } row)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        if (entry.TreatmentId is not { } id || await write.Db.Treatments.FirstOrDefaultAsync(t => t.Id == id && t.WorkshopId == at.Graph.Workshop.Id, write.Stop) is not { } treatment)
            return Faults.One("treatmentId", "This workshop has no such treatment.");
        if (await Revisions.SurfaceOf(write.Db, id, entry.SurfaceId, write.Stop) is not { } surface)
            return Faults.One("surfaceId", "The treatment has no such surface.");
        write.Says($"Gave {at.Name} the treatment {treatment.Name}");
        (row.TreatmentId, row.SurfaceId) = (id, surface);
        treatment.PutAwayAt = null;
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("zone", new LinkTold(zoneId, at.Zone.TreatmentId));
        await write.Save();
        return new LinkTold(zoneId, id);
    }

    private static async Task<Outcome<LinkTold>> Part(Guid zoneId, PartIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at || await write.Db.Zones.FirstOrDefaultAsync(z => z.Id == zoneId, write.Stop) is not { } row)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var was = await write.Db.Treatments.FirstAsync(t => t.Id == row.TreatmentId, write.Stop);
        var faults = new Faults();
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        var own = await Twin(was, entry.Name?.Trim() ?? $"{Short(was.Name)}, {Short(at.Design.Name)}"[..Math.Min(120, Short(was.Name).Length + 2 + Short(at.Design.Name).Length)], write, row.SurfaceId);
        (row.TreatmentId, row.SurfaceId) = (own.Id, own.Surfaces[0].SurfaceId);
        await write.Save();
        if (entry.Layers is not null)
        {
            var writer = new StackWriter(write, at.Graph.Materials);
            var stack = await writer.Read(own.Id, row.SurfaceId, new StackIn(own.Version, entry.Layers), "layers", faults);
            if (faults.Any)
                return faults.ToProblem();
            await writer.Store([stack!]);
        }

        write.Says($"Parted {at.Name} from {was.Name}");
        await write.Save();
        return new LinkTold(zoneId, own.Id);
    }
}
