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

    /// <summary>A new layer over some surfaces, and over the details that stand on them; it begins its own step there.</summary>
    /// <param name="was">The treatment.</param>
    /// <param name="layer">What the surfaces share of it. It takes no depth.</param>
    /// <param name="note">What is written beside it.</param>
    /// <param name="over">At least one of the treatment's surfaces.</param>
    /// <param name="above">The step it lies on; null at the bottom.</param>
    /// <exception cref="ArgumentException">There is no such step, or none of the surfaces.</exception>
    public static Treatment Begin(Treatment was, Layer layer, string note, IReadOnlySet<Guid> over, Guid? above)
    {
        if (over.Count == 0 || !over.IsSubsetOf(was.Surfaces.Select(s => s.Id)))
            throw new ArgumentException("A layer goes over at least one surface of its treatment.", nameof(over));
        var id = Guid.CreateVersion7();
        var lays = was.Surfaces.Where(s => over.Contains(s.Id) || (s.On is { } on && over.Contains(on))).Select(s => new Lay(s.Id, over.Count == 1 && over.Contains(s.Id) ? id : Guid.CreateVersion7())).ToList();
        return Depths.Kept(was, was with { Steps = Inserted(was.Steps, new Step(id, layer with { Id = default, DownTo = null }, note, lays), above) });
    }

    /// <summary>Moves a step to just above another, on all its surfaces. What may be taken stays what it was as far as it still lies below.</summary>
    /// <exception cref="ArgumentException">There is no such step.</exception>
    public static Treatment Moved(Treatment was, Guid step, Guid? above)
    {
        var moving = was.Steps.FirstOrDefault(s => s.Id == step) ?? throw new ArgumentException("The treatment has no such step.", nameof(step));
        return above == step ? was : Depths.Kept(was, was with { Steps = Inserted(was.Steps.Where(s => s.Id != step).ToList(), moving, above) });
    }

    /// <summary>
    /// Leaves a detail out: it is painted over with the surface it stands on, and shows what that shows. Layers that went over it alone go, and
    /// those over its surface go over it too, laid as they are there. Lines that it shared stay.
    /// </summary>
    /// <param name="was">The treatment.</param>
    /// <param name="detail">A surface that stands on another.</param>
    /// <param name="before">The line a step had on it in an earlier version; null where it never lay there.</param>
    /// <exception cref="ArgumentException">It stands on none.</exception>
    public static Treatment LeftOut(Treatment was, Guid detail, Func<Guid, Guid?>? before = null)
    {
        var on = was.Surfaces.FirstOrDefault(s => s.Id == detail)?.On ?? throw new ArgumentException("Only a detail can be left out.", nameof(detail));
        var steps = was.Steps.Select(step =>
        {
            var rest = step.Over.Where(l => l.Surface != detail).ToList();
            return step with { Over = step.On(on) is { } there ? [.. rest, there with { Surface = detail, Line = step.On(detail)?.Line ?? Line(step.Id) }] : rest };
        }).Where(step => step.Over.Count > 0).ToList();
        return Depths.Kept(was, was with { Steps = steps }, new HashSet<Guid> { detail });

        Guid Line(Guid step) => before?.Invoke(step) is { } had && was.Steps.All(s => s.On(detail)?.Line != had) ? had : Guid.CreateVersion7();
    }

    private static List<Step> Inserted(IReadOnlyList<Step> steps, Step step, Guid? above)
    {
        var at = above is null ? -1 : steps.ToList().FindIndex(s => s.Id == above);
        if (above is not null && at < 0)
            throw new ArgumentException("The treatment has no such step.", nameof(above));
        return [.. steps.Take(at + 1), step, .. steps.Skip(at + 1)];
    }

    /// <summary>The same treatment with other ids for its surfaces.</summary>
    /// <param name="was">The treatment.</param>
    /// <param name="ids">The new id of every surface.</param>
    public static Treatment Renamed(Treatment was, IReadOnlyDictionary<Guid, Guid> ids) => new(
        was.Surfaces.Select(s => s with { Id = ids[s.Id], On = s.On is { } on ? ids[on] : null }).ToList(),
        was.Steps.Select(s => s with { Over = s.Over.Select(l => l with { Surface = ids[l.Surface] }).ToList() }).ToList());

    /// <summary>Leaves lines out: their steps stay wherever they lie under others. What may be taken elsewhere stays what it was.</summary>
    public static Treatment Without(Treatment was, IReadOnlySet<Guid> lines)
    {
        var steps = was.Steps.Select(s => s.Over.Any(l => lines.Contains(l.Line)) ? s with { Over = s.Over.Where(l => !lines.Contains(l.Line)).ToList() } : s).Where(s => s.Over.Count > 0).ToList();
        return Depths.Kept(was, was with { Steps = steps });
    }

    /// <summary>
    /// Puts a line back that was left out, above the first of some lines that is there and at the bottom where none is: with its step where that still
    /// lies elsewhere and in that place, else as a step of its own. A line that is there already stays where it is, and a surface that is gone gets nothing.
    /// </summary>
    /// <param name="was">The treatment.</param>
    /// <param name="step">The step as it was, with its lays of then.</param>
    /// <param name="line">Which line of it.</param>
    /// <param name="below">Lines it lay on, the nearest first.</param>
    public static Treatment Back(Treatment was, Step step, Guid line, IReadOnlyList<Guid> below)
    {
        var lays = step.Over.Where(l => l.Line == line && was.Surfaces.Any(s => s.Id == l.Surface) && was.Steps.All(s => s.On(l.Surface)?.Line != line)).ToList();
        if (lays.Count == 0)
            return was;
        var (steps, there) = (was.Steps.ToList(), was.Steps.ToList().FindIndex(s => s.Id == step.Id));
        var at = below.Select(b => steps.FindIndex(s => lays.Any(l => s.On(l.Surface)?.Line == b))).FirstOrDefault(i => i >= 0, -1);

        // With its step where it lies there just above what it lay on; else by itself.
        bool Meets(Step other) => lays.Any(l => other.On(l.Surface) is not null);
        if (there > at && !steps.Skip(at + 1).Take(there - at).Any(Meets))
            steps[there] = steps[there] with { Over = [.. steps[there].Over, .. lays.Select(l => l.Own is { } own ? (l with { Own = null, Differs = Differs.Nothing }).Differing(steps[there].Layer, own, l.Differs) : l)] };
        else
            steps.Insert(at + 1, step with { Id = there >= 0 ? Guid.CreateVersion7() : step.Id, Over = lays });

        return Depths.Kept(was, was with { Steps = steps });
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
    /// Brings two treatments together in one, so that every surface has the stack it had. No layers are made one. The steps of the second come
    /// after those of the first, but for what has to come before one of them.
    /// </summary>
    /// <param name="first">The one that stays.</param>
    /// <param name="second">The one that comes in.</param>
    /// <param name="before">Lines of one of them that come before lines of the other; where that goes in a circle, the first leads.</param>
    /// <exception cref="ArgumentException">They have a surface in common.</exception>
    public static Treatment Together(Treatment first, Treatment second, IReadOnlySet<(Guid First, Guid Second)> before)
    {
        if (first.Surfaces.Select(s => s.Id).Intersect(second.Surfaces.Select(s => s.Id)).Any())
            throw new ArgumentException("The two have a surface in common.", nameof(second));

        // Parted once, both have steps of one id: those of the second become steps of their own, under the same lines.
        var taken = first.Steps.Select(s => s.Id).ToHashSet();
        var own = second.Steps.ToDictionary(s => s.Id, s => taken.Contains(s.Id) ? Guid.CreateVersion7() : s.Id);
        Layer Renamed(Layer layer) => layer.DownTo is { } lowest && own.TryGetValue(lowest, out var id) ? layer with { DownTo = id } : layer;
        var steps = second.Steps.Select(s => s with { Id = own[s.Id], Layer = Renamed(s.Layer), Over = s.Over.Select(l => l.Own is { } its ? l with { Own = Renamed(its) } : l).ToList() });
        return new Treatment([.. first.Surfaces, .. second.Surfaces], Merged(new(first.Steps), new(steps), before));
    }

    /// <summary>One after the other from both, each in its own order: of the first as long as nothing of the second has to come before.</summary>
    private static List<Step> Merged(Queue<Step> first, Queue<Step> second, IReadOnlySet<(Guid, Guid)> before)
    {
        var merged = new List<Step>();
        while (first.Count > 0 && second.Count > 0)
        {
            bool waits = second.Any(s => Comes(s, first.Peek(), before)), holds = first.Any(s => Comes(s, second.Peek(), before));
            merged.Add(waits && !holds ? second.Dequeue() : first.Dequeue());
        }

        return [.. merged, .. first, .. second];
    }

    private static bool Comes(Step one, Step other, IReadOnlySet<(Guid, Guid)> before) => one.Over.Any(a => other.Over.Any(b => before.Contains((a.Line, b.Line))));
}
