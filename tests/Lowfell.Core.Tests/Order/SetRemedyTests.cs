using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Order;

public class SetRemedyTests
{
    /// <summary>A satin coat over a treatment that another zone wants matt would only move the remark there.</summary>
    [Fact]
    public void What_brings_a_stop_or_caution_to_a_zone_that_shares_the_treatment_is_refused()
    {
        List<Layer> stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Matt)];
        RemediedStack With(Sheen other)
        {
            StackPlace satin = new(Guid.NewGuid(), Context(Zone() with { TargetSheen = Sheen.Satin })), beside = new(Guid.NewGuid(), Context(Zone() with { TargetSheen = other }));
            var done = SetRemedy.Apply([satin, beside], stack, "sheen-target", "final-coat", (_, _, _) => false, Guid.NewGuid);
            Assert.Equal(done.Applied == 0 ? [satin.Zone] : [], done.Refused);
            return done;
        }

        Assert.Equal((0, 3), (With(Sheen.Matt).Applied, With(Sheen.Matt).Layers.Count));
        Assert.Equal((1, 4), (With(Sheen.Satin).Applied, With(Sheen.Satin).Layers.Count));
    }

    [Fact]
    public void What_a_painter_lives_with_is_left_as_it_is()
    {
        List<Layer> stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Matt)];
        StackPlace one = new(Guid.NewGuid(), Context(Zone() with { TargetSheen = Sheen.Satin })), other = new(Guid.NewGuid(), Context(Zone() with { TargetSheen = Sheen.Satin }));
        Assert.Equal(0, SetRemedy.Apply([one, other], stack, "sheen-target", "final-coat", (_, _, _) => true, Guid.NewGuid).Applied);
        Assert.Equal(1, SetRemedy.Apply([one, other], stack, "sheen-target", "final-coat", (place, _, _) => place == one, Guid.NewGuid).Applied);
    }

    [Fact]
    public void A_remark_follows_a_house_rule_where_the_other_answer_would_take_it_away()
    {
        IReadOnlyList<School> Of(HouseRules rules, params Layer[] stack)
        {
            var view = new StackView(Context(rules: rules), stack);
            return OrderCheck.SchoolsOf(view, OrderCheck.Run(view).Single(f => f.Rule == "pin-on-matt"));
        }

        Layer[] matt = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Matt), Lay(Technique.PinWash, Wash)];
        Assert.Equal([School.PinWashSheen], Of(new HouseRules(), matt));
        var stops = new StackView(Context(), [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, thin: new Core.Mixing.Dilution(Spirit, Core.Mixing.Parts.One, Core.Mixing.Parts.One))]);
        Assert.Empty(OrderCheck.SchoolsOf(stops, OrderCheck.Run(stops).Single(f => f.Rule == "wrong-thinner")));
    }
}
