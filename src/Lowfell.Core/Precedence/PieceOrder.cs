using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Precedence;

/// <summary>
/// The one order between the layers of a piece: what rules, timetables and cores all ask. Stacks, assembly and what stands finished are as they
/// are; spray, rim and loose stuff have their price, and where they would close a circle the cheapest is dropped.
/// </summary>
public sealed class PieceOrder
{
    private readonly int[][] stepOf;
    private readonly Soiling soiling;
    private readonly Lazy<Follows> follows;

    private PieceOrder(IReadOnlyList<PieceZone> zones, PieceSteps steps, Soiling soiling)
    {
        (Zones, Steps, stepOf, this.soiling) = (zones, steps.All, steps.Of, soiling);
        var priced = soiling.Edges().ToList();
        var circles = new Circles(Steps.Count, [.. Unturned.Of(zones, steps, priced), .. priced], e => soiling.PriceOf(e).Minutes);
        (Kept, Dropped) = (circles.Kept, circles.Dropped);
        follows = new(() =>
        {
            var all = new Follows(Steps.Count);
            foreach (var edge in Kept)
                all.Add(edge.First, edge.Second);
            return all;
        });
    }

    /// <summary>The order of a piece.</summary>
    /// <param name="zones">All its zones.</param>
    /// <param name="pieces">How many pieces of the kind there are: what things cost is counted over all of them.</param>
    /// <param name="pace">How quick the hands are.</param>
    public static PieceOrder Of(IReadOnlyList<PieceZone> zones, int pieces, Pace pace)
    {
        var steps = new PieceSteps(zones);
        return new PieceOrder(zones, steps, new Soiling(zones, steps, pieces, pace));
    }

    /// <summary>What it costs to do two the other way round.</summary>
    public Price PriceOf(Before edge) => soiling.PriceOf(edge);

    public IReadOnlyList<PieceZone> Zones { get; }

    /// <summary>Every layer of the piece, once, however many zones it goes over.</summary>
    public IReadOnlyList<PieceStep> Steps { get; }

    /// <summary>What comes before what; no circle is in it.</summary>
    public IReadOnlyList<Before> Kept { get; }

    /// <summary>What should have come before something else, and cannot, or would cost more than what it stands against; the dearest first.</summary>
    public IReadOnlyList<Before> Dropped { get; }

    /// <summary>On how many pieces the later of two stands already, and the earlier does not: done, it cannot wait any more.</summary>
    public int TurnedOn(Before edge)
    {
        var (first, second) = (Zones[edge.FirstOn], Zones[edge.SecondOn]);
        Guid a = LineOf(edge.First, edge.FirstOn), b = LineOf(edge.Second, edge.SecondOn);
        return Enumerable.Range(0, Math.Min(first.DoneOf, second.DoneOf)).Count(p => second.IsDone(b, p) && !first.IsDone(a, p));
    }

    /// <summary>The layer that a step is on a zone, by their indices.</summary>
    public int LayerOf(int step, int zone) => Steps[step].On.First(o => o.Zone == zone).Layer;

    /// <summary>The step of a layer of a zone, by their indices.</summary>
    public int StepOf(int zone, int layer) => stepOf[zone][layer];

    /// <summary>Lines that come before lines of other zones.</summary>
    public IEnumerable<(Guid First, Guid Second)> Lines() => Kept.Where(e => e.FirstOn != e.SecondOn).Select(e => (LineOf(e.First, e.FirstOn), LineOf(e.Second, e.SecondOn)));

    private Guid LineOf(int step, int zone) => Zones[zone].Layers[LayerOf(step, zone)].Id;

    /// <summary>Whether one step comes before another, by their indices; of two that are free, neither does.</summary>
    public bool Comes(int first, int second) => follows.Value.Comes(first, second);
}
