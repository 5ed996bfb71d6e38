using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>What is picked up wears through its colours unless varnish lies over them.</summary>
internal sealed class NoProtection : IOrderRule
{
    public RuleFacts Facts { get; } = new("no-protection",
        "A piece that is handled or played with ends without varnish over its colours; metal, glass, glow, loose pigment and the rim excepted.",
        "Fingers rub paint off edges first.",
        "A coat of varnish over the colours.");

    public IEnumerable<Finding> Check(StackView view)
    {
        var handling = view.Context.Zone.Handling;
        var bare = handling == Handling.Display ? -1 : view.Last(j => IsColour(view, j));
        if (bare < 0 || view.NextAbove(bare, j => IsVarnishOver(view, j, bare)) >= 0)
            yield break;
        var remedies = new List<Remedy>();
        if (ShelfPick.VarnishOrNear(view.Context.Shelf, view.Context.TargetSheen) is { } varnish)
            remedies.Add(new("varnish", $"A coat of {varnish.Name} over it", [new StackEdit.Insert(bare + 1, ShelfPick.VarnishLayer(varnish, 1))]));
        yield return new Finding(Facts.Id, handling == Handling.HardPlay ? Severity.Caution : Severity.Hint, [bare], "Nothing protects the paint",
            $"{view.Says(bare)}, lies open on a zone that is {(handling == Handling.HardPlay ? "played hard" : "handled")}: fingers rub it off, edges first.", remedies);
    }

    private static bool IsColour(StackView view, int j) =>
        view.LeavesFilm(j) && view.Layers[j].Technique is not (Technique.Rim or Technique.Tuft or Technique.Decal)
        && view.Layers[j].Main is { Lustre: Lustre.Plain, Kind: MaterialKind.Paint or MaterialKind.Ink or MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Primer };

    private static bool IsVarnishOver(StackView view, int j, int colour) =>
        view.LeavesFilm(j) && view.Layers[j].Main!.Kind == MaterialKind.Varnish && Regions.Covers(view.Layers[j].Region, view.Layers[colour].Region);
}
