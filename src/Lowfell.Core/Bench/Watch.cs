using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order.Rules;

namespace Lowfell.Core.Bench;

/// <summary>What to look out for while a layer is laid: a word or two for somebody with a wet brush in the hand.</summary>
public static class Watch
{
    /// <summary>The usual hints for a layer, the first the most needful; none where there is nothing to say.</summary>
    /// <param name="layer">What is laid.</param>
    /// <param name="zone">Where.</param>
    /// <param name="measured">The air at the bench, where it is measured.</param>
    public static IReadOnlyList<string> For(Layer layer, Zone zone, Climate? measured = null)
    {
        var hints = new List<string>();
        if (measured is { RelativeHumidity: > MattFrost.DampLimit and var damp } && layer is { Technique: Technique.Varnish, Main.Sheen: Sheen.Matt, Tool: Tool.Airbrush or Tool.SprayCan })
            hints.Add(FormattableString.Invariant($"The air is damp now, {damp * 100:0} %: sprayed matt varnish can dry white. Wait, warm the room, or brush it on thinly."));
        if (Of(layer, zone) is { } first)
            hints.Add(first);
        if (layer.Coats > 1)
            hints.Add($"{layer.Coats} coats, each dry before the next.");
        if (layer.Drying == DryingMode.HotAir)
            hints.Add("Hot air from a hand's breadth away, moving.");
        return hints;
    }

    private static string? Of(Layer layer, Zone zone) => layer.Technique switch
    {
        Technique.Prime or Technique.BaseCoat or Technique.Rim => layer.Tool is Tool.Airbrush or Tool.SprayCan ? "Light passes; wet edges run." : "Thin; let it level, do not go back into it.",
        Technique.DirectionalLight => "From above only, from one side; stop early.",
        Technique.Overbrush => "Loaded, but not wet: the recesses stay dark.",
        Technique.DryBrush => "Nearly dry brush; try it on paper first.",
        Technique.Sponge => "Fine foam, dabbed off first; raised faces only.",
        Technique.Stipple => "An old brush, upright; turn it at every dab.",
        Technique.Patch => "Not in the same place on every piece.",
        Technique.AllOverWash => zone.Relief == Relief.Smooth ? "It pools on smooth faces: draw it off at the lower edge." : "Let it run into the recesses; lift what pools at the lower edge.",
        Technique.PinWash => "Touch the joint, let it run; wipe only once it has stopped moving.",
        Technique.CleanUpExcess => "Hardly damp, across the joints, never along them.",
        Technique.Filter or Technique.Glaze => "Wiped brush, long strokes, no puddles.",
        Technique.EdgeLine => "The side of the brush along the edge.",
        Technique.PaintedChip => "Small and few; most where it would meet the world.",
        Technique.ChippingFluid => "Even and not too thick; no hot air.",
        Technique.ChipThrough => "A little water, wait, then a stiff brush; stop early.",
        Technique.RubBack => "Edges first, light hand.",
        Technique.Scratch => "A light line under a dark one.",
        Technique.Streak => "Straight down, thinner towards the end.",
        Technique.Speckle => "Try the spray of drops on paper first; mask what is finished.",
        Technique.Dust or Technique.Pigment => "Little at a time, worked in dry; mask on.",
        Technique.Varnish => layer.Main?.Sheen == Sheen.Matt ? "Thin: pooled or damp matt varnish dries white." : "Thin and even; no puddles in the joints.",
        Technique.SealTexture => "Thin, into every gap; nothing may stand loose.",
        Technique.TexturePaste => "Away from the rim, where it would chip off.",
        Technique.Render => "The first pass thin, to key the next.",
        Technique.CracklePaste => "Thicker film, wider cracks. No heat.",
        Technique.CrackleMedium => "One pass of the top colour, then hands off.",
        Technique.GlueAndScatter => "Glue, scatter, press lightly, shake off what is loose.",
        Technique.Tuft => "Sizes mixed, halves against rocks.",
        Technique.Mask => "Press the edges down.",
        Technique.Unmask => "Slowly, back over itself, before the paint is hard.",
        Technique.WetBlend => "While both are wet: one stroke along, then leave it.",
        Technique.RunOff => "A drop of water on top, drawn straight down.",
        Technique.Decal => "On a glossy bed; press the water out from the middle.",
        Technique.Assemble => "Dry fit first.",
        _ => null,
    };
}
