using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Precedence;

namespace Lowfell.Core.Order;

/// <summary>A stack as rules look at it: what is below, what barrier lies between, how long since. Bottom layer is 0.</summary>
/// <param name="context">What lies around the stack.</param>
/// <param name="layers">Bottom first.</param>
/// <param name="before">The stack this one was edited from; its predictions are used as far as both agree.</param>
public sealed class StackView(StackContext context, IReadOnlyList<Layer> layers, StackView? before = null)
{
    private StackRun? predictions;
    private PieceOrder? piece;
    private double?[]? open;
    private readonly DryingMemo drying = before?.drying ?? new(context);

    public StackContext Context { get; } = context;

    public IReadOnlyList<Layer> Layers { get; } = layers;

    public int Count => Layers.Count;

    /// <summary>Colours after each layer; worked out at the first question.</summary>
    public StackRun Predictions => predictions ??= Predict(Layers, before?.predictions);

    /// <summary>Colours of a variation of this stack.</summary>
    public StackRun Predict(IReadOnlyList<Layer> variation) => Predict(variation, Predictions);

    private StackRun Predict(IReadOnlyList<Layer> stack, StackRun? from) =>
        StackPrediction.Compute(Context.Zone, stack, Context.HouseRules.DryBrushCleaning == DryBrushSchool.CarryOver, from);

    /// <summary>The order of the whole piece with this stack on it; null where nothing is known of one.</summary>
    public PieceOrder? Piece => piece ??= Context.Piece?.With(Layers, Context.Pieces, Context.Pace);

    /// <summary>What soils a layer from another zone of the piece, and cannot come before it; the dearest first.</summary>
    public IEnumerable<Before> SoiledBy(int i, Why why) => Piece is not { } order ? []
        : order.Dropped.Where(e => e.Why == why && e.SecondOn == Context.Piece!.Here && e.Second == order.StepOf(Context.Piece.Here, i));

    /// <summary>Where the layer with an id lies, or -1.</summary>
    public int IndexOf(Guid layer)
    {
        for (var i = 0; i < Count; i++)
            if (Layers[i].Id == layer)
                return i;
        return -1;
    }

    public TechniqueFigures Figures(int i) => TechniqueTable.For(Layers[i].Technique, Layers[i].Tool);

    /// <summary>Leaves something behind on the surface.</summary>
    public bool LeavesFilm(int i) => Layers[i].LeavesFilm;

    /// <summary>A continuous coat over the whole zone.</summary>
    public bool IsFullFilm(int i) => LeavesFilm(i) && Figures(i).Laydown == Laydown.Film && Layers[i].Region == Region.All;

    /// <summary>The nearest layer below that leaves something where a layer lies, or -1.</summary>
    public int FilmBelow(int i)
    {
        for (var j = i - 1; j >= 0; j--)
            if (LeavesFilm(j) && Regions.Meet(Layers[j].Region, Layers[i].Region))
                return j;
        return -1;
    }

    /// <summary>A thinner coat of varnish than this share of a usual one has holes.</summary>
    internal const double LeastBarrier = 0.5;

    /// <summary>A sound varnish coat all over a region: it keeps solvents off what is under it there.</summary>
    public bool IsBarrier(int i, Region over) =>
        LeavesFilm(i) && Figures(i).Laydown == Laydown.Film && Regions.Covers(Layers[i].Region, over)
        && Layers[i].Main is { Kind: MaterialKind.Varnish } varnish && !varnish.Carrier.IsSpiritBorne() && Layers[i].Strength >= LeastBarrier;

    /// <summary>The highest barrier strictly between two layers, over all of the one above, or -1.</summary>
    public int BarrierBetween(int low, int high)
    {
        for (var j = high - 1; j > low; j--)
            if (IsBarrier(j, Layers[high].Region))
                return j;
        return -1;
    }

    /// <summary>
    /// Minutes from a layer to a later one, or null when one of the waits is left to take as long as it needs. On a piece half
    /// done the time since the last layer that is on it counts, where it is longer than planned; what is done is not judged again.
    /// </summary>
    public double? PlannedMinutes(int low, int high)
    {
        var (laid, since) = Context.Progress;
        if (high < laid)
            return null;
        var sum = 0.0;
        for (var j = low; j < high; j++)
        {
            if (j < laid - 1)
                sum += Layers[j].WaitMinutes ?? 0;
            else if (Layers[j].WaitMinutes is not { } wait)
                return null;
            else
                sum += j == laid - 1 ? Math.Max(wait, since) : wait;
        }

        return sum;
    }

    /// <summary>
    /// Minutes from a layer to a later one, those of <see cref="PlannedMinutes"/> where all waits are planned. A wait left open lasts until
    /// what follows may go on, and no longer: later layers that want more find it too short. Null for what is on the piece already.
    /// </summary>
    public double? MinutesAtLeast(int low, int high)
    {
        var (laid, since) = Context.Progress;
        if (high < laid)
            return null;
        var sum = 0.0;
        for (var j = low; j < high; j++)
            sum += j < laid - 1 ? Layers[j].WaitMinutes ?? 0 : j == laid - 1 ? Math.Max(Wait(j), since) : Wait(j);
        return low < laid ? Math.Max(since, sum) : sum;
    }

