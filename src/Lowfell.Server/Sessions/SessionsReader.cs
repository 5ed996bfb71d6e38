using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Core.Words;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Sessions;

/// <summary>Puts the work of some sets into the hours of their workshop, and words it.</summary>
internal sealed class SessionsReader(WorkshopRow workshop, IReadOnlyList<SetGraph> sets, DateTimeOffset now, CancellationToken stop)
{
    /// <summary>So far ahead a timetable is looked for; longer where the work needs it.</summary>
    private static readonly int[] weeksAhead = [52, 208];

    /// <summary>Counted in operations placed and not in time: asked again, the plan is the same.</summary>
    private const int Placings = 60_000, FewestRounds = 6, MostRounds = 400;
    private const int LongestBatchShare = 5;

    /// <summary>So much is laid out at once; sets of a lower rank wait.</summary>
    private const int MostOperations = 5000;

    private readonly TimeZoneInfo zone = TimeZoneInfo.TryFindSystemTimeZoneById(workshop.TimeZone, out var found) ? found : TimeZoneInfo.Utc;
    private readonly Dictionary<Guid, (SetGraph Graph, Place Place, IReadOnlyList<PieceRow> Pieces)> places = [];

    public SessionsReading Read()
    {
        var hours = BenchHours.Read(workshop.Hours, out _);
        var guessed = hours is null;
        hours ??= BenchHours.Usual;
        var limit = new BatchLimit(hours.Weekly.Max(w => (int)(w.End - w.Start).TotalMinutes) * (LongestBatchShare - 1) / LongestBatchShare);
        var (zones, leftOut) = Zones(limit);
        var set = SetWork.Of(zones, limit);
        var empty = new SessionsReading(workshop.Id, zone.Id, hours.ToString(), guessed, null, null, 0, 0, 0, 0, "", [], [], leftOut);
        if (set.Operations.Count == 0)
            return empty;
        foreach (var weeks in weeksAhead)
        {
            var evenings = hours.From(now, weeks, zone);
            var spraying = hours.SprayingFrom(evenings, zone);
            if (evenings.Count == 0)
                continue;
            var work = new Work
            {
                Hours = evenings.Select(e => new Stretch(Minute(e.Start), Minute(e.End))).Where(s => s.Minutes > 0).ToList(),
                Spraying = spraying?.Select(e => new Stretch(Minute(e.Start), Minute(e.End))).Where(s => s.Minutes > 0).ToList(),
                Painters = Math.Max(1, workshop.Painters.Length),
                SetUps = set.SetUps,
                Operations = set.Operations.Select((o, i) => o with { Id = Label(set.Batches[i]) }).ToList(),
                NotWetTogether = set.NotWetTogether,
            };
            var made = Scheduler.Make(work, new SearchLimit(Math.Clamp(Placings / work.Operations.Count, FewestRounds, MostRounds), null) { Stop = stop });
            if (made.Timetable is { } table)
                return Word(empty, work, set, table, made.Bound!);
            if (weeks == weeksAhead[^1])
                return empty with { Clash = Clash.Of(work, stop).Select(f => new PlannedClash(f.Kind, f.Words)).ToList() };
        }

        return empty;
    }

    /// <summary>The zones of as many sets as a timetable holds, by rank, and the names of those that have to wait.</summary>
    private (List<ZoneWork> Zones, List<string> LeftOut) Zones(BatchLimit limit)
    {
        var (taken, leftOut, operations) = (new List<ZoneWork>(), new List<string>(), 0);
        foreach (var graph in sets)
        {
            var zones = graph.Places.Select(p => Zone(graph, p)).OfType<ZoneWork>().ToList();
            operations += SetWork.Of(zones, limit).Operations.Count;
            if (operations <= MostOperations || taken.Count == 0)
                taken.AddRange(zones);
            else
                leftOut.Add(graph.Set.Name);
        }

        return (taken, leftOut);
    }

