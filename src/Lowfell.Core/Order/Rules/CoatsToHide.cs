using System.Globalization;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A ground colour that lets what is below shine through is patchy.</summary>
internal sealed class CoatsToHide : LayerRule
{
    /// <summary>More coats than this and another undercoat is the better advice.</summary>
    private const int MostSensible = 4;

    public override RuleFacts Facts { get; } = new("coats-to-hide",
        "Planned coats leave the ground visible: says how many are needed, or a better undercoat.",
        "A ground colour that lets what is below shine through is patchy.",
        "More coats; use it neat; another undercoat.")
    {
        Schools = [School.DryBrushCleaning],
        Limits = [new("its own lightness over the ground", Hiding.HiddenRatio, "times"), new("coats that are still offered", MostSensible, "coats")],
    };

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique is not (Technique.BaseCoat or Technique.Rim) || !view.IsFullFilm(i) || !layer.Main!.IsOpaque || OverLight(view, i))
            return null;
        var optics = Laying.PerUm(layer);
        var surface = Shine.Of(layer.Paint);
        var perCoat = Laying.Of(layer with { Coats = 1 }, view.Context.Zone).FilmUm.Field;
        var ground = new Reflectance(view.Predictions.Below(i, Position.Field, layer.Region));
        var ratio = Hiding.GroundRatio(optics, perCoat * layer.Coats, ground, surface);
        return ratio < Hiding.HiddenRatio ? Describe(view, i, ratio, Hiding.CoatsOver(optics, perCoat, ground, surface)) : null;
    }

    /// <summary>Thin coats over painted light are meant to let it through.</summary>
    private static bool OverLight(StackView view, int i)
    {
        for (var j = i - 1; j >= 0; j--)
            if (view.Layers[j].Technique == Technique.DirectionalLight)
                return true;
        return false;
    }

    private Finding? Describe(StackView view, int i, double ratio, int? needed)
    {
        var layer = view.Layers[i];
        var remedies = new List<Remedy>();
        // Over crackle medium the colour goes on in one pass, whatever shows through its cracks.
        if (view.FilmBelow(i) is >= 0 and var below && view.Layers[below].Technique == Technique.CrackleMedium)
            return null;
        if (needed is { } n && n <= MostSensible)
            remedies.Add(new Remedy("more-coats", $"Lay {n} coats", [new StackEdit.Replace(i, layer with { Coats = n })]));
        if (layer.Dilution is not null)
            remedies.Add(new Remedy("neat", $"Use it neat, {Math.Max(2, layer.Coats)} coats", [new StackEdit.Replace(i, layer with { Dilution = null, Coats = Math.Max(2, layer.Coats) })]));
        if (BetterPrimer(view, i) is var (at, primer))
            remedies.Add(new Remedy("undercoat", $"Prime with {primer.Name} instead", [new StackEdit.Replace(at, view.Layers[at] with { Paint = [new(primer, Mixing.Parts.One)] })]));
        var estimate = layer.Main!.OpticsSource == OpticsSource.Estimated ? " Its hiding is an estimate from the colour alone." : "";
        var advice = needed is { } count ? $"It takes {count} coats" : $"Even {Hiding.MostCoats} coats do not";
        return new Finding(Facts.Id, Severity.Caution, [i], "The ground shows through",
            string.Create(CultureInfo.InvariantCulture, $"After {layer.Coats} coat{(layer.Coats == 1 ? "" : "s")} {layer.MaterialName} has {ratio * 100:0} % of its own lightness over what is below. {advice} to reach {Hiding.HiddenRatio * 100:0} %.{estimate}"), remedies);
    }

    /// <summary>A primer on the shelf nearer to the colour that goes over it.</summary>
    private static (int At, Material Primer)? BetterPrimer(StackView view, int i)
    {
        var at = i - 1;
        if (at < 0 || view.Layers[at].Technique != Technique.Prime)
            return null;
        var wanted = view.Layers[i].Main!.Masstone().ToLab();
        var primers = view.Context.Shelf.Where(m => m.Kind == MaterialKind.Primer && m.Carrier == view.Layers[at].Carrier && m.Id != view.Layers[at].Main!.Id);
        var best = ShelfPick.Likely(primers, wanted)
            .MinBy(m => Math.Abs(m.Masstone().ToLab().L - wanted.L));
        return best is null ? null : (at, best);
    }
}
