using CsCheck;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

/// <summary>A random stack with its zone and the house rule that matters to colour.</summary>
public sealed record RandomStack(Layer[] Stack, Zone Zone, bool CarryOver)
{
    /// <summary>Said in full where a property fails.</summary>
    public override string ToString() =>
        string.Join(" | ", Stack.Select(l => $"{l.Technique} {l.MaterialName}, {l.Tool}, {l.Region}, {l.Coats} coats, x{l.Strength:R}{(l.Dilution is null ? "" : ", thinned")}")) + $" on {Zone}, carrying over {CarryOver}";
}

internal static class RandomStacks
{
    private static readonly Material?[] materials = [.. Shelf, null];

    private static readonly Gen<Layer> layers = Gen.Select(
        Gen.Enum<Technique>(), Gen.Int[0, materials.Length - 1], Gen.Int[1, 3], Gen.Double[0, 2], Gen.Enum<Region>(), Gen.Enum<Tool>(), Gen.Int[0, 3],
        (technique, material, coats, strength, region, tool, thin) =>
            Lay(technique, materials[material], coats, strength: strength, region: region, thin: thin == 0 ? new Dilution(Water, Parts.Of(2), Parts.One) : null) with { Tool = tool });

    public static Gen<RandomStack> Of(int most) => Gen.Select(
        layers.Array[0, most], Gen.Enum<Relief>(), Gen.Enum<Substrate>(), Gen.Double[0.05, 0.4], Gen.Double[0.05, 0.4], Gen.Double[2, 200], Gen.Bool,
        (stack, relief, substrate, raised, recess, area, carry) =>
            new RandomStack(stack, Zone(relief, area, substrate) with { Shares = new Split(raised, 1 - raised - recess, recess) }, carry));
}
