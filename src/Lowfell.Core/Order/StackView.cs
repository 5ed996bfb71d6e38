using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order;

/// <summary>A stack as rules look at it: what is below, what barrier lies between, how long since. Bottom layer is 0.</summary>
/// <param name="context">What lies around the stack.</param>
/// <param name="layers">Bottom first.</param>
/// <param name="before">The stack this one was edited from; its predictions are used as far as both agree.</param>
public sealed class StackView(StackContext context, IReadOnlyList<Layer> layers, StackView? before = null)
{
    private StackRun? predictions;

    public StackContext Context { get; } = context;

    public IReadOnlyList<Layer> Layers { get; } = layers;

    public int Count => Layers.Count;

    /// <summary>Colours after each layer; worked out at the first question.</summary>
    public StackRun Predictions => predictions ??= Predict(Layers, before?.predictions);

    /// <summary>Colours of a variation of this stack.</summary>
    public StackRun Predict(IReadOnlyList<Layer> variation) => Predict(variation, Predictions);

    private StackRun Predict(IReadOnlyList<Layer> stack, StackRun? from) =>
        StackPrediction.Compute(Context.Zone, stack, Context.HouseRules.DryBrushCleaning == DryBrushSchool.CarryOver, from);

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
    public bool LeavesFilm(int i) => Figures(i).Laydown is not (Laydown.None or Laydown.Lift) && Layers[i].Paint.Count > 0 && Layers[i].Strength > 0;

    /// <summary>A continuous coat over the whole zone.</summary>
    public bool IsFullFilm(int i) => LeavesFilm(i) && Figures(i).Laydown == Laydown.Film && Layers[i].Region == Region.All;

    /// <summary>The nearest layer below that leaves something, or -1.</summary>
    public int FilmBelow(int i)
    {
        for (var j = i - 1; j >= 0; j--)
            if (LeavesFilm(j))
                return j;
        return -1;
    }

    /// <summary>A sound varnish coat over the whole zone: it keeps solvents off what is under it.</summary>
    public bool IsBarrier(int i) =>
        IsFullFilm(i) && Layers[i].Main is { Kind: MaterialKind.Varnish } varnish
        && !varnish.Carrier.IsSpiritBorne() && Layers[i].Strength >= 0.5;

    /// <summary>The highest barrier strictly between two layers, or -1.</summary>
    public int BarrierBetween(int low, int high)
    {
        for (var j = high - 1; j > low; j--)
            if (IsBarrier(j))
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

    /// <summary>Minutes that have gone, or will go by the plan, from a layer to a later one: like <see cref="PlannedMinutes"/>, but a wait left open counts for what is past of it.</summary>
    public double? MinutesAtLeast(int low, int high)
    {
        var (laid, since) = Context.Progress;
        return low < laid && high >= laid ? Math.Max(since, PlannedMinutes(low, high) ?? 0) : PlannedMinutes(low, high);
    }

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

    /// <summary>The bead that a clean-up at this index works on, or -1.</summary>
    public int BeadCleanedBy(int i)
    {
        if (Layers[i].Technique != Technique.CleanUpExcess)
            return -1;
        for (var j = i - 1; j >= 0; j--)
        {
            if (Figures(j).Laydown == Laydown.Bead)
                return j;
            if (LeavesFilm(j))
                return -1;
        }

        return -1;
    }

    /// <summary>It comes out of an airbrush or a can.</summary>
    public bool IsSprayed(int i) => LeavesFilm(i) && Layers[i].Tool is Tool.Airbrush or Tool.SprayCan;

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
