using Lowfell.Core.Layers;

namespace Lowfell.Core.Treatments;

/// <summary>What layers that take away may take stays what it was, though what they name was moved or is gone.</summary>
internal static class Depths
{
    /// <summary>A treatment in which every layer that lay on a surface before takes as deep there as before, as far as that is still there.</summary>
    /// <param name="was">How it was.</param>
    /// <param name="now">The same after a change.</param>
    /// <param name="but">Surfaces that were edited, and have depths of their own by now.</param>
    public static Treatment Kept(Treatment was, Treatment now, IReadOnlySet<Guid>? but = null)
    {
        var steps = now.Steps.ToList();
        foreach (var surface in now.Surfaces.Select(s => s.Id).Where(s => but?.Contains(s) != true && Takes(was, s)))
        {
            var depths = was.Stack(surface).ToDictionary(l => l.Id, l => l.DownTo);
            var here = now.Steps.Select(s => s.On(surface)?.Line).ToHashSet();

            // What is not there any more leaves the next above it as the lowest.
            foreach (var layer in (now with { Steps = steps }).Stack(surface).Where(l => depths.TryGetValue(l.Id, out var depth) && l.DownTo != depth && (depth is null || here.Contains(depth))))
            {
                var at = steps.FindIndex(s => s.On(surface)?.Line == layer.Id);
                var step = steps[at];
                var lowest = step.Layer with { DownTo = depths[layer.Id] is { } line ? steps.FirstOrDefault(s => s.On(surface)?.Line == line)?.Id : null };
                steps[at] = step with { Over = step.Over.Select(l => l.Surface == surface ? l.Differing(step.Layer, lowest, Differs.DownTo) : l).ToList() };
            }
        }

        return now with { Steps = steps };
    }

    private static bool Takes(Treatment treatment, Guid surface) => treatment.Steps.Any(s => s.On(surface) is { } lay && s.Layer.On(lay).DownTo is not null);
}
