using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;

namespace Lowfell.Core.Sessions;

/// <summary>A zone with its stack and its pieces, as a timetable looks at it.</summary>
/// <param name="Id">Of the zone.</param>
/// <param name="View">Its stack.</param>
/// <param name="Pieces">How many pieces of its design there are.</param>
public sealed record ZoneWork(Guid Id, StackView View, int Pieces)
{
    /// <summary>Zones that touch it on the same piece: they are not wet together.</summary>
    public IReadOnlyList<Guid> Touching { get; init; } = [];

    /// <summary>The design whose pieces it is on: zones of one design share them.</summary>
    public Guid Design { get; init; }

    /// <summary>Pieces that a layer was to be laid on together, where there is a plan: it is cut as it was. Empty where there is none.</summary>
    public Func<int, IReadOnlyList<IReadOnlyList<int>>> Together { get; init; } = _ => [];

    /// <summary>Whether a piece has a layer already, by their indices.</summary>
    public Func<int, int, bool> IsDone { get; init; } = (_, _) => false;
}

/// <summary>A layer of a zone on some of its pieces: what one operation is.</summary>
/// <param name="Zone">The zone.</param>
/// <param name="Layer">Index of the layer.</param>
/// <param name="Pieces">Their indices.</param>
/// <param name="Beforehand">Its material is got ready, nothing is laid yet.</param>
public sealed record Batch(Guid Zone, int Layer, IReadOnlyList<int> Pieces, bool Beforehand = false);

/// <summary>How batches are cut, and what they keep to.</summary>
/// <param name="LongestMinutes">No operation is longer: a stretch has to hold it with its set-up.</param>
/// <param name="AtOnce">No more pieces at once; null as many as windows and stretch allow.</param>
/// <param name="Careful">Waits are as long as slow drying asks, windows as short as they may be; otherwise both are as usual.</param>
public sealed record BatchLimit(int LongestMinutes, int? AtOnce = null, bool Careful = false)
{
    /// <summary>What is waited for a span, minutes.</summary>
    public double Waits(Span3 minutes) => Careful ? minutes.High : minutes.Usual;
}

/// <summary>
/// The operations of treatments on the pieces that still want them. A batch runs as a production line: waits and windows are counted
/// piece by piece, so that the next layer can begin on the first piece while the last one is still wet.
/// </summary>
public sealed record SetWork(IReadOnlyList<Operation> Operations, IReadOnlyList<SetUp> SetUps, IReadOnlyList<(int First, int Second)> NotWetTogether, IReadOnlyList<Batch> Batches)
{
    /// <summary>The work of some zones.</summary>
    public static SetWork Of(IReadOnlyList<ZoneWork> zones, BatchLimit limit)
    {
        var maker = new Maker(limit);
        foreach (var zone in zones)
            maker.Add(zone);
        maker.KeepApart(zones);
        maker.ByPiece(zones);
        return new SetWork(maker.Operations, maker.SetUps, maker.Apart, maker.Batches);
    }

    private sealed class Maker(BatchLimit limit)
    {
        private readonly Dictionary<string, int> setUps = [];
        private readonly Dictionary<(Guid Zone, int Layer), List<int>> byLayer = [];

        public List<Operation> Operations { get; } = [];
        public List<SetUp> SetUps { get; } = [];
        public List<Batch> Batches { get; } = [];
        public List<(int, int)> Apart { get; } = [];

        public void Add(ZoneWork zone)
        {
            var view = zone.View;
            var windows = StackWindows.Of(view).Select(w => limit.Careful ? w with { Window = w.Window.OnTheSafeSide() } : w).ToList();
            for (var i = 0; i < view.Count; i++)
            {
                var pieces = Enumerable.Range(0, zone.Pieces).Where(p => !zone.IsDone(i, p)).ToList();
                if (pieces.Count == 0)
                    continue;
                var each = HandsOn.PerPiece(view.Layers[i], view.Context.Zone, view.Context.Pace);
                var atOnce = AtOnce(zone, i, each, windows);
                foreach (var group in Groups(pieces, zone.Together(i), atOnce))
                    Add(zone, i, group, windows);
            }
        }

