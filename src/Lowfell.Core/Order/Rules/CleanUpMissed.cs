using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>A pin wash is cleaned up while it still moves; rough zones close earlier.</summary>
internal sealed class CleanUpMissed : LayerRule
{
    public override RuleFacts Facts { get; } = new("clean-up-missed",
        "Pin wash without clean-up, or a clean-up of any wash, filter or streak planned after its window closes.",
        "Once set, the excess comes off with hard rubbing only, and the paint below with it.",
        "Add the clean-up; do it within the window.")
    { Schools = [School.HotAirOnWash] };

    protected override Finding? At(StackView view, int i)
    {
        if (!Lifting.IsWorkable(view.Layers[i]) || !view.LeavesFilm(i))
            return null;
        var layer = view.Layers[i];
        var relief = view.Context.Zone.Relief;
        var cleanUp = view.CleanUpOf(i);
        var window = Windows.CleanUp(layer, relief, view.Context.Climate);
        if (cleanUp < 0)
            return layer.Carrier.IsSpiritBorne() && layer.Technique == Technique.PinWash ? Missing(view, i, window) : null;
        if (!layer.Carrier.IsSpiritBorne() || view.MinutesAtLeast(i, cleanUp) is not { } minutes || minutes <= window.ClosesMinutes)
            return null;
        var wait = Math.Floor((window.OpensMinutes + window.ClosesMinutes) / 2 / 5) * 5;
        var hard = minutes > Lifting.SetMinutes ? " By then it is hard rubbing, and the varnish goes with it." : "";
        return new Finding(Facts.Id, Severity.Caution, [i, cleanUp], "Clean-up comes too late",
            $"The clean-up is {Duration.Words(minutes)} after {layer.MaterialName}; on {EnumWords.Of(relief)} relief it still moves for about {Duration.Words(window.ClosesMinutes)} in this room.{hard}",
            [new Remedy("sooner", $"Clean up after {Duration.Words(wait)}", Sooner(view, i, cleanUp, wait))]);
    }

    private static List<StackEdit> Sooner(StackView view, int i, int cleanUp, double wait)
    {
        var edits = new List<StackEdit>();
        for (var j = i; j < cleanUp; j++)
            edits.Add(new StackEdit.Replace(j, view.Layers[j] with { WaitMinutes = j == i ? wait : 0 }));
        return edits;
    }

    private Finding Missing(StackView view, int i, Window window)
    {
        var layer = view.Layers[i];
        var remedies = new List<Remedy>();
        if (ShelfPick.Thinner(view.Context.Shelf, [layer.Main!]) is { } thinner)
        {
            var cleanUp = ShelfPick.LayerOf(Technique.CleanUpExcess, thinner) with { WaitMinutes = layer.WaitMinutes };
            remedies.Add(new Remedy("clean-up", $"Clean up with {thinner.Name}", [new StackEdit.Replace(i, layer with { WaitMinutes = null }), new StackEdit.Insert(i + 1, cleanUp)]));
        }

        return new Finding(Facts.Id, Severity.Caution, [i], "No clean-up after the pin wash",
            $"{layer.MaterialName} stands on the shoulders of every joint until it is wiped, from {Duration.Words(window.OpensMinutes)} to about {Duration.Words(window.ClosesMinutes)} after it on this relief.", remedies);
    }
}
