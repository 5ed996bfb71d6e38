using Lowfell.Core.Layers;
using Lowfell.Core.Trials;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>A field of a trial becomes what is laid.</summary>
internal static class TrialChoice
{
    private const int LongestName = 120;

    public static async Task<Outcome<TrialTold>> Store(TrialRow row, Asked asked, TrialCell cell, TrialChoiceIn entry, Write write, SetGraphs graphs)
    {
        var at = asked.At;
        var treatment = await write.Db.Treatments.FirstAsync(t => t.Id == at.Zone.TreatmentId, write.Stop);
        var writer = new StackWriter(write, at.Graph.Materials);

        // On the treatment as it is now: layers that came since stay, and only what the trial varied becomes otherwise.
        var now = at.Layers;
        var stack = TrialStacks.Of(now, asked.Factors.Where(f => now.Any(l => l.Id == f.Layer)).ToList(), asked.Factors.Select((f, i) => (f, i)).Where(x => now.Any(l => l.Id == x.f.Layer)).Select(x => cell.Levels[x.i]).ToList());
        if (!string.IsNullOrWhiteSpace(entry.Name))
        {
            Name(write, await writer.Begin(treatment, entry.Name.Trim(), stack), 1, row);
            write.Says($"The treatment {entry.Name.Trim()}, as field {cell.Number} of the trial {row.Name}");
        }
        else if (StackDifference.Phrases(now, stack).Count == 0 && at.Graph.Treatments[treatment.Id].Version == entry.TreatmentVersion)
        {
            write.Says($"{treatment.Name} stays as it is, after the trial {row.Name}");
        }
        else
        {
            if (await writer.Store([TreatmentEdit.Of(at.Graph, at.Zone, entry.TreatmentVersion!.Value, stack)]) is null)
                return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "This treatment was changed in another window. Look at the trial again; nothing was overwritten.");
            write.Says($"{treatment.Name}: as field {cell.Number} of the trial {row.Name}");
            if (!await write.Db.VersionNames.AnyAsync(n => n.TreatmentId == treatment.Id && n.Number == treatment.Revision, write.Stop))
                Name(write, treatment.Id, treatment.Revision, row);
        }

        (await write.Db.Trials.FirstAsync(t => t.Id == row.Id, write.Stop)).Chosen = Asked.Key(cell.Levels);
        await write.Save();
        return new TrialTold(at.Graph.Set.Id, row.Id);
    }

    /// <summary>The version says which trial it is from.</summary>
    private static void Name(Write write, Guid treatment, int version, TrialRow row)
    {
        var name = $"from the trial {row.Name}";
        write.Db.Add(new VersionNameRow { TreatmentId = treatment, Number = version, Name = name.Length <= LongestName ? name : name[..LongestName] });
    }
}
