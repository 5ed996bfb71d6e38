using Lowfell.Core.Bench;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Instruments;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Core.Words;
using Lowfell.Server.Stacks;
using Lowfell.Server.Timetables;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>Words the bench as it stands.</summary>
internal sealed class BenchReader(Planner planner, LowfellDb db, DateTimeOffset now, CancellationToken stop)
{
    private const int MostSteps = 12, MostOthers = 200, MostRefusals = 20, LooksBackHours = 96;

    private Dictionary<PieceKey, PieceLayerRow> kept = [];
    private ILookup<string, BenchPot> pots = Array.Empty<BenchPot>().ToLookup(_ => "");
    private IReadOnlyList<ToldMishap> mishaps = [];
    private Room room = new(Climate.Standard, []);
    private DryingCourse course = new(new(Climate.Standard, []), now);

    /// <summary>The air as it is measured now; null where it is as typed.</summary>
    private Climate? Measured => room.Newest(now) is null ? null : room.At(now);
    private readonly Dictionary<(Guid, int), StackView> blown = [];

    public async Task<BenchReading> Read(TimetableRow? row, string device)
    {
        await Load();
        var plan = row is null ? null : KeptPlan.Read(row.Plan);
        var made = await System.Threading.Tasks.Task.Run(() => plan is null ? planner.Best(planner.Terms) : planner.Closest(planner.By(plan)), stop);
        var (tasks, begins, ends) = Session(made);
        var taken = tasks.SelectMany(t => t.Also.Select(a => (a.ZoneId, a.LayerId)).Append((t.ZoneId, t.LayerId))).ToHashSet();
        var last = await db.BenchDevices.AsNoTracking().Where(d => d.WorkshopId == planner.Workshop.Id && d.Device == device).Select(d => (long?)d.LastNumber).FirstOrDefaultAsync(stop) ?? 0;
        var refused = await db.BenchRefusals.AsNoTracking().Where(r => r.WorkshopId == planner.Workshop.Id && r.Device == device && r.Number != null && r.Settled == null).OrderByDescending(r => r.Number).Take(MostRefusals).Select(r => new BenchRefusal(r.EventId, r.Number!.Value, r.Why, null)).ToListAsync(stop);
        return new BenchReading(
            planner.Workshop.Id, now, last, planner.Workshop.Painters, begins, ends, plan is null ? "" : Late(made, plan), planner.Sets.Count > 0 ? planner.Sets[0].Set.Id : null, tasks, Others(taken), Wet(), await Steps(device), refused, room.Since is not null);
    }

    /// <summary>A layer on all pieces that want it; null where there is no such layer.</summary>
    public async Task<BenchTask?> Task(Guid zone, Guid line)
    {
        await Load();
        var place = planner.Sets.Select(s => s.Find(zone)).FirstOrDefault(p => p is not null);
        if (place is null || IndexOf(place.Layers, line) is not (>= 0 and var index))
            return null;
        var open = Open(place, line);
        var also = Beside(place, line).Where(j => open.SequenceEqual(Open(j.Place, j.Layer.Id)));
        return Word([new Job(place, place.View, index), .. also], open, false, null);
    }

    /// <summary>A layer at a place in the stack of a zone.</summary>
    private sealed record Job(Place Place, StackView View, int Index)
    {
        public Layer Layer => View.Layers[Index];

        /// <summary>The layer with all its surfaces: what is one application has one.</summary>
        public Guid Row { get; } = Place.Graph.Rows(Place.Zone).First(r => r.LineId == View.Layers[Index].Id).Layer.Id;
    }

    /// <summary>The same layer on the other zones of its design.</summary>
    private static IEnumerable<Job> Beside(Place place, Guid line)
    {
        var row = place.Graph.Rows(place.Zone).First(r => r.LineId == line).Layer.Id;
        return from zone in place.Design.Zones
               where zone.Id != place.Zone.Id && zone.TreatmentId == place.Zone.TreatmentId
               let its = place.Graph.Rows(zone).FirstOrDefault(r => r.Layer.Id == row)
               where its is not null && place.Graph.Find(zone.Id) is not null
               let other = place.Graph.Find(zone.Id)
               select new Job(other, other.View, IndexOf(other.Layers, its.LineId));
    }

