using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>What to leave out for want of time.</summary>
public sealed class FitToHoursTests
{
    private static readonly Layer[] wall =
    [
        Bench.Lay(Technique.Prime, Bench.Primer),
        Bench.Lay(Technique.BaseCoat, Bench.Brown, coats: 2),
        Bench.Lay(Technique.Patch, Bench.White),
        Bench.Lay(Technique.DryBrush, Bench.White),
        Bench.Lay(Technique.Varnish, Bench.Satin),
        Bench.Lay(Technique.PinWash, Bench.EnamelWash),
        Bench.Lay(Technique.CleanUpExcess, Bench.Spirit),
        Bench.Lay(Technique.Varnish, Bench.Matt),
        Bench.Lay(Technique.Dust, Bench.Dust),
    ];

    private static FitSurface Treatment(Layer[] stack, int pieces, double area, Func<Guid, int>? toGo = null) =>
        new(Guid.CreateVersion7(), [new FitZone(new StackView(Bench.Context(Bench.Zone(areaCm2: area)), stack), pieces, toGo ?? (_ => pieces), 0.9)]);

    private static double Minutes(FitSurface t, IEnumerable<Omission> without)
    {
        var gone = without.Where(o => o.Surface == t.Id).Select(o => o.Layer).ToHashSet();
        var zone = t.Zones[0];
        return zone.View.Layers.Where(l => !gone.Contains(l.Id)).Sum(l => HandsOn.Batch(l, zone.View.Context.Zone, zone.Pieces));
    }

    [Fact]
    public void The_curve_falls_and_every_point_of_it_is_sound_and_takes_the_minutes_it_says()
    {
        FitSurface[] all = [Treatment(wall, 8, 300), Treatment(wall[..5], 3, 40)];
        var curve = FitToHours.Of(all, TestContext.Current.CancellationToken);
        Assert.True(curve.Count > 3);
        for (var i = 0; i < curve.Count; i++)
        {
            Assert.Equal(all.Sum(t => Minutes(t, curve[i].Out)), curve[i].Minutes, 6);
            if (i > 0)
                Assert.True(curve[i].Minutes < curve[i - 1].Minutes && curve[i].Difference >= curve[i - 1].Difference - 1e-9 && curve[i].Out.Count > curve[i - 1].Out.Count);
            foreach (var t in all)
            {
                var gone = curve[i].Out.Where(o => o.Surface == t.Id).Select(o => o.Layer).ToHashSet();
                var (full, thin) = (t.Zones[0].View, new StackView(t.Zones[0].View.Context with { Shelf = [] }, t.Zones[0].View.Layers.Where(l => !gone.Contains(l.Id)).ToList()));
                Assert.DoesNotContain(full.Layers.Where(l => gone.Contains(l.Id)), l => StopHere.PurposeOf(l) == Purpose.Hold);
                var stops = OrderCheck.Glance(full).Where(f => f.Severity == Severity.Stop).Select(f => f.Rule).ToList();
                Assert.DoesNotContain(OrderCheck.Glance(thin), f => f.Severity == Severity.Stop && !stops.Contains(f.Rule));
            }
        }

        // Each further minute costs at least as much as the one before.
        var slopes = curve.Skip(1).Select((p, i) => (p.Difference - curve[i].Difference) / (curve[i].Minutes - p.Minutes)).ToList();
        Assert.Equal(slopes.Order(), slopes);
    }

    [Fact]
    public void A_wash_goes_with_its_clean_up_and_what_is_laid_somewhere_stays()
    {
        var t = Treatment(wall, 4, 100);
        var last = FitToHours.Of([t], TestContext.Current.CancellationToken)[^1].Out.Select(o => Array.FindIndex(wall, l => l.Id == o.Layer)).ToList();
        Assert.Equal(last.Contains(5), last.Contains(6));
        var begun = FitToHours.Of([Treatment(wall, 4, 100, id => id == wall[3].Id ? 3 : 4)], TestContext.Current.CancellationToken);
        Assert.DoesNotContain(begun[^1].Out, o => o.Layer == wall[3].Id);
        Assert.Equal(0, Assert.Single(FitToHours.Of([Treatment(wall, 4, 100, _ => 0)], TestContext.Current.CancellationToken)).Minutes);
        Assert.Single(FitToHours.Of([], TestContext.Current.CancellationToken));
    }

    [Fact]
    public void What_cracks_keeps_what_it_stands_on()
    {
        Layer[] crust = [Bench.Lay(Technique.BaseCoat, Bench.Brown), Bench.Lay(Technique.CracklePaste, Bench.Crackle), Bench.Lay(Technique.DryBrush, Bench.White)];
        var curve = FitToHours.Of([Treatment(crust, 24, 8)], TestContext.Current.CancellationToken);
        Assert.DoesNotContain(curve[^1].Out, o => o.Layer == crust[0].Id || o.Layer == crust[1].Id);
    }

    /// <summary>A filter that nobody sees goes before a patch that everybody does, though the patch lies first.</summary>
    [Fact]
    public void What_is_missed_least_goes_first()
    {
        Layer[] face = [Bench.Lay(Technique.Prime, Bench.Primer), Bench.Lay(Technique.BaseCoat, Bench.Brown, coats: 2), Bench.Lay(Technique.Patch, Bench.White), Bench.Lay(Technique.Filter, Bench.WaterFilter, strength: 0.02), Bench.Lay(Technique.Varnish, Bench.Matt)];
        var curve = FitToHours.Of([Treatment(face, 8, 300)], TestContext.Current.CancellationToken);
        Assert.Equal([3], curve[1].Out.Select(o => Array.FindIndex(face, l => l.Id == o.Layer)));
        Assert.InRange(curve[1].Difference, 0, 1);
    }
}
