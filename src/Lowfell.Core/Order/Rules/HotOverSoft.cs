using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Lacquer bites into whatever is softer than itself.</summary>
internal sealed class HotOverSoft : LayerRule
{
    public override RuleFacts Facts { get; } = new("hot-over-soft",
        "Lacquer or strong solvent over enamel, oil or uncured acrylic; a second coat of solvent primer in the hours in which it wrinkles.",
        "It lifts or crazes whatever is softer than itself.",
        "Use a water-borne product; move it below; wait for the cure.", CanStop: true)
    {
        Schools = [School.HotAirOnWash],
        Limits = [new("second coat of solvent primer, until", Windows.SecondCoatClosesMinutes, "min"), new("second coat of solvent primer, again from", Windows.SecondCoatAgainMinutes, "min")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i) || !view.Layers[i].Carrier.IsHot())
            return null;
        if (SoftBelow(view, i) is { } soft)
            return OverEnamel(view, i, soft);
        if (UncuredBelow(view, i) is { } fresh)
            return OverUncured(view, i, fresh);
        return BetweenCoats(view, i) is { } late ? SecondCoat(view, i, late) : null;
    }

    /// <summary>The lowest enamel or oil below. A thin varnish does not stop lacquer, so barriers do not count.</summary>
    private static int? SoftBelow(StackView view, int i)
    {
        for (var j = 0; j < i; j++)
            if (view.LeavesFilm(j) && view.Layers[j].Carrier.IsSpiritBorne())
                return j;
        return null;
    }

    private static (int Layer, double Needed, double Planned)? UncuredBelow(StackView view, int i)
    {
        var below = view.FilmBelow(i);
        if (below < 0 || !view.Layers[below].Carrier.IsWaterBorne() || view.MinutesAtLeast(below, i) is not { } planned)
            return null;
        var cure = view.DryingOf(below).CureMinutes.Usual;
        return planned < cure ? (below, cure, planned) : null;
    }

    /// <summary>A second coat of solvent primer goes on while the first is open, or once it is hard: in between it wrinkles.</summary>
    private static double? BetweenCoats(StackView view, int i)
    {
        var below = view.FilmBelow(i);
        if (below < 0 || view.Layers[below].Main is not { Kind: MaterialKind.Primer, Carrier: Carrier.SolventAcrylic } || view.Layers[i].Main!.Kind != MaterialKind.Primer
            || view.PlannedMinutes(below, i) is not { } planned)
            return null;
        var again = Windows.SecondPrimerCoat(view.Context.Climate);
        return planned > again.ClosesMinutes && planned < again.OpensMinutes ? planned : null;
    }

    private Finding SecondCoat(StackView view, int i, double planned)
    {
        var again = Windows.SecondPrimerCoat(view.Context.Climate);
        var last = view.Layers[i - 1];
        Remedy Wait(string id, double minutes) => new(id, $"Wait {Duration.Words(minutes)}", [new StackEdit.Replace(i - 1, last with { WaitMinutes = Math.Max(0, minutes - (planned - (last.WaitMinutes ?? 0))) })]);
        return new Finding(Facts.Id, Severity.Caution, [i, i - 1], "Second coat in the hours between",
            $"{Capital(view.Name(i))}, follows {Duration.Words(planned)} after the first coat: within about {Duration.Words(again.ClosesMinutes)} it melts into it, after {Duration.Words(again.OpensMinutes)} it lies on it, in between it wrinkles.",
            [Wait("sooner", Math.Floor(again.ClosesMinutes / 2 / 5) * 5), Wait("next-day", Duration.RoundUp(again.OpensMinutes))]);
    }

    private Finding OverEnamel(StackView view, int i, int soft)
    {
        var remedies = new List<Remedy>();
        if (ShelfPick.WaterBorne(view.Context.Shelf, view.Layers[i] with { Tool = Tool.Airbrush }) is var (instead, other))
            remedies.Add(new Remedy("water-borne", $"Use {other.Name}, which is water-borne",
                [new StackEdit.Replace(i, instead)]));
        remedies.Add(new Remedy("move-below", $"Move it below layer {soft + 1}", [new StackEdit.Move(i, soft)]));
        var carrier = EnumWords.Of(view.Layers[soft].Carrier);
        return new Finding(Facts.Id, Severity.Stop, [i, soft], "Lacquer over soft paint",
            $"{Capital(view.Name(i))}, is a lacquer. Layer {soft + 1} below it is {carrier}, which never gets hard enough: the lacquer lifts or crazes it.", remedies);
    }

    private Finding OverUncured(StackView view, int i, (int Layer, double Needed, double Planned) fresh) =>
        new(Facts.Id, Severity.Stop, [i, fresh.Layer], "Lacquer over uncured acrylic",
            $"{Capital(view.Name(i))}, is a lacquer, put on {Duration.Words(fresh.Planned)} after layer {fresh.Layer + 1}. That coat is cured after about {Duration.Words(fresh.Needed)} in this room.",
            [new Remedy("wait-cure", $"Wait {Duration.Words(Duration.RoundUp(fresh.Needed))}",
                [new StackEdit.Replace(i - 1, view.Layers[i - 1] with { WaitMinutes = Duration.RoundUp(fresh.Needed) })])]);

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