    /// <summary>Pieces on which a layer is still to do.</summary>
    private List<PieceRow> Open(Place place, Guid line) => SetGraph.PiecesOf(place.Design).Where(p => !IsOver(new(place.Zone.Id, line, p.Id))).ToList();

    private async Task Load()
    {
        mishaps = await MishapBook.Read(db, planner.Workshop.Id, stop);
        var typed = new Climate((double)planner.Workshop.TemperatureC, (double)planner.Workshop.RelativeHumidity, planner.Workshop.AirMoves);
        room = await RoomBook.Read(db, planner.Workshop.Id, typed, now.AddHours(-LooksBackHours), stop);
        course = new DryingCourse(room, now);
        var zones = planner.Sets.SelectMany(s => s.Places).Select(p => p.Zone.Id).ToList();
        kept = await db.PieceLayers.AsNoTracking().Where(p => zones.Contains(p.ZoneId)).ToDictionaryAsync(p => new PieceKey(p.ZoneId, p.LineId, p.PieceId), stop);
        pots = (await db.Pots.AsNoTracking().Where(p => p.WorkshopId == planner.Workshop.Id && p.RecipeKey != "").Select(p => new { p.RecipeKey, p.Id, p.Label, Ml = p.Contents.Sum(c => c.Ml) }).Where(p => p.Ml > 0).ToListAsync(stop))
            .ToLookup(p => p.RecipeKey, p => new BenchPot(p.Id, p.Label, Math.Round(p.Ml, 1)));
    }

    /// <summary>The session that is on, or the next one.</summary>
    private (IReadOnlyList<BenchTask> Tasks, DateTimeOffset? Begins, DateTimeOffset? Ends) Session(Made made)
    {
        if (made.Table is not { Placements.Count: > 0 } table)
            return ([], null, null);
        var first = table.Placements.Min(p => p.Start);
        var hours = made.Bench.Work.Hours.First(h => first < h.End);
        var mine = table.Placements.Where(p => p.Start < hours.End).OrderBy(p => p.Start).ThenBy(p => p.Painter).ToList();
        var operations = mine.Select(p =>
        {
            var batch = made.Bench.Set.Batches[p.Operation];
            var at = made.Bench.At(batch);
            return (Job: new Job(at.Place, at.View, batch.Layer), Pieces: at.Pieces.Where(x => !IsOver(new(at.Place.Zone.Id, at.Layer.Id, x.Id))).ToList(), at.Beforehand, p.Painter, p.Start);
        }).Where(o => o.Pieces.Count > 0);

        // One layer over several zones of the same pieces is one thing to do.
        var tasks = operations.GroupBy(o => (o.Job.Row, o.Job.Place.Design.Id, o.Beforehand, o.Painter, Pieces: string.Join(' ', o.Pieces.Select(x => x.Id))))
            .Select(g => Word(g.Select(o => o.Job).ToList(), g.First().Pieces, g.Key.Beforehand, made.Bench.Instant(g.First().Start))).ToList();
        var evening = made.Bench.EveningOf(hours);
        return (tasks, evening.Start, evening.End);
    }

    /// <summary>In a sentence what late work does to the plan; empty while it holds.</summary>
    private static string Late(Made made, KeptPlan plan)
    {
        if (made.Table is not { Placements.Count: > 0 } table || plan.Operations.Count == 0)
            return "";
        var (was, now) = (plan.Operations.Max(o => o.End), made.Bench.Instant(table.Outcome.Finish));
        if (made.Moved.Count == 0 && now.Date <= was.Date)
            return "";
        var moved = made.Moved.Count == 0 ? "" : $"{made.Moved.Count} of {table.Placements.Count} operations come in another session than planned. ";
        return moved + FormattableString.Invariant($"Finished {now:ddd d MMM}{(now.Date == was.Date ? " all the same" : FormattableString.Invariant($" rather than {was:ddd d MMM}"))}.");
    }

    private bool IsOver(PieceKey key) => kept.TryGetValue(key, out var row) && (row.State is PieceState.Done or PieceState.Skipped || (row.Coats > 0 && row.Coats >= Planned(key)));

