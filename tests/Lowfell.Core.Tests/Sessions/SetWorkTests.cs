using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Core.Tests.Precedence;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Operations that come of treatments, and what a timetable of them means for every single piece.</summary>
public sealed class SetWorkTests
{
    private static readonly Layer[] brick =
    [
        Lay(Technique.Prime, Bench.Primer, Tool.SprayCan),
        Lay(Technique.BaseCoat, Bench.Brown, Tool.Brush),
        Lay(Technique.Varnish, Bench.Satin, Tool.Airbrush),
        Lay(Technique.PinWash, Bench.EnamelWash, Tool.Brush),
        Lay(Technique.CleanUpExcess, Bench.Spirit, Tool.Swab),
        Lay(Technique.Varnish, Bench.Matt, Tool.Airbrush),
    ];

    private static Layer Lay(Technique technique, Lowfell.Core.Materials.Material material, Tool tool) => new() { Technique = technique, Paint = [new MixPart(material, Parts.One)], Tool = tool };

    private static ZoneWork Zone(int pieces, double areaCm2 = 60, Func<int, int, bool>? done = null) =>
        new(Guid.CreateVersion7(), new StackView(new StackContext(Bench.Zone(areaCm2: areaCm2), new SetTerms(56, 0.9, Lowfell.Core.Materials.Sheen.Matt, Handling.Careful), new HouseRules(), Climate.Standard, []), brick), pieces) { IsDone = done ?? ((_, _) => false) };

    private static Work Timed(SetWork work, int painters = 1) => new()
    {
        Hours = WorkSamples.Evenings(12),
        Painters = painters,
        SetUps = work.SetUps,
        Operations = work.Operations,
        NotWetTogether = work.NotWetTogether,
    };

    [Fact]
    public void The_dryer_is_held_a_few_pieces_at_a_time_and_the_next_coat_waits_no_longer_for_it()
    {
        Layer[] stack = [Lay(Technique.BaseCoat, Bench.Brown, Tool.Brush) with { Drying = DryingMode.HotAir }, Lay(Technique.DryBrush, Bench.White, Tool.Brush), Lay(Technique.PinWash, Bench.EnamelWash, Tool.Brush) with { Drying = DryingMode.HotAir }];
        var zone = Zone(9) with { View = new StackView(Zone(1).View.Context, stack) };
        var work = SetWork.Of([zone], new(130));
        foreach (var (batch, i) in work.Batches.Select((b, i) => (b, i)))
            Assert.InRange(work.Operations[i].HotAirMinutes, batch.Layer == 0 ? 1 : 0, batch.Layer == 0 ? (batch.Pieces.Count + 3) / 4 * 5 : 0);
        var still = SetWork.Of([zone with { View = new StackView(zone.View.Context, [stack[0] with { Drying = DryingMode.Air }, .. stack[1..]]) }], new(130));
        int Longest(SetWork of) => of.Batches.Select((b, i) => (b, i)).Where(x => x.b.Layer == 1).SelectMany(x => of.Operations[x.i].After).Max(a => a.MinWait);
        Assert.True(Longest(work) < Longest(still), $"{Longest(work)} and {Longest(still)}");
        Assert.Empty(TimetableCheck.Faults(Timed(work, 2), Scheduler.Make(Timed(work, 2), new(30, null)).Timetable!));
    }

    [Fact]
    public void What_nothing_reaches_later_is_dry_before_the_piece_is_put_together()
    {
        var design = Guid.CreateVersion7();
        var context = Zone(1).View.Context;
        var inside = new ZoneWork(Guid.CreateVersion7(), new StackView(context with { Zone = context.Zone with { BeforeAssembly = true } }, brick[..2]), 6) { Design = design };
        var outside = new ZoneWork(Guid.CreateVersion7(), new StackView(context, [brick[0], new Layer { Technique = Technique.Assemble }, brick[1]]), 6) { Design = design };
        var work = SetWork.Of([outside, inside], new(20));
        var table = Scheduler.Make(Timed(work), new(60, null)).Timetable!;
        Assert.Empty(TimetableCheck.Faults(Timed(work), table));
        var touch = inside.View.DryingOf(1).TouchMinutes.Usual;
        for (var piece = 0; piece < 6; piece++)
        {
            Placement Of(ZoneWork zone, int layer) => table.Placements[work.Batches.ToList().FindIndex(b => b.Zone == zone.Id && b.Layer == layer && b.Pieces.Contains(piece))];
            Assert.True(Of(outside, 1).Start >= Of(inside, 1).End + touch);
        }
    }

