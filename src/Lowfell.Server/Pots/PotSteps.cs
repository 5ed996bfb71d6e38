using Lowfell.Core.Estimates;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Fillings;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Pots;

/// <summary>Everything that can happen to a pot, one step each.</summary>
internal static class PotSteps
{
    private const int MostPieces = 500;
    private static readonly Task<ProblemHttpResult?> Fine = Task.FromResult<ProblemHttpResult?>(null);

    public static async Task<Outcome<PotTold>> Make(Guid setId, PotIn entry, PotBook book, Write write)
    {
        if (await book.Open(setId) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Id(entry.EventId, "eventId");
        faults.Id(entry.Id, "id");
        faults.Text(entry.Label, "label", NewPots.LongestLabel);
        faults.Text(entry.Note, "note", PotBook.LongestNote, needed: false);
        faults.Require(entry.Vessel is not null, "vessel", "Say what it is kept in.");
        faults.Require(entry.RecipeKey is null or "" || graph.RecipeOf(entry.RecipeKey) is not null, "recipeKey", "No layer of this set has this recipe any more. Leave it out to mix freely.");
        var amounts = Portions.Read(entry.Amounts, graph, faults);
        if (faults.Any)
            return faults.ToProblem();
        if (await write.Db.Pots.FindAsync([entry.Id!.Value], write.Stop) is { } there)
            return there.WorkshopId == graph.Workshop.Id ? new PotTold(setId, there.Id) : Problems.NotFound("pot");
        var pot = NewPot(entry.Id.Value, entry.Label!, entry.Vessel!.Value, entry.RecipeKey ?? "", graph.Contents(amounts.Select(a => (a.MaterialId, a.Ml))), book, entry.Note ?? "");
        if (await book.Begin(pot) is { } refusal)
            return refusal;
        var made = book.Record(pot, entry.EventId!.Value, WorkKind.Made, amounts, entry.Note);
        if (await book.FromShelf(pot, made, entry.BottleHadMore == true) is { } short_)
            return short_;
        return new PotTold(setId, pot.Id);
    }

    public static Task<Outcome<PotTold>> TopUp(Guid setId, Guid id, TopUpIn entry, PotBook book)
    {
        IReadOnlyList<WorkAmountRow> amounts = [];
        return book.Step(setId, id, entry, faults => amounts = Portions.Read(entry.Amounts, book.Graph, faults), pots =>
            book.FromShelf(pots[0], book.Record(pots[0], entry.Id!.Value, WorkKind.ToppedUp, amounts, entry.Note), entry.BottleHadMore == true));
    }

    public static Task<Outcome<PotTold>> Join(Guid setId, Guid id, JoinIn entry, PotBook book) => book.Step(setId, id, entry, faults =>
    {
        faults.Require(entry.OtherId is not null && entry.OtherId != id, "otherId", "Choose another pot to pour in.");
        faults.Require(entry.OtherVersion is not null, "otherVersion", "Give the version of the other pot.");
    }, pots =>
    {
        var (into, from) = (pots[0], pots[1]);
        var poured = book.Contents(from);
        if (poured.Ml == 0)
            return Refuse("otherId", $"{from.Label} is empty.");
        var twin = Guid.NewGuid();

        // What was poured in keeps the share of life it had left, here counted as long as this vessel keeps it; the older of both decides.
        var ends = PotLife.Moved(from.LifeBeganAt, from.GoodUntil, Later(book.Now, from.LifeBeganAt), Life(poured, into.Vessel, book.Graph));
        var sooner = ends < into.GoodUntil;
        book.Record(from, twin, WorkKind.PouredOut, PotBook.Amounts(poured.Portions, -1), other: into, twin: entry.Id);
        book.Record(into, entry.Id!.Value, WorkKind.Joined, PotBook.Amounts(poured.Portions), other: from, twin: twin, goodUntilBefore: sooner ? into.GoodUntil : null);
        if (sooner)
            into.GoodUntil = Later(into.LifeBeganAt, ends);
        return Fine;
    });

    public static Task<Outcome<PotTold>> Split(Guid setId, Guid id, SplitIn entry, PotBook book) => book.Step(setId, id, entry, faults =>
    {
        faults.Id(entry.NewPotId, "newPotId");
        faults.Text(entry.Label, "label", NewPots.LongestLabel);
        faults.Require(entry.Vessel is not null, "vessel", "Say what the new pot is kept in.");
        faults.Require(entry.Ml is > 0, "ml", "Give ml above 0.");
    }, async pots =>
    {
        var pot = pots[0];
        var contents = book.Contents(pot);
        if (entry.Ml > contents.Ml)
            return TooMuch(contents);
        var (taken, _) = contents.Take(entry.Ml!.Value);
        var part = NewPot(entry.NewPotId!.Value, entry.Label!, entry.Vessel!.Value, pot.RecipeKey, taken, book, "");

        // The new pot is as old as the one it came from: only the share of life that was left goes with it.
        part.GoodUntil = PotLife.Moved(pot.LifeBeganAt, pot.GoodUntil, Later(book.Now, pot.LifeBeganAt), Life(taken, part.Vessel, book.Graph));
        if (await book.Begin(part) is { } refusal)
            return refusal;
        var twin = Guid.NewGuid();
        book.Record(pot, entry.Id!.Value, WorkKind.PouredOut, PotBook.Amounts(taken.Portions, -1), other: part, twin: twin);
        book.Record(part, twin, WorkKind.SplitOff, PotBook.Amounts(taken.Portions), other: pot, twin: entry.Id);
        return null;
    });

    public static Task<Outcome<PotTold>> Give(Guid setId, Guid id, GiveIn entry, PotBook book)
    {
        var pieces = (entry.PieceIds ?? []).Distinct().ToList();
        return book.Step(setId, id, entry, faults =>
        {
            var at = entry.ZoneId is { } zone ? book.Graph.Find(zone) : null;
            faults.Require(at is not null, "zoneId", "This zone is not in the set.");
            faults.Require(at is null || at.Layers.Any(l => l.Id == entry.LayerId), "layerId", "This layer is not on the zone any more. Load the plan again.");
            faults.Require(pieces.Count is > 0 and <= MostPieces, "pieceIds", $"Choose from 1 to {MostPieces} pieces.");
            faults.Require(at is null || pieces.All(p => at.Design.Pieces.Any(x => x.Id == p)), "pieceIds", "One of these pieces is not of this design.");
            faults.Require(entry.Ml is null or > 0, "ml", "Give ml above 0, or leave it out for what the plan says.");
        }, async pots =>
        {
            var at = book.Graph.Find(entry.ZoneId!.Value)!;
            var contents = book.Contents(pots[0]);
            if (contents.Ml == 0)
                return await Refuse("ml", $"{pots[0].Label} is empty.");
            var layer = at.Layers.First(l => l.Id == entry.LayerId);
            var planned = decimal.Round((decimal)Quantities.PotMl(layer, at.Context.Zone, pieces.Count), PotContents.Decimals);
            var ml = entry.Ml ?? Math.Min(contents.Ml, Math.Max(planned, 0.0001m));
            if (ml > contents.Ml)
                return TooMuch(contents);
            var laid = new LaidOn(at.Zone.Id, await book.LayerOf(at.Zone.SurfaceId, layer.Id), layer.Id, pieces);
            book.Record(pots[0], entry.Id!.Value, WorkKind.Given, PotBook.Amounts(contents.Take(ml).Taken.Portions, -1), entry.Note, laid: laid);
            return null;
        });
    }

    public static Task<Outcome<PotTold>> ThrowAway(Guid setId, Guid id, ThrowAwayIn entry, PotBook book) => book.Step(setId, id, entry,
        faults => faults.Require(entry.Ml is null or > 0, "ml", "Give ml above 0, or leave it out for all of it."), pots =>
    {
        var contents = book.Contents(pots[0]);
        if (contents.Ml == 0)
            return Refuse("ml", $"{pots[0].Label} is empty already.");
        if (entry.Ml > contents.Ml)
            return Task.FromResult<ProblemHttpResult?>(TooMuch(contents));
        book.Record(pots[0], entry.Id!.Value, WorkKind.ThrownAway, PotBook.Amounts(contents.Take(entry.Ml ?? contents.Ml).Taken.Portions, -1), entry.Note);
        return Fine;
    });

    /// <summary>What is really left: less has dried up or been used without a word, more was measured short; either way in the ratio it is in.</summary>
    public static Task<Outcome<PotTold>> Correct(Guid setId, Guid id, CorrectIn entry, PotBook book) => book.Step(setId, id, entry,
        faults => faults.Require(entry.LeftMl is >= 0 and <= 5000, "leftMl", "Give what is left in ml, from 0 to 5000."), pots =>
    {
        var contents = book.Contents(pots[0]);
        var left = decimal.Round(entry.LeftMl!.Value, PotContents.Decimals);
        if (contents.Ml == 0 || left == contents.Ml)
            return Refuse("leftMl", contents.Ml == 0 ? $"{pots[0].Label} is empty; top it up instead." : "That is what the book says.");
        book.Record(pots[0], entry.Id!.Value, WorkKind.Corrected, left < contents.Ml
            ? PotBook.Amounts(contents.Take(contents.Ml - left).Taken.Portions, -1)
            : PotBook.Amounts(Recipe.Of(contents).Fill(left - contents.Ml).Portions), entry.Note);
        return Fine;
    });

    public static Task<Outcome<PotTold>> Move(Guid setId, Guid id, MoveIn entry, PotBook book) => book.Step(setId, id, entry,
        faults => faults.Require(entry.Vessel is not null, "vessel", "Say what it is kept in now."), pots =>
    {
        var pot = pots[0];
        if (pot.Vessel == entry.Vessel)
            return Refuse("vessel", "It is in there already.");

        // A clock that was set back does not make a pot younger.
        var now = Later(book.Now, pot.LifeBeganAt);
        pot.GoodUntil = PotLife.Moved(pot.LifeBeganAt, pot.GoodUntil, now, Life(book.Contents(pot), entry.Vessel!.Value, book.Graph));
        (pot.Vessel, pot.LifeBeganAt) = (entry.Vessel.Value, now);
        book.Record(pot, entry.Id!.Value, WorkKind.Moved, []);
        return Fine;
    });

    /// <summary>
    /// Takes the newest event back with one of its own; what it took from the shelf goes back there. A pouring is taken back at both pots,
    /// as long as nothing came after it at either.
    /// </summary>
    public static async Task<Outcome<PotTold>> TakeBack(Guid setId, Guid id, Guid eventId, TakeBackIn entry, PotBook book)
    {
        return await book.Step(setId, id, (await book.Event(id, eventId))?.OtherPotId is { } beside ? new UnpourIn(entry.Id, entry.Version, beside) : entry, _ => { }, async pots =>
        {
            if (await book.Event(id, eventId) is not { } old)
                return Problems.NotFound("event");
            var twin = pots.Count > 1 && old.TwinId is { } other ? await book.Event(pots[1].Id, other) : null;
            if (old.Id != pots[0].NewestEventId || (pots.Count > 1 && (twin is null || twin.Id != pots[1].NewestEventId)))
                return Problems.Of(StatusCodes.Status409Conflict, "built-upon", "Something came after this. Take that back first.");
            if (!PotsReader.CanTakeBack(old.Kind))
                return Problems.Of(StatusCodes.Status409Conflict, "not-undone", "A pot that was made stays made, and where it stands is changed by moving it. Correct or throw away what is in it.");
            var second = Guid.NewGuid();
            book.Undo(pots[0], entry.Id!.Value, old, twin is null ? null : (pots[1], second));
            if (twin is not null)
                book.Undo(pots[1], second, twin, (pots[0], entry.Id.Value));
            await book.BackToShelf(old.Id);
            return null;
        });
    }

    private static PotRow NewPot(Guid id, string label, Vessel vessel, string recipeKey, PotContents contents, PotBook book, string note) =>
        NewPots.Of(id, label, vessel, recipeKey, contents, book.Graph, book.Now, book.Now, note);

    private static double Life(PotContents contents, Vessel vessel, SetGraph graph) => PotLife.Of(contents, vessel, graph.Climate).Usual;

    private static DateTimeOffset Later(DateTimeOffset a, DateTimeOffset b) => a > b ? a : b;

    private static Task<ProblemHttpResult?> Refuse(string field, string why) => Task.FromResult<ProblemHttpResult?>(Faults.One(field, why));

    private static ProblemHttpResult TooMuch(PotContents contents) => Faults.One("ml", FormattableString.Invariant($"Only {contents.Ml:0.##} ml are left in it."));
}
