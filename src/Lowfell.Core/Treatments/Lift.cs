using Lowfell.Core.Layers;

namespace Lowfell.Core.Treatments;

/// <summary>Whom an edit of one surface is for.</summary>
public enum Scope
{
    /// <summary>For this surface, and the details that stand on it.</summary>
    Here,

    /// <summary>For wherever the layers that were edited lie.</summary>
    Everywhere,
}

/// <summary>A layer of a stack as it was edited on one surface, by its line there, with the note beside it.</summary>
public sealed record Edited(Layer Layer, string Note);

/// <summary>
/// Lifts what was done to the stack of one surface to the treatment. The surface ends with just the stack that was asked for. Others stay as
/// they are where the edit is for here; where it is for everywhere they follow in the layers that were changed, moved or taken away. New
/// layers lie on this surface and its details, directly above their neighbour below.
/// </summary>
public sealed class Lift
{
    private readonly Guid surface;
    private readonly Scope scope;
    private readonly Treatment was;
    private readonly IReadOnlySet<Guid> own;
    private readonly IReadOnlyList<Edited> wanted;
    private readonly List<Step> steps;

    /// <summary>The step of each wanted line, by its id.</summary>
    private readonly Dictionary<Guid, Guid> stepOf;

    private Lift(Treatment was, Guid surface, IReadOnlyList<Edited> wanted, Scope scope)
    {
        (this.was, this.surface, this.wanted, this.scope) = (was, surface, wanted, scope);
        own = was.WithDetails(surface);
        steps = [.. was.Steps];
        stepOf = was.Steps.Select(s => (s.Id, Lay: s.On(surface))).Where(s => s.Lay is not null).ToDictionary(s => s.Lay!.Line, s => s.Id);
    }

    /// <summary>The treatment after an edit of the stack of one of its surfaces.</summary>
    /// <param name="was">The treatment before it.</param>
    /// <param name="surface">The surface whose stack was edited.</param>
    /// <param name="wanted">The whole stack as it is to be there, bottom first, each line once.</param>
    /// <param name="scope">Whom it is for.</param>
    public static Treatment Of(Treatment was, Guid surface, IReadOnlyList<Edited> wanted, Scope scope) => new Lift(was, surface, wanted, scope).Lifted();

    private Treatment Lifted()
    {
        TakeAway();
        foreach (var edited in wanted)
            if (stepOf.TryGetValue(edited.Layer.Id, out var id))
                Change(id, edited);
        Arrange();
        foreach (var edited in wanted)
            Deepen(edited);
        var lifted = was with { Steps = steps };
        return scope == Scope.Here ? Depths.Kept(was, lifted, but: own) : lifted;
    }

    private int At(Guid step) => steps.FindIndex(s => s.Id == step);

    private bool LiesElsewhere(Step step) => step.Over.Any(l => !own.Contains(l.Surface));

    private void TakeAway()
    {
        var kept = wanted.Select(w => w.Layer.Id).ToHashSet();
        foreach (var (line, id) in stepOf.Where(s => !kept.Contains(s.Key)).ToList())
        {
            stepOf.Remove(line);
            if (scope == Scope.Everywhere || !LiesElsewhere(steps[At(id)]))
                steps.RemoveAt(At(id));
            else
                TakeOut(At(id));
        }
    }

    /// <summary>Leaves a step only where it lies elsewhere; the lays that were taken out.</summary>
    private List<Lay> TakeOut(int at)
    {
        var mine = steps[at].Over.Where(l => own.Contains(l.Surface)).ToList();
        steps[at] = steps[at] with { Over = steps[at].Over.Except(mine).ToList() };
        return mine;
    }

    /// <summary>Has a step be on this surface as it was edited, but for its place and depth.</summary>
    private void Change(Guid id, Edited edited)
    {
        var at = At(id);
        var step = steps[at];
        steps[at] = step = step with { Note = edited.Note };
        var now = step.Layer.On(step.On(surface)!);
        var asked = edited.Layer with { Id = step.Layer.Id, DownTo = now.DownTo };
        var figures = Figures.Between(now, asked);
        var application = !Figures.SameApplication(now, asked);
        if (figures == Differs.Nothing && !application)
            return;
        if (scope == Scope.Everywhere || !LiesElsewhere(step))
            steps[at] = Shared(step, asked, figures);
        else if (application)
        {
            var parted = new Step(Guid.CreateVersion7(), step.Layer, edited.Note, TakeOut(at));
            steps.Insert(at + 1, Shared(parted, asked, figures));
            stepOf[edited.Layer.Id] = parted.Id;
        }
        else
            steps[at] = step with { Over = step.Over.Select(l => own.Contains(l.Surface) ? l.Differing(step.Layer, asked, figures) : l).ToList() };
    }

