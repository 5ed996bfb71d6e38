using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Brittle or loose texture is lifted by anything wet or rubbed until it is sealed.</summary>
internal sealed class UnsealedTexture : IOrderRule
{
    private const int CrackleCoats = 2;

    public RuleFacts Facts { get; } = new("unsealed-texture",
        "Wash, filter or dry brush on crackle, paste, sand or filler that is not sealed.",
        "Liquid lifts brittle or porous texture, a dry brush pulls grains off.",
        "Seal it with two coats of varnish.", CanStop: true)
    {
        Schools = [School.NaturalSand],
        Limits = [new("coats of varnish over crackle", CrackleCoats, "coats")],
    };

    public IEnumerable<Finding> Check(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            if (!Disturbs(view.Layers[i].Technique) || TextureBelow(view, i) is not { } texture)
                continue;
            yield return Describe(view, i, texture);

            // The layers above would only repeat it.
            yield break;
        }
    }

    private static bool Disturbs(Technique technique) => technique is Technique.AllOverWash or Technique.PinWash
        or Technique.Filter or Technique.Glaze or Technique.DryBrush or Technique.Overbrush or Technique.CleanUpExcess;

    private static bool IsTexture(Material? m) => m?.Kind is MaterialKind.CracklePaste or MaterialKind.TexturePaste
        or MaterialKind.Filler or MaterialKind.Aggregate;

    private static int? TextureBelow(StackView view, int i)
    {
        for (var j = i - 1; j >= 0; j--)
        {
            if (!view.LeavesFilm(j) || !IsTexture(view.Layers[j].Main))
                continue;

            // School "natural sand": a shade straight on grains that only their glue holds is how it is meant.
            if (view.Context.HouseRules.NaturalSand == SandColourSchool.Natural && view.Layers[j].Main!.Kind == MaterialKind.Aggregate && view.IsWash(i))
                continue;
            return Sealed(view, j, i) ? null : j;
        }

        return null;
    }

    /// <summary>Crackle wants two coats of varnish; paste, sand and filler are held by any whole coat of primer, paint or varnish.</summary>
    private static bool Sealed(StackView view, int texture, int before)
    {
        var crackle = view.Layers[texture].Main!.Kind == MaterialKind.CracklePaste;
        var coats = 0;
        for (var j = texture + 1; j < before; j++)
        {
            if (!view.IsFullFilm(j))
                continue;
            var kind = view.Layers[j].Main!.Kind;
            var seals = kind is MaterialKind.Varnish or MaterialKind.Medium or MaterialKind.Glue;
            if (seals || (!crackle && kind is MaterialKind.Primer or MaterialKind.Paint && view.Layers[j].Technique is not (Technique.Filter or Technique.Glaze)))
                coats += view.Layers[j].Coats;
        }

        return coats >= (crackle ? CrackleCoats : 1);
    }

    private Finding Describe(StackView view, int i, int texture)
    {
        var m = view.Layers[texture].Main!;
        var crackle = m.Kind == MaterialKind.CracklePaste;
        var wet = view.Layers[i].Technique is not (Technique.DryBrush or Technique.Overbrush);
        var remedies = new List<Remedy>();
        var varnish = ShelfPick.Varnish(view.Context.Shelf, Sheen.Matt) ?? ShelfPick.Varnish(view.Context.Shelf, Sheen.Satin) ?? ShelfPick.Varnish(view.Context.Shelf, Sheen.Gloss);
        if (varnish is not null)
        {
            var seal = new Layer { Technique = Technique.SealTexture, Paint = [new MixPart(varnish, Parts.One)], Coats = CrackleCoats };
            remedies.Add(new Remedy("seal", $"Seal with two coats of {varnish.Name}", [new StackEdit.Insert(texture + 1, seal)]));
        }

        return new Finding(Facts.Id, crackle && wet ? Severity.Stop : Severity.Caution, [i, texture], "Texture is not sealed",
            $"{m.Name} below is {(crackle ? "brittle and takes two coats of varnish" : "porous and takes a coat")} before any {EnumWords.Of(view.Layers[i].Technique)}; otherwise the {(wet ? "liquid lifts it" : "brush pulls grains off")}.",
            remedies);
    }
}
