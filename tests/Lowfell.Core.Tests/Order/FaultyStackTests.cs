using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Order;

/// <summary>Sound work with one fault each: that fault is told first, and its first remedy mends it without a new one.</summary>
public sealed class FaultyStackTests
{
    private static readonly Layer satin = Lay(Technique.Varnish, Satin, 2);

    private static Layer Again(Layer layer) => layer with { Id = Guid.NewGuid() };

    /// <summary>The sound stack, what is done to it, and the rule that must speak.</summary>
    private static readonly (string Sound, string Fault, Func<List<Layer>, List<Layer>> Break)[] faults =
    [
        ("a wall in acrylics", "bare-ground", s => Without(s, 0)),
        ("a wall in acrylics", "no-protection", s => Without(s, s.Count - 1)),
        ("a wall in acrylics", "sheen-target", s => [.. s.SkipLast(1), Again(satin)]),
        ("a wall in acrylics", "matt-frost", s => With(s, s.Count - 1, l => l with { Coats = 4 })),
        ("a wall in acrylics", "soft-below", s => With(s, 1, l => l with { WaitMinutes = 2 })),
        ("a wall in acrylics", "hot-over-soft", s => [.. s.Take(1), s[1] with { WaitMinutes = 120 }, Lay(Technique.BaseCoat, Lacquer, 3) with { Tool = Tool.Airbrush }, s[^1]]),
        ("a wall in acrylics", "coats-to-hide", s => With(s, 1, l => l with { Coats = 1, Strength = 0.12 })),
        ("a wall in acrylics", "overthinned", s => With(s, 1, l => l with { Dilution = new Dilution(Water, Parts.One, Parts.Of(4)), Coats = 3 })),
        ("a wall in acrylics", "wrong-thinner", s => With(s, 1, l => l with { Dilution = new Dilution(Spirit, Parts.Of(2), Parts.One) })),
        ("a wall shaded with an acrylic wash", "hot-air-wash", s => At(s, Technique.AllOverWash, l => l with { Drying = DryingMode.HotAir })),
        ("a wall with an enamel pin wash, cleaned", "pin-on-matt", s => At(s, Technique.Varnish, l => l with { Paint = [new(Matt, Parts.One)] })),
        ("a wall with an enamel pin wash, cleaned", "clean-up-missed", s => At(s, Technique.PinWash, l => l with { WaitMinutes = 600 })),
        ("a wall with an enamel pin wash, cleaned", "no-barrier", s => Less(s, Technique.Varnish)),
        ("a wall with an enamel pin wash, cleaned", "wrong-thinner", s => At(s, Technique.CleanUpExcess, l => l with { Paint = [new(Water, Parts.One)] })),
        ("a wall flooded with enamel and wiped", "no-barrier", s => Less(s, Technique.Varnish)),
        ("a wall flooded with enamel and wiped", "clean-up-missed", s => At(s, Technique.AllOverWash, l => l with { WaitMinutes = 900 })),
        ("rain streaks in enamel", "no-barrier", s => Less(s, Technique.Varnish)),
        ("pigments fixed on a handled piece", "pigment-sealed", s => At(s, Technique.Pigment, l => l with { Paint = [new(Dust, Parts.One)] })),
        ("crackle medium and one pass over it", "crackle-film", s => s.FindIndex(l => l.Technique == Technique.CrackleMedium) is var at ? With(s, at + 1, l => l with { Coats = 2 }) : s),
        ("a crackled salt base", "crackle-film", s => At(s, Technique.CracklePaste, l => l with { Drying = DryingMode.HotAir })),
        ("a crackled salt base", "unsealed-texture", s => s.FindIndex(l => l.Technique == Technique.Varnish) is var at ? Without(s, at) : s),
        ("stripes masked and sprayed", "mask-left", s => s.FindIndex(l => l.Technique == Technique.Unmask) is var at ? Without(s, at) : s),
        ("tracks with bright wear after the matt", "matt-over-metal", s => [.. s.Take(s.Count - 2), s[^1], s[^2]]),
        ("a rust coat chipped with fluid", "chip-window", s => s.FindIndex(l => l.Technique == Technique.ChipThrough) is var at ? With(s, at - 1, l => l with { WaitMinutes = 900 }) : s),
        ("a rust coat chipped with fluid", "chip-window", s => s.FindIndex(l => l.Technique == Technique.ChippingFluid) is var at ? Without(s, at) : s),
        ("a rust coat chipped with fluid", "chip-window", s => s.FindIndex(l => l.Technique == Technique.ChippingFluid) is var at ? [.. s.Take(at + 1), Again(satin), .. s.Skip(at + 1)] : s),
        ("numbers run down with water, sealed", "run-off-source", s => s.FindIndex(l => l.Technique == Technique.RunOff) is var at ? [.. s.Take(at), Again(Lay(Technique.Varnish, Matt)), .. s.Skip(at)] : s),
        ("a hull sprayed and veiled", "overthinned", s => At(s, Technique.BaseCoat, l => l with { Dilution = new Dilution(Water, Parts.One, Parts.Of(5)) })),
        ("window glass in gloss", "sheen-target", s => [.. s, Again(Lay(Technique.Varnish, Matt))]),
        ("edges lined", "bare-ground", s => Without(s, 0)),
        ("light from above under a thin coat", "light-buried", s => At(s, Technique.Glaze, l => l with { Technique = Technique.BaseCoat, Paint = [new(Dark, Parts.One)], Dilution = null, Coats = 3 })),
    ];

    public static TheoryData<int, string> Faults { get; } = new(faults.Select((f, i) => (i, f.Fault)));

    [Theory]
    [MemberData(nameof(Faults))]
    public void One_fault_is_told_first_and_its_remedy_mends_it(int at, string rule)
    {
        var (name, _, breaks) = faults[at];
        var (_, context, sound) = SoundStacks.All().Single(s => s.Name == name);
        context = context with { Shelf = FullShelf };
        var stack = breaks([.. sound]);
        var found = OrderCheck.Run(context, stack).Where(f => !f.IsCare).ToList();
        Assert.True(found.Count > 0 && found[0].Rule == rule, $"{name}: {string.Join("; ", found.Select(f => $"{f.Severity} {f.Rule}"))}");
        var view = new StackView(context, stack);
        var remedy = found[0].Remedies.FirstOrDefault();
        Assert.True(remedy is not null, $"{name}, {rule}: no remedy");
        RemedyProperties.Holds(view, found[0], remedy);
        var left = OrderCheck.Run(context, StackEdit.Apply(stack, remedy.Edits)).Where(f => f.Severity != Severity.Hint && !f.IsCare).ToList();
        Assert.True(left.Count < found.Count(f => f.Severity != Severity.Hint) || left.Count == 0, $"{name}: left {string.Join("; ", left.Select(f => f.Rule))}");
    }

    [Fact]
    public void There_are_thirty() => Assert.InRange(faults.Length, 30, 60);

    private static List<Layer> Without(List<Layer> s, int at) => [.. s.Take(at), .. s.Skip(at + 1)];

    private static List<Layer> With(List<Layer> s, int at, Func<Layer, Layer> change) => [.. s.Select((l, i) => i == at ? change(l) : l)];

    private static List<Layer> At(List<Layer> s, Technique technique, Func<Layer, Layer> change) => With(s, s.FindIndex(l => l.Technique == technique), change);

    /// <summary>Every layer of a technique but the last that ends the stack.</summary>
    private static List<Layer> Less(List<Layer> s, Technique technique) => [.. s.Where((l, i) => l.Technique != technique || i == s.Count - 1)];
}
