using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

using Answer = Results<Ok<PotDto>, ProblemHttpResult>;

/// <summary>Everything that can happen to a pot, one step each.</summary>
internal static class PotSteps
{
    private const int MostPots = 500, MostPieces = 500;

    public static async Task<Answer> Make(Guid setId, PotIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = new Faults();
        Ids(faults, entry.EventId, "eventId");
        Ids(faults, entry.Id, "id");
        faults.Text(entry.Label, "label", PotBook.LongestLabel);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        faults.Require(entry.Vessel is not null, "vessel", "Say what it is kept in.");
        faults.Require(entry.RecipeKey is null or "" || book.Graph.RecipeOf(entry.RecipeKey) is not null, "recipeKey", "No layer of this set has this recipe any more. Leave it out to mix freely.");
        var amounts = book.ReadPortions(entry.Amounts, faults);
        faults.Require(await db.Pots.CountAsync(p => p.WorkshopId == book.Graph.Workshop.Id, stop) < MostPots, "label", $"At most {MostPots} pots.");
        if (faults.Any)
            return faults.ToProblem();
        var contents = book.Graph.Contents(amounts!.Select(a => (a.MaterialId, a.Ml)));
        var pot = NewPot(entry.Id!.Value, entry.Label!, entry.Vessel!.Value, entry.RecipeKey ?? "", contents, book.Graph, book.Now, entry.Note ?? "");
        var made = new PotEventRow { Id = entry.EventId!.Value, PotId = pot.Id, Kind = PotEventKind.Made, At = book.Now, Note = entry.Note ?? "" };
        made.Amounts.AddRange(amounts!);
        return await book.Make(pot, made, entry.BottleHadMore);
    }