    /// <summary>In how many coats the plan has a layer now; more than anybody lays where it has none.</summary>
    private int Planned(PieceKey key) => planner.Sets.Select(s => s.Find(key.Zone)).FirstOrDefault(p => p is not null)?.Layers.FirstOrDefault(l => l.Id == key.Line)?.Coats ?? int.MaxValue;

    private BenchTask Word(IReadOnlyList<Job> jobs, IReadOnlyList<PieceRow> pieces, bool beforehand, DateTimeOffset? planned)
    {
        var (place, layer, view) = (jobs[0].Place, jobs[0].Layer, jobs[0].View);

        // What is laid now dries in the air of now, and goes on when all of it is ready.
        var pace = course.PaceNow(layer.Carrier);
        var dries = jobs.Select(j => Dries(j.View, j.Index, hotAir: j.Layer.Drying == DryingMode.HotAir)).ToList();
        var window = jobs.SelectMany(j => StackWindows.Of(j.View).Where(w => w.Earlier == j.Index).Select(w => (j.View, Of: w))).OrderBy(w => w.Of.Window.ClosesMinutes).Select(w => ((StackView View, LayerWindow Of)?)w).FirstOrDefault();
        return new BenchTask(
            place.Graph.Set.Id, place.Zone.Id, layer.Id, place.Graph.Set.Name, place.Design.Name, place.Zone.Name, jobs[0].Index + 1, layer.Technique, string.Join(" + ", layer.Paint.Select(p => p.Material.Name)),
            Colour(jobs[0]), place.Design.Silhouette, EnumWords.Of(layer.Tool), layer.Region, beforehand,
            Math.Round(jobs.Sum(j => HandsOn.PerPiece(j.Layer, j.Place.Context.Zone, place.Context.Pace)), 1), Math.Round(jobs.Sum(j => HandsOn.Batch(j.Layer, j.Place.Context.Zone, Math.Max(1, pieces.Count), place.Context.Pace)), 1),
            Math.Round(dries.Max(d => d.Touch) / pace), Math.Round(dries.Max(d => d.Ready) / pace), layer.Main is { } paint && DryingModel.TakesHotAir(paint) && view.LeavesFilm(jobs[0].Index),
            window is { } w && !beforehand ? new BenchWindow(EnumWords.Of(w.View.Layers[w.Of.Later].Technique), Math.Round(w.Of.Window.OpensMinutes / pace), Math.Round(w.Of.Window.ClosesMinutes / pace)) : null,
            Mix(jobs, pieces.Count), beforehand ? [$"{Duration.Words(Preparations.LeadMinutes(layer.Preparation).Usual)} before it is laid: {EnumWords.Of(layer.Preparation)}."] : [.. Note(place, layer), .. jobs.SelectMany(j => Watch.For(j.Layer, j.Place.Context.Zone, Measured)).Distinct()],
            Care.For(layer, place.Design.Substrate).Select(c => c.Text).ToList(),
            beforehand ? [] : Mishaps.For(layer.Technique, mishaps), PiecesOf(place, layer, pieces, beforehand), planned, jobs[0].Row, jobs.Skip(1).Select(j => Also(j, layer)).ToList(), layer.Coats);
    }

    private static string Colour(Job job) => job.View.Predictions[job.Index].Average.Colour.ToString();

    private static BenchAlso Also(Job job, Layer first) =>
        new(job.Place.Zone.Id, job.Layer.Id, job.Place.Zone.Name, Colour(job), string.Join(", ", StackDifference.Changes(first with { DownTo = job.Layer.DownTo }, job.Layer)));

    /// <summary>What the painter wrote at the layer.</summary>
    private static IEnumerable<string> Note(Place place, Layer layer) =>
        place.Graph.Rows(place.Zone).Where(l => l.LineId == layer.Id && l.Layer.Note.Length > 0).Select(l => char.ToUpperInvariant(l.Layer.Note[0]) + l.Layer.Note[1..] + (l.Layer.Note.EndsWith('.') ? "" : "."));

