using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order;

/// <summary>A stack as rules look at it: what is below, what barrier lies between, how long since. Bottom layer is 0.</summary>
public sealed class StackView(StackContext context, IReadOnlyList<Layer> layers)
{
    private IReadOnlyList<LayerPrediction>? predictions;

    public StackContext Context { get; } = context;

    public IReadOnlyList<Layer> Layers { get; } = layers;

    public int Count => Layers.Count;

    /// <summary>Colours after each layer; worked out at the first question.</summary>
    public IReadOnlyList<LayerPrediction> Predictions => predictions ??= StackPrediction.Compute(Context.Zone, Layers);

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
    /// Minutes planned from a layer to a later one, or null when one of the waits is left to take as long as it needs.
    /// </summary>
    public double? PlannedMinutes(int low, int high)
    {
        var sum = 0.0;
        for (var j = low; j < high; j++)
        {
            if (Layers[j].WaitMinutes is not { } wait)
                return null;
            sum += wait;
        }

        return sum;
    }

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

    /// <summary>"layer 7, pin wash of Bog Umber".</summary>
    public string Name(int i) => $"layer {i + 1}, {Words.EnumWords.Of(Layers[i].Technique)} of {Layers[i].MaterialName}";

    private bool SetsSheen(int j) => IsFullFilm(j) && Layers[j].Technique is not (Technique.Filter or Technique.Glaze);

    private bool LeavesShine(int j) =>
        Figures(j).Laydown == Laydown.Wash && LeavesFilm(j) && Layers[j].Main!.Sheen != Sheen.Matt;
}
