using Lowfell.Core.Layers;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>Zones: new ones, their measures and surfaces, what they touch, where they belong.</summary>
internal static class ZoneEndpoints
{
    public const int MostZones = 40;

    public static void MapZones(this RouteGroupBuilder sets)
    {
        sets.MapPost("/designs/{designId:guid}/zones", Add).WithName("addZone").WithSummary("One more zone, on a treatment that there is or with no layers yet; lengths and shares are guessed where left out.").Writes<Changed>(StatusCodes.Status201Created);
        sets.MapPost("/sets/{setId:guid}/zone-guess", Guess).WithName("guessZone").WithSummary("Lengths, shares and sizes that stand in for what was not measured.").ProducesProblem(400).ProducesProblem(404);
        sets.MapPut("/zones/{zoneId:guid}", Change).WithName("changeZoneFacts").WithSummary("Everything about a zone but its layers: measures, surface, what it touches, its place, its design.").Writes<Changed>();
        sets.MapPost("/zones/{zoneId:guid}/copies", SetCopies.CopyZone).WithName("copyZone").WithSummary("The zone once more, on its design or on another, with the same treatment.").Writes<Changed>(StatusCodes.Status201Created);
    }

    public static ZoneTouchRow Touch(Guid a, Guid b) => a.CompareTo(b) < 0 ? new() { FirstZoneId = a, SecondZoneId = b } : new() { FirstZoneId = b, SecondZoneId = a };

    private static async Task<Outcome<Changed>> Add(Guid designId, ZoneChange entry, Write write)
    {
        if (await SetCopies.Home(write, designId) is not var (design, set, workshop))
            return Problems.NotFound("design");
        write.In(workshop);
        var faults = new Faults();
        ZoneFill.Check(entry, faults, whole: true);
        var there = await write.Db.Zones.Where(z => z.DesignId == designId && z.PutAwayAt == null).OrderBy(z => z.Position).ToListAsync(write.Stop);
        faults.Require(there.Count < MostZones, "name", $"At most {MostZones} zones on a design.");
        CheckTouches(entry.Touches, there, null, faults);
        if (faults.Any)
            return faults.ToProblem();
        if (there.Any(z => z.Name == entry.Name!.Trim()))
            return Problems.Taken("name", $"{design.Name} has a zone of this name already.");
        Guid treatment, surface;
        if (entry.TreatmentId is { } shared)
        {
            if (!await write.Db.Treatments.AnyAsync(t => t.Id == shared && t.WorkshopId == workshop && t.PutAwayAt == null, write.Stop))
                return Faults.One("treatmentId", "This workshop has no such treatment.");
            if (await Revisions.SurfaceOf(write.Db, shared, entry.SurfaceId, write.Stop) is not { } its)
                return Faults.One("surfaceId", "The treatment has no such surface.");
            (treatment, surface) = (shared, its);
        }
        else
        {
            var own = new TreatmentRow { WorkshopId = workshop, Name = entry.Name!.Trim(), ChangedAt = write.Now };
            Revisions.Begin(write.Db, own, write.Actor.Name);
            (treatment, surface) = (own.Id, own.Surfaces[0].SurfaceId);
        }

        var relief = entry.Relief ?? Relief.Light;
        var shares = Zone.UsualShares(relief);
        var row = new ZoneRow
        {
            DesignId = designId,
            TreatmentId = treatment,
            SurfaceId = surface,
            Name = "",
            Position = there.Count,
            AreaCm2 = 1,
            Relief = relief,
            SideShare = 1,
            RaisedShare = (decimal)shares.Raised,
            FieldShare = (decimal)shares.Field,
            RecessShare = (decimal)shares.Recess,
        };
        ZoneFill.Fill(row, entry);
        var guess = ZoneFill.Guess(row, set.Scale);
        row.JointMm = entry.JointMm ?? (decimal)guess.JointMm;
        row.EdgeMm = entry.EdgeMm ?? (decimal)guess.EdgeMm;
        write.Db.Add(row);
        foreach (var other in entry.Touches ?? [])
            write.Db.Add(Touch(row.Id, other));
        Place(there, row, entry.Position ?? there.Count);
        write.Says($"Added the zone {row.Name} to {design.Name}");
        await write.Save();
        return new Changed(row.Id, row.Version);
    }