        /// <summary>As they were together before, as long as that still fits; what is new by itself.</summary>
        private static IEnumerable<int[]> Groups(List<int> pieces, IReadOnlyList<IReadOnlyList<int>> together, int atOnce)
        {
            var left = pieces.ToHashSet();
            foreach (var group in together)
                foreach (var part in group.Where(left.Remove).ToList().Chunk(atOnce))
                    yield return part;
            foreach (var part in pieces.Where(left.Contains).Chunk(atOnce))
                yield return part;
        }

        private void Add(ZoneWork zone, int layer, int[] pieces, IReadOnlyList<LayerWindow> windows)
        {
            var view = zone.View;
            var minutes = Minutes(view, layer, pieces.Length);
            var after = new List<After>();
            for (var below = 0; below < layer; below++)
            {
                // Each waits for the one below it in the stack, and for the film it goes on to be dry.
                var film = below == view.FilmBelow(layer);
                var window = windows.FirstOrDefault(w => w.Earlier == below && w.Later == layer);
                if (below != layer - 1 && !film && window == default)
                    continue;
                double wait = film ? limit.Waits(view.Needed(below, layer).Minutes) : 0;
                if (below == layer - 1)
                    wait = Math.Max(wait, view.Layers[below].WaitMinutes ?? 0);
                if (window != default)
                    wait = Math.Min(Math.Max(wait, window.Window.OpensMinutes), window.Window.ClosesMinutes);
                else if (IsBlown(view, below))
                    wait = Math.Max(0, wait - Math.Min(LongestHeld, limit.Waits(view.DryingOf(below).RecoatMinutes)));
                foreach (var earlier in byLayer.GetValueOrDefault((zone.Id, below)) ?? [])
                    if (Link(earlier, pieces, minutes, wait, window == default ? null : window.Window.ClosesMinutes) is { } link)
                        after.Add(link);
            }

            if (Prepare(zone, layer, pieces) is { } ready)
                after.Add(ready);
            var at = Operations.Count;
            Operations.Add(new Operation($"{zone.Id:n} {layer} {pieces[0]}", minutes, SetUpOf(view, layer), HotAir(view, layer, pieces.Length), (int)Math.Ceiling(limit.Waits(view.DryingOf(layer).TouchMinutes))) { After = after });
            Batches.Add(new Batch(zone.Id, layer, pieces));
            if (!byLayer.TryGetValue((zone.Id, layer), out var those))
                byLayer[(zone.Id, layer)] = those = [];
            those.Add(at);
        }

        /// <summary>
        /// What has to be got ready is work of its own: the hands for a moment, then its lead time, and it does not keep for ever. Null where
        /// nothing has.
        /// </summary>
        private After? Prepare(ZoneWork zone, int layer, int[] pieces)
        {
            if (Preparations.Of(zone.View.Layers[layer]) is not (not Preparation.None and var preparation))
                return null;
            Operations.Add(new Operation($"{zone.Id:n} {layer} {pieces[0]} beforehand", (int)Preparations.HandsMinutes, WetMinutes: 0));
            Batches.Add(new Batch(zone.Id, layer, pieces, Beforehand: true));
            var lead = (int)Math.Ceiling(limit.Waits(Preparations.LeadMinutes(preparation)));
            return new After(Operations.Count - 1, lead, Math.Max(lead, (int)Preparations.KeepsMinutes(preparation)));
        }

