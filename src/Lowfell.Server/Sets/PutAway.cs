using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>
/// Putting away, bringing back, removing. What nothing refers to is removed, and can be brought back for a month by undoing that step;
/// what work, pots, accepted remarks or tiles that were looked at refer to is only put away, so that everything that was done still tells where.
/// </summary>
internal static class PutAway
{
    public static void MapPutAway(this RouteGroupBuilder sets)
    {
        Map(sets, "set", "sets", (write, id) => Find(write.Db.Sets.Where(s => s.Id == id), s => s.WorkshopId));
        Map(sets, "design", "designs", (write, id) => Find(write.Db.Designs.Where(d => d.Id == id), d => write.Db.Sets.First(s => s.Id == d.SetId).WorkshopId));
        Map(sets, "piece", "pieces", (write, id) => Find(write.Db.Pieces.Where(p => p.Id == id), p => OfDesign(write, p.DesignId)));
        Map(sets, "zone", "zones", (write, id) => Find(write.Db.Zones.Where(z => z.Id == id), z => OfDesign(write, z.DesignId)));
    }

    private static Guid OfDesign(Write write, Guid design) => write.Db.Sets.First(s => write.Db.Designs.Any(d => d.Id == design && d.SetId == s.Id)).WorkshopId;

    private static async Task<(object Row, Guid Workshop)?> Find<T>(IQueryable<T> of, Func<T, Guid> workshop) where T : class => await of.FirstOrDefaultAsync() is { } row ? (row, workshop(row)) : null;

    private static void Map(RouteGroupBuilder sets, string thing, string path, Func<Write, Guid, Task<(object Row, Guid Workshop)?>> find)
    {
        var name = char.ToUpperInvariant(thing[0]) + thing[1..];
        sets.MapPost($"/{path}/{{id:guid}}/put-away", async Task<Outcome<PutAwayOrRemoved>> (Guid id, Write write) =>
            await find(write, id) is { } at ? await Away(write, thing, id, at.Row, at.Workshop) : Problems.NotFound(thing)).WithName($"putAway{name}").WithSummary($"Takes the {thing} out of the lists; everything about it stays.").Writes<PutAwayOrRemoved>();
        sets.MapPost($"/{path}/{{id:guid}}/bring-back", async Task<Outcome<Changed>> (Guid id, Write write) =>
            await find(write, id) is { } at ? await Back(write, thing, id, at.Row, at.Workshop) : Problems.NotFound(thing)).WithName($"bringBack{name}").WithSummary($"Puts a {thing} back into the lists.").Writes<Changed>();
        sets.MapDelete($"/{path}/{{id:guid}}", async Task<Outcome<PutAwayOrRemoved>> (Guid id, Write write) =>
            await find(write, id) is { } at ? await Remove(write, thing, id, at.Row, at.Workshop) : Problems.NotFound(thing)).WithName($"remove{name}")
            .WithSummary($"Removes the {thing}, or puts it away where work refers to it. What is removed can be brought back for 30 days.").Writes<PutAwayOrRemoved>();
    }

    private static async Task<Outcome<PutAwayOrRemoved>> Away(Write write, string thing, Guid id, object row, Guid workshop)
    {
        write.In(workshop);
        if (await Last(write, row) is { } refusal)
            return refusal;
        Set(write, row, write.Now);
        if (row is PieceRow)
            foreach (var child in await write.Db.Pieces.Where(p => p.ParentId == id && p.PutAwayAt == null).ToListAsync(write.Stop))
                child.PutAwayAt = write.Now;
        var name = Name(row);
        write.Says($"Put the {thing} {name} away");
        await write.Save();
        return new PutAwayOrRemoved(id, false, $"{name} is put away. Everything about it stays; it can be brought back at any time.");
    }

    private static async Task<Outcome<Changed>> Back(Write write, string thing, Guid id, object row, Guid workshop)
    {
        write.In(workshop);
        var name = Name(row);
        if (await NameTaken(write, row, name))
            return Problems.Taken("name", $"There is another {thing} called {name} by now. Rename that one first.");
        Set(write, row, null);
        write.Says($"Brought the {thing} {name} back");
        await write.Save();
        return new Changed(id, (uint)write.Db.Entry(row).Property("Version").CurrentValue!);
    }

