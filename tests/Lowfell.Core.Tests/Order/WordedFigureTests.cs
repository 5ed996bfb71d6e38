using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Order;

/// <summary>Figures of rules that no remark begins or ends at: they are said, or laid by a remedy.</summary>
public class WordedFigureTests
{
    private static readonly Layer prime = Lay(Technique.Prime, Primer), pale = Lay(Technique.BaseCoat, White, 4), matt = Lay(Technique.Varnish, Matt);

    /// <summary>A strip 8 mm wide along half of the shorter edges is what spray that drifts makes good again; a tenth more or less of it is said otherwise.</summary>
    [Fact]
    public void Overspray_is_weighed_against_a_strip_eight_millimetres_wide()
    {
        var context = Context(Zone(areaCm2: 400)) with { Shelf = FullShelf, Pieces = 20 };
        Layer[] theirs = [prime, pale];
        var why = Assert.Single(Check(Beside(context, theirs), prime with { Tool = Tool.Brush }, Lay(Technique.BaseCoat, Brown, 3) with { Tool = Tool.Airbrush }), f => f.Rule == "overspray").Why;
        string Repair(double mm)
        {
            var strip = context.Zone with { AreaCm2 = context.Zone.EdgeMm / 2 * mm / 100, EdgeMm = context.Zone.EdgeMm / 2, JointMm = 0 };
            return Duration.Words(theirs.Sum(l => HandsOn.Batch(l, strip, 20)));
        }

        Assert.Contains($"costs about {Repair(8)} over the pieces", why, StringComparison.Ordinal);
        Assert.NotEqual(Repair(8), Repair(8.8));
        Assert.NotEqual(Repair(8), Repair(7.2));
    }

    /// <summary>Opaque paint thinned to less than three fifths is a veil, and no remedy makes a coat of it; thinned less, it may be laid neat.</summary>
    [Theory]
    [InlineData(0.59, false)]
    [InlineData(0.61, true)]
    public void A_veil_of_opaque_paint_begins_at_three_fifths(double paint, bool neat)
    {
        Layer Glaze(double strength) => Lay(Technique.Glaze, White, strength: strength, thin: new Dilution(Water, Parts.Of((decimal)paint), Parts.Of(1 - (decimal)paint)));
        Layer[] Stack(double strength) => [prime, Lay(Technique.BaseCoat, Brown, 2), Glaze(strength), matt];
        var context = Context() with { Shelf = FullShelf };
        var strength = Enumerable.Range(1, 400).Select(n => n * 0.0005).Last(s => new StackView(context, Stack(s)).Predictions[2].LargestChange < 0.8);
        var remark = Assert.Single(Check(context, Stack(strength)), f => f.Rule == "no-visible-change");
        Assert.Equal(neat, remark.Remedies.Any(r => r.Id == "neat"));
    }

    [Fact]
    public void Remedies_lay_as_much_as_they_say()
    {
        static Layer By(string remedy, Finding finding) => finding.Remedies.Single(r => r.Id == remedy).Edits.OfType<StackEdit.Replace>().Single().Layer;
        var context = Context() with { Shelf = FullShelf };
        IEnumerable<Finding> Of(string rule, params Layer[] stack) => OrderCheck.Rules.Single(r => r.Facts.Id == rule).Check(new StackView(context, stack));
        var played = context with { Zone = context.Zone with { Handling = Handling.HardPlay } };
        var fixing = Assert.Single(Check(played, prime, Lay(Technique.BaseCoat, Brown, 2), matt, Lay(Technique.Pigment, Dust, region: Region.LowerThird)), f => f.Rule == "pigment-sealed").Remedies.SelectMany(r => r.Edits).OfType<StackEdit.Insert>().First().Layer;
        Assert.Equal((0.5, Region.LowerThird), (fixing.Strength, fixing.Region));
        var thin = By("thin-coat", Of("light-buried", prime, Lay(Technique.DirectionalLight, White, 2), Lay(Technique.BaseCoat, Brown, 3), matt).Single());
        Assert.Equal((0.6, 1, Tool.Airbrush), (thin.Strength, thin.Coats, thin.Tool));
        foreach (var (strength, heavier) in new[] { (0.01, 0.02), (1.45, 2.9) })
            Assert.Equal(heavier, By("heavier", Of("no-visible-change", prime, Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Stipple, Brown, strength: strength), matt).Single()).Strength, 1e-9);
        Assert.DoesNotContain(Of("no-visible-change", prime, Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Stipple, Brown, strength: 1.55), matt).Single().Remedies, r => r.Id == "heavier");
    }

    /// <summary>Of all washes and filters that water carries, the two that set a zone furthest from its neighbour are offered, the further first.</summary>
    [Fact]
    public void Two_ways_are_offered_to_tell_neighbours_apart()
    {
        Layer[] stack = [prime, Lay(Technique.BaseCoat, Brown, 2), matt], theirs = [.. stack.Select(l => l with { Id = Guid.NewGuid() })];
        var washes = new[] { "#6a4a34", "#000000", "#5a4030", "#402010", "#705038" }.Select((colour, n) => Make($"Wash {n}", MaterialKind.Wash, Carrier.WaterAcrylic, colour)).ToList();
        var context = Context() with { Shelf = washes };
        context = Beside(context, theirs);
        var remark = OrderCheck.Rules.Single(r => r.Facts.Id == "same-tone-neighbours").Check(new StackView(context, stack)).Single();
        Assert.Equal(["shift-wash-1", "shift-wash-3"], remark.Remedies.Select(r => r.Id));
    }
}
