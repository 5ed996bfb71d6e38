using Lowfell.Core.Layers;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>A mark tells its true size when the scale is known.</summary>
internal sealed class ScaleSize : LayerRule
{
    public override RuleFacts Facts { get; } = new("scale-size",
        "Streak, run, chip, grain or splatter bigger than its kind can be at this scale.",
        "A mark too fat for the scale makes a model look like a toy.",
        "The widest that still reads true.")
    { Limits = [new("a streak in life", StreakMm, "mm"), new("a run of rust in life", RustRunMm, "mm"), new("a chip in life", ChipMm, "mm"), new("a speckle in life", SpeckleMm, "mm"), new("a grain in life", GrainMm, "mm"), new("times as wide, for a hint", Tolerance, "times"), new("times as wide, for a caution", Twice, "times")] };

    /// <summary>Widest in life, mm: ordinary streaks, runs of rust, chips, speckles of lichen or mud, grains.</summary>
    private const double StreakMm = 60, RustRunMm = 30, ChipMm = 80, SpeckleMm = 40, GrainMm = 60;

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
        return new Finding(Facts.Id, mm * scale > Twice * life ? Severity.Caution : Severity.Hint, [i], "Too big for the scale",
            Invariant($"{mm:0.##} mm at 1:{scale} is a {word} {mm * scale / 10:0.#} cm wide; in life it is at most about {life / 10:0.#} cm. Keep it to {most:0.##} mm."),
            [new Remedy("true-size", Invariant($"Keep it to {most:0.##} mm"), [new StackEdit.Replace(i, layer with { MarkMm = most })])]);
    }

    /// <summary>Nobody measures a brush mark to the tenth; twice as wide as it can be, it is a caution.</summary>
    private const double Tolerance = 1.1, Twice = 2;

    private static (string Word, double Mm)? Kind(Layer layer) => layer.Technique switch
    {
        Technique.Streak => IsRust(layer) ? ("run of rust", RustRunMm) : ("streak", StreakMm),
        Technique.PaintedChip => ("chip", ChipMm),
        Technique.Speckle => ("speckle", SpeckleMm),
        Technique.GlueAndScatter => ("grain", GrainMm),
        _ => null,
    };

    /// <summary>Brown may be mud, oil or soot: a streak is a run of rust where what it is laid with says so.</summary>
    private static bool IsRust(Layer layer) => layer.MaterialName.Contains("rust", StringComparison.OrdinalIgnoreCase);
}