    private List<BenchPiece> PiecesOf(Place place, Layer layer, IReadOnlyList<PieceRow> pieces, bool beforehand)
    {
        var words = layer.Varied is { } varied && !beforehand ? PlanOfPieces.Of(place, layer, varied).Pieces.ToDictionary(p => p.Piece.Id, p => p.Words) : [];
        return pieces.Select(p => Piece(place.Zone.Id, layer.Id, p) with { Planned = words.GetValueOrDefault(p.Id, "") }).ToList();
    }

    private BenchPiece Piece(Guid zone, Guid line, PieceRow piece) =>
        kept.TryGetValue(new(zone, line, piece.Id), out var row) ? new(piece.Id, piece.Label, row.State, row.BegunAt, Coats: row.Coats) : new(piece.Id, piece.Label, PieceState.Open, null);

    private BenchMix? Mix(IReadOnlyList<Job> jobs, int pieces)
    {
        var layer = jobs[0].Layer;
        if (Recipe.Of(layer) is not { } recipe || jobs.Sum(j => Quantities.PotMl(j.Layer, j.Place.Context.Zone, Math.Max(1, pieces))) is not (> 0 and var ml))
            return null;
        var drops = WholeDrops.Nearest(recipe, (decimal)ml);
        return new BenchMix(
            recipe.Key, string.Join(" + ", layer.Paint.Select(p => p.Material.Name)), layer.Dilution is { } d ? $"{d} {d.Thinner.Name}" : "neat",
            Math.Round(ml, 1), recipe.Parts.Zip(drops.Counts).Select(x => new BenchPart(x.First.Material.Id, x.First.Material.Name, x.Second, UsualMeasures.DoesNotDrip(x.First.Material.Kind), WholeDrops.UnitMl(x.First))).ToList(), pots[recipe.Key].OrderByDescending(p => p.Ml).ToList());
    }

    /// <summary>Minutes until a layer may be touched, and until what follows may go on.</summary>
    private (double Touch, double Ready) Dries(StackView view, int index, bool hotAir)
    {
        if (hotAir && view.Layers[index].Drying == DryingMode.Air)
        {
            if (!blown.TryGetValue((view.Layers[index].Id, index), out var warm))
                blown[(view.Layers[index].Id, index)] = warm = new StackView(view.Context, view.Layers.Select((l, i) => i == index ? l with { Drying = DryingMode.HotAir } : l).ToList());
            view = warm;
        }

        var dries = view.DryingOf(index);
        var next = view.NextAbove(index, j => view.LeavesFilm(j) && view.FilmBelow(j) == index);
        return (dries.TouchMinutes.Usual, next < 0 ? dries.RecoatMinutes.Usual : view.Needed(index, next).Minutes.Usual);
    }

    /// <summary>What was laid in the last days and is still wet, waits, or has to be followed.</summary>
    private List<BenchWet> Wet()
    {
        var found = new List<BenchWet>();
        foreach (var place in planner.Sets.SelectMany(s => s.Places))
        {
            var labels = place.Design.Pieces.ToDictionary(p => p.Id, p => p.Label);
            var windows = new Lazy<IReadOnlyList<LayerWindow>>(() => StackWindows.Of(place.View));
            for (var i = 0; i < place.Layers.Count; i++)
                foreach (var (piece, label) in labels)
                {
                    if (!kept.TryGetValue(new(place.Zone.Id, place.Layers[i].Id, piece), out var row) || row.DoneAt is not { } done || done < now.AddHours(-LooksBackHours) || !place.View.LeavesFilm(i))
                        continue;
                    var (touch, ready) = Dries(place.View, i, row.HotAir);
                    var window = windows.Value.Where(w => w.Earlier == i && !IsOver(new(place.Zone.Id, place.Layers[w.Later].Id, piece))).OrderBy(w => w.Window.ClosesMinutes).Select(w => (LayerWindow?)w).FirstOrDefault();
                    DateTimeOffset After(double minutes) => course.After(done, minutes, place.Layers[i].Carrier);
                    if (After(Math.Max(touch, ready)) < now && window is null)
                        continue;
                    found.Add(new BenchWet(
                        place.Zone.Id, place.Layers[i].Id, piece, row.DoneById!.Value, place.Design.Name, place.Zone.Name, label, place.Layers[i].Technique, place.View.Predictions[i].Average.Colour.ToString(), done, After(touch), After(ready),
                        window is { } w ? EnumWords.Of(place.Layers[w.Later].Technique) : null, window is { } o ? After(o.Window.OpensMinutes) : null, window is { } c ? After(c.Window.ClosesMinutes) : null));
                }
        }

        return found.OrderBy(w => w.ClosesAt ?? DateTimeOffset.MaxValue).ThenBy(w => w.ReadyAt).ThenBy(w => w.Piece.Length).ThenBy(w => w.Piece, StringComparer.Ordinal).ToList();
    }

