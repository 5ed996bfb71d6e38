using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Fillings;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>What happens to pots at the bench: mixed and topped up as it really was, laid from, and taken back.</summary>
internal sealed class PotIntake(Guid workshop, Write write)
{
    private readonly Dictionary<Guid, PotRow?> pots = [];

    private LowfellDb Db => write.Db;

    /// <summary>A pot as it stands now: what was put in or taken since it was read is read again.</summary>
    public async Task<PotRow?> Of(Guid id)
    {
        if (!pots.TryGetValue(id, out var known) || known is null)
            return pots[id] = await Db.Pots.Include(p => p.Contents).FirstOrDefaultAsync(p => p.Id == id && p.WorkshopId == workshop, write.Stop);
        foreach (var content in known.Contents.ToList())
            await Db.Entry(content).ReloadAsync(write.Stop);
        Db.Entry(known).Collection(p => p.Contents).IsLoaded = false;
        await Db.Entry(known).Collection(p => p.Contents).LoadAsync(write.Stop);
        return known;
    }

    /// <summary>A new pot, or more into one there is; why not, where it cannot be.</summary>
    public async Task<string?> Fill(BenchEventIn e, SetGraph graph, Func<PotRow, WorkEventRow> row, DateTimeOffset at)
    {
        var faults = new Faults();
        var amounts = Portions.Read(e.Amounts, graph, faults);
        if (faults.Any)
            return string.Join(' ', faults.All.Select(f => f.Message).Distinct());
        if (e.PotId is not { } id || id == Guid.Empty)
            return "Say which pot.";
        var there = await Of(id);
        if (e.Kind == WorkKind.ToppedUp && there is null)
            return "This pot is not of this workshop.";
        if (e.Kind == WorkKind.Made)
        {
            if (there is not null || await Db.Pots.AnyAsync(p => p.Id == id, write.Stop))
                return "This id is another pot's.";
            faults.Text(e.Label, "label", NewPots.LongestLabel);
            faults.Require(e.Vessel is not null, "vessel", "Say what it is kept in.");
            if (faults.Any)
                return string.Join(' ', faults.All.Select(f => f.Message).Distinct());
            if (await NewPots.TooMany(Db, workshop, write.Stop))
                return $"{NewPots.MostFull} pots have something in them, the most a bench keeps. Throw away what is dry.";
            var key = e.RecipeKey is { Length: > 0 } recipe && graph.RecipeOf(recipe) is not null ? recipe : "";
            there = NewPots.Of(id, await Free(e.Label!.Trim()), e.Vessel!.Value, key, graph.Contents(amounts.Select(a => (a.MaterialId, a.Ml))), graph, at, write.Now, e.Note?.Trim() ?? "");
            Db.Add(there);
            pots[id] = there;
        }

        var filled = row(there!);
        filled.Amounts.AddRange(amounts.Where(a => a.Ml != 0).Select(a => new WorkAmountRow { EventId = filled.Id, MaterialId = a.MaterialId, Ml = a.Ml, Drops = a.Drops }));
        Db.Add(filled);
        PotState.Take(there!, filled, null);
        there!.ChangedAt = write.Now;

        // It is in the pot, whatever the books say of the bottle.
        await new ShelfBook(write).Take(there, filled, bottleHadMore: true, at);
        return null;
    }

    /// <summary>A label that no other pot has: two devices that did not hear of each other may think of the same one.</summary>
    private async Task<string> Free(string label)
    {
        var free = label;
        for (var i = 2; await Db.Pots.AnyAsync(p => p.WorkshopId == workshop && p.Label == free, write.Stop); i++)
            free = label[..Math.Min(label.Length, NewPots.LongestLabel - 4)] + FormattableString.Invariant($" {i}");
        return free;
    }

    /// <summary>Takes from a pot what was laid, or what is left of it.</summary>
    public void Lay(WorkEventRow row, PotRow pot, decimal? ml, double plannedMl, SetGraph graph)
    {
        var contents = graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));
        var taken = Math.Min(contents.Ml, ml ?? decimal.Round((decimal)plannedMl, PotContents.Decimals));
        if (taken > 0)
            row.Amounts.AddRange(contents.Take(taken).Taken.Portions.Where(p => p.Ml > 0).Select(p => new WorkAmountRow { EventId = row.Id, MaterialId = p.Material.Id, Ml = -p.Ml }));
        PotState.Take(pot, row, null);
        pot.ChangedAt = write.Now;
    }

    /// <summary>Puts back what an event took from a pot, or takes out what it put in.</summary>
    public void TakeBack(WorkEventRow row, WorkEventRow old, PotRow pot)
    {
        row.Amounts.AddRange(old.Amounts.Select(a => new WorkAmountRow { EventId = row.Id, MaterialId = a.MaterialId, Ml = -a.Ml }));
        PotState.Take(pot, row, old);
        pot.ChangedAt = write.Now;
    }

    /// <summary>Back on the shelf with what was put in.</summary>
    public Task BackToShelf(WorkEventRow old, DateTimeOffset at) => new ShelfBook(write).PutBack(old.Id, at);
}