    private ZoneWork? Zone(SetGraph graph, Place place)
    {
        var pieces = SetGraph.PiecesOf(place.Design).ToList();
        if (pieces.Count == 0)
            return null;
        places[place.Zone.Id] = (graph, place, pieces);
        var done = graph.Given[place.Zone.Id].SelectMany(g => g.Pieces.Select(p => (g.LineId, p))).ToHashSet();
        var layers = place.Layers;
        return new ZoneWork(place.Zone.Id, place.View, pieces.Count)
        {
            Touching = graph.Touching[place.Zone.Id].ToList(),
            IsDone = (layer, piece) => done.Contains((layers[layer].Id, pieces[piece].Id)),
        };
    }

    private int Minute(DateTimeOffset at) => (int)Math.Ceiling((at - now).TotalMinutes);

    private DateTimeOffset At(int minute) => TimeZoneInfo.ConvertTime(now.AddMinutes(minute), zone);

    private string Label(Batch batch)
    {
        var place = places[batch.Zone].Place;
        return $"{EnumWords.Of(place.Layers[batch.Layer].Technique)} on {place.Name}";
    }

    private SessionsReading Word(SessionsReading empty, Work work, SetWork set, Timetable table, Bound bound)
    {
        var chain = Binding.Of(work, table);
        var binds = chain.Select((c, i) => (c.Operation, i)).ToDictionary(x => x.Operation, x => x.i);
        var closes = Closing(work, table);
        var sessions = work.Hours.Select(h =>
        {
            var mine = table.Placements.Where(p => p.Start >= h.Start && p.Start < h.End).OrderBy(p => p.Start).ToList();
            return new PlannedSession(At(h.Start), At(h.End), mine.Sum(p => p.End - p.Start), mine.Select(p => Word(set.Batches[p.Operation], p, work.Operations[p.Operation], closes, binds)).ToList());
        }).Where(s => s.Operations.Count > 0).ToList();
        return empty with
        {
            Finish = At(table.Outcome.Finish),
            SoonestFinish = At(bound.Finish),
            FewestSessions = bound.Sessions,
            HandsOnMinutes = work.Operations.Sum(o => o.Length),
            IdleMinutes = table.Outcome.Idle,
            SetUps = table.Outcome.SetUps,
            Binding = Binding.Words(work, chain),
            Sessions = sessions,
        };
    }

    /// <summary>By when what a window ties to an operation has to begin.</summary>
    private static Dictionary<int, int> Closing(Work work, Timetable table)
    {
        var closes = new Dictionary<int, int>();
        foreach (var after in work.Operations.SelectMany(o => o.After).Where(a => a.MaxWait is not null))
        {
            var at = table.Placements[after.Operation].End + after.MaxWait!.Value;
            closes[after.Operation] = closes.TryGetValue(after.Operation, out var known) ? Math.Min(known, at) : at;
        }

        return closes;
    }

    private PlannedOperation Word(Batch batch, Placement p, Operation operation, Dictionary<int, int> closes, Dictionary<int, int> binds)
    {
        var (graph, place, pieces) = places[batch.Zone];
        var layer = place.Layers[batch.Layer];
        return new PlannedOperation(
            p.Operation, graph.Set.Id, place.Zone.Id, layer.Id, graph.Set.Name, place.Design.Name, place.Zone.Name, batch.Layer + 1, EnumWords.Of(layer.Technique),
            string.Join(" + ", layer.Paint.Select(x => x.Material.Name)), place.View.Predictions[batch.Layer].Average.Colour.ToString(), batch.Pieces.Select(i => pieces[i].Label).ToList(), pieces.Count,
            At(p.Start), At(p.End), operation.WetMinutes, closes.TryGetValue(p.Operation, out var until) ? At(until) : null, binds.TryGetValue(p.Operation, out var link) ? link : null, p.Painter);
    }
}
