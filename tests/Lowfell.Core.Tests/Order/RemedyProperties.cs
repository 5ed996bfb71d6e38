using CsCheck;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Order;

public class RemedyProperties
{
    private static readonly (Technique Technique, Material? Material)[] choices =
    [
        (Technique.Prime, Primer), (Technique.Prime, WaterPrimer), (Technique.BaseCoat, Brown), (Technique.BaseCoat, White), (Technique.BaseCoat, Lacquer),
        (Technique.AllOverWash, Wash), (Technique.AllOverWash, EnamelWash), (Technique.PinWash, EnamelWash), (Technique.PinWash, Wash), (Technique.CleanUpExcess, Spirit),
        (Technique.CleanUpExcess, Water), (Technique.Filter, EnamelFilter), (Technique.Varnish, Matt), (Technique.Varnish, Satin), (Technique.Streak, EnamelWash),
        (Technique.CracklePaste, Crackle), (Technique.GlueAndScatter, Sand), (Technique.DryBrush, White), (Technique.DirectionalLight, White), (Technique.Dust, Dust), (Technique.Mask, null),
    ];

    private static readonly Gen<Layer> layers = Gen.Select(
        Gen.Int[0, choices.Length - 1], Gen.Int[1, 3], Gen.Int[0, 4], Gen.Int[0, 5],
        (choice, coats, wait, thin) => Lay(choices[choice].Technique, choices[choice].Material, coats, wait == 0 ? null : wait * 40,
            thin: choices[choice].Material is null || thin > 1 ? null : new Dilution(thin == 0 ? Water : Spirit, Parts.Of(2), Parts.One)));

    private static readonly Gen<(Layer[] Stack, Zone Zone, HouseRules Rules)> stacks = Gen.Select(
        layers.Array[0, 12], Gen.Enum<Relief>(), Gen.Enum<Substrate>(), Gen.Double[2, 60], Gen.Bool,
        (stack, relief, substrate, area, gloss) => (stack, Zone(relief, area, substrate), new HouseRules { PinWashSheen = gloss ? Sheen.Gloss : Sheen.Satin }));

    [Fact]
    public void Every_remedy_takes_its_finding_away_and_brings_no_new_stop() => stacks.Sample(s =>
    {
        var context = Context(s.Zone, s.Rules);
        var before = new StackView(context, s.Stack);
        var found = OrderCheck.Run(context, s.Stack);
        var stops = found.Where(f => f.Severity == Severity.Stop).Select(f => OrderCheck.Key(before, f)).ToHashSet();
        foreach (var finding in found)
        {
            foreach (var remedy in finding.Remedies)
            {
                var edited = StackEdit.Apply(s.Stack, remedy.Edits);
                var after = new StackView(context, edited);
                var left = OrderCheck.Run(context, edited);
                Assert.DoesNotContain(left, f => OrderCheck.Key(after, f) == OrderCheck.Key(before, finding));
                Assert.DoesNotContain(left, f => f.Severity == Severity.Stop && !stops.Contains(OrderCheck.Key(after, f)));
            }
        }
    }, iter: 400);

    [Fact]
    public void Findings_point_at_layers_that_exist_worst_first() => stacks.Sample(s =>
    {
        var found = OrderCheck.Run(Context(s.Zone, s.Rules), s.Stack);
        Assert.All(found, f => Assert.All(f.Layers, i => Assert.InRange(i, 0, s.Stack.Length - 1)));
        Assert.Equal(found.Select(f => f.Severity).Order(), found.Select(f => f.Severity));
    }, iter: 200);

    [Fact]
    public void Rule_ids_are_unique_and_every_rule_says_what_it_is()
    {
        Assert.Equal(OrderCheck.Rules.Count, OrderCheck.Rules.Select(r => r.Id).Distinct().Count());
        Assert.All(OrderCheck.Rules, r => Assert.Matches("^[a-z]+(-[a-z]+)*$", r.Id));
        Assert.All(OrderCheck.Rules, r => Assert.NotEmpty(r.Summary));
    }

    /// <summary>The common trouble always has a way out on a full shelf.</summary>
    [Fact]
    public void Solvent_trouble_has_at_least_one_remedy()
    {
        var found = Check(Context(), Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Satin),
            Lay(Technique.Filter, EnamelFilter), Lay(Technique.PinWash, EnamelWash), Lay(Technique.CleanUpExcess, Spirit), Lay(Technique.Varnish, Matt));
        Assert.NotEmpty(Assert.Single(found, f => f.Rule == "same-solvent").Remedies);
    }
}
