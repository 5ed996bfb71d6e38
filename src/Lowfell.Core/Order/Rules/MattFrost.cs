using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Matt varnish frosts where it is thick or dries in damp air.</summary>
internal sealed class MattFrost : LayerRule
{
    public override RuleFacts Facts { get; } = new("matt-frost",
        "Matt varnish thick, pooled in recesses or sprayed above the humidity limit.",
        "The matting grains gather, and it dries white.",
        "One thin coat; satin instead; brush it on.")
    { Limits = [new("relative humidity, sprayed", DampLimit, "1"), new("usual coats", ThickCoats, "coats"), new("usual coats brushed on deep relief", PoolsCoats, "coats")] };

    /// <summary>Relative humidity above which sprayed matt varnish is at risk; films of matt varnish thicker than this many usual coats.</summary>
    internal const double DampLimit = 0.65;
    private const double ThickCoats = 2;

    /// <summary>Brushed on deep relief it pools from this many coats on.</summary>
    private const double PoolsCoats = 1.5;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (!view.IsVarnish(i) || layer.Technique != Technique.Varnish || layer.Main!.Sheen != Sheen.Matt)
            return null;
        var humidity = view.Context.Climate.RelativeHumidity;
        var coats = layer.Coats * layer.Strength;
        var thick = coats > ThickCoats;
        var pooled = layer.Tool == Tool.Brush && view.Context.Zone.Relief == Relief.Deep && coats > PoolsCoats;
        var damp = humidity > DampLimit && view.IsSprayed(i);
        if (!thick && !pooled && !damp)
            return null;
        var why = damp
            ? Invariant($"is sprayed at {humidity * 100:0} % relative humidity; above about {DampLimit * 100:0} % matt varnish can dry white. Wait for a drier day, or try a scrap first")
            : thick ? Invariant($"is laid {coats:0.#} coats thick; its matting grains gather and dry white") : "is brushed thickly into deep relief, where it pools and dries white";
        var remedies = new List<Remedy>();
        if (thick || pooled)
            remedies.Add(new Remedy("one-thin-coat", "One thin coat", [new StackEdit.Replace(i, layer with { Coats = 1, Strength = 1 })]));
        if (damp)
            remedies.Add(new Remedy("brush", "Brush one thin coat", [new StackEdit.Replace(i, layer with { Tool = Tool.Brush, Coats = 1, Strength = 1 })]));
        if (ShelfPick.Varnish(view.Context.Shelf, Sheen.Satin) is { } satin)
            remedies.Add(new Remedy("satin", $"Use {satin.Name}", [new StackEdit.Replace(i, layer with { Paint = [new MixPart(satin, Parts.One)] })]));
        return new Finding(Facts.Id, Severity.Caution, [i], "Matt varnish may frost", $"{view.Says(i)}, {why}.", remedies);
    }
}
