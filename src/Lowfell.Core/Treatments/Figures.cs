using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Treatments;

/// <summary>The figures of a layer that may be different from surface to surface, group by group.</summary>
internal static class Figures
{
    private static readonly (Differs Group, Func<Layer, Layer, bool> Same, Func<Layer, Layer, Layer> Take)[] groups =
    [
        (Differs.Strength, (a, b) => a.Strength == b.Strength, (to, from) => to with { Strength = from.Strength }),
        (Differs.Place, (a, b) => (a.Region, a.Fades) == (b.Region, b.Fades), (to, from) => to with { Region = from.Region, Fades = from.Fades }),
        (Differs.Coats, (a, b) => a.Coats == b.Coats, (to, from) => to with { Coats = from.Coats }),
        (Differs.Mark, (a, b) => a.MarkMm == b.MarkMm, (to, from) => to with { MarkMm = from.MarkMm }),
        (Differs.Variation, (a, b) => a.Varied == b.Varied, (to, from) => to with { Varied = from.Varied }),
        (Differs.Details, (a, b) => a.Details == b.Details, (to, from) => to with { Details = from.Details }),
        (Differs.DownTo, (a, b) => a.DownTo == b.DownTo, (to, from) => to with { DownTo = from.DownTo }),
        (Differs.Optional, (a, b) => a.Optional == b.Optional, (to, from) => to with { Optional = from.Optional }),
    ];

    /// <summary>Where two layers differ in their figures.</summary>
    public static Differs Between(Layer a, Layer b) => groups.Where(g => !g.Same(a, b)).Aggregate(Differs.Nothing, (all, g) => all | g.Group);

    /// <summary>A layer with some of its figures as another has them.</summary>
    public static Layer With(this Layer layer, Layer from, Differs which) => groups.Where(g => which.HasFlag(g.Group)).Aggregate(layer, (l, g) => g.Take(l, from));

    /// <summary>A layer as it lies on one surface.</summary>
    public static Layer On(this Layer shared, Lay lay) => lay.Own is { } own ? shared.With(own, lay.Differs) : shared;

    /// <summary>A lay that has some figures as a layer has them; what is as the shared layer has it is not different.</summary>
    public static Lay Differing(this Lay lay, Layer shared, Layer from, Differs which)
    {
        var own = shared.On(lay).With(from, which);
        var differs = Between(own, shared);
        return lay with { Differs = differs, Own = differs == Differs.Nothing ? null : own };
    }

    /// <summary>Whether two layers are one application: everything is the same that surfaces share.</summary>
    public static bool SameApplication(Layer a, Layer b) =>
        (a.Technique, a.Tool, a.Drying, a.WaitMinutes, a.Preparation) == (b.Technique, b.Tool, b.Drying, b.WaitMinutes, b.Preparation)
        && Thinned(a.Dilution) == Thinned(b.Dilution)
        && a.Paint.Select(p => (p.Material.Id, p.Parts)).SequenceEqual(b.Paint.Select(p => (p.Material.Id, p.Parts)));

    private static (Guid, Parts, Parts)? Thinned(Dilution? d) => d is null ? null : (d.Thinner.Id, d.PaintParts, d.ThinnerParts);
}
