using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order;

/// <summary>What can hurt.</summary>
public enum Hazard
{
    SprayCan, SolventSpray, SolventVapour, InstantGlue, DryingOil, Dust, Blade, ThinnerWaste, Mist,
}

/// <summary>One usual caution, short.</summary>
public sealed record CareNote(Hazard Care, string Text);

/// <summary>The usual cautions of a layer, from what it is and how it is laid. They never stand in for the label.</summary>
public static class Care
{
    /// <summary>Said wherever cautions are shown.</summary>
    public const string Deference = "The label and safety data sheet, local rules and trained advice come first.";

    /// <summary>The cautions of one layer, worst first; none for ordinary water-based brushwork.</summary>
    public static IReadOnlyList<CareNote> For(Layer layer, Substrate substrate) => Hazards(layer, substrate).Distinct().Order().Select(h => new CareNote(h, Text(h))).ToList();

    private static IEnumerable<Hazard> Hazards(Layer layer, Substrate substrate)
    {
        if (layer.Technique == Technique.TrimAndTouchUp)
        {
            yield return Hazard.Blade;
            if (substrate == Substrate.Resin)
                yield return Hazard.Dust;
        }

        if (layer.Paint.Count == 0)
            yield break;
        var solvent = layer.Carrier.IsSolvent() || (layer.Dilution?.Thinner.Carrier.IsSolvent() ?? false);
        if (layer.Tool == Tool.SprayCan)
            yield return Hazard.SprayCan;
        else if (layer.Tool == Tool.Airbrush)
            yield return solvent ? Hazard.SolventSpray : Hazard.Mist;
        else if (solvent)
            yield return Hazard.SolventVapour;
        foreach (var part in layer.Paint)
        {
            if (part.Material.Carrier == Carrier.Cyanoacrylate)
                yield return Hazard.InstantGlue;
            if (part.Material.Carrier == Carrier.Oil)
                yield return Hazard.DryingOil;
            if (part.Material.Kind is MaterialKind.Pigment or MaterialKind.Aggregate)
                yield return Hazard.Dust;
            if (part.Material.IsThinner && part.Material.Carrier.IsSolvent())
                yield return Hazard.ThinnerWaste;
        }

        if (layer.Dilution is { Thinner: var thinner } && thinner.Carrier.IsSolvent())
            yield return Hazard.ThinnerWaste;
    }

    private static string Text(Hazard hazard) => hazard switch
    {
        Hazard.SprayCan => "Spray can: outdoors or extracted, respirator for organic vapour, no flame and no hot air.",
        Hazard.SolventSpray => "Sprayed solvent: extraction, respirator for organic vapour, no flame, no spark, no hot air.",
        Hazard.SolventVapour => "Solvent vapour: open a window, no flame and no hot air while wet, lids on, gloves.",
        Hazard.InstantGlue => "Instant glue: bonds skin, heats and smokes on cotton or wool, its vapour irritates and frosts clear parts.",
        Hazard.DryingOil => "Drying oil: rags can heat by themselves; lay them flat outside or keep them wet in a closed metal tin.",
        Hazard.Dust => "Fine dust: mask, wipe damp, never sweep dry or blow.",
        Hazard.Blade => "Blade: cut away from you, on a mat.",
        Hazard.ThinnerWaste => "Used thinner is hazardous waste: collect it, never down the drain.",
        _ => "Spray mist: mask and an open window, also for water-based paint.",
    };
}
