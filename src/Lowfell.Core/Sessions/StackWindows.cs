using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;

namespace Lowfell.Core.Sessions;

/// <summary>A layer that has to follow another within a window.</summary>
/// <param name="Earlier">Index of the layer it follows.</param>
/// <param name="Later">Its own.</param>
/// <param name="Window">Minutes from the end of the one to the start of the other.</param>
public readonly record struct LayerWindow(int Earlier, int Later, Window Window);

/// <summary>The windows of a stack: to clean up, to chip, to coat chipping fluid, to press tufts in, to blend wet.</summary>
public static class StackWindows
{
    /// <summary>Every window of a stack, in this room.</summary>
    public static IReadOnlyList<LayerWindow> Of(StackView view)
    {
        var found = new List<LayerWindow>();
        var climate = view.Context.Climate;
        for (var i = 0; i < view.Count; i++)
        {
            var layer = view.Layers[i];
            if (Lifting.IsWorkable(layer) && view.LeavesFilm(i) && view.CleanUpOf(i) is >= 0 and var cleanUp)
                found.Add(new(i, cleanUp, Windows.CleanUp(layer, view.Context.Zone.Relief, climate)));
            if (layer.Technique == Technique.ChipThrough && TakingAway.FluidOf(view.Layers, i) is >= 0 and var fluid && view.NextBelow(i, j => j > fluid && view.LeavesFilm(j)) is >= 0 and var top)
            {
                found.Add(new(top, i, Windows.Chipping(climate)));
                if (view.NextAbove(fluid, view.LeavesFilm) is >= 0 and var first)
                    found.Add(new(fluid, first, Windows.TopCoatOverFluid(climate)));
            }

            if (layer.Technique == Technique.Tuft && i > 0 && view.Layers[i - 1].Technique == Technique.TexturePaste)
                found.Add(new(i - 1, i, Windows.TuftsInPaste(climate)));
        }

        return found;
    }
}