    private static async Task<Outcome<PutAwayOrRemoved>> Remove(Write write, string thing, Guid id, object row, Guid workshop)
    {
        var (designs, zones, pieces) = await Within(write, row);
        if ((await Kept.Zones(write.Db, zones.Select(z => z.Id).ToList(), write.Stop)).Count > 0 || (await Kept.Pieces(write.Db, pieces.Select(p => p.Id).ToList(), write.Stop)).Count > 0)
        {
            var away = await Away(write, thing, id, row, workshop);
            return away.Told is null ? away : away.Told with { Says = $"Work was done on {Name(row)}, so it is put away and not removed: what was done still tells where." };
        }

        if (await IsPhotographed(write, id, zones, pieces))
        {
            var away = await Away(write, thing, id, row, workshop);
            return away.Told is null ? away : away.Told with { Says = $"There are photographs of {Name(row)}, so it is put away and not removed." };
        }

        write.In(workshop);
        if (await Last(write, row) is { } refusal)
            return refusal;
        var name = Name(row);
        write.Says($"Removed the {thing} {name}", removes: true);
        if (row is PieceRow)
            foreach (var child in await write.Db.Pieces.Where(p => p.ParentId == id).ToListAsync(write.Stop))
                child.ParentId = null;
        var ids = zones.Select(z => z.Id).ToList();
        write.Db.RemoveRange(await write.Db.ZoneTouches.Where(t => ids.Contains(t.FirstZoneId) || ids.Contains(t.SecondZoneId)).ToListAsync(write.Stop));

        // Sub-assemblies go before what they are fixed to.
        write.Db.RemoveRange(pieces.Where(p => p.ParentId is not null));
        await write.Save();
        write.Db.RemoveRange(zones);
        write.Db.RemoveRange(pieces.Where(p => write.Db.Entry(p).State != EntityState.Detached));
        await write.Save();
        write.Db.RemoveRange(designs);
        if (row is SetRow)
            write.Db.Remove(row);
        await write.Save();
        return new PutAwayOrRemoved(id, true, $"{name} is removed. It can be brought back for 30 days.");
    }

    private static Task<bool> IsPhotographed(Write write, Guid set, List<ZoneRow> zones, List<PieceRow> pieces)
    {
        var (zoneIds, pieceIds) = (zones.Select(z => z.Id).ToList(), pieces.Select(p => p.Id).ToList());
        return write.Db.Photos.AnyAsync(p => p.SetId == set || (p.ZoneId != null && zoneIds.Contains(p.ZoneId.Value)) || (p.PieceId != null && pieceIds.Contains(p.PieceId.Value)), write.Stop);
    }

    /// <summary>A design keeps one zone: without any there is nothing to plan on it.</summary>
    private static async Task<Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult?> Last(Write write, object row) =>
        row is ZoneRow zone && zone.PutAwayAt is null && !await write.Db.Zones.AnyAsync(z => z.DesignId == zone.DesignId && z.Id != zone.Id && z.PutAwayAt == null, write.Stop)
            ? Problems.Of(StatusCodes.Status409Conflict, "last-zone", "It is the only zone of its design. Put the design away instead, or add another zone first.") : null;

    private static async Task<(List<DesignRow> Designs, List<ZoneRow> Zones, List<PieceRow> Pieces)> Within(Write write, object row)
    {
        if (row is PieceRow piece)
            return ([], [], [piece]);
        if (row is ZoneRow zone)
            return ([], [zone], []);
        var designs = row is DesignRow design ? [design] : await write.Db.Designs.Where(d => d.SetId == ((SetRow)row).Id).ToListAsync(write.Stop);
        var ids = designs.Select(d => d.Id).ToList();
        return (designs, await write.Db.Zones.Where(z => ids.Contains(z.DesignId)).ToListAsync(write.Stop), await write.Db.Pieces.Where(p => ids.Contains(p.DesignId)).ToListAsync(write.Stop));
    }

    private static string Name(object row) => row switch { SetRow s => s.Name, DesignRow d => d.Name, ZoneRow z => z.Name, PieceRow p => p.Label, _ => "" };

    private static void Set(Write write, object row, DateTimeOffset? at) => write.Db.Entry(row).Property(nameof(SetRow.PutAwayAt)).CurrentValue = at;

    private static Task<bool> NameTaken(Write write, object row, string name) => row switch
    {
        SetRow s => write.Db.Sets.AnyAsync(o => o.WorkshopId == s.WorkshopId && o.Name == name && o.Id != s.Id && o.PutAwayAt == null, write.Stop),
        DesignRow d => write.Db.Designs.AnyAsync(o => o.SetId == d.SetId && o.Name == name && o.Id != d.Id && o.PutAwayAt == null, write.Stop),
        ZoneRow z => write.Db.Zones.AnyAsync(o => o.DesignId == z.DesignId && o.Name == name && o.Id != z.Id && o.PutAwayAt == null, write.Stop),
        PieceRow p => write.Db.Pieces.AnyAsync(o => o.DesignId == p.DesignId && o.Label == name && o.Id != p.Id && o.PutAwayAt == null, write.Stop),
        _ => Task.FromResult(false),
    };
}
