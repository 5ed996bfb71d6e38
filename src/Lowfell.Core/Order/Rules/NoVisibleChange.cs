using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Sight;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Work that nobody will see.</summary>
internal sealed class NoVisibleChange : LayerRule
{
    /// <summary>CIEDE2000 below which side by side looks the same.</summary>
    internal const double LeastSeen = 1.0;

    public override RuleFacts Facts { get; } = new("no-visible-change",
        "Layer whose predicted change is below the eye at the table in every position.",
        "Nobody will see the work.",
        "Leave it out; lay it more heavily; use it neat.")
    {
        OnlyHints = true,
        Schools = [School.DryBrushCleaning],
        Limits = [new("change of colour", LeastSeen, "ΔE00"), new("nearer nobody looks", NoseMetres, "m")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (!IsForColour(view, i))
            return null;
        var (set, layer) = (view.Context.Set, view.Layers[i]);
        if (view.Predictions[i].LargestChange is var change and < LeastSeen)
            return Describe(view, i, Invariant($"{layer.MaterialName} changes the colour by {change:0.0} at most, in any position; about {LeastSeen:0} is the least an eye can tell side by side."), stronger: true);
        return Details.IfLost(view.Predictions, i, set.TableMetres, view.Context.Pieces) is { } detail
            ? Describe(view, i, Invariant($"Its marks, {detail.Millimetres:0.#} mm wide, {Lost(detail)} once the rest is on; the table is {set.TableMetres:0.0#} m away."), stronger: false)
            : null;
    }

    private static string Lost(Detail detail) => detail.LostBeyondMetres < NoseMetres ? "cannot be told from any distance" : Invariant($"are lost beyond {detail.LostBeyondMetres:0.0} m");

    /// <summary>Nearer than this nobody looks.</summary>
    private const double NoseMetres = 0.1;

    private Finding Describe(StackView view, int i, string why, bool stronger)
    {
        var (layer, pieces) = (view.Layers[i], view.Context.Pieces);
        var minutes = HandsOn.Batch(layer, view.Context.Zone, pieces, view.Context.Pace);
        var saves = $"saves about {Duration.Words(minutes)}{(pieces > 1 ? $" over {pieces} pieces" : "")}";
        var remedies = new List<Remedy> { new("leave-out", $"Leave it out ({saves})", SolventWork.WithCleanUp(view, i)) };
        // What is too small to be told is not told for being laid more heavily.
        if (stronger && layer.Strength < 1.5)
            remedies.Add(new Remedy("heavier", "Lay it twice as heavily", [new StackEdit.Replace(i, layer with { Strength = Math.Min(3, layer.Strength * 2) })]));
        if (stronger && layer.Dilution is not null)
            remedies.Add(new Remedy("neat", "Use it neat", [new StackEdit.Replace(i, layer with { Dilution = null })]));
        return new Finding(Facts.Id, Severity.Hint, [i], "Nobody will see this layer", why, remedies);
    }

    /// <summary>Protective, sticky and crackling coats are not there for their colour, and a rim is painted twice on purpose.</summary>
    private static bool IsForColour(StackView view, int i) =>
        view.LeavesFilm(i) && view.Layers[i].Technique != Technique.Rim && view.Layers[i].Main is { } main
        && main.OpticsSource != OpticsSource.Clear
        && main.Kind is not (MaterialKind.Varnish or MaterialKind.Primer or MaterialKind.Glue or MaterialKind.Medium or MaterialKind.ChippingFluid
            or MaterialKind.CrackleMedium or MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste or MaterialKind.Aggregate
            or MaterialKind.Tuft or MaterialKind.Decal);
}
