using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Tufts hold best in wet paste, and want nothing over them.</summary>
internal sealed class PasteThenTuft : LayerRule
{
    public override RuleFacts Facts { get; } = new("paste-then-tuft",
        "Tuft meant to be embedded but the paste is dry; tuft before dry brush, wash or varnish.",
        "A tuft in dry paste only sits on it; one that is brushed or sprayed over turns into a stump of paint.",
        "Press it in while wet; move it to the end.")
    {
        Schools = [School.HotAirOnWash],
        Limits = [new("paste takes tufts for", Windows.TuftsCloseMinutes, "min")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.Tuft || view.Layers[i].Paint.Count == 0)
            return null;
        var over = view.Last(j => j > i && Soils(view, j));
        if (over >= 0)
        {
            return new Finding(Facts.Id, Severity.Caution, [i, over], "Tufts get painted over",
                $"{view.Layers[i].MaterialName} stands there when layer {over + 1}, {EnumWords.Of(view.Layers[over].Technique)}, goes on: it clots and stiffens the tufts.",
                [new Remedy("tufts-last", $"Move it above layer {over + 1}", [new StackEdit.Move(i, over)])]);
        }

        var paste = i - 1;
        if (paste < 0 || view.Layers[paste].Technique != Technique.TexturePaste || view.MinutesAtLeast(paste, i) is not { } minutes)
            return null;
        var closes = Windows.TuftsInPaste(view.Context.Climate).ClosesMinutes;
        if (minutes <= closes)
            return null;
        var wait = Math.Floor(closes / 5) * 5;
        return new Finding(Facts.Id, Severity.Caution, [i, paste], "The paste is dry by then",
            $"Tufts go in {Duration.Words(minutes)} after {view.Layers[paste].MaterialName}; it takes them for about {Duration.Words(closes)} in this room. After that they want glue of their own.",
            [new Remedy("while-wet", $"Press them in within {Duration.Words(wait)}", [new StackEdit.Replace(paste, view.Layers[paste] with { WaitMinutes = wait })])]);
    }

    private static bool Soils(StackView view, int j) =>
        view.LeavesFilm(j) && (view.IsSprayed(j) || view.Layers[j].Technique is Technique.DryBrush or Technique.Overbrush or Technique.AllOverWash
            or Technique.Filter or Technique.Varnish or Technique.SealTexture or Technique.Prime or Technique.BaseCoat);
}
