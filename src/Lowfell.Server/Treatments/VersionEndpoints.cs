using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Treatments;

/// <summary>Versions of a treatment: listed with what changed, named, brought back.</summary>
internal static class VersionEndpoints
{
    public static void MapVersions(this RouteGroupBuilder group)
    {
        group.MapGet("/treatments/{treatmentId:guid}/versions", List).WithName("versions").WithSummary("Every version with its time, what changed and the layers of a surface, newest first.").ProducesProblem(404);
        group.MapPut("/treatments/{treatmentId:guid}/versions/{number:int}/name", Name).WithName("nameVersion").WithSummary("A name for a version that is worth keeping; an empty one takes it away.").Writes<TreatmentTold>();
        group.MapPost("/treatments/{treatmentId:guid}/versions/{number:int}/bring-back", BringBack).WithName("bringBackVersion").WithSummary("Makes an old version the newest once more.").Writes<TreatmentTold>();
    }

    private static async Task<Results<Ok<IReadOnlyList<VersionEntry>>, ProblemHttpResult>> List(Guid treatmentId, Guid? surfaceId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Treatments.AsNoTracking().FirstOrDefaultAsync(t => t.Id == treatmentId, stop) is not { } treatment)
            return Problems.NotFound("treatment");
        return TypedResults.Ok(await new Library(db, (await graphs.ShelfOf(db, treatment.WorkshopId, stop)).Materials, stop).Versions(treatment, surfaceId));
    }

    private static async Task<TreatmentRow?> Find(Guid treatment, int number, Write write)
    {
        var row = await write.Db.Treatments.FirstOrDefaultAsync(t => t.Id == treatment && write.Db.TreatmentRevisions.Any(r => r.TreatmentId == treatment && r.Number == number), write.Stop);
        if (row is not null)
            write.In(row.WorkshopId);
        return row;
    }

    private static async Task<Outcome<TreatmentTold>> Name(Guid treatmentId, int number, VersionNameIn entry, Write write)
    {
        if (await Find(treatmentId, number, write) is not { } row)
            return Problems.NotFound("version");
        var name = entry.Name?.Trim() ?? "";
        var faults = new Faults();
        if (name.Length > 0)
            faults.Text(name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        var named = await write.Db.VersionNames.FirstOrDefaultAsync(n => n.TreatmentId == treatmentId && n.Number == number, write.Stop);
        if (name.Length == 0 && named is not null)
            write.Db.Remove(named);
        else if (named is not null)
            named.Name = name;
        else if (name.Length > 0)
            write.Db.Add(new VersionNameRow { TreatmentId = treatmentId, Number = number, Name = name });
        write.Says(name.Length > 0 ? $"Named a version of {row.Name}: {name}" : $"Took the name off a version of {row.Name}");
        await write.Save();
        return new TreatmentTold(row.Id, row.Version);
    }

    private static async Task<Outcome<TreatmentTold>> BringBack(Guid treatmentId, int number, BringBackIn entry, Write write)
    {
        if (await Find(treatmentId, number, write) is not { } row)
            return Problems.NotFound("version");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version of the treatment as it is now.");
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("treatment", new TreatmentTold(row.Id, row.Version));
        var stored = await write.Db.TreatmentRevisions.AsNoTracking().Where(r => r.TreatmentId == treatmentId && r.Number == number).Select(r => r.StoredAt).FirstAsync(write.Stop);
        await Revisions.BringBack(write.Db, row, number, write.Now, write.Actor.Name, write.Stop);
        write.Says($"Brought back {row.Name} as it was on {stored:d MMMM HH:mm} UTC");
        await write.Save();
        return new TreatmentTold(row.Id, row.Version);
    }
}
