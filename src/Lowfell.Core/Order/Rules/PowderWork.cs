using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Order.Rules;

/// <summary>What the rules about pigments share.</summary>
internal static class PowderWork
{
    /// <summary>Dry powder that neither its own mix nor a fixer right above it holds.</summary>
    public static bool IsLoose(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (!view.LeavesFilm(i) || layer.Main!.Kind != MaterialKind.Pigment || layer.Technique is not (Technique.Pigment or Technique.Dust or Technique.Speckle)
            || layer.Dilution is not null || layer.Paint.Any(p => p.Material.Kind is MaterialKind.Medium or MaterialKind.Thinner or MaterialKind.GlazeMedium))
            return false;
        for (var j = i + 1; j < view.Count && view.Layers[j].Technique is Technique.Pigment or Technique.Dust; j++)
            if (view.Layers[j].Main?.Kind is MaterialKind.Medium or MaterialKind.Thinner || view.Layers[j].Dilution is not null)
                return false;
        return true;
    }

    /// <summary>A fixer worked in right after the powder.</summary>
    public static List<Remedy> Fix(StackView view, int i)
    {
        if (ShelfPick.Fixer(view.Context.Shelf) is not { } fixer)
            return [];
        return [new Remedy("fix", $"Fix it with {fixer.Name}", [new StackEdit.Insert(i + 1, Fixing(view.Layers[i], fixer))])];
    }

    /// <summary>A fixer touched in where the powder lies.</summary>
    public static Layer Fixing(Layer powder, Material fixer) => ShelfPick.LayerOf(Technique.Pigment, fixer) with { Region = powder.Region, Strength = 0.5 };
}
