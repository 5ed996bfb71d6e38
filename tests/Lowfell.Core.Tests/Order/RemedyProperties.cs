using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Order;

public class RemedyProperties
{
    private static readonly (Technique Technique, Material? Material)[] choices =
    [
        (Technique.Prime, Primer), (Technique.Prime, WaterPrimer), (Technique.BaseCoat, Brown), (Technique.BaseCoat, White), (Technique.BaseCoat, Lacquer),
        (Technique.AllOverWash, Wash), (Technique.AllOverWash, EnamelWash), (Technique.PinWash, EnamelWash), (Technique.PinWash, Wash), (Technique.CleanUpExcess, Spirit),
        (Technique.CleanUpExcess, Water), (Technique.Filter, EnamelFilter), (Technique.Varnish, Matt), (Technique.Varnish, Satin), (Technique.Streak, RustRun),
        (Technique.CracklePaste, Crackle), (Technique.GlueAndScatter, Sand), (Technique.DryBrush, White), (Technique.DirectionalLight, White), (Technique.Dust, Dust), (Technique.Mask, null),
        (Technique.ChippingFluid, Fluid), (Technique.SealTexture, Pva), (Technique.Render, Filler), (Technique.TexturePaste, Paste), (Technique.Tuft, Tufts), (Technique.Decal, Decal),
        (Technique.CrackleMedium, CrackleCoat), (Technique.EdgeLine, Metal), (Technique.Pigment, Fixer), (Technique.Pigment, Dust), (Technique.Glaze, Red), (Technique.BaseCoat, Dark), (Technique.Patch, Brown),
        (Technique.Rim, Brown), (Technique.Assemble, Instant), (Technique.TrimAndTouchUp, Brown), (Technique.Scratch, null), (Technique.Unmask, null),
    ];

    private static readonly Gen<Layer> layers = Gen.Select(
        Gen.Int[0, choices.Length - 1], Gen.Int[1, 3], Gen.Int[0, 4], Gen.Int[0, 5], Gen.Int[0, 11], Gen.Int[0, 3],
        (choice, coats, wait, thin, variant, strength) => Lay(choices[choice].Technique, choices[choice].Material, coats, wait == 0 ? null : wait * wait * 40,
            thin: choices[choice].Material is null || thin > 1 ? null : new Dilution(thin == 0 ? Water : Spirit, Parts.One, Parts.Of(strength + 1)),
            strength: strength == 0 ? 0.4 : strength, region: variant switch { 0 => Region.Recess, 1 => Region.Edges, _ => Region.All }) with
        {
            Drying = variant == 2 ? DryingMode.HotAir : DryingMode.Air,
            Tool = variant == 3 ? Tool.Airbrush : TechniqueTable.For(choices[choice].Technique).UsualTool,
            MarkMm = variant == 4 ? 3 : null,
        });

    private static readonly Gen<HouseRules> houses = Gen.Bool.Array[Schools.All.Count].Select(second =>
        Schools.All.Select((q, i) => (q.School, Answer: second[i] ? q.Second : q.First)).Aggregate(new HouseRules(), (rules, a) => Schools.With(rules, a.School, a.Answer.Word)!));

    internal static readonly Gen<(Layer[] Stack, StackContext Context)> Stacks = Gen.Select(
        layers.Array[0, 11], layers.Array[0, 3], Gen.Select(Gen.Enum<Relief>(), Gen.Enum<Substrate>(), Gen.Double[2, 60], Gen.Enum<Handling>()), houses, Gen.Bool.Array[5], Gen.Double[0.3, 0.85],
        (stack, beside, zone, rules, flags, humidity) =>
        {
            var measures = Zone(zone.Item1, zone.Item3, zone.Item2) with { Handling = zone.Item4, CutEdge = flags[0], BeforeAssembly = flags[1], AtRim = flags[2] };
            var context = Context(measures, rules, new Climate(18, humidity)) with { Shelf = flags[3] ? FullShelf : Shelf, Pieces = flags[4] ? 8 : 1 };
            return (stack, beside.Length == 0 ? context : Beside(context, flags[0], beside));
        });

    [Fact]
    public void Every_remedy_takes_its_finding_away_brings_no_new_trouble_and_keeps_what_a_layer_is_for() => Stacks.Sample(s =>
    {
        var before = new StackView(s.Context, s.Stack);
        foreach (var finding in OrderCheck.Run(before))
            foreach (var remedy in finding.Remedies)
                Holds(before, finding, remedy);
    }, iter: 500);

    /// <summary>Applies a remedy and checks everything anew, from nothing.</summary>
    internal static void Holds(StackView before, Finding finding, Remedy remedy)
    {
        var troubles = OrderCheck.Glance(before).Where(f => f.Severity != Severity.Hint).ToList();
        var known = troubles.Select(f => OrderCheck.Key(before, f)).ToHashSet();
        var stops = troubles.Where(f => f.Severity == Severity.Stop).Select(f => OrderCheck.Key(before, f)).ToHashSet();
        var after = new StackView(before.Context, StackEdit.Apply(before.Layers, remedy.Edits));
        var left = OrderCheck.Glance(after).Where(f => !f.IsCare).ToList();
        Assert.DoesNotContain(left, f => OrderCheck.Key(after, f) == OrderCheck.Key(before, finding));
        Assert.DoesNotContain(left, f => f.Severity == Severity.Stop && !stops.Contains(OrderCheck.Key(after, f)));
        Assert.DoesNotContain(left, f => f.Severity == Severity.Caution && !known.Contains(OrderCheck.Key(after, f)));

        // No veil becomes a coat that hides.
        foreach (var layer in before.Layers.Where(IsVeil))
            if (after.IndexOf(layer.Id) is >= 0 and var at)
                Assert.True(IsVeil(after.Layers[at]) || after.Layers[at].Technique == Technique.Stipple, $"{remedy.Text}: {layer.Technique} of {layer.MaterialName} becomes {after.Layers[at].Technique} of {after.Layers[at].MaterialName}");
    }

