using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Pieces;

/// <summary>In what a piece was really done otherwise than its treatment says.</summary>
public enum Deviation
{
    /// <summary>Laid from what was really in its pot.</summary>
    OtherMix,

    /// <summary>Done by an older version of the treatment, in which it was another.</summary>
    OtherVersion,

    /// <summary>A layer that was left out, or forgotten under later ones.</summary>
    LeftOut,

    /// <summary>A layer that the treatment does not have.</summary>
    Extra,

    /// <summary>Laid in another order.</summary>
    OtherOrder,
}

/// <summary>One deviation of one zone.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Line">The layer; empty for the order, which is of all of them.</param>
/// <param name="Difference">CIEDE2000 between the finished zone with it and without it, an estimate.</param>
/// <param name="Verdict">Whether that is seen from the table.</param>
public sealed record Deviated(Deviation Kind, Guid Line, double Difference, Verdict Verdict);

/// <summary>The treatment of a zone as it was really done on a piece, so that new ones come out the same.</summary>
public static class AsDone
{
    /// <summary>Everything that was done otherwise, each with what it does to the finished colour while all others stay.</summary>
    /// <param name="plan">The treatment in force.</param>
    /// <param name="core">What is on the piece.</param>
    public static IReadOnlyList<Deviated> Of(StackView plan, PieceCore core)
    {
        var all = Found(plan, core);
        var with = Mean(plan, Stack(plan, core, all.ToHashSet()));
        return all.Select(d =>
        {
            var without = Mean(plan, Stack(plan, core, all.Where(o => o != d).ToHashSet()));
            return new Deviated(d.Kind, d.Line, ColourDifference.Ciede2000(with.Lab, without.Lab), FromTheTable.Between(plan.Context.Zone, with, plan.Context.Zone, without, plan.Context.Set.TableMetres).Verdict);
        }).ToList();
    }

    /// <summary>The treatment with some of the deviations kept; what is still to come on the piece stays as planned.</summary>
    public static IReadOnlyList<Layer> Stack(StackView plan, PieceCore core, IReadOnlySet<(Deviation Kind, Guid Line)> kept)
    {
        var laid = core.Layers.ToDictionary(l => l.Layer.Id);
        var stack = new List<Layer>();
        foreach (var planned in plan.Layers)
            if (laid.TryGetValue(planned.Id, out var done))
                stack.Add(As(planned, done, kept));
            else if (!kept.Contains((Deviation.LeftOut, planned.Id)))
                stack.Add(planned);

        // In the order of the piece as far as it is done; what is still to come lies above.
        if (kept.Contains((Deviation.OtherOrder, Guid.Empty)))
        {
            var order = core.Layers.Select((l, i) => (l.Layer.Id, i)).ToDictionary(x => x.Id, x => x.i);
            var done = new Queue<Layer>(stack.Where(l => order.ContainsKey(l.Id)).OrderBy(l => order[l.Id]));
            stack = stack.Select(l => order.ContainsKey(l.Id) ? done.Dequeue() : l).ToList();
        }

        for (var i = 0; i < core.Layers.Count; i++)
            if (kept.Contains((Deviation.Extra, core.Layers[i].Layer.Id)))
            {
                var below = core.Layers.Take(i).Select(l => stack.FindIndex(s => s.Id == l.Layer.Id)).DefaultIfEmpty(-1).Max();
                stack.Insert(below + 1, core.Layers[i].Layer);
            }

        return stack;
    }

    private static Layer As(Layer planned, CoreLayer done, IReadOnlySet<(Deviation, Guid)> kept)
    {
        var layer = kept.Contains((Deviation.OtherVersion, planned.Id)) ? Version(done, planned) : planned;
        return kept.Contains((Deviation.OtherMix, planned.Id)) ? layer with { Paint = done.Layer.Paint, Dilution = done.Layer.Dilution } : layer;
    }

    /// <summary>The version it was done by; what was in its pot is told apart from that.</summary>
    private static Layer Version(CoreLayer done, Layer planned) => done.Pot is null ? done.Layer : done.Layer with { Paint = planned.Paint, Dilution = planned.Dilution };

    private static List<(Deviation Kind, Guid Line)> Found(StackView plan, PieceCore core)
    {
        var found = new List<(Deviation, Guid)>();
        var order = plan.Layers.Select((l, i) => (l.Id, i)).ToDictionary(x => x.Id, x => x.i);
        var turns = core.Layers.Where(l => order.ContainsKey(l.Layer.Id)).Select(l => order[l.Layer.Id]).ToList();
        var highest = turns.DefaultIfEmpty(-1).Max();
        foreach (var done in core.Layers)
        {
            if (!order.TryGetValue(done.Layer.Id, out var at))
            {
                found.Add((Deviation.Extra, done.Layer.Id));
                continue;
            }

            if (done.Pot is not null && !Cores.IsSameMix(done.Layer, plan.Layers[at]))
                found.Add((Deviation.OtherMix, done.Layer.Id));
            if (done.IsOlder && StackDifference.Phrases([Version(done, plan.Layers[at])], [plan.Layers[at]]).Count > 0)
                found.Add((Deviation.OtherVersion, done.Layer.Id));
        }

        found.AddRange(plan.Layers.Where((l, i) => core.Layers.All(c => c.Layer.Id != l.Id) && (core.Skipped.Contains(l.Id) || i < highest)).Select(l => (Deviation.LeftOut, l.Id)));
        if (!turns.SequenceEqual(turns.Order()))
            found.Add((Deviation.OtherOrder, Guid.Empty));
        return found;
    }

    private static Seen Mean(StackView plan, IReadOnlyList<Layer> stack)
    {
        var run = plan.Predict(stack);
        return run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
    }
}
