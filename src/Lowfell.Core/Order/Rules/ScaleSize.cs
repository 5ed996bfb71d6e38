using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>A mark tells its true size when the scale is known.</summary>
internal sealed class ScaleSize : LayerRule
{
    public override RuleFacts Facts { get; } = new("scale-size",
        "Streak, run, chip, grain or splatter bigger than its kind can be at this scale.",
        "A mark too fat for the scale makes a model look like a toy.",
        "The widest that still reads true.");

    /// <summary>Widest in life, mm: ordinary streaks, runs of rust, chips, speckles of lichen or mud, grains.</summary>
    private const double StreakMm = 60, RustRunMm = 30, ChipMm = 80, SpeckleMm = 40, GrainMm = 60;

    /// <summary>Hue angles (degrees) and chroma that read as rust.</summary>
    private const double RustFrom = 35, RustTo = 72, RustChroma = 20;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (!view.LeavesFilm(i) || view.Figures(i).Mark is not { Mm: > 0 } usual || Kind(layer) is not var (word, life))
            return null;
        var mm = layer.MarkMm ?? usual.Mm;
        var scale = view.Context.Set.Scale;
        var most = Math.Floor(life / scale * 100) / 100;
        if (mm * scale <= life * Tolerance || most <= 0)
            return null;
        return new Finding(Facts.Id, mm * scale > 2 * life ? Severity.Caution : Severity.Hint, [i], "Too big for the scale",
            Invariant($"{mm:0.##} mm at 1:{scale} is a {word} {mm * scale / 10:0.#} cm wide; in life it is at most about {life / 10:0.#} cm. Keep it to {most:0.##} mm."),
            [new Remedy("true-size", Invariant($"Keep it to {most:0.##} mm"), [new StackEdit.Replace(i, layer with { MarkMm = most })])]);
    }

    /// <summary>Nobody measures a brush mark to the tenth.</summary>
    private const double Tolerance = 1.1;

    private static (string Word, double Mm)? Kind(Layer layer) => layer.Technique switch
    {
        Technique.Streak => IsRust(layer.Main!) ? ("run of rust", RustRunMm) : ("streak", StreakMm),
        Technique.PaintedChip => ("chip", ChipMm),
        Technique.Speckle => ("speckle", SpeckleMm),
        Technique.GlueAndScatter => ("grain", GrainMm),
        _ => null,
    };

    private static bool IsRust(Material material)
    {
        var lab = (material.IsOpaque ? material.Masstone() : material.OnCard(1).OverWhite).ToLab();
        var hue = Math.Atan2(lab.B, lab.A) * 180 / Math.PI;
        return Math.Sqrt(lab.A * lab.A + lab.B * lab.B) >= RustChroma && hue is >= RustFrom and <= RustTo;
    }
}