    private static async Task<Results<Ok<ZoneGuess>, ProblemHttpResult>> Guess(Guid setId, GuessIn entry, LowfellDb db, CancellationToken stop)
    {
        if (await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, stop) is not { } set)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Range(entry.AreaCm2, "areaCm2", 0, 100_000);
        faults.Range(entry.SurfaceLengthMm, "surfaceLengthMm", 0.01m, 10_000);
        faults.Range(entry.SurfaceHeightMm, "surfaceHeightMm", 0.01m, 10_000);
        return faults.Any ? faults.ToProblem() : TypedResults.Ok(ZoneFill.Guess(new ZoneRow
        {
            Name = "",
            AreaCm2 = entry.AreaCm2 ?? 0,
            Relief = entry.Relief ?? Relief.Light,
            Surface = entry.Surface ?? SurfaceKind.Plain,
            SurfaceLengthMm = entry.SurfaceLengthMm,
            SurfaceHeightMm = entry.SurfaceHeightMm,
        }, set.Scale));
    }

    private static void CheckTouches(IReadOnlyList<Guid>? touches, List<ZoneRow> there, Guid? self, Faults faults) =>
        faults.Require(touches is null || touches.All(t => t != self && there.Any(z => z.Id == t)), "touches", "A zone touches other zones of its own design.");

    private static async Task<Outcome<Changed>> Change(Guid zoneId, ZoneChange entry, Write write)
    {
        await write.Hold<ZoneRow>(zoneId);
        if (await write.Db.Zones.FirstOrDefaultAsync(z => z.Id == zoneId, write.Stop) is not { } row || await SetCopies.Home(write, row.DesignId) is not var (design, set, workshop))
            return Problems.NotFound("zone");
        write.In(workshop);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        ZoneFill.Check(entry, faults, whole: false);
        var to = entry.DesignId is { } other && other != row.DesignId ? await SetCopies.Home(write, other) : (design, set, workshop);
        faults.Require(to is { } t && t.Workshop == workshop, "designId", "This workshop has no such design.");
        if (faults.Any)
            return faults.ToProblem();
        var home = to!.Value.Design;
        var there = await write.Db.Zones.Where(z => z.DesignId == home.Id && z.PutAwayAt == null && z.Id != zoneId).OrderBy(z => z.Position).ToListAsync(write.Stop);
        CheckTouches(entry.Touches, there, zoneId, faults);
        if (home.Id != row.DesignId)
        {
            faults.Require(there.Count < MostZones, "designId", $"At most {MostZones} zones on a design.");
            faults.Require(!await write.Db.WorkEvents.AnyAsync(e => e.ZoneId == zoneId || e.Also.Any(a => a.ZoneId == zoneId), write.Stop), "designId", "Something was done on it, on pieces of this design. Copy the zone instead.");
            faults.Require(await write.Db.Zones.CountAsync(z => z.DesignId == row.DesignId && z.PutAwayAt == null, write.Stop) > 1, "designId", $"{design.Name} has no other zone. Remove the design instead.");
        }

        if (faults.Any)
            return faults.ToProblem();
        var name = entry.Name?.Trim() ?? row.Name;
        if (there.Any(z => z.Name == name))
            return Problems.Taken("name", $"{home.Name} has a zone of this name already.");
        write.Says(home.Id != row.DesignId ? $"Moved the zone {row.Name} from {design.Name} to {home.Name}" : name != row.Name ? $"Renamed the zone {row.Name} of {design.Name} to {name}" : $"Changed the zone {row.Name} of {design.Name}");
        ZoneFill.Fill(row, entry);
        if (entry.Position is not null || home.Id != row.DesignId)
            Place(there, row, entry.Position ?? there.Count);
        if (home.Id != row.DesignId)
        {
            row.DesignId = home.Id;
            await Touches(write, zoneId, []);
        }

        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("zone", (await SetsReader.Sheet(set.Id, write.Db, write.Stop))!);
        if (entry.Touches is not null)
            await Touches(write, zoneId, entry.Touches);
        await write.Save();
        return new Changed(row.Id, row.Version);
    }

    /// <summary>Puts a zone into its place; the others close up.</summary>
    private static void Place(List<ZoneRow> others, ZoneRow row, int position)
    {
        others.Insert(Math.Min(position, others.Count), row);
        for (var i = 0; i < others.Count; i++)
            others[i].Position = i;
    }

    private static async Task Touches(Write write, Guid zone, IReadOnlyList<Guid> wanted)
    {
        var now = await write.Db.ZoneTouches.Where(t => t.FirstZoneId == zone || t.SecondZoneId == zone).ToListAsync(write.Stop);
        Guid Other(ZoneTouchRow t) => t.FirstZoneId == zone ? t.SecondZoneId : t.FirstZoneId;
        write.Db.RemoveRange(now.Where(t => !wanted.Contains(Other(t))));
        write.Db.AddRange(wanted.Distinct().Where(w => now.All(t => Other(t) != w)).Select(w => Touch(zone, w)));
    }
}
