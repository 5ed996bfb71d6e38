using Lowfell.Core.Bench;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>Sets, designs and zones once more, and designs out of one set into another.</summary>
internal static class SetCopies
{
    public const int MostDesigns = 500;

    public static async Task<Outcome<Changed>> Copy(Guid setId, CopyIn entry, Write write)
    {
        if (await write.Db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, write.Stop) is not { } was)
            return Problems.NotFound("set");
        write.In(was.WorkshopId);
        var taken = (await write.Db.Sets.Where(s => s.WorkshopId == was.WorkshopId && s.PutAwayAt == null).Select(s => s.Name).ToListAsync(write.Stop)).ToHashSet();
        var faults = new Faults();
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        if (faults.Any)
            return faults.ToProblem();
        if (entry.Name is not null && taken.Contains(entry.Name.Trim()))
            return Problems.Taken("name", "This workshop has a set of this name already.");
        var set = new SetRow
        {
            WorkshopId = was.WorkshopId,
            Name = Names.Free(entry.Name ?? was.Name, taken),
            Scale = was.Scale,
            TableMetres = was.TableMetres,
            Handling = was.Handling,
            TargetSheen = was.TargetSheen,
            DueDate = was.DueDate,
            ReserveMl = was.ReserveMl,
            Rank = was.Rank + 1,
        };
        write.Db.Add(set);
        var ids = await write.Db.Designs.Where(d => d.SetId == setId && d.PutAwayAt == null).OrderBy(d => d.Position).Select(d => d.Id).ToListAsync(write.Stop);
        var twins = await Designs(write, ids, set.Id, (was, i) => (was.Name, i));
        write.Says($"Copied the set {was.Name} as {set.Name}{WithWork(entry)}");
        await write.Save();
        await Work(write, was.WorkshopId, entry, twins);
        return new Changed(set.Id, set.Version);
    }

    public static async Task<Outcome<Changed>> CopyDesign(Guid designId, CopyIn entry, Write write)
    {
        if (await write.Db.Designs.AsNoTracking().FirstOrDefaultAsync(d => d.Id == designId, write.Stop) is not { } was)
            return Problems.NotFound("design");
        var from = await write.Db.Sets.AsNoTracking().FirstAsync(s => s.Id == was.SetId, write.Stop);
        var to = entry.SetId is { } id && id != from.Id ? await write.Db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id && s.WorkshopId == from.WorkshopId, write.Stop) : from;
        write.In(from.WorkshopId);
        if (to is null)
            return Faults.One("setId", "This workshop has no such set.");
        var there = await write.Db.Designs.Where(d => d.SetId == to.Id && d.PutAwayAt == null).Select(d => d.Name).ToListAsync(write.Stop);
        var faults = new Faults();
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Require(there.Count < MostDesigns, "setId", $"At most {MostDesigns} designs in a set.");
        if (faults.Any)
            return faults.ToProblem();
        if (entry.Name is not null && there.Contains(entry.Name.Trim()))
            return Problems.Taken("name", $"{to.Name} has a design of this name already.");
        var twins = await Designs(write, [designId], to.Id, (_, _) => (Names.Free(entry.Name ?? was.Name, there.ToHashSet()), there.Count));
        var copy = twins.Designs[0];
        write.Says((to.Id == from.Id ? $"Copied the design {was.Name} as {copy.Name}" : $"Copied the design {was.Name} to {to.Name}") + WithWork(entry));
        await write.Save();
        await Work(write, from.WorkshopId, entry, twins);
        return new Changed(copy.Id, copy.Version);
    }

    public static async Task<Outcome<Changed>> CopyZone(Guid zoneId, CopyIn entry, Write write)
    {
        if (await write.Db.Zones.AsNoTracking().FirstOrDefaultAsync(z => z.Id == zoneId, write.Stop) is not { } was || await Home(write, entry.DesignId ?? was.DesignId) is not { } home || await Home(write, was.DesignId) is not { } from)
            return Problems.NotFound("zone");
        write.In(from.Workshop);
        if (home.Workshop != from.Workshop)
            return Faults.One("designId", "This workshop has no such design.");
        var there = await write.Db.Zones.Where(z => z.DesignId == home.Design.Id && z.PutAwayAt == null).Select(z => z.Name).ToListAsync(write.Stop);
        var faults = new Faults();
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Require(there.Count < ZoneEndpoints.MostZones, "designId", $"At most {ZoneEndpoints.MostZones} zones on a design.");
        if (faults.Any)
            return faults.ToProblem();
        if (entry.Name is not null && there.Contains(entry.Name.Trim()))
            return Problems.Taken("name", $"{home.Design.Name} has a zone of this name already.");
        var copy = Zone(was, home.Design.Id);
        copy.Name = Names.Free(entry.Name ?? was.Name, there.ToHashSet());
        copy.Position = there.Count;
        write.Db.Add(copy);
        write.Says($"Copied the zone {was.Name} as {copy.Name} on {home.Design.Name}");
        await write.Save();
        return new Changed(copy.Id, copy.Version);
    }

    public static async Task<Outcome<Changed>> Merge(Guid setId, MergeIn entry, Write write)
    {
        var sets = await write.Db.Sets.Where(s => s.Id == setId || s.Id == entry.FromSetId).ToDictionaryAsync(s => s.Id, write.Stop);
        if (!sets.TryGetValue(setId, out var into))
            return Problems.NotFound("set");
        write.In(into.WorkshopId);
        if (entry.FromSetId is not { } fromId || fromId == setId || !sets.TryGetValue(fromId, out var from) || from.WorkshopId != into.WorkshopId)
            return Faults.One("fromSetId", "Give another set of this workshop.");
        var all = await write.Db.Designs.Where(d => d.SetId == fromId || d.SetId == setId).OrderBy(d => d.Position).ToListAsync(write.Stop);
        var moving = all.Where(d => d.SetId == fromId && (entry.Designs?.Contains(d.Id) ?? true)).ToList();
        if (moving.Count == 0)
            return Faults.One("designs", $"{from.Name} has none of these designs.");
        var here = all.Where(d => d.SetId == setId && d.PutAwayAt is null).ToList();
        if (here.Count + moving.Count > MostDesigns)
            return Faults.One("designs", $"At most {MostDesigns} designs in a set.");
        var names = here.Select(d => d.Name).ToHashSet();
        var next = here.Count;
        foreach (var design in moving)
        {
            if (design.PutAwayAt is null)
            {
                design.Name = Names.Free(design.Name, names);
                names.Add(design.Name);
            }

            design.SetId = setId;
            design.Position = next++;
        }

        write.Says(moving.Count == 1 ? $"Took {moving[0].Name} out of {from.Name} into {into.Name}" : $"Took {moving.Count} designs out of {from.Name} into {into.Name}");
        await write.Save();
        return new Changed(into.Id, into.Version);
    }

    /// <summary>A design and whose it is.</summary>
    public static async Task<(DesignRow Design, SetRow Set, Guid Workshop)?> Home(Write write, Guid designId) =>
        await write.Db.Designs.FirstOrDefaultAsync(d => d.Id == designId, write.Stop) is { } design && await write.Db.Sets.AsNoTracking().FirstAsync(s => s.Id == design.SetId, write.Stop) is { } set
            ? (design, set, set.WorkshopId) : null;

    private static string WithWork(CopyIn entry) => entry.WithWork == true ? ", with what was done" : "";

    /// <summary>Designs that came of a copy, and what each zone and piece of the originals became.</summary>
    private sealed record Twins(List<DesignRow> Designs, Dictionary<Guid, Guid> Zones, Dictionary<Guid, Guid> Pieces);

    /// <summary>What the stream says of the originals it says of the copies too, each time by an event that points at the one it repeats.</summary>
    private static async Task Work(Write write, Guid workshop, CopyIn entry, Twins twins)
    {
        if (entry.WithWork != true)
            return;
        var zones = twins.Zones.Keys.ToList();
        var pieces = twins.Pieces.Keys.ToList();
        var done = await write.Db.DoneLayers.AsNoTracking().Where(d => zones.Contains(d.ZoneId) && pieces.Contains(d.PieceId)).OrderBy(d => d.Sequence).ToListAsync(write.Stop);
        var events = done.Select(d => d.EventId).Distinct().ToList();
        var when = await write.Db.WorkEvents.Where(e => events.Contains(e.Id)).ToDictionaryAsync(e => e.Id, e => e.At, write.Stop);
        var keys = new HashSet<PieceKey>();
        var coats = await Coats(write, done);
        foreach (var laid in done.GroupBy(d => (d.EventId, d.ZoneId, d.LineId, Coats: coats[d.Id])))
        {
            var copy = new WorkEventRow
            {
                Id = Guid.CreateVersion7(),
                WorkshopId = workshop,
                Actor = write.Actor.Name,
                Device = write.Actor.Device,
                Kind = WorkKind.CarriedOver,
                ToldAt = write.Now,
                At = when[laid.Key.EventId],
                ReceivedAt = write.Now,
                TwinId = laid.Key.EventId,
                ZoneId = twins.Zones[laid.Key.ZoneId],
                LineId = laid.Key.LineId,
                Coats = laid.Key.Coats,
            };
            copy.Pieces.AddRange(laid.Select(d => new WorkPieceRow { EventId = copy.Id, PieceId = twins.Pieces[d.PieceId] }));
            write.Db.Add(copy);
            keys.UnionWith(copy.Pieces.Select(p => new PieceKey(copy.ZoneId.Value, copy.LineId.Value, p.PieceId)));
        }

        foreach (var marks in await write.Db.MarksDone.AsNoTracking().Where(m => zones.Contains(m.ZoneId) && pieces.Contains(m.PieceId)).ToListAsync(write.Stop))
            write.Db.Add(new MarksDoneRow { ZoneId = twins.Zones[marks.ZoneId], LineId = marks.LineId, PieceId = twins.Pieces[marks.PieceId], Marks = marks.Marks, MeanMm = marks.MeanMm, Note = marks.Note, At = marks.At });
        await write.Save();
        await PieceBook.Hold(write.Db, workshop, write.Stop);
        await PieceBook.Refold(write.Db, keys, write.Stop);
        await write.Save();
    }

    private const int MostCoats = 99;

    /// <summary>How many coats each of what was laid is: the first of several is one, and the last all the others that are there.</summary>
    private static async Task<Dictionary<long, int>> Coats(Write write, IReadOnlyList<DoneLayerRow> done)
    {
        var (zones, pieces) = (done.Select(d => d.ZoneId).Distinct().ToList(), done.Select(d => d.PieceId).Distinct().ToList());
        var kept = await write.Db.PieceLayers.Where(p => zones.Contains(p.ZoneId) && pieces.Contains(p.PieceId)).ToDictionaryAsync(p => new PieceKey(p.ZoneId, p.LineId, p.PieceId), p => p.Coats, write.Stop);
        return done.GroupBy(d => new PieceKey(d.ZoneId, d.LineId, d.PieceId)).SelectMany(g => g.Select((d, i) => (d.Id, Coats: i < g.Count() - 1 ? 1 : Math.Clamp(kept.GetValueOrDefault(g.Key) - i, 1, MostCoats)))).ToDictionary(d => d.Id, d => d.Coats);
    }

    private static async Task<Twins> Designs(Write write, List<Guid> ids, Guid into, Func<DesignRow, int, (string Name, int Position)> place)
    {
        var originals = await write.Db.Designs.AsNoTracking().Where(d => ids.Contains(d.Id)).Include(d => d.Zones.Where(z => z.PutAwayAt == null)).Include(d => d.Pieces.Where(p => p.PutAwayAt == null)).AsSplitQuery().OrderBy(d => d.Position).ToListAsync(write.Stop);
        Dictionary<Guid, Guid> zones = [], twinPieces = [];
        var copies = new List<DesignRow>();

        foreach (var was in originals)
        {
            var (name, position) = place(was, copies.Count);
            var copy = new DesignRow { SetId = into, Name = name, Position = position, Silhouette = was.Silhouette, Substrate = was.Substrate };
            foreach (var zone in was.Zones)
            {

                // Elsewhere plans over pieces are to come out the same, and beside the original they are not.
                var twin = Zone(zone, copy.Id, was.SetId == into ? null : zone.Number);
                zones[zone.Id] = twin.Id;
                copy.Zones.Add(twin);
            }

            var pieces = was.Pieces.OrderBy(p => p.Number).ToDictionary(p => p.Id, p => new PieceRow { DesignId = copy.Id, Number = p.Number, Label = p.Label, RimNumber = p.RimNumber, Spare = p.Spare });
            foreach (var piece in was.Pieces.Where(p => p.ParentId is not null))
                pieces[piece.Id].ParentId = pieces.GetValueOrDefault(piece.ParentId!.Value)?.Id;
            foreach (var (id, twin) in pieces)
                twinPieces[id] = twin.Id;
            copy.Pieces.AddRange(pieces.Values);
            copies.Add(copy);
        }

        write.Db.AddRange(copies);
        var keys = zones.Keys.ToList();
        foreach (var touch in await write.Db.ZoneTouches.AsNoTracking().Where(t => keys.Contains(t.FirstZoneId)).ToListAsync(write.Stop))
            if (zones.TryGetValue(touch.FirstZoneId, out var a) && zones.TryGetValue(touch.SecondZoneId, out var b))
                write.Db.Add(ZoneEndpoints.Touch(a, b));
        foreach (var tray in await write.Db.BasePlans.AsNoTracking().Where(b => ids.Contains(b.DesignId)).ToListAsync(write.Stop))
            write.Db.Add(new BasePlanRow { WorkshopId = tray.WorkshopId, DesignId = copies[originals.FindIndex(d => d.Id == tray.DesignId)].Id, CreatedAt = write.Now, Body = DocumentIds.Replaced(tray.Body, id => zones.TryGetValue(id, out var z) ? z : twinPieces.TryGetValue(id, out var p) ? p : id) });
        return new Twins(copies, zones, twinPieces);
    }

    /// <summary>A zone once more, with the same treatment.</summary>
    private static ZoneRow Zone(ZoneRow z, Guid design, int? number = null) => new()
    {
        Number = number,
        DesignId = design,
        TreatmentId = z.TreatmentId,
        SurfaceId = z.SurfaceId,
        Name = z.Name,
        Position = z.Position,
        AreaCm2 = z.AreaCm2,
        Relief = z.Relief,
        UpShare = z.UpShare,
        SideShare = z.SideShare,
        DownShare = z.DownShare,
        RaisedShare = z.RaisedShare,
        FieldShare = z.FieldShare,
        RecessShare = z.RecessShare,
        EdgeMm = z.EdgeMm,
        JointMm = z.JointMm,
        SmallestDetailMm = z.SmallestDetailMm,
        FaceWidthMm = z.FaceWidthMm,
        Handling = z.Handling,
        TargetSheen = z.TargetSheen,
        TargetColour = z.TargetColour,
        TargetPosition = z.TargetPosition,
        CutEdge = z.CutEdge,
        BeforeAssembly = z.BeforeAssembly,
        Surface = z.Surface,
        SurfaceLengthMm = z.SurfaceLengthMm,
        SurfaceHeightMm = z.SurfaceHeightMm,
        RivetMm = z.RivetMm,
        Across = z.Across,
    };
}