    /// <summary>The next layer of every zone that is not in the session: work outside of the timetable.</summary>
    private List<BenchOther> Others(HashSet<(Guid, Guid)> taken) => planner.Sets.SelectMany(s => s.Places).Select(place =>
    {
        for (var i = 0; i < place.Layers.Count; i++)
            if (Open(place, place.Layers[i].Id) is { Count: > 0 } open)
                return taken.Contains((place.Zone.Id, place.Layers[i].Id)) ? null : new Next(new Job(place, place.View, i), open);
        return null;
    }).OfType<Next>().GroupBy(n => (n.Job.Row, n.Job.Place.Design.Id, string.Join(' ', n.Open.Select(p => p.Id)))).Select(g => g.Select(n => n.Job).ToList() is var jobs ? new BenchOther(
        jobs[0].Place.Zone.Id, jobs[0].Layer.Id, $"{EnumWords.Of(jobs[0].Layer.Technique)}, {string.Join(", ", jobs.Skip(1).Select(j => j.Place.Zone.Name).Prepend(jobs[0].Place.Name))}", g.First().Open.Count) : null!).Take(MostOthers).ToList();

    private sealed record Next(Job Job, List<PieceRow> Open);

    /// <summary>What was told last, as it can be taken back.</summary>
    private async Task<List<BenchStep>> Steps(string device)
    {
        var rows = await db.WorkEvents.AsNoTracking().Where(e => e.WorkshopId == planner.Workshop.Id && e.DeviceNumber != null && e.Kind != WorkKind.TakenBack && !db.WorkEvents.Any(u => u.UndoesId == e.Id))
            .OrderByDescending(e => e.Sequence).Take(MostSteps).Select(e => new { e.Id, e.Kind, e.At, e.Actor, e.Device, e.ZoneId, e.Coats, Also = e.Also.Select(a => a.ZoneId).ToList(), e.Note, Pot = e.Kind == WorkKind.Made || e.Kind == WorkKind.ToppedUp ? db.Pots.Where(p => p.Id == e.PotId).Select(p => p.Label).FirstOrDefault() : null, Pieces = e.Pieces.Select(p => p.PieceId).ToList() }).AsSplitQuery().ToListAsync(stop);
        var labels = planner.Sets.SelectMany(s => s.Designs).SelectMany(d => d.Pieces).ToDictionary(p => p.Id, p => p.Label);
        var names = planner.Sets.SelectMany(s => s.Places).ToDictionary(p => p.Zone.Id, p => p.Name);
        return rows.Select(r => new BenchStep(r.Id, r.Kind, string.Join(", ", new[] { r.ZoneId is { } z ? string.Join(", ", r.Also.Prepend(z).Select(x => names.GetValueOrDefault(x)).OfType<string>()) : r.Pot, r.Coats is { } n ? $"{n} {(n == 1 ? "coat" : "coats")}" : null, string.Join(' ', r.Pieces.Select(p => labels.GetValueOrDefault(p, "?")).OrderBy(l => l.Length).ThenBy(l => l, StringComparer.Ordinal)), r.Note }.Where(x => !string.IsNullOrEmpty(x))), r.At, r.Actor, r.Device == device)).ToList();
    }

    private static int IndexOf(IReadOnlyList<Layer> layers, Guid line)
    {
        for (var i = 0; i < layers.Count; i++)
            if (layers[i].Id == line)
                return i;
        return -1;
    }
}