    /// <summary>Minutes from a layer to the next.</summary>
    private double Wait(int j)
    {
        if (Layers[j].WaitMinutes is { } planned)
            return planned;
        open ??= new double?[Count];
        return open[j] ??= Open(j);
    }

    private double Open(int j)
    {
        if (j + 1 >= Count || FilmBelow(j + 1) is not (>= 0 and var film))
            return 0;
        var needed = Needed(film, j + 1).Minutes.Usual;
        for (var k = film; k < j; k++)
            needed -= Wait(k);
        return Math.Max(0, Math.Ceiling(needed));
    }

    /// <summary>How long a layer takes to dry where it lies, low – usual – high.</summary>
    public Drying.DryRange DryingOf(int i) => drying.Of(Layers[i], OnThirsty(i));

    /// <summary>Minutes that a layer must have dried before a later one goes on.</summary>
    public (Span3 Minutes, Drying.Dryness Dryness) Needed(int below, int above) => Drying.DryingModel.Needed(Layers[below], Layers[above], drying.Conditions(OnThirsty(below)), DryingOf(below));

    private bool OnThirsty(int i) => FilmBelow(i) is >= 0 and var below ? IsTexture(below) : SubstrateTraits.IsThirsty(Context.Zone.Substrate);

    /// <summary>The layer is on the piece already.</summary>
    public bool IsLaid(int i) => i < Context.Progress.Laid;

    /// <summary>How the surface below a layer shines; a bare piece is matt.</summary>
    public Sheen SheenBelow(int i)
    {
        for (var j = i - 1; j >= 0; j--)
            if (SetsSheen(j))
                return Layers[j].Main!.Sheen;
        return Sheen.Matt;
    }

    /// <summary>The layer that decides how the finished zone shines, or -1 for a bare one.</summary>
    public int LastSheen()
    {
        for (var j = Count - 1; j >= 0; j--)
            if (SetsSheen(j) || LeavesShine(j))
                return j;
        return -1;
    }

    /// <summary>The layers that a clean-up at this index takes part of back, the nearest first; none for any other work.</summary>
    public IEnumerable<int> CleanedBy(int i)
    {
        if (Layers[i].Technique != Technique.CleanUpExcess)
            yield break;
        var lowest = Lifting.LowestReached(Layers, i, Context.Zone.Relief);
        for (var j = i - 1; j >= lowest; j--)
            if (LeavesFilm(j))
                yield return j;
    }

    /// <summary>The first clean-up that takes part of a layer back, or -1.</summary>
    public int CleanUpOf(int i) => Lifting.IsWorkable(Layers[i]) ? NextAbove(i, j => CleanedBy(j).Contains(i)) : -1;

    /// <summary>It comes out of an airbrush or a can.</summary>
    public bool IsSprayed(int i) => Reach.IsSprayed(Layers[i]);

    /// <summary>Crackle, paste, filler or grains.</summary>
    public bool IsTexture(int i) => LeavesFilm(i) && Layers[i].Main!.Kind is MaterialKind.CracklePaste or MaterialKind.TexturePaste
        or MaterialKind.Filler or MaterialKind.Aggregate;

    /// <summary>A wash, filter or glaze: wet over all of what it touches for a while.</summary>
    public bool IsWash(int i) => LeavesFilm(i) && Layers[i].Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze;

    /// <summary>A whole coat of varnish.</summary>
    public bool IsVarnish(int i) => IsFullFilm(i) && Layers[i].Main!.Kind == MaterialKind.Varnish;

    /// <summary>The highest layer for which something holds, or -1.</summary>
    public int Last(Func<int, bool> holds)
    {
        for (var j = Count - 1; j >= 0; j--)
            if (holds(j))
                return j;
        return -1;
    }

    /// <summary>The lowest layer above another for which something holds, or -1.</summary>
    public int NextAbove(int i, Func<int, bool> holds)
    {
        for (var j = i + 1; j < Count; j++)
            if (holds(j))
                return j;
        return -1;
    }

    /// <summary>The highest layer below another for which something holds, or -1.</summary>
    public int NextBelow(int i, Func<int, bool> holds)
    {
        for (var j = i - 1; j >= 0; j--)
            if (holds(j))
                return j;
        return -1;
    }

    /// <summary>"layer 7, pin wash of Bog Umber".</summary>
    public string Name(int i) => $"layer {i + 1}, {Words.EnumWords.Of(Layers[i].Technique)} of {Layers[i].MaterialName}";

    /// <summary>The same with a capital, to begin a sentence.</summary>
    public string Says(int i) => $"L{Name(i)[1..]}";

    private bool SetsSheen(int j) => IsFullFilm(j) && Layers[j].Technique is not (Technique.Filter or Technique.Glaze);

    private bool LeavesShine(int j) =>
        Figures(j).Laydown == Laydown.Wash && LeavesFilm(j) && Layers[j].Main!.Sheen != Sheen.Matt;
}
