using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Crackle works by its film: thick enough, left alone, and never hurried.</summary>
internal sealed class CrackleFilm : LayerRule
{
    public override RuleFacts Facts { get; } = new("crackle-film",
        "Crackle film too thin for cracks, crackle medium not dry, its top colour worked twice, or hot air on paste that is not marked heat-safe.",
        "The cracks come from one slow shrinking film; anything that disturbs it spoils them.",
        "A thicker film; one pass of top colour; wait longer; dry in still air.", CanStop: true)
    {
        Schools = [School.HotAirOnWash],
        Limits = [new("a film that cracks", LeastUm, "µm")],
    };

    /// <summary>Thinner than this, paste dries without cracks that show, um.</summary>
    private const double LeastUm = 500;

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i))
            return null;
        var layer = view.Layers[i];
        if (layer.Main!.Kind == MaterialKind.CracklePaste)
            return layer.Drying == DryingMode.HotAir && !layer.Main.HeatSafe ? HotAir(view, i) : TooThin(view, i);
        return layer.Technique == Technique.CrackleMedium ? OverMedium(view, i) : null;
    }

    private Finding HotAir(StackView view, int i) =>
        new(Facts.Id, Severity.Stop, [i], "Hot air on crackle paste",
            $"{view.Says(i)}, skins over under hot air and dries without its cracks.",
            [new Remedy("still-air", "Dry it in still air", [new StackEdit.Replace(i, view.Layers[i] with { Drying = DryingMode.Air })])]);

    private Finding? TooThin(StackView view, int i)
    {
        var layer = view.Layers[i];
        var um = TechniqueTable.For(Technique.CracklePaste).FilmUm.Usual * layer.Coats * layer.Strength;
        if (um >= LeastUm || layer.Technique != Technique.CracklePaste)
            return null;
        return new Finding(Facts.Id, Severity.Caution, [i], "Too thin to crack",
            Invariant($"{layer.MaterialName} at about {um:0} um dries nearly whole; from {LeastUm:0} um on cracks open, and wider where it is thicker."),
            [new Remedy("thicker", "Lay it a millimetre thick", [new StackEdit.Replace(i, layer with { Strength = 1, Coats = 1 })])]);
    }

    private Finding? OverMedium(StackView view, int i)
    {
        var top = view.NextAbove(i, view.LeavesFilm);
        if (top < 0)
            return null;
        var times = view.DryingOf(i).Usual;
        if (view.MinutesAtLeast(i, top) is { } planned && planned < times.RecoatMinutes)
        {
            var wait = Duration.RoundUp(times.RecoatMinutes);
            var last = view.Layers[top - 1];
            return new Finding(Facts.Id, planned < times.TouchMinutes ? Severity.Stop : Severity.Caution, [i, top], "Crackle medium is not dry",
                $"Layer {top + 1} goes on {Duration.Words(planned)} after {view.Layers[i].MaterialName}, which wants about {Duration.Words(wait)} in this room: on a wet medium the colour slides instead of cracking.",
                [new Remedy("wait", $"Wait {Duration.Words(wait)}", [new StackEdit.Replace(top - 1, last with { WaitMinutes = wait - (planned - (last.WaitMinutes ?? 0)) })])]);
        }

        if (view.Layers[top].Coats == 1)
            return null;
        return new Finding(Facts.Id, Severity.Caution, [i, top], "Top colour worked twice",
            $"Layer {top + 1}, {view.Layers[top].MaterialName}, goes over crackle medium in {view.Layers[top].Coats} coats. It cracks under the first; another pass tears it.",
            [new Remedy("one-pass", "One pass, then hands off", [new StackEdit.Replace(top, view.Layers[top] with { Coats = 1 })])]);
    }
}