    /// <summary>The step with what was changed of it shared by all its surfaces; where others were different they stay so.</summary>
    private Step Shared(Step step, Layer asked, Differs figures)
    {
        var mine = step.On(surface)!;
        var shared = (asked with { Id = step.Layer.Id, DownTo = step.Layer.DownTo }).With(step.Layer, ~figures);
        return step with
        {
            Layer = shared,
            Over = step.Over.Select(l => l == mine ? (l with { Differs = Differs.Nothing, Own = null }).Differing(shared, asked, l.Differs & ~figures) : l.Own is { } its ? (l with { Differs = Differs.Nothing, Own = null }).Differing(shared, its, l.Differs) : l).ToList(),
        };
    }

    /// <summary>Puts what is new and what was moved into its place; what can stay where it is stays.</summary>
    private void Arrange()
    {
        var order = wanted.Select(w => w.Layer.Id).ToList();
        var stays = Staying(order);
        for (var i = 0; i < order.Count; i++)
            if (!stays.Contains(order[i]))
            {
                var below = i > 0 ? At(stepOf[order[i - 1]]) : -1;
                var above = order.Skip(i + 1).FirstOrDefault(stays.Contains);
                if (stepOf.TryGetValue(order[i], out var id))
                    Move(order[i], id, i > 0 ? stepOf[order[i - 1]] : null, above == default ? null : stepOf[above]);
                else
                    Begin(wanted[i], below >= 0 ? below + 1 : above == default ? steps.Count : At(stepOf[above]));
            }
    }

    /// <summary>The lines that need not move: an ascending row of most weight, in which what lies elsewhere too weighs more.</summary>
    private HashSet<Guid> Staying(List<Guid> order)
    {
        var known = order.Where(stepOf.ContainsKey).Select(line => (Line: line, At: At(stepOf[line]))).ToList();
        var (best, from) = (new int[known.Count], new int[known.Count]);
        for (var i = 0; i < known.Count; i++)
        {
            (best[i], from[i]) = (0, -1);
            for (var j = 0; j < i; j++)
                if (known[j].At < known[i].At && best[j] > best[i])
                    (best[i], from[i]) = (best[j], j);
            best[i] += LiesElsewhere(steps[known[i].At]) ? known.Count + 1 : 1;
        }

        var stays = new HashSet<Guid>();
        for (var i = best.Length == 0 ? -1 : Array.IndexOf(best, best.Max()); i >= 0; i = from[i])
            stays.Add(known[i].Line);
        return stays;
    }

    private void Begin(Edited edited, int at)
    {
        var line = edited.Layer.Id;
        var id = steps.Any(s => s.Id == line) || was.Steps.Any(s => s.Id == line) ? Guid.CreateVersion7() : line;
        steps.Insert(at, new Step(id, edited.Layer with { Id = default, DownTo = null }, edited.Note, own.Select(s => new Lay(s, line)).ToList()));
        stepOf[line] = id;
    }

    /// <summary>Moves a step to where it was put on this surface; where it lies elsewhere too and would be out of its place there it parts, or all follow.</summary>
    private void Move(Guid line, Guid id, Guid? below, Guid? above)
    {
        var from = At(id);
        var step = steps[from];
        steps.RemoveAt(from);
        var (low, high) = (below is { } b ? At(b) + 1 : 0, above is { } a ? At(a) : steps.Count);
        var place = below is null && above is not null ? high : low;
        if (scope == Scope.Here && LiesElsewhere(step))
        {
            var others = step.Over.Select(l => l.Surface).Where(s => !own.Contains(s)).ToList();
            bool Meets(Step other) => others.Any(s => other.On(s) is not null);
            var (least, most) = (steps.Take(from).ToList().FindLastIndex(Meets) + 1, steps.FindIndex(from, Meets));
            (low, high) = (Math.Max(low, least), most < 0 ? high : Math.Min(high, most));
            if (low > high)
            {
                steps.Insert(from, step);
                var mine = TakeOut(from);
                var parted = new Step(Guid.CreateVersion7(), step.Layer, step.Note, mine);
                stepOf[line] = parted.Id;
                steps.Insert(below is { } under ? At(under) + 1 : above is { } over ? At(over) : steps.Count, parted);
                return;
            }

            place = below is null ? high : low;
        }

        steps.Insert(place, step);
    }

    /// <summary>Has a layer take just what it may take on this surface, once every layer has its place.</summary>
    private void Deepen(Edited edited)
    {
        var at = At(stepOf[edited.Layer.Id]);
        var step = steps[at];
        var now = (was with { Steps = steps }).Stack(surface).First(l => l.Id == edited.Layer.Id).DownTo;
        if (now == edited.Layer.DownTo)
            return;
        Guid? lowest = edited.Layer.DownTo is { } line && stepOf.TryGetValue(line, out var id) ? id : null;
        var asked = step.Layer with { DownTo = lowest };
        steps[at] = scope == Scope.Everywhere || !LiesElsewhere(step)
            ? step with { Layer = asked, Over = step.Over.Select(l => own.Contains(l.Surface) ? l.Differing(asked, asked, Differs.DownTo) : l).ToList() }
            : step with { Over = step.Over.Select(l => own.Contains(l.Surface) ? l.Differing(step.Layer, asked, Differs.DownTo) : l).ToList() };
    }
}