    /// <summary>What the order of the piece says holds to the minute in any timetable, for every piece.</summary>
    [Fact]
    public void No_timetable_turns_round_what_the_order_of_a_piece_keeps() => RandomPieces.All.Sample(zones =>
    {
        var design = Guid.CreateVersion7();
        var taken = zones.Select((z, here) => new ZoneWork(z.Id, new StackView(RandomPieces.Around(zones, here), z.Layers), 2) { Design = design, Touching = z.Touching.ToList() }).ToList();
        var work = SetWork.Of(taken, new(130, AtOnce: 1));
        if (Scheduler.Make(Timed(work) with { Hours = WorkSamples.Evenings(60) }, new(4, null)).Timetable is not { } table)
            return;
        var at = work.Batches.Select((b, i) => (b, i)).Where(x => !x.b.Beforehand).ToDictionary(x => (x.b.Zone, x.b.Layer, x.b.Pieces[0]), x => table.Placements[x.i]);
        var order = taken[0].View.Piece!;
        foreach (var edge in order.Kept)
            for (var piece = 0; piece < 2; piece++)
            {
                Placement Of(int step, int on) => at[(zones[on].Id, order.LayerOf(step, on), piece)];
                Assert.True(Of(edge.First, edge.FirstOn).End <= Of(edge.Second, edge.SecondOn).Start, $"{edge}");
            }
    }, iter: 60);

    [Fact]
    public void A_warmer_room_and_a_thinner_crackle_never_end_later()
    {
        Gen.Select(Gen.Int[1, 8], Gen.Int[8, 17], Gen.Int[18, 30], Gen.Double[0.4, 0.9]).Sample((pieces, cool, warm, thin) =>
        {
            Work Of(double degrees, double strength)
            {
                Layer[] crust = [Lay(Technique.BaseCoat, Bench.Brown, Tool.Brush), Lay(Technique.CracklePaste, Bench.Crackle, Tool.Spatula) with { Strength = strength }, Lay(Technique.DryBrush, Bench.White, Tool.Brush)];
                var zone = Zone(pieces, 20);
                return Timed(SetWork.Of([zone with { View = new StackView(zone.View.Context with { Climate = new Climate(degrees, 0.5) }, crust) }], new(130)));
            }

            // What is begun from a plan that had to wait longer ends no later than it.
            void NoLater(Work slower, Work quicker)
            {
                var known = Scheduler.Make(slower, new(20, null)).Timetable!;
                var found = Scheduler.Make(quicker, new SearchLimit(20, null) { Begin = known.Placements }).Timetable!;
                Assert.Empty(TimetableCheck.Faults(quicker, found));
                Assert.True(found.Outcome.LastStretch <= known.Outcome.LastStretch);
                Assert.True(Scheduler.BoundOf(quicker)!.Finish <= Scheduler.BoundOf(slower)!.Finish);
            }

            NoLater(Of(cool, 1), Of(warm, 1));
            NoLater(Of(20, 1), Of(20, thin));
        }, iter: 40);
    }

    /// <summary>Piece by piece, whatever way batches are cut: nothing is waited for less, and no window is longer.</summary>
    [Fact]
    public void A_careful_plan_waits_longer_and_keeps_shorter_windows()
    {
        Gen.Select(Gen.Int[1, 12], Gen.Double[20, 120]).Sample((pieces, area) =>
        {
            var zone = Zone(pieces, area);
            SetWork usual = SetWork.Of([zone], new(130, AtOnce: 1)), careful = SetWork.Of([zone], new(130, AtOnce: 1, Careful: true));
            var longer = 0;
            foreach (var (one, other) in usual.Operations.Zip(careful.Operations))
                foreach (var (a, b) in one.After.Zip(other.After))
                {
                    Assert.Equal(a.Operation, b.Operation);
                    Assert.True(b.MaxWait is { } most ? most < a.MaxWait : a.MaxWait is null);
                    Assert.True(b.MinWait >= a.MinWait || b.MinWait == b.MaxWait);
                    longer += b.MinWait > a.MinWait ? 1 : 0;
                }

            Assert.True(longer >= pieces * 3);
            var work = Timed(SetWork.Of([zone], new(130, Careful: true)));
            Assert.Empty(TimetableCheck.Faults(work, Scheduler.Make(work, new(20, null)).Timetable!));
        }, iter: 30);
    }

