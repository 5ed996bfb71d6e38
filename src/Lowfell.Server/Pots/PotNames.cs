using Lowfell.Server.Fillings;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>What a pot is called and what is noted of it; what is in it moves by events only.</summary>
public sealed record PotNameIn(string? Label, string? Note);

/// <summary>Another label for a pot: on every picture of what was laid from it as well.</summary>
internal static class PotNames
{
    public static async Task<Outcome<PotTold>> Change(Guid setId, Guid id, PotNameIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfSet(write.Db, setId, write.Stop) is not { } graph || await write.Db.Pots.FirstOrDefaultAsync(p => p.Id == id && p.WorkshopId == graph.Workshop.Id, write.Stop) is not { } pot)
            return Problems.NotFound("pot");
        write.In(pot.WorkshopId);
        var faults = new Faults();
        if (entry.Label is not null)
            faults.Text(entry.Label, "label", NewPots.LongestLabel);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        if (faults.Any)
            return faults.ToProblem();
        var label = entry.Label?.Trim() ?? pot.Label;
        if (await write.Db.Pots.AnyAsync(p => p.WorkshopId == pot.WorkshopId && p.Label == label && p.Id != id, write.Stop))
            return Problems.Taken("label", "There is a pot of this label already.");
        write.Says(label != pot.Label ? $"Relabelled the pot {pot.Label} as {label}" : $"Changed the note on the pot {label}");
        (pot.Label, pot.Note) = (label, entry.Note?.Trim() ?? pot.Note);
        await write.Save();
        return new PotTold(setId, id);
    }
}
