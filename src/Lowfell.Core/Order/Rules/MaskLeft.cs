using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>A mask comes off when its paint is set to the touch and before it is hard.</summary>
internal sealed class MaskLeft : LayerRule
{
    public override RuleFacts Facts { get; } = new("mask-left",
        "Mask never taken off, or taken off before its paint is set to the touch or after it has cured hard.",
        "Left on it tears the paint or leaves its glue; taken off wet the edge runs.",
        "Take it off once the paint is touch dry.")
    { Schools = [School.HotAirOnWash] };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.Mask)
            return null;
        var off = view.NextAbove(i, j => view.Layers[j].Technique == Technique.Unmask);
        if (off < 0)
            return Never(view, i);
        if (view.NextBelow(off, j => j > i && view.LeavesFilm(j)) is not (>= 0 and var paint) || view.MinutesAtLeast(paint, off) is not { } minutes)
            return null;
        var times = view.DryingOf(paint).Usual;
        if (minutes >= times.TouchMinutes && (minutes <= times.CureMinutes || times.CureMinutes == 0))
            return null;
        var early = minutes < times.TouchMinutes;
        var wait = Duration.RoundUp(early ? times.TouchMinutes : Math.Max(times.TouchMinutes, times.RecoatMinutes));
        var rest = minutes - (view.Layers[off - 1].WaitMinutes ?? 0);
        return new Finding(Facts.Id, Severity.Caution, [i, off, paint], early ? "Mask comes off wet" : "Mask comes off too late",
            early
                ? $"The mask is pulled {Duration.Words(minutes)} after {view.Layers[paint].MaterialName}, which is set to the touch after about {Duration.Words(times.TouchMinutes)} in this room: the edge runs."
                : $"The mask is pulled {Duration.Words(minutes)} after {view.Layers[paint].MaterialName}, which is hard after about {Duration.Words(times.CureMinutes)}: it tears at the edge, and the tape leaves its glue.",
            [new Remedy("in-time", $"Take it off after {Duration.Words(wait)}", [new StackEdit.Replace(off - 1, view.Layers[off - 1] with { WaitMinutes = Math.Max(0, wait - rest) })])]);
    }

    /// <summary>After the last layer that the mask is there for: the first run of sprayed or painted layers above it.</summary>
    private Finding Never(StackView view, int i)
    {
        var last = i;
        while (last + 1 < view.Count && view.LeavesFilm(last + 1) && view.Layers[last + 1].Technique is not (Technique.Varnish or Technique.AllOverWash or Technique.PinWash or Technique.Filter))
            last++;
        return new Finding(Facts.Id, Severity.Caution, [i], "The mask stays on",
            $"Layer {i + 1} masks, and nothing above it takes the mask off.",
            [new Remedy("unmask", last == i ? "Take it off right after" : $"Take it off after layer {last + 1}", [new StackEdit.Insert(last + 1, new Layer { Technique = Technique.Unmask, Tool = Tool.Fingers })])]);
    }
}
