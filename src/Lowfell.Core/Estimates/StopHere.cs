using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Estimates;

/// <summary>What a layer is there for.</summary>
public enum Purpose
{
    /// <summary>To be seen: what it changes says what it is worth.</summary>
    Look,

    /// <summary>To hold what is below it.</summary>
    Hold,

    /// <summary>To shape the model or to finish the work: colour does not tell what it is worth.</summary>
    Make,
}

/// <summary>Where a zone stands after a layer.</summary>
/// <param name="Layer">The layer.</param>
/// <param name="Minutes">Hands-on minutes of the layer on all pieces that still want it; an estimate.</param>
/// <param name="Spent">Of it and all below it.</param>
/// <param name="ToGo">Of all above it.</param>
/// <param name="Adds">What it changes as seen from the table: CIEDE2000 of each position from the distance, by area.</param>
/// <param name="Left">What all above it would still change.</param>
/// <param name="Purpose">What it is there for.</param>
/// <param name="Seen">The zone as it would stand.</param>
public sealed record Stop(Layer Layer, double Minutes, double Spent, double ToGo, double Adds, double Left, Purpose Purpose, SeenSplit Seen);

/// <summary>After every layer: what was spent by then, what is to go, and what that still changes to an eye at the table.</summary>
public static class StopHere
{
    /// <summary>One stop a layer, bottom first.</summary>
    /// <param name="run">The prediction of the stack.</param>
    /// <param name="pieces">Pieces that still want a layer, by its index.</param>
    /// <param name="metres">Distance of the eye.</param>
    /// <param name="pace">How quick the hands are; null takes the usual.</param>
    public static IReadOnlyList<Stop> Of(StackRun run, Func<int, int> pieces, double metres, Pace? pace = null)
    {
        var seen = Enumerable.Range(0, run.Count + 1).Select(run.SeenBelow).ToList();
        var far = seen.Select(s => FromTheTable.Colours(run.Zone, s, metres)).ToList();
        var minutes = run.Layers.Select((l, i) => HandsOn.Batch(l, run.Zone, pieces(i), pace)).ToList();
        var (stops, spent, all) = (new List<Stop>(), 0.0, minutes.Sum());
        for (var i = 0; i < run.Count; i++)
        {
            spent += minutes[i];
            stops.Add(new Stop(run.Layers[i], minutes[i], spent, all - spent, Between(run.Zone, far[i], far[i + 1]), Between(run.Zone, far[i + 1], far[^1]), PurposeOf(run.Layers[i]), seen[i + 1]));
        }

        return stops;
    }

    /// <summary>Difference of a zone from a distance: CIEDE2000 of each position, by area.</summary>
    public static double Between(Zone zone, (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) a, (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) b)
    {
        static double Apart(SrgbColour x, SrgbColour y) => ColourDifference.Ciede2000(x.ToLab(), y.ToLab());
        return zone.Shares.Dot(new(Apart(a.Raised, b.Raised), Apart(a.Field, b.Field), Apart(a.Recess, b.Recess)));
    }

    /// <summary>What a layer is there for.</summary>
    public static Purpose PurposeOf(Layer layer) => layer.Technique switch
    {
        Technique.Prime or Technique.Varnish or Technique.SealTexture => Purpose.Hold,
        Technique.TexturePaste or Technique.Render or Technique.CracklePaste or Technique.CrackleMedium or Technique.GlueAndScatter or Technique.Rock or Technique.Tuft or Technique.Decal
            or Technique.ChippingFluid or Technique.Rim or Technique.TrimAndTouchUp => Purpose.Make,
        _ => TechniqueTable.For(layer.Technique).Laydown is Laydown.None or Laydown.Lift ? Purpose.Make : Purpose.Look,
    };
}
