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
}
