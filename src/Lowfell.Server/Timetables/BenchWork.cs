using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Core.Words;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Timetables;

/// <summary>How a timetable is to be made.</summary>
internal sealed record Terms(BenchHours Hours, int Painters)
{
    public Manner Manner { get; init; } = new();

    /// <summary>Layers of zones that get hot air, where their paint may see it.</summary>
    public IReadOnlySet<(Guid Zone, Guid Line)> HotAir { get; init; } = new HashSet<(Guid, Guid)>();

    /// <summary>Of the first stretch so much is lost.</summary>
    public int LateMinutes { get; init; }

    /// <summary>Layers that are not done.</summary>
    public IReadOnlySet<Omission> Without { get; init; } = new HashSet<Omission>();

    /// <summary>A plan to keep to.</summary>
    public KeptPlan? Kept { get; init; }
}

/// <summary>What one operation is.</summary>
/// <param name="Place">Where.</param>
/// <param name="Layer">The layer.</param>
/// <param name="View">The stack it is part of.</param>
/// <param name="Pieces">Those it is laid on.</param>
/// <param name="All">All pieces of the design.</param>
/// <param name="Beforehand">Its material is got ready, nothing is laid yet.</param>
internal sealed record Doing(Place Place, Layer Layer, StackView View, IReadOnlyList<PieceRow> Pieces, IReadOnlyList<PieceRow> All, bool Beforehand)
{
    public KeyOf Key => new(Place.Zone.Id, Layer.Id, Pieces[0].Id, Beforehand);
}

/// <summary>The work of a workshop's sets in its hours, and what every operation of it is.</summary>
internal sealed class BenchWork
{
    /// <summary>So much is laid out at once; sets of a lower rank wait.</summary>
    private const int MostOperations = 5000;

    private const int LongestBatchShare = 5;

    private readonly Dictionary<Guid, (Place Place, IReadOnlyList<Layer> Layers, StackView View, IReadOnlyList<PieceRow> Pieces)> zones = [];
    private readonly DateTimeOffset now;
    private readonly TimeZoneInfo clock;

    private BenchWork(WorkshopRow workshop, IReadOnlyList<SetGraph> sets, Terms terms, int weeks, DateTimeOffset now)
    {
        (this.now, clock) = (now, Clock(workshop));
        var limit = new BatchLimit(terms.Hours.Weekly.Max(w => (int)(w.End - w.Start).TotalMinutes) * (LongestBatchShare - 1) / LongestBatchShare, terms.Manner.AtOnce, terms.Manner.Careful);
        Set = SetWork.Of(Taken(sets, terms, limit), limit);
        Due = Set.Batches.Select((b, i) => (zones[b.Zone].Place.Graph.Set, i)).GroupBy(x => x.Set.Id)
            .Select(g => (g.First().Set, Operations: (IReadOnlyList<int>)g.Select(x => x.i).ToList())).Where(s => s.Set.DueDate is not null).ToList();
        var evenings = terms.Hours.From(now, weeks, clock);
        Evenings = evenings;
        var work = new Work
        {
            Hours = Late(Stretches(evenings), terms.LateMinutes),
            Spraying = terms.Hours.SprayingFrom(evenings, clock) is { } spraying ? Stretches(spraying) : null,
            Painters = terms.Painters,
            SetUps = Set.SetUps,
            Operations = Set.Operations.Select((o, i) => o with { Id = Label(Set.Batches[i]) }).ToList(),
            NotWetTogether = Set.NotWetTogether,
            DryingPlaces = workshop.DryingPlaces,
            Goal = terms.Manner.Goal,
            Deadlines = Due.Select(d => new Deadline(EndOf(d.Set.DueDate!.Value), d.Operations)).ToList(),
        };
        Work = Pinned(work, terms.Kept);
    }

    public Work Work { get; }

    /// <summary>When somebody is at the bench, each from its beginning.</summary>
    public IReadOnlyList<Evening> Evenings { get; }
    public SetWork Set { get; }