    private static bool IsVeil(Layer layer) =>
        layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze && (!layer.Main!.IsOpaque || layer.PaintShare < 0.6);

    [Fact]
    public void Rules_that_only_hint_never_say_more() => Stacks.Sample(s =>
    {
        var view = new StackView(s.Context, s.Stack);
        foreach (var rule in OrderCheck.Rules.Where(r => r.Facts.OnlyHints))
            Assert.All(rule.Check(view), f => Assert.Equal(Severity.Hint, f.Severity));
    }, iter: 200);

    /// <summary>A school changes what the rules that name it say, and nothing else.</summary>
    [Fact]
    public void Switching_a_school_changes_only_the_rules_that_depend_on_it()
    {
        var changed = new Dictionary<School, HashSet<string>>();
        foreach (var example in RuleExamples.All())
        {
            Compare(changed, example.Context, example.Fires);
            Compare(changed, example.Context, example.Harmless);
        }

        // Two dry-brush steps so light that what the brush carries over decides how little they do.
        Compare(changed, Context(), [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.DryBrush, White, strength: 0.1), Lay(Technique.DryBrush, Brown, strength: 0.1)]);

        // Every school makes a difference somewhere among these, whatever the dice give afterwards.
        Assert.All(Schools.All, q => Assert.True(changed.ContainsKey(q.School), $"{q.School} changes nothing"));
        Stacks.Sample(s => Compare(changed, s.Context, s.Stack), iter: 150, threads: 1);
    }

    private static void Compare(Dictionary<School, HashSet<string>> changed, StackContext context, Layer[] stack)
    {
        foreach (var question in Schools.All)
        {
            var both = question.Answers.Select(a => OrderCheck.Run(context with { HouseRules = Schools.With(context.HouseRules, question.School, a.Word)! }, stack)).ToList();
            foreach (var rule in OrderCheck.Rules)
            {
                List<string> Said(IReadOnlyList<Finding> found) => found.Where(f => f.Rule == rule.Id).Select(f => $"{f.Severity} {f.Title} {f.Why} {string.Join(';', f.Layers)}").ToList();
                if (Said(both[0]).SequenceEqual(Said(both[1])))
                    continue;
                Assert.True(rule.Facts.Schools.Contains(question.School), $"{rule.Id} goes by {question.School} and does not say so: {string.Join(" | ", Said(both[0]))} or {string.Join(" | ", Said(both[1]))}");
                (changed.TryGetValue(question.School, out var rules) ? rules : changed[question.School] = []).Add(rule.Id);
            }
        }
    }

    /// <summary>What a layer is accepted for stays the same when another layer is put in below, and changes when it does itself.</summary>
    [Fact]
    public void Facts_follow_the_layers_they_rest_on() => Stacks.Sample(s =>
    {
        var view = new StackView(s.Context, s.Stack);
        foreach (var finding in OrderCheck.Glance(view).Where(f => f.Layers.Count > 0 && !f.IsCare))
        {
            var facts = OrderCheck.FactsOf(view, finding);
            Assert.Equal(facts, OrderCheck.FactsOf(new StackView(s.Context, s.Stack), finding));
            var heavier = s.Stack.Select((l, i) => i == finding.Layers[0] ? l with { Coats = l.Coats + 1 } : l).ToList();
            Assert.NotEqual(facts, OrderCheck.FactsOf(new StackView(s.Context, heavier), finding));
            Layer[] lower = [Lay(Technique.Inspect), .. s.Stack];
            var moved = finding with { Layers = finding.Layers.Select(l => l + 1).ToList() };
            Assert.Equal(facts, OrderCheck.FactsOf(new StackView(s.Context, lower), moved));
        }
    }, iter: 150);

    /// <summary>On a piece half done nothing that is on it is touched, but for how long the last layer still waits.</summary>
    [Fact]
    public void What_is_on_the_piece_stays_there() => Gen.Select(Stacks, Gen.Int[0, 11], Gen.Double[0, 3000]).Sample((s, laid, since) =>
    {
        laid = Math.Min(laid, s.Stack.Length);
        var view = new StackView(s.Context with { Progress = new Progress(laid, since) }, s.Stack);
        foreach (var remedy in OrderCheck.Run(view).SelectMany(f => f.Remedies))
        {
            var after = StackEdit.Apply(s.Stack, remedy.Edits);
            for (var i = 0; i < laid; i++)
                Assert.Equal(s.Stack[i] with { WaitMinutes = null }, after[i] with { WaitMinutes = null });
        }
    }, iter: 300);

    [Fact]
    public void Findings_point_at_layers_that_exist_worst_first() => Stacks.Sample(s =>
    {
        var found = OrderCheck.Run(s.Context, s.Stack);
        Assert.All(found, f => Assert.All(f.Layers, i => Assert.InRange(i, 0, s.Stack.Length - 1)));
        Assert.Equal(found.Select(f => f.Severity).Order(), found.Select(f => f.Severity));
    }, iter: 200);

    [Fact]
    public void Rule_ids_are_unique_and_every_rule_says_what_it_is()
    {
        Assert.Equal(OrderCheck.Rules.Count, OrderCheck.Rules.Select(r => r.Id).Distinct().Count());
        Assert.All(OrderCheck.Rules, r => Assert.Matches("^[a-z]+(-[a-z]+)*$", r.Id));
        Assert.All(OrderCheck.Rules, r => Assert.All([r.Facts.What, r.Facts.Why, r.Facts.Remedies], Assert.NotEmpty));
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
