using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Trials;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>Trials on a tile before the set: laid out, predicted, looked at, learned from, and one field chosen.</summary>
public static class TrialsEndpoints
{
    private const int LongestName = 120, MostTrials = 500;

    public static void MapTrials(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/trials/{setId:guid}").WithTags("Trials");
        group.MapGet("/", List).WithName("trials").WithSummary("The trials of a set, the newest first.").ProducesProblem(404);
        group.MapGet("/{trialId:guid}", Of).WithName("trial").WithSummary("A trial: layout, order of work, predictions, what was seen and what it teaches.").ProducesProblem(404);
        group.MapPost("/look", Look).WithName("lookAtTrial").WithSummary("The same of a trial that is not kept.").ProducesProblem(400).ProducesProblem(404);
        group.MapPost("/propose", Propose).WithName("proposeTrial").WithSummary("Which trial would tell most about a treatment.").ProducesProblem(400).ProducesProblem(404);
        group.MapPost("/", Keep).WithName("keepTrial").WithSummary("Keeps a trial of the treatment of a zone, as that is now.").Writes<TrialTold, TrialReading>(Tell, StatusCodes.Status201Created);
        group.MapPut("/{trialId:guid}", Change).WithName("changeTrial").WithSummary("Name and tile of a trial, and whether it is put away.").Writes<TrialTold, TrialReading>(Tell);
        group.MapPut("/{trialId:guid}/looks", See).WithName("lookAtField").WithSummary("The colour that was seen in a field, or none any more.").Writes<TrialTold, TrialReading>(Tell);
        group.MapPost("/{trialId:guid}/teach", Teach).WithName("teachByTrial").WithSummary("Materials are reckoned as all fields together teach; each can be taken back at its material.").Writes<TrialTold, TrialReading>(Tell);
        group.MapPost("/{trialId:guid}/bench", OnBench).WithName("trialOntoBench").WithSummary("The tile becomes a piece of the set, its steps the layers of it: for sessions and the bench.").Writes<TrialTold, TrialReading>(Tell);
        group.MapPost("/{trialId:guid}/choose", Choose).WithName("chooseField").WithSummary("A field becomes a version of the treatment it came from, or a treatment of its own.").Writes<TrialTold, TrialReading>(Tell);
    }

    private static async Task<Results<Ok<TrialsReading>, ProblemHttpResult>> List(Guid setId, LowfellDb db, CancellationToken stop)
    {
        if (await db.Sets.Where(s => s.Id == setId).Select(s => (Guid?)s.WorkshopId).FirstOrDefaultAsync(stop) is not { } workshop)
            return Problems.NotFound("set");
        var rows = await (
            from t in db.Trials.AsNoTracking()
            join z in db.Zones on t.ZoneId equals z.Id
            join d in db.Designs on z.DesignId equals d.Id
            where d.SetId == setId
            orderby t.PutAwayAt != null, t.CreatedAt descending
            select new { Trial = t, Zone = z.Name, Design = d.Name, Looks = db.TrialLooks.Count(l => l.TrialId == t.Id) }).Take(MostTrials).ToListAsync(stop);
        return TypedResults.Ok(new TrialsReading(setId, workshop, rows.Select(r => new TrialEntry(
            r.Trial.Id, r.Trial.Version, r.Trial.Name, r.Trial.ZoneId, r.Zone, r.Design, TrialReader.Body(r.Trial).Factors.Aggregate(1, (n, f) => n * f.Levels.Count), r.Looks, r.Trial.Chosen.Length > 0, r.Trial.CreatedAt, r.Trial.PutAwayAt is not null)).ToList()));
    }

