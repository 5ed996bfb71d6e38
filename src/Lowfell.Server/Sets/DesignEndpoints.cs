using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>Designs: their names, places and substrates; copies within a set or to another.</summary>
internal static class DesignEndpoints
{
    public static void MapDesigns(this RouteGroupBuilder sets)
    {
        sets.MapPut("/designs/{designId:guid}", Change).WithName("changeDesign").WithSummary("Name, outline, substrate, place in the set.").Writes<Changed>();
        sets.MapPost("/designs/{designId:guid}/copies", SetCopies.CopyDesign).WithName("copyDesign").WithSummary("The design once more, in its set or in another; zones keep their treatments.").Writes<Changed>(StatusCodes.Status201Created);
    }

    private static async Task<Outcome<Changed>> Change(Guid designId, DesignIn entry, Write write)
    {
        await write.Hold<DesignRow>(designId);
        if (await SetCopies.Home(write, designId) is not var (row, set, workshop))
            return Problems.NotFound("design");
        write.In(workshop);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Range(entry.Position, "position", 0, 1000);
        if (faults.Any)
            return faults.ToProblem();
        var name = entry.Name?.Trim();
        if (name is not null && name != row.Name && await write.Db.Designs.AnyAsync(d => d.SetId == row.SetId && d.Name == name && d.Id != designId && d.PutAwayAt == null, write.Stop))
            return Problems.Taken("name", $"{set.Name} has a design of this name already.");
        write.Says(name is not null && name != row.Name ? $"Renamed the design {row.Name} to {name}" : entry.Position is not null ? $"Moved the design {row.Name}" : $"Changed the design {row.Name}");
        row.Name = name ?? row.Name;
        row.Silhouette = entry.Silhouette ?? row.Silhouette;
        row.Substrate = entry.Substrate ?? row.Substrate;
        if (entry.Position is { } position)
        {
            var others = await write.Db.Designs.Where(d => d.SetId == row.SetId && d.Id != row.Id && d.PutAwayAt == null).OrderBy(d => d.Position).ToListAsync(write.Stop);
            others.Insert(Math.Min(position, others.Count), row);
            for (var i = 0; i < others.Count; i++)
                others[i].Position = i;
        }

        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("design", (await SetsReader.Sheet(set.Id, write.Db, write.Stop))!);
        await write.Save();
        return new Changed(row.Id, row.Version);
    }
}
