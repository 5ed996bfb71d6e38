using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Lowfell.Store.Starter;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>
/// A zone to begin with. It shares the layers of <paramref name="TreatmentId"/> when one is given; else <paramref name="StartingLayers"/> lays
/// the usual stack for its relief and the house rules, or leaves it bare.
/// </summary>
public sealed record NewZoneIn(string? Name, decimal? AreaCm2, Relief? Relief, decimal? EdgeMm, decimal? JointMm, decimal? Up, Sheen? TargetSheen, string? Ground, Guid? TreatmentId = null, bool? StartingLayers = null);

/// <summary>A design; <paramref name="StartingLayers"/> stands for every zone that does not say.</summary>
public sealed record NewDesignIn(string? Name, Silhouette? Silhouette, Substrate? Substrate, int? Pieces, IReadOnlyList<NewZoneIn?>? Zones, bool? StartingLayers = null);

/// <summary>A set with its first design, on a bench that is there, or on a new one of the name given.</summary>
public sealed record NewSetIn(
    Guid? WorkshopId, string? Workshop, string? Name, int? Scale, decimal? TableMetres, Handling? Handling, Sheen? TargetSheen, NewDesignIn? Design);

/// <summary>The way in for a new workshop, and for every further design.</summary>
public static class FirstSet
{
    private const int MostZones = 40, MostPieces = 500, MostDesigns = 200;

    public static void MapFirstSet(this IEndpointRouteBuilder app)
    {
        var plan = app.MapGroup("/api/plan").WithTags("Plan");
        plan.MapGet("/presets", () => TypedResults.Ok(Presets.All)).WithName("presets");
        plan.MapGet("/workshops/{workshopId:guid}/treatments", TreatmentsOf).WithName("treatmentsOfWorkshop").WithSummary("Treatments that a new zone can share.").ProducesProblem(404);
        plan.MapPost("/sets", AddSet).WithName("addSet").Writes<Made>(StatusCodes.Status201Created);
        plan.MapPost("/sets/{setId:guid}/designs", AddDesign).WithName("addDesign").Writes<Made>(StatusCodes.Status201Created);
    }

    public sealed record Made(Guid SetId, Guid FirstZoneId);

    private const int MostTreatments = 500;

    private static async Task<Results<Ok<IReadOnlyList<TreatmentEntry>>, ProblemHttpResult>> TreatmentsOf(Guid workshopId, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var layers = Revisions.Layers(db);
        var found = await db.Treatments.AsNoTracking().Where(t => t.WorkshopId == workshopId && t.PutAwayAt == null).OrderBy(t => t.Name).ThenBy(t => t.Id).Take(MostTreatments)
            .Select(t => new TreatmentEntry(t.Id, t.Name, layers.Count(l => l.TreatmentId == t.Id))).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<TreatmentEntry>>(found);
    }

    private static async Task<Outcome<Made>> AddSet(NewSetIn entry, Write write)
    {
        if (entry.WorkshopId is { } given && !await Lock(write, given))
            return Problems.NotFound("workshop");
        var faults = new Faults();
        if (entry.WorkshopId is null)
        {
            faults.Text(entry.Workshop, "workshop", 120);
            faults.Require(await write.Db.Workshops.CountAsync(write.Stop) < NewWorkshop.Most, "workshop", $"At most {NewWorkshop.Most} workshops.");
        }

        faults.Text(entry.Name, "name", 120);
        faults.Require(entry.Scale is >= 1 and <= 1000, "scale", "Give the n of 1:n, from 1 to 1000.");
        faults.Require(entry.TableMetres is >= 0.1m and <= 10, "tableMetres", "Give the viewing distance in metres, from 0.1 to 10.");
        CheckDesign(entry.Design, "design.", faults);
        if (faults.Any || await Treatments(entry.Design!, "design.", entry.WorkshopId, write, faults) is not { } treatments)
            return faults.ToProblem();
        var workshop = entry.WorkshopId ?? NewWorkshop.Add(write, new WorkshopRow { Name = entry.Workshop!.Trim(), CreatedAt = write.Now });
        if (await write.Db.Sets.AnyAsync(s => s.WorkshopId == workshop && s.PutAwayAt == null && s.Name == entry.Name!.Trim(), write.Stop))
            return Problems.Taken("name", "This workshop has a set of this name already.");
        var set = new SetRow
        {
            WorkshopId = workshop,
            Name = entry.Name!.Trim(),
            Scale = entry.Scale!.Value,
            TableMetres = entry.TableMetres!.Value,
            Handling = entry.Handling ?? Handling.Careful,
            TargetSheen = entry.TargetSheen ?? Sheen.Matt,
        };
        write.Db.Add(set);
        var design = await Build(write, workshop, set.Id, 0, entry.Design!, treatments);
        write.Says($"Made the set {set.Name}");
        await write.Save();
        return new Made(set.Id, design.Zones[0].Id);
    }