    [Fact]
    public void What_has_to_be_got_ready_is_so_before_it_is_laid_and_has_not_gone_off()
    {
        Layer[] stack = [Lay(Technique.BaseCoat, Bench.Brown, Tool.Brush), Lay(Technique.CracklePaste, Bench.Crackle, Tool.Spatula) with { Preparation = Preparation.LeftOpen }, Lay(Technique.DryBrush, Bench.White, Tool.Brush) with { Preparation = Preparation.WarmedAndShaken }];
        var zone = Zone(6) with { View = new StackView(Zone(1).View.Context, stack) };
        var work = SetWork.Of([zone], new(130, AtOnce: 3));
        var ready = work.Batches.Select((b, i) => (b, i)).Where(x => x.b.Beforehand).ToList();
        Assert.Equal([1, 1], ready.Select(x => x.b.Layer));
        var timed = Timed(work);
        var table = Scheduler.Make(timed, new(60, null)).Timetable!;
        Assert.Empty(TimetableCheck.Faults(timed, table));
        foreach (var (batch, i) in ready)
        {
            var laid = work.Batches.ToList().FindIndex(b => !b.Beforehand && b.Layer == 1 && b.Pieces.SequenceEqual(batch.Pieces));
            Assert.InRange(table.Placements[laid].Start - table.Placements[i].End, 30, 120);
        }
    }

    [Fact]
    public void A_piece_is_not_turned_onto_a_face_that_is_wet()
    {
        var design = Guid.CreateVersion7();
        var context = Zone(1).View.Context;
        ZoneWork Face(Orientation looks, Guid of) => new(Guid.CreateVersion7(), new StackView(context with { Zone = context.Zone with { Orientation = looks } }, brick[..2]), 3) { Design = of };
        Orientation up = new(0.8, 0.2, 0), down = new(0, 0.2, 0.8), side = new(0.1, 0.8, 0.1);
        Assert.NotEmpty(SetWork.Of([Face(up, design), Face(down, design)], new(130)).NotWetTogether);
        Assert.Empty(SetWork.Of([Face(up, design), Face(side, design)], new(130)).NotWetTogether);
        Assert.Empty(SetWork.Of([Face(up, design), Face(down, Guid.CreateVersion7())], new(130)).NotWetTogether);
    }

    [Fact]
    public void A_plan_that_is_kept_is_cut_as_it_was_and_what_is_new_comes_by_itself()
    {
        var zone = Zone(10, done: (layer, piece) => layer == 0 && piece == 4) with { Together = layer => layer < 2 ? [[0, 5], [4, 9, 1]] : [] };
        var work = SetWork.Of([zone], new(130));
        Assert.Equal(["0 5", "9 1"], work.Batches.Where(b => b.Layer == 0).Take(2).Select(b => string.Join(' ', b.Pieces)));
        Assert.Equal(["0 5", "4 9 1"], work.Batches.Where(b => b.Layer == 1).Take(2).Select(b => string.Join(' ', b.Pieces)));
        Assert.Equal(Enumerable.Range(0, 10).Where(p => p != 4), work.Batches.Where(b => b.Layer == 0).SelectMany(b => b.Pieces).Order());
    }

    [Fact]
    public void Every_piece_gets_every_layer_that_it_has_not_got()
    {
        Gen.Select(Gen.Int[1, 30], Gen.Int[0, 6]).Sample((pieces, done) =>
        {
            var work = SetWork.Of([Zone(pieces, done: (layer, piece) => layer < done && piece % 2 == 0)], new(130));
            for (var layer = 0; layer < brick.Length; layer++)
                Assert.Equal(Enumerable.Range(0, pieces).Where(p => layer >= done || p % 2 != 0), work.Batches.Where(b => b.Layer == layer).SelectMany(b => b.Pieces));
        }, iter: 60);
    }

