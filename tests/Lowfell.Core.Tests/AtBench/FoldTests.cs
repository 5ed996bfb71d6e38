using CsCheck;
using Lowfell.Core.Bench;

namespace Lowfell.Core.Tests.AtBench;

/// <summary>What events come to, beside a plain and slow way to say the same.</summary>
public sealed class FoldTests
{
    private static readonly DateTimeOffset begin = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);
    private static readonly Guid[] zones = Ids(2), lines = Ids(2), pieces = Ids(3);
    private static readonly string[] devices = ["one", "two", ""];

    private static Guid[] Ids(int n) => Enumerable.Range(0, n).Select(_ => Guid.NewGuid()).ToArray();

    /// <summary>Anything in any order, at instants that often are the same, with nights between; on one zone or on both, in all coats or in some.</summary>
    private static readonly Gen<List<BenchEvent>> stories = Gen.Select(
        Gen.Enum<DoneKind>(), Gen.Int[0, 3], Gen.Int[0, 1], Gen.Int[1, 7], Gen.Int[0, 40], Gen.Int[0, 2], Gen.Int[0, 2], Gen.Int[0, 35],
        (kind, zone, line, which, minute, night, device, said) => (kind, zone, line, which, at: begin.AddMinutes(minute).AddHours(night * 13), device, said: said % 4, coats: said / 4)).List[0, 40].Select(all => all.Select((x, i) => new BenchEvent(
            Guid.NewGuid(), (i * 37) % 41, x.at, devices[x.device], x.kind, zones[x.zone % 2], lines[x.line], pieces.Where((_, p) => (x.which & 1 << p) != 0).ToList())
        {
            WholeCoats = 1 + x.coats / 3,
            Also = x.zone < 2 ? [] : [new Target(zones[1 - x.zone % 2], lines[x.line]) { Coats = 3 - x.coats / 3 }],
            Coats = x.coats % 3 == 0 ? null : x.coats % 3,
            Layer = lines[x.line],
            Pot = x.which % 2 == 0 ? zones[0] : null,
            Filling = x.which % 2 == 0 ? x.which : null,
            Note = $"{x.kind} {i}",
            EstimateMinutes = x.said == 0 ? null : 4,
            SaidMinutes = x.said == 3 ? 5 : null,
        }).ToList());

    [Fact]
    public void Layers_on_pieces_are_what_looking_back_says_they_are() => stories.Sample(story =>
    {
        var folded = PieceFold.Of(story);
        foreach (var key in from z in zones from l in lines from p in pieces select new PieceKey(z, l, p))
        {
            // By its last words: each question is asked of the whole story by itself.
            var mine = story.Where(e => e.Targets.Any(t => (t.Zone, t.Line) == (key.Zone, key.Line)) && e.Pieces.Contains(key.Piece)).OrderBy(e => e.At).ThenBy(e => e.Sequence).ToList();
            if (mine.Count == 0)
            {
                Assert.False(folded.ContainsKey(key));
                continue;
            }

            var layer = folded[key];
            var sinceWipe = mine.Skip(mine.FindLastIndex(e => e.Kind == DoneKind.Wiped) + 1).ToList();
            var laid = sinceWipe.FindLastIndex(e => e.Kind == DoneKind.Given);
            var sinceLaid = sinceWipe.Skip(laid + 1).ToList();
            var (coats, whole) = Coats(sinceWipe.Take(laid + 1).Where(e => e.Kind == DoneKind.Given).ToList(), key);
            Assert.Equal((coats, coats >= whole), (layer.Coats, layer.State == PieceState.Done));
            Assert.Equal(laid >= 0 ? sinceWipe[laid].At : null, layer.DoneAt);
            Assert.Equal(laid >= 0 ? sinceWipe[laid].Id : (Guid?)null, layer.DoneBy);
            Assert.Equal(laid >= 0 ? (sinceWipe[laid].Pot, sinceWipe[laid].Filling) : default, (layer.Pot, layer.Filling));
            Assert.Equal(laid >= 0 && sinceLaid.Any(e => e.Kind == DoneKind.HotAir), layer.HotAir);
            Assert.Equal(mine.Count(e => e.Kind == DoneKind.Wiped), layer.Wipes);
            Assert.Equal(mine.Count(e => e.Kind == DoneKind.Mishap), layer.Mishaps);
            Assert.Equal(sinceLaid.Any(e => e.Kind == DoneKind.Accepted), layer.Accepted);
            Assert.Equal(mine[^1].At, layer.At);
            if (coats < whole)
            {
                var last = sinceLaid.LastOrDefault(e => e.Kind is DoneKind.Begun or DoneKind.Skipped || (e.Kind == DoneKind.Paused && Before(sinceLaid, e) == DoneKind.Begun));
                Assert.Equal(last?.Kind switch { null => coats > 0 ? PieceState.Partly : PieceState.Open, DoneKind.Begun => PieceState.Begun, DoneKind.Paused => PieceState.Paused, _ => PieceState.Skipped }, layer.State);
            }
        }
    });

    /// <summary>How many coats givings come to, and how many are wanted by the last of them: each that was counted is added, any other makes it whole.</summary>
    private static (int Coats, int Whole) Coats(List<BenchEvent> givings, PieceKey key)
    {
        if (givings.Count == 0)
            return (0, 1);
        var (last, before) = (givings[^1], Coats(givings[..^1], key).Coats);
        var whole = last.Targets.Single(t => t.Zone == key.Zone).Coats;
        return (last.Coats is { } more ? before + more : Math.Max(before, whole), whole);
    }

    /// <summary>The last thing before an event that decides whether hands are on it.</summary>
    private static DoneKind? Before(List<BenchEvent> story, BenchEvent e) =>
        story.TakeWhile(x => x != e).LastOrDefault(x => x.Kind is DoneKind.Begun or DoneKind.Skipped or DoneKind.Paused)?.Kind;

    [Fact]
    public void The_order_in_which_events_are_heard_of_does_not_matter() => Gen.Select(stories, Gen.Int).Sample((story, seed) =>
    {
        var shuffled = story.ToArray();
        new Random(seed).Shuffle(shuffled);
        Assert.Equal(PieceFold.Of(story).OrderBy(x => x.Key.GetHashCode()).Select(x => x.Value), PieceFold.Of(shuffled).OrderBy(x => x.Key.GetHashCode()).Select(x => x.Value));
        Assert.Equal(TakenTimes.Of(story), TakenTimes.Of(shuffled));
    });

    /// <summary>Minute by minute: a hand is on a layer or it is not, and what is given takes the minutes since the last giving.</summary>
    [Fact]
    public void Times_are_the_minutes_in_which_hands_were_on_it() => stories.Sample(story =>
    {
        var taken = TakenTimes.Of(story).ToDictionary(t => t.Event);
        foreach (var device in devices)
        {
            var mine = story.Where(e => e.Device == device).OrderBy(e => e.At).ThenBy(e => e.Sequence).ToList();
            for (var i = 0; i < mine.Count; i++)
            {
                var e = mine[i];
                if (e.Kind != DoneKind.Given || device.Length == 0)
                {
                    Assert.False(taken.ContainsKey(e.Id));
                    continue;
                }

                var expected = e.SaidMinutes ?? Slowly(mine, i);
                Assert.Equal(expected is not null, taken.TryGetValue(e.Id, out var time));
                if (expected is not { } minutes)
                    continue;
                Assert.Equal((e.Pieces.Count, minutes), (time!.Pieces, time.Minutes), Near);
                Assert.Equal(minutes > 0 && (e.SaidMinutes is not null || e.EstimateMinutes is null || minutes <= 8), time.Counts);
            }
        }
    });

    private static readonly IEqualityComparer<(int, double)> Near = EqualityComparer<(int, double)>.Create((a, b) => a.Item1 == b.Item1 && Math.Abs(a.Item2 - b.Item2) < 1e-9, _ => 0);

    /// <summary>Walks back from a giving to where its time began; null where its layer was not begun on this device that day.</summary>
    private static double? Slowly(List<BenchEvent> mine, int given)
    {
        bool Meet(BenchEvent a, BenchEvent b) => a.Targets.Select(t => (t.Zone, t.Line)).Intersect(b.Targets.Select(t => (t.Zone, t.Line))).Any();
        var from = given;
        while (from > 0 && mine[from].At - mine[from - 1].At <= TimeSpan.FromHours(12))
            from--;

        // Hands are on the layer that was begun last; what else is told meanwhile takes them off nothing.
        var day = mine[from..(given + 1)];
        var last = day.FindLastIndex(e => e.Kind == DoneKind.Begun);
        if (last < 0 || !Meet(day[last], mine[given]))
            return null;

        // One that is begun goes on with what was begun before it, as far as they have a zone in common.
        var (run, hands) = (last, day[last]);
        while (run >= 0 && (day[run].Kind != DoneKind.Begun || Meet(day[run], hands)))
        {
            hands = day[run].Kind == DoneKind.Begun ? day[run] : hands;
            run--;
        }

        var begun = day[(run + 1)..].SkipWhile(e => e.Kind != DoneKind.Begun).ToList();
        var story = begun.Where((e, i) => e.Kind == DoneKind.Begun || Meet(e, begun.Take(i).Last(b => b.Kind == DoneKind.Begun))).ToList();
        var (minutes, on, implied) = (0.0, false, false);
        DateTimeOffset since = default;
        foreach (var e in story)
        {
            if (on && !implied && e.Kind != DoneKind.Begun)
                (minutes, since) = (minutes + (e.At - since).TotalMinutes, e.At);
            else if (on && implied && e.Kind is DoneKind.Given or DoneKind.Paused)
                minutes += (e.At - since).TotalMinutes;
            if (e == mine[given])
                return minutes;
            switch (e.Kind)
            {
                case DoneKind.Begun when !on || implied:
                    (since, on, implied) = (e.At, true, false);
                    break;
                case DoneKind.Paused:
                    (on, implied) = (false, false);
                    break;
                case DoneKind.Given:
                    (minutes, since, on, implied) = (0, e.At, true, true);
                    break;
                default:
                    break;
            }
        }

        throw new InvalidOperationException("The giving is in its own story.");
    }
}
