using Lowfell.Core.Layers;

namespace Lowfell.Core.Bench;

/// <summary>Something that goes wrong at a technique, and what saves it.</summary>
/// <param name="What">What happened.</param>
/// <param name="SavedBy">What saved it.</param>
/// <param name="Minutes">How long that took, or usually takes; null where nobody knows.</param>
/// <param name="Times">How often it happened here; 0 for what goes wrong in general.</param>
public sealed record KnownMishap(string What, string SavedBy, double? Minutes, int Times);

/// <summary>A mishap as it was told at the bench.</summary>
public sealed record ToldMishap(Technique Technique, string What, string SavedBy, double? Minutes, DateTimeOffset At);

/// <summary>The small library of what goes wrong: what happened here first, beneath it what happens to everybody.</summary>
public static class Mishaps
{
    private const int Most = 6;

    private sealed record General(string What, string SavedBy, double Minutes, params Technique[] At);

    private static readonly General[] general =
    [
        new("overspray on a finished neighbour", "its own base colour over it, in two thin coats; a mask the next time", 15, Technique.Prime, Technique.BaseCoat, Technique.DirectionalLight),
        new("a run or a puddle", "drawn off with a damp brush at once; dry, it is sanded flat and coated anew", 5, Technique.Prime, Technique.BaseCoat, Technique.Varnish),
        new("pale strips at the cut edges", "the edge sealed, then a pass of its own with each ground colour", 10, Technique.BaseCoat, Technique.Render),
        new("the first pass lifted under a wet second", "left to dry, then a thicker second pass, hardly worked", 20, Technique.Render),
        new("texture came off the rim", "glued back and trimmed clear of the edge, then its colours again", 10, Technique.TexturePaste, Technique.CracklePaste, Technique.Rim),
        new("the wash lifted the crackle", "left to dry, two coats of varnish over what is left, then touched in", 25, Technique.AllOverWash, Technique.CracklePaste),
        new("the wash went over damp paint and tore it", "left alone until all of it is dry, then the base colour where it tore", 15, Technique.AllOverWash, Technique.PinWash, Technique.Filter),
        new("rings where it pooled", "damp with its own thinner along the ring while fresh; dry, overbrushed with the base colour", 8, Technique.AllOverWash, Technique.Glaze, Technique.Filter),
        new("shiny where the wash dried", "a thin matt varnish over all of it", 6, Technique.AllOverWash, Technique.PinWash),
        new("cleaned up too late", "its own thinner on a stiff brush, a patch at a time; better the next evening’s window than scrubbing", 40, Technique.CleanUpExcess, Technique.PinWash),
        new("pulled askew", "wiped off while it moves, and pulled straight down again", 4, Technique.Streak, Technique.RunOff),
        new("drips too fat for the scale", "narrowed from both sides with a damp brush", 5, Technique.Streak, Technique.Speckle, Technique.RunOff),
        new("matt varnish dried white", "a thin coat of satin in dry air, then matt once more, thinner", 15, Technique.Varnish),
        new("too much of it", "dragged over with the colour beneath, on a nearly dry brush", 6, Technique.DryBrush, Technique.Overbrush, Technique.Sponge, Technique.Stipple),
        new("nothing to be seen of it", "a lighter colour beneath the next time; here a second thin coat", 10, Technique.Glaze, Technique.Filter),
        new("light steps turned pink or milky", "a transparent coat of the base hue over them", 10, Technique.DirectionalLight, Technique.Glaze),
        new("the mask took paint with it", "the edge touched in with a fine brush; longer to dry before the next mask", 10, Technique.Mask, Technique.Unmask),
        new("chipped more than it should", "chips painted over with the top colour, the edges first", 8, Technique.ChipThrough, Technique.RubBack),
        new("silvering under it", "pricked, a drop of softener, pressed down; then varnish", 8, Technique.Decal),
        new("washed away under varnish", "once more, and left loose or fixed with a drop from the side", 8, Technique.Dust, Technique.Pigment),
    ];

    /// <summary>What is known of a technique: told here first, the most often first, then what goes wrong in general.</summary>
    public static IReadOnlyList<KnownMishap> For(Technique technique, IEnumerable<ToldMishap> told)
    {
        var own = told.Where(t => t.Technique == technique && t.What.Length > 0)
            .GroupBy(t => t.What.Trim().ToLowerInvariant())
            .Select(g => (Newest: g.OrderByDescending(t => t.SavedBy.Length > 0).ThenByDescending(t => t.At).First(), Times: g.Count()))
            .OrderByDescending(g => g.Times).ThenByDescending(g => g.Newest.At)
            .Select(g => new KnownMishap(g.Newest.What.Trim(), g.Newest.SavedBy.Trim(), g.Newest.Minutes, g.Times));
        return own.Concat(general.Where(g => g.At.Contains(technique)).Select(g => new KnownMishap(g.What, g.SavedBy, g.Minutes, 0))).Take(Most).ToList();
    }
}