        /// <summary>
        /// The wait between two batches that share pieces: piece by piece, the later one starts no sooner than it is dry, and no later than
        /// its window. Null when they share none.
        /// </summary>
        private After? Link(int earlier, int[] pieces, int minutes, double wait, double? closes)
        {
            var before = Batches[earlier].Pieces;
            double a = Operations[earlier].Minutes / (double)before.Count, b = minutes / (double)pieces.Length;
            double least = double.NegativeInfinity, most = double.PositiveInfinity;
            for (var k = 0; k < pieces.Length; k++)
            {
                var was = IndexOf(before, pieces[k]);
                if (was < 0)
                    continue;

                // Counted from the end of the earlier batch to the start of this one; under the dryer all of a batch end together.
                double shift = (was + 1 - before.Count) * a - k * b, hot = Operations[earlier].HotAirMinutes;
                least = Math.Max(least, hot > 0 ? wait - k * b : shift + wait);
                if (closes is { } close)
                    most = Math.Min(most, shift - hot + close);
            }

            if (double.IsNegativeInfinity(least))
                return null;
            var min = (int)Math.Ceiling(least);
            return new After(earlier, min, double.IsPositiveInfinity(most) ? null : Math.Max(min, (int)Math.Floor(most)));
        }

        private static int IndexOf(IReadOnlyList<int> list, int value)
        {
            for (var i = 0; i < list.Count; i++)
                if (list[i] == value)
                    return i;
            return -1;
        }

        /// <summary>As many pieces as a stretch holds, and as a window leaves time for: the first must not set while the last is worked on.</summary>
        private int AtOnce(ZoneWork zone, int layer, double each, IReadOnlyList<LayerWindow> windows)
        {
            var most = (double)(limit.AtOnce ?? zone.Pieces);
            most = Math.Min(most, Math.Max(1, Math.Floor(limit.LongestMinutes / Math.Max(each, 0.1))));
            foreach (var w in windows.Where(w => w.Earlier == layer || w.Later == layer))
            {
                var slower = Math.Max(PerPiece(zone.View, w.Earlier), PerPiece(zone.View, w.Later));
                var change = Figures(zone.View, w.Earlier).CleanUpMinutes + Figures(zone.View, w.Later).SetUpMinutes;
                most = Math.Min(most, Math.Max(1, Math.Floor((w.Window.ClosesMinutes - change) / Math.Max(slower, 0.1))));
            }

            return (int)Math.Max(1, most);
        }

        private static double PerPiece(StackView view, int layer) => HandsOn.PerPiece(view.Layers[layer], view.Context.Zone, view.Context.Pace);

        private static TechniqueFigures Figures(StackView view, int layer) => view.Context.Pace.Figures(view.Layers[layer].Technique, view.Layers[layer].Tool);

        private static int Minutes(StackView view, int layer, int pieces)
        {
            var figures = Figures(view, layer);
            return (int)Math.Ceiling(HandsOn.Batch(view.Layers[layer], view.Context.Zone, pieces, view.Context.Pace) - figures.SetUpMinutes - figures.CleanUpMinutes);
        }

        /// <summary>The dryer held in hand: what the coat needs under it, a few pieces at a time, and no longer than an arm lasts.</summary>
        private int HotAir(StackView view, int layer, int pieces) => !IsBlown(view, layer) ? 0
            : (int)Math.Ceiling(Math.Min(LongestHeld, limit.Waits(view.DryingOf(layer).RecoatMinutes))) * ((pieces + UnderTheDryer - 1) / UnderTheDryer);

        /// <summary>What is planned under hot air and may see it: otherwise the plan waits as if there were none.</summary>
        private static bool IsBlown(StackView view, int layer) => view.Layers[layer] is { Drying: DryingMode.HotAir, Main: { } paint } && DryingModel.TakesHotAir(paint) && view.LeavesFilm(layer);

        private const int UnderTheDryer = 4, LongestHeld = 5;

        /// <summary>The same tool with the same mix is one set-up; work with nothing in it needs none.</summary>
        private int SetUpOf(StackView view, int layer)
        {
            var figures = Figures(view, layer);
            if (figures.SetUpMinutes + figures.CleanUpMinutes <= 0)
                return -1;
            var l = view.Layers[layer];
            var key = $"{l.Tool} {figures.SetUpMinutes} {Recipe.Of(l)?.Key}";
            if (setUps.TryGetValue(key, out var known))
                return known;
            SetUps.Add(new SetUp(key, (int)Math.Ceiling((double)figures.SetUpMinutes), (int)Math.Ceiling((double)figures.CleanUpMinutes), l.Tool is Tool.Airbrush or Tool.SprayCan));
            return setUps[key] = SetUps.Count - 1;
        }

