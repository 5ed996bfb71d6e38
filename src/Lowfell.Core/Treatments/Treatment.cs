using Lowfell.Core.Layers;

namespace Lowfell.Core.Treatments;

/// <summary>One application over one or more surfaces.</summary>
/// <param name="Id">What it keeps through all versions, whatever it goes over.</param>
/// <param name="Layer">What its surfaces share; <see cref="Layer.DownTo"/> names a step.</param>
/// <param name="Note">What the painter wrote beside it.</param>
/// <param name="Over">Where it lies: a lay for each surface, at least one.</param>
public sealed record Step(Guid Id, Layer Layer, string Note, IReadOnlyList<Lay> Over)
{
    /// <summary>How it lies on a surface; null where it does not.</summary>
    public Lay? On(Guid surface) => Over.FirstOrDefault(l => l.Surface == surface);

    /// <summary>The layer as it lies under a line, going by it; what it may take goes by its step. Null where it has no such line.</summary>
    public Layer? Laid(Guid line) => Over.FirstOrDefault(l => l.Line == line) is { } lay ? Layer.On(lay) with { Id = line } : null;

    /// <summary>Whether two layers are laid just alike on a surface, whatever they go by.</summary>
    public static bool Alike(Layer a, Layer b) => Figures.Between(a, b) == Differs.Nothing && Figures.SameApplication(a, b);
}

/// <summary>The ordered layers of a piece or of a part of it, in one order over all its surfaces; bottom first.</summary>
public sealed record Treatment(IReadOnlyList<Surface> Surfaces, IReadOnlyList<Step> Steps)
{
    /// <summary>What goes over a surface, bottom first; each layer goes by its line there, and so does what one of them may take.</summary>
    public IReadOnlyList<Layer> Stack(Guid surface)
    {
        var stack = new List<Layer>();
        foreach (var step in Steps)
            if (step.On(surface) is { } lay)
            {
                var layer = step.Layer.On(lay);
                stack.Add(layer with { Id = lay.Line, DownTo = layer.DownTo is { } lowest ? LineFrom(lowest, surface) : null });
            }

        return stack;
    }

    /// <summary>A surface with the details that stand on it.</summary>
    public IReadOnlySet<Guid> WithDetails(Guid surface) => Surfaces.Where(s => s.Id == surface || s.On == surface).Select(s => s.Id).Append(surface).ToHashSet();

    /// <summary>The line of a step on a surface; where it does not lie there, of the next one above it that does; null where there is none.</summary>
    private Guid? LineFrom(Guid step, Guid surface)
    {
        var at = 0;
        while (at < Steps.Count && Steps[at].Id != step)
            at++;
        for (; at < Steps.Count; at++)
            if (Steps[at].On(surface) is { } lay)
                return lay.Line;
        return null;
    }
}
