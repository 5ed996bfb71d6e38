using Lowfell.Core.Colour;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Store;

namespace Lowfell.Server.Stacks;

/// <summary>Reads what questions about a draft have in common.</summary>
internal static class Draft
{
    /// <summary>The draft on its zone, or null with every fault named.</summary>
    public static StackView? Read(Place at, IReadOnlyList<LayerDto?>? layers, Faults faults, string field = "layers")
    {
        var own = new Faults();
        var read = LayerWords.Read(layers, at.Graph.Materials, own);
        foreach (var fault in own.All)
            faults.Add(field + fault.Field["layers".Length..], fault.Message);
        return read is null ? null : new StackView(at.Graph.Context(at.Zone, at.Design), read);
    }

    /// <summary>Where a layer lies in the draft; -1 with a fault when it does not.</summary>
    public static int IndexOf(StackView? draft, Guid? layer, Faults faults)
    {
        var index = draft is null || layer is null ? -1 : draft.IndexOf(layer.Value);
        if (draft is not null)
            faults.Require(index >= 0, "layerId", "Give the id of a layer in this stack.");
        return index;
    }
}
