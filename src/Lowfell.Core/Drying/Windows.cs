using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>Minutes after a layer in which something must happen to it: from when it can, until when it still can.</summary>
public readonly record struct Window(double OpensMinutes, double ClosesMinutes)
{
    /// <summary>The same on the safe side, for it is one figure that stands for a range: it may open later and close sooner.</summary>
    public Window OnTheSafeSide() => new(Math.Min(OpensMinutes * Windows.LatestOpening, ClosesMinutes * Windows.SoonestClosing), ClosesMinutes * Windows.SoonestClosing);
}

/// <summary>Working windows at 20 C and 50 % relative humidity, scaled to the room like drying itself. Rules of thumb; the label wins.</summary>
public static class Windows
{
    private const double CleanUpOpens = 15;

    /// <summary>How far the ends of a window vary, as a film does where one figure stands: rules of thumb.</summary>
    public const double LatestOpening = 1.4, SoonestClosing = 0.7;

    /// <summary>Ends of the windows, minutes at 20 C and 50 %.</summary>
    public const double TopCoatClosesMinutes = 240, ChipOpensMinutes = 20, ChipClosesMinutes = 240, TuftsCloseMinutes = 20, SecondCoatClosesMinutes = 60, SecondCoatAgainMinutes = 24 * 60;

    /// <summary>To clean up a wash, filter or streak, counted from it: rough zones close earlier; see <see cref="Lifting"/>.</summary>
    public static Window CleanUp(Carrier carrier, Relief relief, Climate climate)
    {
        var factor = DryingModel.ClimateFactor(carrier, climate);
        return new Window(carrier.IsSpiritBorne() ? CleanUpOpens * factor : 0, Lifting.MovesMinutes(carrier, relief) * factor);
    }

    /// <summary>To clean up a layer, counted from it: the excess of a filter lifts for a short while only.</summary>
    public static Window CleanUp(Layer layer, Relief relief, Climate climate)
    {
        var window = CleanUp(layer.Carrier, relief, climate);
        var closes = Lifting.MovesMinutes(layer, relief) * DryingModel.ClimateFactor(layer.Carrier, climate);
        return new(Math.Min(window.OpensMinutes, closes / 2), closes);
    }

    /// <summary>A second coat of solvent primer: until it closes, or again from when it opens.</summary>
    public static Window SecondPrimerCoat(Climate climate)
    {
        var factor = DryingModel.ClimateFactor(Carrier.SolventAcrylic, climate);
        return new(SecondCoatAgainMinutes * factor, SecondCoatClosesMinutes * factor);
    }

    /// <summary>To put the top coat over chipping fluid, counted from the fluid.</summary>
    public static Window TopCoatOverFluid(Climate climate) => new(0, TopCoatClosesMinutes * Water(climate));

    /// <summary>To chip a top coat, counted from the top coat.</summary>
    public static Window Chipping(Climate climate) => new(ChipOpensMinutes * Water(climate), ChipClosesMinutes * Water(climate));

    /// <summary>To press tufts into paste.</summary>
    public static Window TuftsInPaste(Climate climate) => new(0, TuftsCloseMinutes * Water(climate));

    private static double Water(Climate climate) => DryingModel.ClimateFactor(Carrier.WaterAcrylic, climate);
}
