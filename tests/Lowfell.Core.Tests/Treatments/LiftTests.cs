using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Treatments;

namespace Lowfell.Core.Tests.Treatments;

/// <summary>An edit of one surface, lifted to the treatment: the surface ends as it was asked for, and the others as they should.</summary>
public sealed class LiftTests
{
    /// <summary>A stack with a few of its layers changed, moved, taken away, and others new.</summary>
    private static List<Layer> Edit(Random random, IReadOnlyList<Layer> was)
    {
        var stack = was.ToList();
        for (var n = random.Next(1, 4); n > 0; n--)
            switch (random.Next(stack.Count == 0 ? 1 : 6))
            {
                case 0:
                    stack.Insert(random.Next(stack.Count + 1), RandomTreatments.Layer(random) with { Id = Guid.NewGuid() });
                    break;
                case 1:
                    stack.RemoveAt(random.Next(stack.Count));
                    break;
                case 2:
                    var (moved, to) = (random.Next(stack.Count), random.Next(stack.Count));
                    var layer = stack[moved];
                    stack.RemoveAt(moved);
                    stack.Insert(to, layer);
                    break;
                case 3:
                    var at = random.Next(stack.Count);
                    stack[at] = stack[at] with { Strength = random.Next(1, 9) / 8.0, Region = random.Next(2) == 0 ? Region.LowerThird : Region.All };
                    break;
                case 4:
                    at = random.Next(stack.Count);
                    stack[at] = stack[at] with { Tool = Tool.Airbrush, Paint = [new MixPart(Bench.Lacquer, Parts.One)] };
                    break;
                default:
                    at = random.Next(stack.Count);
                    stack[at] = stack[at] with { DownTo = at > 0 ? stack[random.Next(at)].Id : null };
                    break;
            }

        // What is gone can no longer be the lowest that is taken.
        var there = stack.Select(l => l.Id).ToHashSet();
        return stack.Select(l => l.DownTo is { } lowest && !there.Contains(lowest) ? l with { DownTo = null } : l).ToList();
    }

    private static Treatment Lifted(Treatment was, Guid surface, List<Layer> wanted, Scope scope) => Lift.Of(was, surface, wanted.Select(l => new Edited(l, "")).ToList(), scope);

