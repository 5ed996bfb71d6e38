using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Order.Rules;

/// <summary>Polystyrene foam melts where a solvent or a propellant reaches it.</summary>
internal sealed class SolventOnFoam : IOrderRule
{
    public RuleFacts Facts { get; } = new("solvent-on-foam",
        "Solvent or aerosol product reaches unsealed polystyrene foam.",
        "The foam melts away under it.",
        "Seal the foam first; use a water-borne product.", CanStop: true)
    { Limits = [new("coats of paint that close foam", PaintCoats, "coats")] };

    /// <summary>Coats of ordinary paint that close foam; a sealer, primer, filler or paste does it in one.</summary>
    private const int PaintCoats = 2;

    public IEnumerable<Finding> Check(StackView view)
    {
        if (view.Context.Zone.Substrate != Substrate.Foam)
            yield break;
        for (var i = 0; i < view.Count; i++)
        {
            if (Seals(view, i))
                yield break;
            if (!Attacks(view.Layers[i]))
                continue;
            yield return Describe(view, i);

            // The layers above would only repeat it.
            yield break;
        }
    }

    private static bool Attacks(Layer layer) =>
        layer.Paint.Count > 0 && layer.Strength > 0
        && (layer.Carrier.IsSolvent() || layer.Carrier == Carrier.Cyanoacrylate || layer.Tool == Tool.SprayCan || (layer.Dilution?.Thinner.Carrier.IsSolvent() ?? false));

    private static bool Seals(StackView view, int i) =>
        view.IsFullFilm(i) && !Attacks(view.Layers[i]) && view.Layers[i].Main!.Kind switch
        {
            MaterialKind.Paint => view.Layers[i].Coats >= PaintCoats,
            MaterialKind.Primer or MaterialKind.Varnish or MaterialKind.Medium or MaterialKind.Glue or MaterialKind.Filler or MaterialKind.TexturePaste => true,
            _ => false,
        };

    private Finding Describe(StackView view, int i)
    {
        var layer = view.Layers[i];
        var remedies = new List<Remedy>();
        if (ShelfPick.Sealer(view.Context.Shelf) is { } sealer)
            remedies.Add(new Remedy("seal-first", $"Seal the foam with two coats of {sealer.Name} first", [new StackEdit.Insert(i, ShelfPick.LayerOf(Technique.SealTexture, sealer, 2))]));
        if (layer.Main!.Kind != MaterialKind.Thinner && ShelfPick.WaterBorne(view.Context.Shelf, layer) is var (instead, other))
            remedies.Add(new Remedy("water-borne", $"Use {other.Name}, which is water-borne",
                [new StackEdit.Replace(i, instead with { Tool = layer.Tool == Tool.SprayCan ? Tool.Airbrush : layer.Tool })]));
        var how = layer.Tool == Tool.SprayCan ? "the spray" : $"the solvent in {layer.MaterialName}";
        return new Finding(Facts.Id, Severity.Stop, [i], "Solvent on bare foam",
            $"{view.Says(i)}, reaches foam that nothing seals: {how} melts it. Cut faces and pinholes are the first to go.", remedies);
    }
}
