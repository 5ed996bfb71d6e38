using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>What is below must be dry enough for what comes next, in this room.</summary>
internal sealed class SoftBelow : LayerRule
{
    public override RuleFacts Facts { get; } = new("soft-below",
        "Layer put on before the one below is dry enough for this kind of layer.",
        "Soft paint is dragged, dissolved or trapped.",
        "Wait longer; wait as long as it takes.", CanStop: true)
    { Schools = [School.HotAirOnWash] };

    protected override Finding? At(StackView view, int i)
    {
        var below = view.FilmBelow(i);

        // Crackle medium has windows of its own; see crackle-film.
        if (below < 0 || view.Layers[below].Technique == Technique.CrackleMedium || view.MinutesAtLeast(below, i) is not { } planned)
            return null;
        var (range, dryness) = view.Needed(below, i);
        if (planned >= range.Usual || (dryness == Dryness.Cure && view.Layers[i].Carrier == Materials.Carrier.SolventAcrylic))
            return null;
        return Describe(view, i, below, planned, range, planned < view.DryingOf(below).TouchMinutes.Usual);
    }

    private Finding Describe(StackView view, int i, int below, double planned, Span3 range, bool wet)
    {
        var wait = Duration.RoundUp(range.Usual);
        var last = view.Layers[i - 1];
        var more = planned - (last.WaitMinutes ?? 0);
        return new Finding(Facts.Id, wet ? Severity.Stop : Severity.Caution, [i, below], wet ? "Still wet below" : "Not dry enough below",
            $"{Duration.Words(planned)} after {view.Layers[below].MaterialName} is too soon for this {EnumWords.Of(view.Layers[i].Technique)}: at {view.Context.Climate.TemperatureC:0} °C and {view.Context.Climate.RelativeHumidity * 100:0} % it wants about {Duration.Words(range.Usual)}, from {Duration.Words(range.Low)} to {Duration.Words(range.High)} (an estimate; the label wins).",
            [
                new Remedy("wait", $"Wait {Duration.Words(wait)}", [new StackEdit.Replace(i - 1, last with { WaitMinutes = wait - more })]),
                new Remedy("wait-open", "Wait as long as it takes", [new StackEdit.Replace(i - 1, last with { WaitMinutes = null })]),
            ]);
    }
}