    public static TheoryData<int> Seeds { get; } = [.. Enumerable.Range(0, 12)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void An_edit_for_here_ends_as_asked_and_leaves_the_others_as_they_were(int seed)
    {
        var random = new Random(seed);
        var treatment = RandomTreatments.Any(random);
        for (var n = 0; n < 200; n++)
        {
            var surface = treatment.Surfaces[random.Next(treatment.Surfaces.Count)];
            var wanted = Edit(random, treatment.Stack(surface.Id));
            var after = Lifted(treatment, surface.Id, wanted, Scope.Here);
            Assert.Equal(RandomTreatments.Words(wanted), RandomTreatments.Words(after.Stack(surface.Id)));
            foreach (var other in treatment.Surfaces.Where(s => s != surface && s.On != surface.Id))
                Assert.Equal(RandomTreatments.Words(treatment.Stack(other.Id)), RandomTreatments.Words(after.Stack(other.Id)));
            Whole(after);
            treatment = treatment.Steps.Count > 60 ? RandomTreatments.Any(random) : after;
        }
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void An_edit_for_everywhere_ends_as_asked_and_the_others_follow_in_what_was_edited_alone(int seed)
    {
        var random = new Random(100 + seed);
        var treatment = RandomTreatments.Any(random);
        for (var n = 0; n < 200; n++)
        {
            var surface = treatment.Surfaces[random.Next(treatment.Surfaces.Count)];
            var stack = treatment.Stack(surface.Id);
            var wanted = Edit(random, stack);
            var after = Lifted(treatment, surface.Id, wanted, Scope.Everywhere);
            Assert.Equal(RandomTreatments.Words(wanted), RandomTreatments.Words(after.Stack(surface.Id)));
            var edited = Touched(treatment, surface.Id, stack, wanted);
            foreach (var other in treatment.Surfaces.Where(s => s != surface && s.On != surface.Id))
            {
                List<Layer> Untouched(Treatment of) => of.Steps.Where(s => !edited.Contains(s.Id) && !Gone(s)).Select(s => s.On(other.Id)).OfType<Lay>().Select(lay => of.Stack(other.Id).First(l => l.Id == lay.Line) with { DownTo = null }).ToList();
                Assert.Equal(RandomTreatments.Words(Untouched(treatment)), RandomTreatments.Words(Untouched(after)));
                Assert.Equal(treatment.Steps.Where(s => s.On(other.Id) is not null && !Gone(s)).Select(s => s.Id).Order(), after.Steps.Where(s => s.On(other.Id) is not null).Select(s => s.Id).Order());
                bool Gone(Step s) => s.On(surface.Id) is { } lay && wanted.All(l => l.Id != lay.Line);
            }

            Whole(after);
            treatment = treatment.Steps.Count is > 60 or 0 ? RandomTreatments.Any(random) : after;
        }
    }

    /// <summary>Steps of the layers that an edit changed or put elsewhere.</summary>
    private static HashSet<Guid> Touched(Treatment treatment, Guid surface, IReadOnlyList<Layer> stack, List<Layer> wanted)
    {
        var was = stack.Select((l, i) => (l, i)).ToDictionary(x => x.l.Id);
        var order = wanted.Where(l => was.ContainsKey(l.Id)).Select(l => was[l.Id].i).ToList();
        return wanted.Where(l => was.TryGetValue(l.Id, out var old) && (RandomTreatments.Words([old.l])[0] != RandomTreatments.Words([l])[0] || Crossed(old.i)))
            .Select(l => treatment.Steps.First(s => s.On(surface)?.Line == l.Id).Id).ToHashSet();
        bool Crossed(int i) => order.IndexOf(i) is var at && order.Where((o, n) => n < at ? o > i : o < i).Any();
    }

    private static void Whole(Treatment treatment)
    {
        Assert.All(treatment.Steps, s => Assert.NotEmpty(s.Over));
        Assert.Equal(treatment.Steps.Count, treatment.Steps.Select(s => s.Id).Distinct().Count());
        Assert.All(treatment.Steps, s => Assert.Equal(s.Over.Count, s.Over.Select(l => l.Surface).Distinct().Count()));
        Assert.All(treatment.Surfaces, s => Assert.Equal(treatment.Stack(s.Id).Count, treatment.Stack(s.Id).Select(l => l.Id).Distinct().Count()));
    }

    /// <summary>A brick wall with a coping and an iron ring that stands on the brick.</summary>
    private static readonly Surface brick = new(Guid.NewGuid(), "brick"), coping = new(Guid.NewGuid(), "coping"), ring = new(Guid.NewGuid(), "ring", brick.Id);

    private static Step Over(Layer layer, params Surface[] surfaces) => new(layer.Id, layer with { Id = default }, "", surfaces.Select(s => new Lay(s.Id, layer.Id)).ToList());

    private static readonly Layer prime = Bench.Lay(Technique.Prime, Bench.Primer), coat = Bench.Lay(Technique.BaseCoat, Bench.Brown), varnish = Bench.Lay(Technique.Varnish, Bench.Matt);

    private static readonly Treatment wall = new([brick, coping, ring], [Over(prime, brick, coping, ring), Over(coat, brick), Over(varnish, brick, coping, ring)]);

    [Fact]
    public void A_new_layer_lies_directly_above_its_neighbour_below_and_over_the_details_of_its_surface()
    {
        var wash = Bench.Lay(Technique.AllOverWash, Bench.Wash);
        var after = Lifted(wall, brick.Id, [prime, wash, coat, varnish], Scope.Here);
        Assert.Equal([prime.Id, wash.Id, coat.Id, varnish.Id], after.Steps.Select(s => s.Id));
        Assert.Equal([brick.Id, ring.Id], after.Steps[1].Over.Select(l => l.Surface).Where(s => s == brick.Id || s == ring.Id));
        Assert.Equal([prime.Id, varnish.Id], after.Stack(coping.Id).Select(l => l.Id));
    }

    [Fact]
    public void Another_strength_here_is_different_on_one_surface_of_one_application()
    {
        var after = Lifted(wall, coping.Id, [prime with { Strength = 0.5 }, varnish], Scope.Here);
        Assert.Equal(3, after.Steps.Count);
        Assert.Equal((Differs.Strength, 0.5), (after.Steps[0].On(coping.Id)!.Differs, after.Stack(coping.Id)[0].Strength));
        Assert.Equal(1, after.Stack(brick.Id)[0].Strength);
        var back = Lifted(after, coping.Id, [prime, varnish], Scope.Here);
        Assert.Equal(Differs.Nothing, back.Steps[0].On(coping.Id)!.Differs);
    }

    [Fact]
    public void Another_material_here_is_an_application_of_its_own_that_carries_the_line_on()
    {
        var after = Lifted(wall, coping.Id, [prime, varnish with { Paint = [new MixPart(Bench.Satin, Parts.One)] }], Scope.Here);
        Assert.Equal(["Tarnside Matt", "Tarnside Satin"], after.Steps.Skip(2).Select(s => s.Layer.MaterialName));
        Assert.Equal(varnish.Id, after.Stack(coping.Id)[1].Id);
        Assert.NotEqual(varnish.Id, after.Steps[3].Id);
    }

    [Fact]
    public void Another_material_everywhere_is_another_material_of_the_same_application()
    {
        var after = Lifted(wall, coping.Id, [prime, varnish with { Paint = [new MixPart(Bench.Satin, Parts.One)] }], Scope.Everywhere);
        Assert.Equal([prime.Id, coat.Id, varnish.Id], after.Steps.Select(s => s.Id));
        Assert.Equal("Tarnside Satin", after.Stack(brick.Id)[2].MaterialName);
    }

    [Fact]
    public void Taken_away_here_it_stays_elsewhere_and_taken_away_everywhere_it_is_gone()
    {
        Assert.Equal([coping.Id], Lifted(wall, brick.Id, [prime, coat], Scope.Here).Steps[2].Over.Select(l => l.Surface));
        Assert.Equal([prime.Id, coat.Id], Lifted(wall, brick.Id, [prime, coat], Scope.Everywhere).Steps.Select(s => s.Id));
    }

    [Fact]
    public void Put_in_another_order_here_the_own_layer_moves_around_those_that_others_share()
    {
        var after = Lifted(wall, brick.Id, [prime, varnish, coat], Scope.Here);
        Assert.Equal([prime.Id, varnish.Id, coat.Id], after.Steps.Select(s => s.Id));
    }

    [Fact]
    public void Put_in_an_order_that_the_others_do_not_have_it_parts()
    {
        var after = Lifted(wall, brick.Id, [varnish, prime, coat], Scope.Here);
        Assert.Equal([prime.Id, varnish.Id], after.Stack(coping.Id).Select(l => l.Id));
        Assert.Equal(4, after.Steps.Count);
        Assert.Equal([varnish.Id, prime.Id], Lifted(wall, brick.Id, [varnish, prime, coat], Scope.Everywhere).Stack(coping.Id).Select(l => l.Id));
    }

    [Fact]
    public void A_layer_moved_past_one_that_lies_here_alone_stays_the_same_layer_everywhere()
    {
        Surface walls = new(Guid.NewGuid(), "Walls", null), roof = new(Guid.NewGuid(), "Roof", null);
        Step Over(string note, params Surface[] on) => new(Guid.NewGuid(), Bench.Lay(Technique.BaseCoat, Bench.Brown), note, on.Select(s => new Core.Treatments.Lay(s.Id, Guid.NewGuid())).ToList());
        Step prime = Over("prime", walls, roof), own = Over("own", walls), glaze = Over("glaze", walls, roof);
        var was = new Treatment([walls, roof], [prime, own, glaze]);
        var stack = was.Stack(walls.Id);
        var after = Lifted(was, walls.Id, [stack[0], stack[2], stack[1]], Scope.Here);
        Assert.Equal([prime.Id, glaze.Id, own.Id], after.Steps.Select(s => s.Id));

        // Past one that lies on the roof too it cannot go there, so it parts.
        var past = Lifted(was, walls.Id, [stack[2], stack[0], stack[1]], Scope.Here);
        Assert.Equal(4, past.Steps.Count);
    }
}
