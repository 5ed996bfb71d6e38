using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Lacquer bites into whatever is softer than itself.</summary>
internal sealed class HotOverSoft : IOrderRule
{
    public RuleFacts Facts { get; } = new("hot-over-soft",
        "Lacquer or strong solvent over enamel, oil or uncured acrylic.",
        "It lifts or crazes whatever is softer than itself.",
        "Use a water-borne product; move it below; wait for the cure.", CanStop: true);

    public IEnumerable<Finding> Check(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            if (!view.LeavesFilm(i) || !view.Layers[i].Carrier.IsHot())
                continue;
            if (SoftBelow(view, i) is { } soft)
                yield return OverEnamel(view, i, soft);
            else if (UncuredBelow(view, i) is { } fresh)
                yield return OverUncured(view, i, fresh);
        }
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
        var cure = DryingModel.Of(view.Layers[below], view.Context.Climate).CureMinutes;
        return planned < cure ? (below, cure, planned) : null;
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
