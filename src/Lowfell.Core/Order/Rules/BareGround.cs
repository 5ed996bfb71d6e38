using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>The first colour needs something to hold on to.</summary>
internal sealed class BareGround : IOrderRule
{
    public string Id => "bare-ground";
    public string Summary => "First colour on a bare surface without a fitting primer or sealer.";
    public bool CanStop => false;

    public IEnumerable<Finding> Check(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            if (!view.LeavesFilm(i))
                continue;
            var main = view.Layers[i].Main!;
            if (IsGround(main, view.Context.Zone.Substrate))
                yield break;
            if (main.Kind is MaterialKind.Glue or MaterialKind.Tuft)
                continue;
            yield return Describe(view, i, main);
            yield break;
        }
    }

    /// <summary>Primer, texture that grips by itself, or a sealer on something thirsty.</summary>
    private static bool IsGround(Material m, Substrate substrate) =>
        m.Kind is MaterialKind.Primer or MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste or MaterialKind.Aggregate
        || (SubstrateTraits.IsThirsty(substrate) && m is { Kind: MaterialKind.Varnish or MaterialKind.Medium } or { Carrier: Carrier.PVA });

    private Finding Describe(StackView view, int i, Material main)
    {
        var substrate = EnumWords.Of(view.Context.Zone.Substrate);
        var remedies = new List<Remedy>();
        if (ShelfPick.Primer(view.Context.Shelf, view.Context.Zone.Substrate) is { } primer)
        {
            var layer = new Layer
            {
                Technique = Technique.Prime,
                Paint = [new MixPart(primer, Parts.One)],
                Tool = primer.Carrier.IsWaterBorne() ? Tool.Airbrush : Tool.SprayCan,
            };
            remedies.Add(new Remedy("prime-first", $"Prime with {primer.Name} first", [new StackEdit.Insert(0, layer)]));
        }

        return new Finding(Id, Severity.Caution, [i], "Nothing to hold on to",
            $"{main.Name} goes straight on bare {substrate}. Without a primer or sealer it rubs off at edges and dries patchy.", remedies);
    }
}