    [Fact]
    public void No_batch_is_longer_than_a_stretch_holds_and_their_minutes_are_those_of_the_estimate()
    {
        var zone = Zone(8);
        var work = SetWork.Of([zone], new(130, AtOnce: 8));
        Assert.All(work.Operations, o => Assert.InRange(o.Minutes, 1, 130));
        var whole = work.Batches.Select((b, i) => (b, i)).First(x => x.b.Layer == 1 && x.b.Pieces.Count > 1);
        var figures = zone.View.Figures(1);
        Assert.Equal(HandsOn.Batch(brick[1], zone.View.Context.Zone, whole.b.Pieces.Count), work.Operations[whole.i].Minutes + figures.SetUpMinutes + figures.CleanUpMinutes, 1.0);
    }

    [Fact]
    public void For_every_piece_waits_and_windows_hold_to_the_minute()
    {
        Gen.Select(Gen.Int[1, 16], Gen.Int[20, 150], Gen.Int[1, 2]).Sample((pieces, area, painters) =>
        {
            var zone = Zone(pieces, area);
            var work = SetWork.Of([zone], new(130));
            var timed = Timed(work, painters);
            var table = Scheduler.Make(timed, new(200, null)).Timetable!;
            Assert.Empty(TimetableCheck.Faults(timed, table));

            // Each piece of a batch takes its share of the minutes, one after the other.
            (double Start, double End) At(int layer, int piece)
            {
                var i = work.Batches.ToList().FindIndex(b => b.Layer == layer && b.Pieces.Contains(piece));
                var each = work.Operations[i].Minutes / (double)work.Batches[i].Pieces.Count;
                var place = work.Batches[i].Pieces.ToList().IndexOf(piece);
                return (table.Placements[i].Start + place * each, table.Placements[i].Start + (place + 1) * each);
            }

            var windows = StackWindows.Of(zone.View);
            Assert.Contains(windows, w => (w.Earlier, w.Later) == (3, 4));
            for (var piece = 0; piece < pieces; piece++)
                for (var layer = 1; layer < brick.Length; layer++)
                {
                    var waited = At(layer, piece).Start - At(layer - 1, piece).End;
                    var window = windows.FirstOrDefault(w => w.Later == layer);
                    if (window != default)
                        Assert.InRange(waited, window.Window.OpensMinutes - 1e-6, window.Window.ClosesMinutes + 1);
                    else if (zone.View.FilmBelow(layer) == layer - 1)
                        Assert.True(waited >= zone.View.Needed(layer - 1, layer).Minutes.Usual - 1e-6);
                }
        }, iter: 40);
    }

    [Fact]
    public void A_cooler_room_never_ends_sooner()
    {
        Outcome At(double celsius)
        {
            var zone = Zone(6);
            var cold = zone with { View = new StackView(zone.View.Context with { Climate = new Climate(celsius, 0.5) }, brick) };
            return Scheduler.Make(Timed(SetWork.Of([cold], new(130, AtOnce: 3))), new(3000, null)).Timetable!.Outcome;
        }

        Assert.True(At(12).LastStretch >= At(20).LastStretch);
        Assert.True(At(20).LastStretch >= At(26).LastStretch);
    }

    [Fact]
    public void Touching_zones_are_kept_from_being_wet_together()
    {
        ZoneWork one = Zone(4), other = Zone(4);
        var work = SetWork.Of([one with { Touching = [other.Id] }, other with { Touching = [one.Id] }], new(130));
        Assert.NotEmpty(work.NotWetTogether);
        Assert.All(work.NotWetTogether, p => Assert.NotEqual(work.Batches[p.First].Zone, work.Batches[p.Second].Zone));
        var timed = Timed(work);
        Assert.Empty(TimetableCheck.Faults(timed, Scheduler.Make(timed, new(60, null)).Timetable!));
    }
}
