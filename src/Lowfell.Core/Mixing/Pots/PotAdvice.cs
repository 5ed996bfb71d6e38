using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Order;
using static System.FormattableString;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>One pot for a mix over the set, or several.</summary>
/// <param name="Pots">How many.</param>
/// <param name="EachMl">What each holds, ml.</param>
/// <param name="Difference">CIEDE2000 at the end between two pots measured by the same drops, at worst: an estimate.</param>
/// <param name="CarryShare">Share of an old pot to stir into the new so that no step is seen; 0 when none is needed.</param>
/// <param name="Says">What to do and why.</param>
public sealed record PotAdvice(int Pots, decimal EachMl, double Difference, double CarryShare, string Says)
{
    /// <summary>CIEDE2000 from which two pieces side by side look different.</summary>
    public const double Visible = 1;

    /// <summary>What a jar, a wet palette well and a palette well hold, ml.</summary>
    public static decimal Holds(Vessel vessel) => vessel switch { Vessel.Jar => 60, Vessel.WetPalette => 8, _ => 4 };

    /// <summary>One pot or several.</summary>
    /// <param name="neededMl">What the set takes.</param>
    /// <param name="vessel">Where it is kept.</param>
    /// <param name="holdsMl">What that holds, or null for the usual.</param>
    /// <param name="lifeMinutes">How long it stays good there.</param>
    /// <param name="workMinutes">Hands-on time to use it up; over several evenings when it is long.</param>
    /// <param name="difference">What measuring anew may change; see <see cref="Remeasured"/>.</param>
    public static PotAdvice For(double neededMl, Vessel vessel, decimal? holdsMl, Span3 lifeMinutes, double workMinutes, double difference)
    {
        var holds = holdsMl ?? Holds(vessel);
        var byRoom = Math.Max(1, (int)Math.Ceiling((decimal)neededMl / holds));
        var byLife = Math.Max(1, (int)Math.Ceiling(Standing(workMinutes, lifeMinutes.Usual) / lifeMinutes.Usual));
        var pots = Math.Max(byRoom, byLife);
        var each = Math.Ceiling((decimal)neededMl / pots * 10) / 10;
        if (pots == 1)
            return new(1, each, difference, 0, Invariant($"One pot of {each:0.0} ml: it fits, and stays good for the work. A second one, measured by drops, may differ by {difference:0.0}."));
        var why = byRoom >= byLife ? Invariant($"{neededMl:0} ml do not fit into {holds:0} ml") : "it does not stay good until the work is done";
        if (difference < Visible)
            return new(pots, each, difference, 0, Invariant($"{pots} pots of {each:0.0} ml, since {why}. Measured alike they differ by at most {difference:0.0}, which nobody sees; still keep a piece to one pot."));

        // A new pot that holds a share c of the old differs from it by (1 - c) of what two separate pots would.
        var carry = Math.Ceiling((1 - Visible * 0.95 / difference) * 20) / 20;
        return new(pots, each, difference, carry, Invariant(
            $"{pots} pots of {each:0.0} ml, since {why}. Measured by drops they may differ by {difference:0.0}, which shows side by side. Mix the next one while {carry * 100:0} % of it can still come from the last: pour that in and stir. Then no step is over {difference * (1 - carry):0.0}. Or measure all {pots} first, and pour them together and apart twice."));
    }

    /// <summary>
    /// How long mixes stand in all. What does not last an evening is mixed as it is used up; what does has to last through the
    /// nights between, since work that is longer than an evening goes on the next day.
    /// </summary>
    private static double Standing(double workMinutes, double lifeMinutes) => workMinutes <= EveningMinutes || lifeMinutes < EveningMinutes
        ? workMinutes
        : Math.Floor(workMinutes / EveningMinutes) * 24 * 60 + workMinutes % EveningMinutes;

    private const double EveningMinutes = 150;

    /// <summary>
    /// What measuring a mix anew may change at the end: every component in turn a twentieth up in one pot and down in the other,
    /// as drops of one bottle differ, and the two finished surfaces compared. The worst of all, CIEDE2000.
    /// </summary>
    public static double Remeasured(StackView view, int index, Recipe recipe)
    {
        if (!recipe.NeedsMixing)
            return 0;
        var worst = 0.0;
        for (var i = 0; i < recipe.Parts.Count; i++)
        {
            var up = End(view, index, Shifted(recipe, i, 1 + (decimal)UsualMeasures.DropSpread));
            var down = End(view, index, Shifted(recipe, i, 1 - (decimal)UsualMeasures.DropSpread));
            worst = Math.Max(worst, up.DifferenceTo(down).Largest());
        }

        return worst;
    }

    /// <summary>The finished surface when one layer comes from another pot.</summary>
    public static SeenSplit End(StackView view, int index, PotContents pot)
    {
        var (paint, dilution) = pot.AsPaint();
        return End(view, index, paint, dilution);
    }

    /// <inheritdoc cref="End(StackView, int, PotContents)"/>
    public static SeenSplit End(StackView view, int index, IReadOnlyList<MixPart> paint, Dilution? dilution)
    {
        var stack = view.Layers.ToList();
        stack[index] = stack[index] with { Paint = paint, Dilution = dilution };
        return view.Predict(stack).SeenBelow(stack.Count);
    }

    private static PotContents Shifted(Recipe recipe, int component, decimal factor) =>
        PotContents.Of(recipe.Parts.Select((p, i) => new Portion(p.Material, p.Parts.ToDecimal() * (i == component ? factor : 1))));
}