    private static async Task<Results<Ok<TrialReading>, ProblemHttpResult>> Of(Guid setId, Guid trialId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(setId, trialId, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("trial");

    private static async Task<TrialReading> Tell(TrialTold told, Telling telling) => (await Read(told.SetId, told.TrialId, telling.Db, telling.Graphs, telling.Stop))!;

    private static async Task<TrialReading?> Read(Guid setId, Guid trialId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Found(setId, trialId, db.Trials.AsNoTracking(), db, graphs, stop) is not var (row, asked))
            return null;
        var looks = await db.TrialLooks.AsNoTracking().Where(l => l.TrialId == trialId).ToListAsync(stop);
        return TrialReader.Word(asked, row.Name, row, looks, await TrialLessons.Of(asked, looks, db, stop), await TrialTeaching.Done(row, asked, looks, db, stop));
    }

    private static async Task<(TrialRow Row, Asked Asked)?> Found(Guid setId, Guid trialId, IQueryable<TrialRow> rows, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await rows.FirstOrDefaultAsync(t => t.Id == trialId, stop) is { } row && await graphs.OfZone(db, row.ZoneId, stop) is { } at && at.Graph.Set.Id == setId && TrialReader.Read(at, row) is { } asked ? (row, asked) : null;

    /// <summary>A draft on the treatment of a zone of this set.</summary>
    private static async Task<(Asked? Asked, ProblemHttpResult? Refusal)> Draft(Guid setId, TrialIn entry, LowfellDb db, SetGraphs graphs, bool named, CancellationToken stop)
    {
        var faults = new Faults();
        faults.Text(entry.Name, "name", LongestName, needed: named);
        if (entry.ZoneId is not { } zone || await graphs.OfZone(db, zone, stop) is not { } at || at.Graph.Set.Id != setId)
        {
            faults.Add("zoneId", "Choose a zone of this set: its treatment is tried out.");
            return (null, faults.ToProblem());
        }

        var asked = TrialReader.Read(at, at.Layers, entry.Tile, entry.Factors, faults);
        return faults.Any ? (null, faults.ToProblem()) : (asked, null);
    }

    private static async Task<Results<Ok<TrialReading>, ProblemHttpResult>> Look(Guid setId, TrialIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var (asked, refusal) = await Draft(setId, entry, db, graphs, named: false, stop);
        return asked is null ? refusal! : TypedResults.Ok(TrialReader.Word(asked, entry.Name ?? "", null, [], null));
    }

    private static async Task<Outcome<TrialTold>> Keep(Guid setId, TrialIn entry, Write write, SetGraphs graphs)
    {
        if (await write.Db.Sets.Where(s => s.Id == setId).Select(s => (Guid?)s.WorkshopId).FirstOrDefaultAsync(write.Stop) is not { } workshop)
            return Problems.NotFound("set");
        write.In(workshop);
        if (entry.Id is not { } id || id == Guid.Empty)
            return Faults.One("id", "Give an id of its own, so that it counts once however often it is sent.");
        if (await write.Db.Trials.FirstOrDefaultAsync(t => t.Id == id, write.Stop) is { } there)
            return await Found(setId, id, write.Db.Trials, write.Db, graphs, write.Stop) is not null ? new TrialTold(setId, there.Id) : Problems.NotFound("trial");
        var (asked, refusal) = await Draft(setId, entry, write.Db, graphs, named: true, write.Stop);
        if (asked is null)
            return refusal!;
        if (TrialLayout.Of(asked.Tile, asked.Factors.Select(f => f.Shape).ToList(), asked.Held).Refusal is { Length: > 0 } why)
            return Faults.One("tile", why);
        if (await write.Db.Trials.CountAsync(t => write.Db.Zones.Any(z => z.Id == t.ZoneId && write.Db.Designs.Any(d => d.Id == z.DesignId && d.SetId == setId)), write.Stop) >= MostTrials)
            return Problems.Of(StatusCodes.Status409Conflict, "too-many", $"{MostTrials} trials are the most a set keeps; nothing was stored.");
        write.Says($"Laid out the trial {entry.Name!.Trim()}");
        write.Db.Add(new TrialRow
        {
            Id = id,
            WorkshopId = workshop,
            ZoneId = entry.ZoneId!.Value,
            Name = entry.Name.Trim(),
            TileWidthMm = (decimal)asked.Tile.WidthMm,
            TileHeightMm = (decimal)asked.Tile.HeightMm,
            Round = asked.Tile.Round,
            Relief = asked.Relief,
            Body = TrialReader.Write(new TrialBody(asked.Stack.Select(LayerWords.ToDto).ToList(), asked.Factors.Select(f => new TrialFactorDto(f.Layer, f.Levels.Select(l => l is null ? null : LayerWords.ToDto(l)).ToList())).ToList())),
            CreatedAt = write.Now,
        });
        await write.Save();
        return new TrialTold(setId, id);
    }

    private static async Task<Outcome<TrialTold>> Change(Guid setId, Guid trialId, TrialChangeIn entry, Write write, SetGraphs graphs)
    {
        await write.Hold<TrialRow>(trialId);
        if (await Found(setId, trialId, write.Db.Trials, write.Db, graphs, write.Stop) is not var (row, asked))
            return Problems.NotFound("trial");
        write.In(row.WorkshopId);
        var faults = new Faults();
        faults.Text(entry.Name, "name", LongestName, needed: false);
        faults.Require(entry.Name is null || entry.Name.Trim().Length > 0, "name", "Write something here.");
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (entry.Tile is { } wanted && TrialReader.Read(asked.At, asked.Stack, wanted, TrialReader.Body(row).Factors, faults) is { } other && TrialLayout.Of(other.Tile, other.Factors.Select(f => f.Shape).ToList(), other.Held).Refusal is { Length: > 0 } why)
            faults.Add("tile", why);
        if (faults.Any)
            return faults.ToProblem();
        write.Says(entry.PutAway is { } away ? $"{(away ? "Put away" : "Brought back")} the trial {row.Name}" : $"Changed the trial {row.Name}");
        row.Name = entry.Name?.Trim() ?? row.Name;
        if (entry.Tile is { } tile)
            (row.TileWidthMm, row.TileHeightMm, row.Round, row.Relief) = ((decimal)tile.WidthMm, (decimal)tile.HeightMm, tile.Round, tile.Relief);
        if (entry.PutAway is { } gone)
            row.PutAwayAt = gone ? row.PutAwayAt ?? write.Now : null;
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("trial", (await Read(setId, trialId, write.Db, graphs, write.Stop))!);
        await write.Save();
        return new TrialTold(setId, trialId);
    }

    private static async Task<Outcome<TrialTold>> See(Guid setId, Guid trialId, TrialLookIn entry, Write write, SetGraphs graphs)
    {
        if (await Found(setId, trialId, write.Db.Trials, write.Db, graphs, write.Stop) is not var (row, asked))
            return Problems.NotFound("trial");
        write.In(row.WorkshopId);
        var faults = new Faults();
        var layout = TrialLayout.Of(asked.Tile, asked.Factors.Select(f => f.Shape).ToList(), asked.Held).Layout;
        var cell = layout?.Cells.FirstOrDefault(c => Asked.Key(c.Levels) == entry.Cell);
        faults.Require(cell is not null, "cell", "Choose a field of this trial.");
        faults.Require(entry.Position is not null, "position", "Say where it was seen: raised, field or recess.");
        var observed = faults.Colour(entry.Observed, "observed", needed: false);
        if (faults.Any)
            return faults.ToProblem();
        await write.Hold<TrialRow>(trialId);
        var look = await write.Db.TrialLooks.FirstOrDefaultAsync(l => l.TrialId == trialId && l.Cell == entry.Cell && l.Position == entry.Position, write.Stop);
        write.Says(observed is null ? $"Took back what was seen in field {cell!.Number} of {row.Name}" : $"Noted what was seen in field {cell!.Number} of {row.Name}");
        if (observed is null && look is not null)
            write.Db.Remove(look);
        else if (observed is { } colour && look is not null)
            (look.Observed, look.At) = (colour.ToString(), write.Now);
        else if (observed is { } seen)
            write.Db.Add(new TrialLookRow { TrialId = trialId, Cell = entry.Cell!, Position = entry.Position!.Value, Observed = seen.ToString(), At = write.Now });
        await write.Save();
        return new TrialTold(setId, trialId);
    }

    private static async Task<Outcome<TrialTold>> Teach(Guid setId, Guid trialId, Write write, SetGraphs graphs)
    {
        if (await Found(setId, trialId, write.Db.Trials, write.Db, graphs, write.Stop) is not var (row, asked))
            return Problems.NotFound("trial");
        write.In(row.WorkshopId);
        var looks = await write.Db.TrialLooks.AsNoTracking().Where(l => l.TrialId == trialId).OrderBy(l => l.Cell).ThenBy(l => l.Position).ToListAsync(write.Stop);
        if (await TrialLessons.Of(asked, looks, write.Db, write.Stop) is not { } learned)
            return Faults.One("looks", "Nothing was seen in this trial yet, and so there is nothing to learn. Say first what a field looks like.");
        if (await TrialTeaching.Done(row, asked, looks, write.Db, write.Stop))
            return Problems.Of(StatusCodes.Status409Conflict, "taken-over", "What was seen in this trial was taken over already. Look at more of it first, or take the looks back at their materials.");
        await TrialTeaching.Store(row, asked, looks, learned, write);
        return new TrialTold(setId, trialId);
    }

    private static async Task<Outcome<TrialTold>> OnBench(Guid setId, Guid trialId, Write write, SetGraphs graphs)
    {
        if (await Found(setId, trialId, write.Db.Trials, write.Db, graphs, write.Stop) is not var (row, asked))
            return Problems.NotFound("trial");
        write.In(row.WorkshopId);
        await write.Hold<TrialRow>(trialId);
        return await TrialBench.Put(row, asked, write);
    }

    private static async Task<Outcome<TrialTold>> Choose(Guid setId, Guid trialId, TrialChoiceIn entry, Write write, SetGraphs graphs)
    {
        if (await Found(setId, trialId, write.Db.Trials, write.Db, graphs, write.Stop) is not var (row, asked))
            return Problems.NotFound("trial");
        write.In(row.WorkshopId);
        var faults = new Faults();
        var levels = TrialLayout.Of(asked.Tile, asked.Factors.Select(f => f.Shape).ToList(), asked.Held).Layout?.Cells.FirstOrDefault(c => Asked.Key(c.Levels) == entry.Cell);
        faults.Require(levels is not null, "cell", "Choose a field of this trial.");
        faults.Text(entry.Name, "name", LongestName, needed: false);
        faults.Require(!string.IsNullOrWhiteSpace(entry.Name) || entry.TreatmentVersion is not null, "treatmentVersion", "Give the version of the treatment that was seen, or a name for a new one.");
        if (faults.Any)
            return faults.ToProblem();
        return await TrialChoice.Store(row, asked, levels!, entry, write, graphs);
    }

    private static async Task<Results<Ok<IReadOnlyList<TrialProposal>>, ProblemHttpResult>> Propose(Guid setId, TrialQuestionIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var faults = new Faults();
        var target = faults.Colour(entry.Target, "target", needed: false);
        var at = entry.ZoneId is { } zone ? await graphs.OfZone(db, zone, stop) : null;
        faults.Require(at is not null && at.Graph.Set.Id == setId, "zoneId", "Choose a zone of this set: its treatment is asked about.");
        if (faults.Any)
            return faults.ToProblem();
        var looks = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == at!.Graph.Workshop.Id && m.Looks > 0).ToDictionaryAsync(m => m.Id, m => m.Looks, stop);
        var view = at!.View;
        var wished = target?.ToLab() ?? Towards(view, entry);
        var found = await Task.Run(() => Proposal.Rank(new Core.Order.StackView(at.Context, at.Layers).Predict, view.Layers, new Wish(entry.Position, wished), m => looks.GetValueOrDefault(m.Id), stop), stop);
        return TypedResults.Ok<IReadOnlyList<TrialProposal>>(found.Select(p =>
        {
            var asked = new Asked(at, at.Layers, p.Factors, new Tile(60, 60));
            var fields = p.Factors.Aggregate(1, (n, f) => n * f.Levels.Count);
            var words = TrialReader.Word(asked, "", null, [], null).Factors;
            return new TrialProposal(
                string.Join("; ", words.Select(w => $"{w.Words}: {string.Join(", ", w.Levels)}")), p.Factors.Select(f => new TrialFactorDto(f.Layer, f.Levels.Select(l => l is null ? null : LayerWords.ToDto(l)).ToList())).ToList(),
                Math.Round(p.ErrorNow, 1), Math.Round(p.ErrorThen, 1), fields, Math.Round((p.ErrorNow - p.ErrorThen) / fields, 2), Smallest(asked), p.Nearest is { } n ? Math.Round(n, 1) : null);
        }).ToList());
    }

    /// <summary>Plainly darker or lighter than it is now: so much of lightness.</summary>
    private const double Plainly = 8;

    private static Lab? Towards(Core.Order.StackView view, TrialQuestionIn entry)
    {
        if (entry.Wish is null or TrialWish.DecidesMost)
            return null;
        var now = view.Predictions.SeenBelow(view.Predictions.Count)[entry.Position ?? Position.Field].Lab;
        return now with { L = Math.Clamp(now.L + (entry.Wish == TrialWish.Darker ? -Plainly : Plainly), 0, 100) };
    }

    private static readonly (double Wide, double High)[] tiles = [(40, 40), (60, 40), (80, 40), (80, 60), (100, 60), (120, 80), (160, 80), (240, 80)];

    /// <summary>The smallest of usual tiles that all fields find room on; the largest where none has.</summary>
    private static TileDto Smallest(Asked asked)
    {
        var shapes = asked.Factors.Select(f => f.Shape).ToList();
        var (wide, high) = tiles.FirstOrDefault(t => TrialLayout.Of(new Tile(t.Wide, t.High), shapes, asked.Held).Layout is not null, tiles[^1]);
        return new TileDto(wide, high);
    }
}