    private static async Task<Outcome<Made>> AddDesign(Guid setId, NewDesignIn entry, Write write)
    {
        var db = write.Db;
        if (await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, write.Stop) is not { } set || !await Lock(write, set.WorkshopId))
            return Problems.NotFound("set");
        var faults = new Faults();
        CheckDesign(entry, "", faults);
        var names = await db.Designs.Where(d => d.SetId == setId && d.PutAwayAt == null).Select(d => d.Name).ToListAsync(write.Stop);
        faults.Require(names.Count < MostDesigns, "name", $"At most {MostDesigns} designs in a set.");
        if (faults.Any || await Treatments(entry, "", set.WorkshopId, write, faults) is not { } treatments)
            return faults.ToProblem();
        if (names.Contains(entry.Name!.Trim()))
            return Problems.Taken("name", $"{set.Name} has a design of this name already.");
        var design = await Build(write, set.WorkshopId, setId, names.Count, entry, treatments);
        write.Says($"Added the design {design.Name}");
        await write.Save();
        return new Made(setId, design.Zones[0].Id);
    }

    /// <summary>One new set or design at a time in a workshop: they put the same plain materials on its shelf.</summary>
    private static async Task<bool> Lock(Write write, Guid workshop)
    {
        write.In(workshop);
        return await write.Db.Database.SqlQuery<Guid>($"select id as \"Value\" from workshops where id = {workshop} for no key update").ToListAsync(write.Stop) is [_];
    }

    private static void CheckDesign(NewDesignIn? design, string at, Faults faults)
    {
        faults.Text(design?.Name, at + "name", 120);
        faults.Require(design?.Pieces is >= 1 and <= MostPieces, at + "pieces", $"Give how many pieces, from 1 to {MostPieces}.");
        faults.Require(design?.Substrate is not null, at + "substrate", "Say what the piece is made of.");
        var zones = design?.Zones ?? [];
        faults.Require(zones.Count is >= 1 and <= MostZones, at + "zones", $"Give from 1 to {MostZones} zones.");
        for (var i = 0; i < Math.Min(zones.Count, MostZones); i++)
        {
            faults.Text(zones[i]?.Name, $"{at}zones[{i}].name", 120);
            faults.Require(zones[i]?.AreaCm2 is > 0 and <= 100_000, $"{at}zones[{i}].areaCm2", "Give an area above 0 cm².");
            faults.Range(zones[i]?.EdgeMm, $"{at}zones[{i}].edgeMm", 0, 1_000_000);
            faults.Range(zones[i]?.JointMm, $"{at}zones[{i}].jointMm", 0, 1_000_000);
            faults.Range(zones[i]?.Up, $"{at}zones[{i}].up", 0, 1);
        }

        var names = zones.Select(z => z?.Name?.Trim()).Where(n => !string.IsNullOrEmpty(n)).ToList();
        faults.Require(names.Distinct().Count() == names.Count, at + "zones", "Give every zone a name of its own.");
    }

    /// <summary>The treatments that zones are to share; null, with the fault, when one is not of this workshop.</summary>
    private static async Task<Dictionary<Guid, TreatmentRow>?> Treatments(NewDesignIn design, string at, Guid? workshop, Write write, Faults faults)
    {
        var wanted = design.Zones!.Select(z => z!.TreatmentId).OfType<Guid>().Distinct().ToList();
        var theirs = await write.Db.Treatments.Where(t => t.WorkshopId == workshop && wanted.Contains(t.Id)).Select(t => t.Id).ToListAsync(write.Stop);
        var found = await Revisions.Newest(write.Db, theirs, null, write.Stop);
        for (var i = 0; i < design.Zones!.Count; i++)
            faults.Require(design.Zones[i]!.TreatmentId is not { } id || found.ContainsKey(id), $"{at}zones[{i}].treatmentId", "This workshop has no such treatment. Choose another, or begin with the usual layers.");
        return faults.Any ? null : found;
    }

    private static async Task<DesignRow> Build(Write write, Guid workshop, Guid setId, int position, NewDesignIn entry, Dictionary<Guid, TreatmentRow> treatments)
    {
        bool Begins(NewZoneIn zone) => zone.TreatmentId is null && (zone.StartingLayers ?? entry.StartingLayers ?? true);
        var shelf = entry.Zones!.Any(z => Begins(z!)) ? await StarterMaterials(write, workshop) : [];
        var rules = (await write.Db.Workshops.FindAsync([workshop], write.Stop))!.HouseRules;
        var design = new DesignRow
        {
            SetId = setId,
            Name = entry.Name!.Trim(),
            Position = position,
            Substrate = entry.Substrate!.Value,
            Silhouette = entry.Silhouette ?? Silhouette.Wall,
        };
        for (var i = 1; i <= entry.Pieces; i++)
            design.Pieces.Add(new PieceRow { Label = $"{i}", RimNumber = $"{i}" });
        for (var i = 0; i < entry.Zones!.Count; i++)
        {
            var zone = entry.Zones[i]!;
            if (zone.TreatmentId is { } shared)
            {
                design.Zones.Add(Zone(zone, treatments[shared], i));
                continue;
            }

            var treatment = new TreatmentRow { WorkshopId = workshop, Name = zone.Name!.Trim(), ChangedAt = write.Now };
            if (Begins(zone))
                treatment.Layers.AddRange(Layers(treatment.Id, zone, rules, shelf));
            Revisions.Begin(write.Db, treatment, write.Actor.Name);
            design.Zones.Add(Zone(zone, treatment, i));
        }

        write.Db.Add(design);
        return design;
    }

    private static ZoneRow Zone(NewZoneIn zone, TreatmentRow treatment, int position)
    {
        var relief = zone.Relief ?? Relief.Light;
        var shares = Core.Layers.Zone.UsualShares(relief);
        return new ZoneRow
        {
            Name = zone.Name!.Trim(),
            TreatmentId = treatment.Id,
            SurfaceId = treatment.Surfaces[0].SurfaceId,
            Position = position,
            AreaCm2 = zone.AreaCm2!.Value,
            Relief = relief,
            EdgeMm = zone.EdgeMm ?? 0,
            JointMm = zone.JointMm ?? 0,
            UpShare = zone.Up ?? 0,
            SideShare = 1 - (zone.Up ?? 0),
            TargetSheen = zone.TargetSheen,
            RaisedShare = (decimal)shares.Raised,
            FieldShare = (decimal)shares.Field,
            RecessShare = (decimal)shares.Recess,
        };
    }

    private static IEnumerable<LayerRow> Layers(Guid treatment, NewZoneIn zone, HouseRules rules, Dictionary<string, MaterialRow> shelf)
    {
        var ground = zone.Ground is { } g && shelf.ContainsKey(g) ? g : "Plain earth brown";
        foreach (var (technique, material, coats) in StarterShelf.Stack(zone.Relief ?? Relief.Light, ground, rules))
        {
            var name = technique == Technique.Varnish && zone.TargetSheen is { } sheen ? $"Plain {Core.Words.EnumWords.Of(sheen)} varnish" : material;
            yield return new LayerRow
            {
                TreatmentId = treatment,
                Technique = technique,
                MaterialId = shelf[name].Id,
                Coats = coats,
                Tool = technique == Technique.Prime ? Tool.Brush : TechniqueTable.For(technique).UsualTool,
            };
        }
    }

    /// <summary>The plain materials of this workshop; those it no longer has are put back.</summary>
    private static async Task<Dictionary<string, MaterialRow>> StarterMaterials(Write write, Guid workshop)
    {
        var starters = StarterShelf.Materials(workshop).ToDictionary(m => m.Name);
        var names = starters.Keys.ToList();
        foreach (var added in write.Db.Materials.Local.Where(m => m.WorkshopId == workshop))
            starters[added.Name] = added;
        var have = await write.Db.Materials.Where(m => m.WorkshopId == workshop && m.PutAwayAt == null && m.Maker == "" && names.Contains(m.Name)).ToDictionaryAsync(m => m.Name, write.Stop);
        foreach (var (name, row) in starters)
        {
            if (have.ContainsKey(name))
                continue;
            if (write.Db.Entry(row).State == EntityState.Detached)
                write.Db.Add(row);
            have[name] = row;
        }

        return have;
    }
}