    /// <summary>Sets that wait until those before them are done.</summary>
    public List<string> LeftOut { get; } = [];

    /// <summary>Sets with a due date, with the operations of each.</summary>
    public IReadOnlyList<(SetRow Set, IReadOnlyList<int> Operations)> Due { get; }

    /// <summary>Lays the work out over some weeks; sets come in the order in which they are wanted.</summary>
    public static BenchWork Of(WorkshopRow workshop, IReadOnlyList<SetGraph> sets, Terms terms, int weeks, DateTimeOffset now) => new(workshop, sets, terms, weeks, now);

    private List<ZoneWork> Taken(IReadOnlyList<SetGraph> sets, Terms terms, BatchLimit limit)
    {
        var (taken, operations) = (new List<ZoneWork>(), 0);
        foreach (var graph in sets.OrderBy(s => s.Set.DueDate ?? DateOnly.MaxValue).ThenBy(s => s.Set.Rank).ThenBy(s => s.Set.Name, StringComparer.Ordinal))
        {
            var mine = graph.Places.Select(p => Zone(graph, p, terms)).OfType<ZoneWork>().ToList();
            operations += SetWork.Of(mine, limit).Operations.Count;
            if (operations <= MostOperations || taken.Count == 0)
                taken.AddRange(mine);
            else
                LeftOut.Add(graph.Set.Name);
        }

        return taken;
    }

    /// <summary>What is left of evenings from now on.</summary>
    private List<Stretch> Stretches(IEnumerable<Evening> evenings) => evenings.Select(e => new Stretch(Math.Max(0, Minute(e.Start)), Minute(e.End))).Where(s => s.Minutes > 0).ToList();

    /// <summary>The whole evening that a stretch is what is left of.</summary>
    public Evening EveningOf(Stretch stretch) => Evenings.First(e => Minute(e.End) == stretch.End);

    private static List<Stretch> Late(List<Stretch> hours, int minutes)
    {
        if (minutes > 0 && hours.Count > 0)
            hours[0] = hours[0] with { Start = Math.Min(hours[0].End, hours[0].Start + minutes) };
        return hours.Where(h => h.Minutes > 0).ToList();
    }

    /// <summary>The clock on a workshop's wall.</summary>
    public static TimeZoneInfo Clock(WorkshopRow workshop) => TimeZoneInfo.TryFindSystemTimeZoneById(workshop.TimeZone, out var found) ? found : TimeZoneInfo.Utc;

    /// <summary>Where a batch is and what it consists of.</summary>
    public Doing At(Batch batch)
    {
        var (place, layers, view, pieces) = zones[batch.Zone];
        return new(place, layers[batch.Layer], view, batch.Pieces.Select(i => pieces[i]).ToList(), pieces, batch.Beforehand);
    }

    public int Minute(DateTimeOffset at) => (int)Math.Clamp(Math.Ceiling((at - now).TotalMinutes), int.MinValue / 4, int.MaxValue / 4);

    public DateTimeOffset Instant(int minute) => TimeZoneInfo.ConvertTime(now.AddMinutes(minute), clock);

    /// <summary>The last minute of a day by the workshop's clock.</summary>
    private int EndOf(DateOnly day)
    {
        var wall = day.AddDays(1).ToDateTime(TimeOnly.MinValue);
        return Minute(new DateTimeOffset(wall, clock.GetUtcOffset(wall)));
    }

    /// <summary>Where a kept plan has the operations of this work, as far as it knows them.</summary>
    public List<Placement> Placed(KeptPlan kept)
    {
        var found = new List<Placement>();
        foreach (var (batch, i) in Set.Batches.Select((b, i) => (b, i)))
            if (kept.Find(At(batch)) is { } was && was.Painter < Work.Painters)
            {
                // What should have begun in the session that is on can still be done in it.
                var start = Minute(was.Start);
                if (start < 0 && Work.Hours.Count > 0 && Work.Hours[0].Start == 0 && was.Start >= EveningOf(Work.Hours[0]).Start)
                    start = 0;
                found.Add(new Placement(i, start, start + Work.Operations[i].Length, was.Painter));
            }
        return found;
    }

