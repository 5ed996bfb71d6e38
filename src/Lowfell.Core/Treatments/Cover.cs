using Lowfell.Core.Layers;

namespace Lowfell.Core.Treatments;

/// <summary>What layers go over: more surfaces or fewer, and surfaces that part from a treatment. No line of a surface that keeps a layer changes.</summary>
public static class Cover
{
    /// <summary>
    /// Has a step go over just these surfaces. Where it lay it stays as it was; where it comes to lie it is as the shared layer, in its place in
    /// the one order, under the line that it had there before or a new one.
    /// </summary>
    /// <param name="was">The treatment.</param>
    /// <param name="step">The step by its id.</param>
    /// <param name="over">At least one of the treatment's surfaces.</param>
    /// <param name="before">The line the step had on a surface in an earlier version; null where it never lay there.</param>
    /// <exception cref="ArgumentException">There is no such step, no such surface, or none is left.</exception>
    public static Treatment Of(Treatment was, Guid step, IReadOnlySet<Guid> over, Func<Guid, Guid?>? before = null)
    {
        if (over.Count == 0 || !over.IsSubsetOf(was.Surfaces.Select(s => s.Id)))
            throw new ArgumentException("A layer goes over at least one surface of its treatment.", nameof(over));
        var at = was.Steps.ToList().FindIndex(s => s.Id == step);
        if (at < 0)
            throw new ArgumentException("The treatment has no such step.", nameof(step));
        var now = was.Steps[at];
        var lays = was.Surfaces.Where(s => over.Contains(s.Id)).Select(s => now.On(s.Id) ?? new Lay(s.Id, Line(s.Id))).ToList();
        var after = was with { Steps = was.Steps.Select(s => s.Id == step ? s with { Over = lays } : s).ToList() };
        return Depths.Kept(was, after);

        // A line is one layer on one surface: one that another step has there by now is not taken from it.
        Guid Line(Guid surface) => before?.Invoke(surface) is { } had && was.Steps.All(s => s.On(surface)?.Line != had) ? had : Guid.CreateVersion7();
    }

    /// <summary>
    /// Parts surfaces from the others: two treatments, in which every surface has the stack it had. Steps keep their ids and lines in both. A
    /// detail goes where its surface goes.
    /// </summary>
    /// <exception cref="ArgumentException">Nothing, or everything, would part.</exception>
    public static (Treatment Stays, Treatment Parts) Part(Treatment was, IReadOnlySet<Guid> surfaces)
    {
        var going = was.Surfaces.Where(s => surfaces.Contains(s.Id) || (s.On is { } on && surfaces.Contains(on))).Select(s => s.Id).ToHashSet();
        if (going.Count == 0 || going.Count == was.Surfaces.Count)
            throw new ArgumentException("Some surfaces part, and some stay.", nameof(surfaces));
        return (Only(s => !going.Contains(s)), Only(going.Contains));

        Treatment Only(Func<Guid, bool> of)
        {
            // A detail that parts from its surface stands by itself.
            var those = was.Surfaces.Where(s => of(s.Id)).Select(s => s.On is { } on && !of(on) ? s with { On = null } : s).ToList();
            var steps = was.Steps.Select(s => s with { Over = s.Over.Where(l => of(l.Surface)).ToList() }).Where(s => s.Over.Count > 0).ToList();
            return Depths.Kept(was, new Treatment(those, steps));
        }
    }

    /// <summary>
    /// Brings two treatments together in one: the steps of the second above those of the first, so that every surface has the stack it had. No
    /// layers are made one.
    /// </summary>
    /// <exception cref="ArgumentException">They have a surface in common.</exception>
    public static Treatment Together(Treatment first, Treatment second)
    {
        if (first.Surfaces.Select(s => s.Id).Intersect(second.Surfaces.Select(s => s.Id)).Any())
            throw new ArgumentException("The two have a surface in common.", nameof(second));

        // Parted once, both have steps of one id: those of the second become steps of their own, under the same lines.
        var taken = first.Steps.Select(s => s.Id).ToHashSet();
        var own = second.Steps.ToDictionary(s => s.Id, s => taken.Contains(s.Id) ? Guid.CreateVersion7() : s.Id);
        Layer Renamed(Layer layer) => layer.DownTo is { } lowest && own.TryGetValue(lowest, out var id) ? layer with { DownTo = id } : layer;
        var steps = second.Steps.Select(s => s with { Id = own[s.Id], Layer = Renamed(s.Layer), Over = s.Over.Select(l => l.Own is { } its ? l with { Own = Renamed(its) } : l).ToList() });
        return new Treatment([.. first.Surfaces, .. second.Surfaces], [.. first.Steps, .. steps]);
    }
}
