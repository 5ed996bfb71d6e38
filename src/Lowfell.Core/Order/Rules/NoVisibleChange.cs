using System.Globalization;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Work that nobody will see.</summary>
internal sealed class NoVisibleChange : IOrderRule
{
    /// <summary>CIEDE2000 below which side by side looks the same.</summary>
    private const double LeastSeen = 1.0;

    public string Id => "no-visible-change";
    public string Summary => "Layer whose predicted change is below the eye in every position.";
    public bool CanStop => false;

    public IEnumerable<Finding> Check(StackView view) => Enumerable.Range(0, view.Count).Select(i => At(view, i)).OfType<Finding>();

    public bool SpeaksOf(StackView view, Guid layer) => view.IndexOf(layer) is var i and >= 0 && At(view, i) is not null;

    private Finding? At(StackView view, int i)
    {
        if (!IsForColour(view, i) || view.Predictions[i].LargestChange >= LeastSeen)
            return null;
        var layer = view.Layers[i];
        var minutes = HandsOn.PerPiece(layer, view.Context.Zone);
        var remedies = new List<Remedy> { new("leave-out", $"Leave it out (saves about {Duration.Words(minutes)} a piece)", [new StackEdit.Remove(i)]) };
        if (layer.Strength < 1.5)
            remedies.Add(new Remedy("heavier", "Lay it twice as heavily", [new StackEdit.Replace(i, layer with { Strength = Math.Min(3, layer.Strength * 2) })]));
        if (layer.Dilution is not null)
            remedies.Add(new Remedy("neat", "Use it neat", [new StackEdit.Replace(i, layer with { Dilution = null })]));
        return new Finding(Id, Severity.Hint, [i], "Nobody will see this layer",
            string.Create(CultureInfo.InvariantCulture, $"{layer.MaterialName} changes the colour by {view.Predictions[i].LargestChange:0.0} at most, in any position; about {LeastSeen:0} is the least an eye can tell side by side."), remedies);
    }

    /// <summary>Protective, sticky and crackling coats are not there for their colour, and a rim is painted twice on purpose.</summary>
    private static bool IsForColour(StackView view, int i) =>
        view.LeavesFilm(i) && view.Layers[i].Technique != Technique.Rim && view.Layers[i].Main is { } main
        && main.OpticsSource != OpticsSource.Clear
        && main.Kind is not (MaterialKind.Varnish or MaterialKind.Primer or MaterialKind.Glue or MaterialKind.Medium or MaterialKind.ChippingFluid
            or MaterialKind.CrackleMedium or MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste or MaterialKind.Aggregate
            or MaterialKind.Tuft or MaterialKind.Decal);
}