    public static async Task<Answer> TopUp(Guid setId, Guid id, TopUpIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        var amounts = book.ReadPortions(entry.Amounts, faults);
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], async pots =>
        {
            var filled = book.Event(entry.Id!.Value, id, PotEventKind.ToppedUp, [], note: entry.Note ?? "");
            filled.Amounts.AddRange(amounts!);
            db.Add(filled);
            await book.FromShelf(filled, entry.BottleHadMore == true);
            return null;
        });
    }

    public static async Task<Answer> Join(Guid setId, Guid id, JoinIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Require(entry.OtherId is not null && entry.OtherId != id, "otherId", "Choose another pot to pour in.");
        faults.Require(entry.OtherVersion is not null, "otherVersion", "Give the version of the other pot.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version), (entry.OtherId!.Value, entry.OtherVersion)], pots =>
        {
            var poured = book.Contents(pots[1]);
            if (poured.Ml == 0)
                return Refuse("otherId", $"{pots[1].Label} is empty.");
            var twin = Guid.NewGuid();
            db.Add(book.Event(twin, pots[1].Id, PotEventKind.PouredOut, poured.Portions, -1, other: id, twin: entry.Id));
            db.Add(book.Event(entry.Id!.Value, id, PotEventKind.Joined, poured.Portions, other: pots[1].Id, twin: twin));

            // What is poured together keeps only as long as the older of both.
            if (pots[1].GoodUntil < pots[0].GoodUntil)
                pots[0].GoodUntil = Later(pots[0].LifeBeganAt, pots[1].GoodUntil);
            return Fine;
        });
    }

    public static async Task<Answer> Split(Guid setId, Guid id, SplitIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        Ids(faults, entry.NewPotId, "newPotId");
        faults.Text(entry.Label, "label", PotBook.LongestLabel);
        faults.Require(entry.Vessel is not null, "vessel", "Say what the new pot is kept in.");
        faults.Require(entry.Ml is > 0, "ml", "Give ml above 0.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], async pots =>
        {
            var pot = pots[0];
            var contents = book.Contents(pot);
            if (entry.Ml > contents.Ml)
                return TooMuch("ml", contents);
            var (taken, _) = contents.Take(entry.Ml!.Value);
            var row = NewPot(entry.NewPotId!.Value, entry.Label!, entry.Vessel!.Value, pot.RecipeKey, taken, book.Graph, book.Now, "");

            // The new pot is as old as the one it came from: only the share of life that was left goes with it.
            row.GoodUntil = PotLife.Moved(pot.LifeBeganAt, pot.GoodUntil, book.Now, Life(taken, row.Vessel, book.Graph));
            db.Add(row);
            await db.SaveChangesAsync(stop);
            var twin = Guid.NewGuid();
            db.Add(book.Event(entry.Id!.Value, id, PotEventKind.PouredOut, taken.Portions, -1, other: row.Id, twin: twin));
            db.Add(book.Event(twin, row.Id, PotEventKind.SplitOff, taken.Portions, other: id, twin: entry.Id));
            return null;
        });
    }

    public static async Task<Answer> Give(Guid setId, Guid id, GiveIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        var place = entry.ZoneId is { } zoneId && book.Graph.Designs.Any(d => d.Zones.Any(z => z.Id == zoneId)) ? PotsReader.Find(book.Graph, zoneId) : default;
        faults.Require(place.Zone is not null, "zoneId", "This zone is not in the set.");
        var layer = place.Zone is null ? null : book.Graph.Layers(place.Zone.TreatmentId).FirstOrDefault(l => l.Id == entry.LayerId);
        faults.Require(place.Zone is null || layer is not null, "layerId", "This layer is not on the zone any more. Load the plan again.");
        var pieces = (entry.PieceIds ?? []).Distinct().ToList();
        faults.Require(pieces.Count is > 0 and <= MostPieces, "pieceIds", $"Choose from 1 to {MostPieces} pieces.");
        faults.Require(place.Design is null || pieces.All(p => place.Design.Pieces.Any(x => x.Id == p)), "pieceIds", "One of these pieces is not of this design.");
        faults.Require(entry.Ml is null or > 0, "ml", "Give ml above 0, or leave it out for what the plan says.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], pots =>
        {
            var contents = book.Contents(pots[0]);
            if (contents.Ml == 0)
                return Refuse("ml", $"{pots[0].Label} is empty.");
            var planned = decimal.Round((decimal)Quantities.PotMl(layer!, book.Graph.ToCore(place.Zone!, place.Design!), pieces.Count), PotContents.Decimals);
            var ml = entry.Ml ?? Math.Min(contents.Ml, Math.Max(planned, 0.0001m));
            if (ml > contents.Ml)
                return Task.FromResult<ProblemHttpResult?>(TooMuch("ml", contents));
            var given = book.Event(entry.Id!.Value, id, PotEventKind.Given, contents.Take(ml).Taken.Portions, -1, entry.Note ?? "", zone: place.Zone!.Id, layer: layer!.Id);
            given.Pieces.AddRange(pieces.Select(p => new PotEventPieceRow { EventId = given.Id, PieceId = p }));
            db.Add(given);
            return Fine;
        });
    }

    public static async Task<Answer> ThrowAway(Guid setId, Guid id, ThrowAwayIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        faults.Require(entry.Ml is null or > 0, "ml", "Give ml above 0, or leave it out for all of it.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], pots =>
        {
            var contents = book.Contents(pots[0]);
            if (contents.Ml == 0)
                return Refuse("ml", $"{pots[0].Label} is empty already.");
            if (entry.Ml > contents.Ml)
                return Task.FromResult<ProblemHttpResult?>(TooMuch("ml", contents));
            db.Add(book.Event(entry.Id!.Value, id, PotEventKind.ThrownAway, contents.Take(entry.Ml ?? contents.Ml).Taken.Portions, -1, entry.Note ?? ""));
            return Fine;
        });
    }

    /// <summary>What is really left: less has dried up or been used without a word, more was measured short; either way in the ratio it is in.</summary>
    public static async Task<Answer> Correct(Guid setId, Guid id, CorrectIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        faults.Require(entry.LeftMl is >= 0 and <= 5000, "leftMl", "Give what is left in ml, from 0 to 5000.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], pots =>
        {
            var contents = book.Contents(pots[0]);
            var left = decimal.Round(entry.LeftMl!.Value, PotContents.Decimals);
            if (contents.Ml == 0 || left == contents.Ml)
                return Refuse("leftMl", contents.Ml == 0 ? $"{pots[0].Label} is empty; top it up instead." : "That is what the book says.");
            db.Add(left < contents.Ml
                ? book.Event(entry.Id!.Value, id, PotEventKind.Corrected, contents.Take(contents.Ml - left).Taken.Portions, -1, entry.Note ?? "")
                : book.Event(entry.Id!.Value, id, PotEventKind.Corrected, Recipe.Of(contents).Fill(left - contents.Ml).Portions, 1, entry.Note ?? ""));
            return Fine;
        });
    }

    public static async Task<Answer> Move(Guid setId, Guid id, MoveIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        faults.Require(entry.Vessel is not null, "vessel", "Say what it is kept in now.");
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], pots =>
        {
            var pot = pots[0];
            if (pot.Vessel == entry.Vessel)
                return Refuse("vessel", "It is in there already.");
            pot.GoodUntil = PotLife.Moved(pot.LifeBeganAt, pot.GoodUntil, book.Now, Life(book.Contents(pot), entry.Vessel!.Value, book.Graph));
            (pot.Vessel, pot.LifeBeganAt) = (entry.Vessel.Value, book.Now);
            db.Add(book.Event(entry.Id!.Value, id, PotEventKind.Moved, []));
            return Fine;
        });
    }

    /// <summary>Takes the newest event back with one of its own; what it took from the shelf goes back there.</summary>
    public static async Task<Answer> TakeBack(Guid setId, Guid id, Guid eventId, TakeBackIn entry, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await Open(setId, db, graphs, clock, stop) is not { } book)
            return Problems.NotFound("set");
        var faults = Begin(entry.Id, entry.Version);
        if (faults.Any)
            return faults.ToProblem();
        return await book.Do(entry.Id!.Value, [(id, entry.Version)], async pots =>
        {
            var old = pots[0].Events.Find(e => e.Id == eventId);
            if (old is null)
                return Problems.NotFound("event");
            if (old.Id != PotsReader.NewestStanding(pots[0])?.Id)
                return Problems.Of(StatusCodes.Status409Conflict, "built-upon", "Something came after this. Take that back first.");
            if (old.Kind is not (PotEventKind.ToppedUp or PotEventKind.Given or PotEventKind.ThrownAway or PotEventKind.Corrected))
                return Problems.Of(StatusCodes.Status409Conflict, "not-undone", "What was poured together cannot be poured apart, and a pot that was made stays made. Correct or throw away what is in it.");
            db.Add(book.Event(entry.Id!.Value, id, PotEventKind.TakenBack, old.Amounts.Select(a => new Portion(book.Graph.Materials[a.MaterialId], a.Ml)), -1, undoes: old.Id));
            await book.BackToShelf(old.Id);
            return null;
        });
    }

    private static async Task<PotBook?> Open(Guid setId, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop) =>
        await graphs.OfSet(db, setId, stop) is { } graph ? new PotBook(db, graph, graphs, clock.GetUtcNow(), stop) : null;

    private static PotRow NewPot(Guid id, string label, Vessel vessel, string recipeKey, PotContents contents, SetGraph graph, DateTimeOffset now, string note) => new()
    {
        Id = id,
        WorkshopId = graph.Workshop.Id,
        Label = label.Trim(),
        Vessel = vessel,
        RecipeKey = recipeKey,
        MadeAt = now,
        LifeBeganAt = now,
        GoodUntil = now.AddMinutes(Life(contents, vessel, graph)),
        ChangedAt = now,
        Note = note,
    };

    private static double Life(PotContents contents, Vessel vessel, SetGraph graph) =>
        PotLife.Of(contents, vessel, new Climate((double)graph.Workshop.TemperatureC, (double)graph.Workshop.RelativeHumidity)).Usual;

    private static DateTimeOffset Later(DateTimeOffset a, DateTimeOffset b) => a > b ? a : b;

    private static readonly Task<ProblemHttpResult?> Fine = Task.FromResult<ProblemHttpResult?>(null);

    private static Task<ProblemHttpResult?> Refuse(string field, string why)
    {
        var faults = new Faults();
        faults.Add(field, why);
        return Task.FromResult<ProblemHttpResult?>(faults.ToProblem());
    }

    private static ProblemHttpResult TooMuch(string field, PotContents contents)
    {
        var faults = new Faults();
        faults.Add(field, FormattableString.Invariant($"Only {contents.Ml:0.##} ml are left in it."));
        return faults.ToProblem();
    }

    private static Faults Begin(Guid? id, uint? version)
    {
        var faults = new Faults();
        Ids(faults, id, "id");
        faults.Require(version is not null, "version", "Give the version of the pot you saw.");
        return faults;
    }

    private static void Ids(Faults faults, Guid? id, string field) =>
        faults.Require(id is not null && id != Guid.Empty, field, "Give an id of its own, so that it counts once however often it is sent.");
}