        /// <summary>One looks up and the other down, on the same pieces: one of them is lain on.</summary>
        private static bool AreOpposite(ZoneWork one, ZoneWork other)
        {
            if (one.Design != other.Design || one.Design == Guid.Empty)
                return false;
            var (a, b) = (one.View.Context.Zone.Orientation, other.View.Context.Zone.Orientation);
            return (a.Up > MostOfIt && b.Down > MostOfIt) || (a.Down > MostOfIt && b.Up > MostOfIt);
        }

        private const double MostOfIt = 0.5;

        /// <summary>What the order of each piece asks between its zones: what would soil another comes before that stands finished, piece by piece.</summary>
        public void ByPiece(IReadOnlyList<ZoneWork> zones)
        {
            foreach (var design in zones.GroupBy(z => z.Design).Where(d => d.Key != Guid.Empty))
            {
                var here = design.ToList();
                var order = PieceOrder.Of(here.Select(InPiece).ToList(), here[0].View.Context.Pieces, here[0].View.Context.Pace);
                foreach (var edge in order.Kept.Where(e => e.FirstOn != e.SecondOn).DistinctBy(e => (e.First, e.Second, e.FirstOn, e.SecondOn)))
                    Wait((here[edge.FirstOn], order.LayerOf(edge.First, edge.FirstOn)), (here[edge.SecondOn].Id, order.LayerOf(edge.Second, edge.SecondOn)), edge.Why);
            }
        }

        /// <summary>One layer waits for another of the same piece; to put it together that is dry to the touch.</summary>
        private void Wait((ZoneWork Zone, int Layer) first, (Guid Zone, int Layer) second, Why why)
        {
            var wait = why == Why.Assembly ? limit.Waits(first.Zone.View.DryingOf(first.Layer).TouchMinutes) : 0;
            foreach (var later in byLayer.GetValueOrDefault(second) ?? [])
                foreach (var earlier in byLayer.GetValueOrDefault((first.Zone.Id, first.Layer)) ?? [])
                    if (Link(earlier, [.. Batches[later].Pieces], Operations[later].Minutes, wait, null) is { } link)
                        Operations[later] = Operations[later] with { After = [.. Operations[later].After, link] };
        }

        private static PieceZone InPiece(ZoneWork zone) =>
            (zone.View.Context.Piece is { } piece ? piece.Zones[piece.Here] : new PieceZone(zone.Id, zone.View.Context.Zone, zone.Id, zone.Id, [])) with
            {
                Layers = zone.View.Layers,
                Touching = zone.Touching.ToHashSet(),
            };

        /// <summary>
        /// Batches of zones that touch, or look opposite ways, share pieces and both leave something wet: a piece is turned onto its other
        /// face only when that is dry to the touch.
        /// </summary>
        public void KeepApart(IReadOnlyList<ZoneWork> zones)
        {
            var byZone = Batches.Select((b, i) => (b, i)).ToLookup(x => x.b.Zone);
            var views = zones.ToDictionary(z => z.Id, z => z.View);
            foreach (var zone in zones)
                foreach (var other in zones.Where(o => zone.Id.CompareTo(o.Id) < 0 && (zone.Touching.Contains(o.Id) || AreOpposite(zone, o))).Select(o => o.Id))
                    foreach (var (one, i) in byZone[zone.Id].Where(x => !x.b.Beforehand && zone.View.LeavesFilm(x.b.Layer)))
                        foreach (var (two, j) in byZone[other].Where(x => !x.b.Beforehand && views[other].LeavesFilm(x.b.Layer)))
                            if (one.Pieces.Intersect(two.Pieces).Any())
                                Apart.Add((i, j));
        }
    }
}
