using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Order.Rules;

/// <summary>Metal, glass and glow come after the matt coat.</summary>
internal sealed class MattOverMetal : LayerRule
{
    public override RuleFacts Facts { get; } = new("matt-over-metal",
        "Metal, glass or glow dulled by the final coat.",
        "A matt film scatters the shine that made it look like metal or glass.",
        "Do it after the matt coat; seal it with gloss instead.");

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i) || Shines(view, i) is not { } what)
            return null;
        var matt = view.NextAbove(i, j => view.IsVarnish(j) && view.Layers[j].Main!.Sheen == Sheen.Matt);
        if (matt < 0 || view.NextAbove(matt, j => view.LeavesFilm(j) && (Shines(view, j) is not null || IsShine(view, j))) >= 0)
            return null;
        var remedies = new List<Remedy> { new("after-matt", $"Do it after layer {matt + 1}", [new StackEdit.Move(i, matt)]) };
        if (ShelfPick.Varnish(view.Context.Shelf, Sheen.Gloss) is { } gloss)
            remedies.Add(new Remedy("gloss-instead", $"Use {gloss.Name} for layer {matt + 1}", [new StackEdit.Replace(matt, view.Layers[matt] with { Paint = [new MixPart(gloss, Parts.One)] })]));
        return new Finding(Facts.Id, Severity.Caution, [i, matt], $"{what} goes dull",
            $"Layer {matt + 1}, {view.Layers[matt].MaterialName}, takes the shine off {view.Layers[i].MaterialName} below it.", remedies);
    }

    /// <summary>What shines here: the topmost film that does, unless something opaque covers it.</summary>
    private static string? Shines(StackView view, int i)
    {
        var lustre = view.Layers[i].Paint.Select(p => p.Material.Lustre).FirstOrDefault(l => l != Lustre.Plain);
        if (lustre == Lustre.Plain)
            return null;
        return view.NextAbove(i, j => view.IsFullFilm(j) && view.Layers[j].Main!.IsOpaque) >= 0 ? null : EnumSign(lustre);
    }

    private static bool IsShine(StackView view, int j) => view.IsFullFilm(j) && view.Layers[j].Main! is { Kind: MaterialKind.Varnish, Sheen: Sheen.Gloss };

    private static string EnumSign(Lustre lustre) => lustre switch { Lustre.Metal => "Metal", Lustre.Glass => "Glass", _ => "Glow" };
}
