using Lowfell.Core.Layers;

namespace Lowfell.Core.Precedence;

/// <summary>What cannot be turned round: the stacks, the order of a treatment where its layers are near each other, assembly, and what is known to be done.</summary>
internal static class Unturned
{
    public static IEnumerable<Before> Of(IReadOnlyList<PieceZone> zones, PieceSteps steps, IReadOnlyList<Before> soiling) =>
        Stacks(zones, steps).Concat(Assembly(zones, steps)).Concat(Near(zones, steps, soiling)).Concat(Finished(zones, steps));

    private static IEnumerable<Before> Stacks(IReadOnlyList<PieceZone> zones, PieceSteps steps)
    {
        for (var z = 0; z < zones.Count; z++)
            for (var i = 1; i < zones[z].Layers.Count; i++)
                if (steps.Of[z][i - 1] != steps.Of[z][i])
                    yield return new Before(steps.Of[z][i - 1], steps.Of[z][i], Why.Stack, z, z);
    }

    /// <summary>What nothing reaches once the piece is together is done before it is put together.</summary>
    private static IEnumerable<Before> Assembly(IReadOnlyList<PieceZone> zones, PieceSteps steps)
    {
        for (var z = 0; z < zones.Count; z++)
            if (zones[z].Zone.BeforeAssembly && LastInside(zones[z]) is >= 0 and var last)
                for (var o = 0; o < zones.Count; o++)
                    for (var i = 0; o != z && i < zones[o].Layers.Count; i++)
                        if (zones[o].Layers[i].Technique == Technique.Assemble && steps.Of[o][i] != steps.Of[z][last])
                            yield return new Before(steps.Of[z][last], steps.Of[o][i], Why.Assembly, z, o);
    }

    /// <summary>The last layer of a zone before its own assembly: what lies above that is not reached any more.</summary>
    private static int LastInside(PieceZone zone)
    {
        for (var i = 0; i < zone.Layers.Count; i++)
            if (zone.Layers[i].Technique == Technique.Assemble)
                return i - 1;
        return zone.Layers.Count - 1;
    }

    /// <summary>Surfaces of one treatment that are near each other: what would soil what stands finished keeps its place before or after it.</summary>
    private static IEnumerable<Before> Near(IReadOnlyList<PieceZone> zones, PieceSteps steps, IReadOnlyList<Before> soiling)
    {
        foreach (var edge in soiling.Where(e => zones[e.FirstOn].Treatment == zones[e.SecondOn].Treatment))
            yield return steps.PlaceOf(edge.First, edge.FirstOn) < steps.PlaceOf(edge.Second, edge.SecondOn)
                ? edge with { Why = Why.Stack }
                : new Before(edge.Second, edge.First, Why.Stack, edge.SecondOn, edge.FirstOn);
    }

    /// <summary>What is known to stand finished before anything else is begun.</summary>
    private static IEnumerable<Before> Finished(IReadOnlyList<PieceZone> zones, PieceSteps steps)
    {
        for (var o = 0; o < zones.Count; o++)
            if (zones[o] is { StandsFinished: true, Finish: >= 0 and var finish })
                for (var z = 0; z < zones.Count; z++)
                    if (z != o && zones[z].Layers.Count > 0 && steps.Of[z][0] != steps.Of[o][finish])
                        yield return new Before(steps.Of[o][finish], steps.Of[z][0], Why.Finished, o, z);
    }
}