    /// <summary>Work whose pinned operations stay in their sessions, as long as there is such a session.</summary>
    private Work Pinned(Work work, KeptPlan? kept)
    {
        if (kept is null || kept.Operations.All(o => !o.Pinned))
            return work;
        for (var i = 0; i < Set.Batches.Count; i++)
            if (kept.Find(At(Set.Batches[i])) is { Pinned: true } was && work.Hours.FirstOrDefault(h => was.Start >= EveningOf(h).Start && Minute(was.Start) < h.End) is { Minutes: > 0 } stretch && work.Operations[i].Length <= stretch.Minutes)
                work = Moving.Pinned(work, i, stretch);
        return work;
    }

    private ZoneWork? Zone(SetGraph graph, Place place, Terms terms)
    {
        var pieces = SetGraph.PiecesOf(place.Design).ToList();
        if (pieces.Count == 0)
            return null;
        var layers = Laid(place, terms);
        var view = ReferenceEquals(layers, place.Layers) ? place.View : new StackView(place.Context, layers);
        zones[place.Zone.Id] = (place, layers, view, pieces);
        var index = pieces.Select((p, i) => (p.Id, i)).ToDictionary(x => x.Id, x => x.i);
        return new ZoneWork(place.Zone.Id, view, pieces.Count)
        {
            Design = place.Design.Id,
            Touching = graph.Touching[place.Zone.Id].ToList(),
            IsDone = (layer, piece) => graph.IsOver(place.Zone.Id, layers[layer].Id, pieces[piece].Id),
            Together = layer => terms.Kept?.Together(place.Zone.Id, layers[layer].Id).Select(g => (IReadOnlyList<int>)g.Where(index.ContainsKey).Select(p => index[p]).ToList()).ToList() ?? [],
        };
    }

    private static IReadOnlyList<Layer> Laid(Place place, Terms terms)
    {
        IReadOnlyList<Layer> layers = place.Layers;
        if (terms.Without.Count > 0)
            layers = layers.Where(l => !terms.Without.Contains(new Omission(place.Zone.SurfaceId, l.Id))).ToList();
        if (terms.HotAir.Count > 0)
            layers = layers.Select(l => terms.HotAir.Contains((place.Zone.Id, l.Id)) && l is { Drying: DryingMode.Air, Main: { } paint } && DryingModel.TakesHotAir(paint) ? l with { Drying = DryingMode.HotAir } : l).ToList();
        return layers;
    }

    private string Label(Batch batch)
    {
        var (place, layers, _, _) = zones[batch.Zone];
        var layer = layers[batch.Layer];
        return batch.Beforehand ? $"{layer.Main!.Name} {EnumWords.Of(layer.Preparation)} for {place.Name}" : $"{EnumWords.Of(layer.Technique)} on {place.Name}";
    }

    /// <summary>What may come otherwise: how long each technique takes these hands, how long each paint takes to dry.</summary>
    public IReadOnlyList<Figure> Figures()
    {
        var at = Set.Batches.Select((b, i) => (At: At(b), b.Layer, i)).Where(x => !x.At.Beforehand).ToList();
        var hands = at.GroupBy(x => x.At.Layer.Technique).Select(g => new Figure($"minutes for {EnumWords.Of(g.Key)}", g.First().At.View.Context.Pace.Error(g.Key), g.Select(x => x.i).ToList(), []));
        var drying = at.Where(x => x.At.Layer.Main is not null && x.At.View.LeavesFilm(x.Layer)).GroupBy(x => x.At.Layer.Main!.Id).Select(g =>
        {
            var span = g.First().At.View.DryingOf(g.First().Layer).RecoatMinutes;
            return new Figure($"drying of {g.First().At.Layer.Main!.Name}", span.Low > 0 ? Math.Sqrt(span.High / span.Low) - 1 : 0, [], g.Select(x => x.i).ToList());
        });
        return hands.Concat(drying).Where(f => f.Error > 0).ToList();
    }
}
