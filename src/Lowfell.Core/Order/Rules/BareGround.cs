using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>The first colour needs something to hold on to.</summary>
internal sealed class BareGround : IOrderRule
{
    public RuleFacts Facts { get; } = new("bare-ground",
        "First colour on a bare surface without a fitting primer or sealer; sand laid over the primer.",
        "Paint rubs off edges and dries patchy on what it cannot hold on to.",
        "Prime first; lay the sand below the primer.")
    { Schools = [School.BaseTexture] };

    public IEnumerable<Finding> Check(StackView view)
    {
        if (FirstColour(view) is { } first)
            yield return first;
        for (var i = 0; i < view.Count; i++)
            if (SandOverPrimer(view, i) is { } sand)
                yield return sand;
    }

    private Finding? FirstColour(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            if (!view.LeavesFilm(i))
                continue;
            var main = view.Layers[i].Main!;
            if (IsGround(main, view.Context.Zone.Substrate))
                return null;
            if (main.Kind is MaterialKind.Glue or MaterialKind.Tuft)
                continue;
            return Describe(view, i, main);
        }

        return null;
    }

    /// <summary>School "base textured before priming": grains over the primer get none of their own.</summary>
    private Finding? SandOverPrimer(StackView view, int i)
    {
        if (view.Context.HouseRules.BaseTexture != BaseTextureSchool.BeforePriming || !view.LeavesFilm(i) || view.Layers[i].Main!.Kind != MaterialKind.Aggregate)
            return null;
        var primer = view.NextBelow(i, j => view.IsFullFilm(j) && view.Layers[j].Main!.Kind == MaterialKind.Primer);
        var above = view.NextAbove(i, view.LeavesFilm);
        if (primer < 0 || above < 0 || view.Layers[above].Main!.Kind is not (MaterialKind.Paint or MaterialKind.Ink))
            return null;
        return new Finding(Facts.Id, Severity.Hint, [i, primer], "Sand over the primer",
            $"{view.Layers[i].MaterialName} goes on after layer {primer + 1}, the primer, and is painted without one. Your house rule is to texture before priming.",
            [new Remedy("texture-first", $"Move it below layer {primer + 1}", [new StackEdit.Move(i, primer)])]);
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

        return new Finding(Facts.Id, Severity.Caution, [i], "Nothing to hold on to",
            $"{main.Name} goes straight on bare {substrate}. Without a primer or sealer it rubs off at edges and dries patchy.", remedies);
    }
}
