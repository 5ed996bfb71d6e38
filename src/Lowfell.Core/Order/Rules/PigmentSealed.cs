using Lowfell.Core.Layers;
using Lowfell.Core.Precedence;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Varnish drowns pigments; hands take loose ones away. School: house rule "pigments".</summary>
internal sealed class PigmentSealed : LayerRule
{
    public override RuleFacts Facts { get; } = new("pigment-sealed",
        "Varnish over pigments washes them out; pigments on a handled piece left loose.",
        "A wet film darkens powder until it is gone; fingers carry loose powder everywhere.",
        "Varnish before the pigments; fix them with binder or thinner.")
    { Schools = [School.Pigments] };

    protected override Finding? At(StackView view, int i)
    {
        if (!PowderWork.IsLoose(view, i))
            return null;
        var varnish = view.NextAbove(i, j => view.IsVarnish(j) || Floods(view, i, j));
        if (varnish >= 0)
            return Washed(view, i, varnish);
        if (view.SoiledBy(i, Why.Loose).FirstOrDefault() is { } wet)
            return Beside(view, i, wet);
        var zone = view.Context.Zone;
        if (view.Context.HouseRules.Pigments != PigmentSchool.FixWhenHandled || zone.Handling == Handling.Display)
            return null;
        return new Finding(Facts.Id, zone.Handling == Handling.HardPlay ? Severity.Caution : Severity.Hint, [i], "Loose pigment on a handled piece",
            $"{view.Layers[i].MaterialName} is left loose on a piece that is {(zone.Handling == Handling.HardPlay ? "played hard" : "handled")}. Your house rule is to fix pigments then; some of the chalkiness goes.",
            PowderWork.Fix(view, i));
    }

    /// <summary>What is wet or rubs on another zone is planned after the powder here.</summary>
    private Finding Beside(StackView view, int i, Before wet)
    {
        var (zone, layer) = (view.Piece!.Zones[wet.FirstOn], view.Piece.LayerOf(wet.First, wet.FirstOn));
        return new Finding(Facts.Id, Severity.Hint, [i], "Powder beside wet work",
            $"{view.Layers[i].MaterialName} lies loose by the time {zone.Layers[layer].MaterialName} goes on {zone.Zone.Name} beside it: along the limit it is washed or wiped off. Laying that anew takes about {Duration.Words(view.Piece.PriceOf(wet).RepairMinutes)} over the pieces (an estimate).",
            PowderWork.Fix(view, i));
    }

    /// <summary>A wash, filter or glaze over the whole of it takes the powder with it as a varnish does.</summary>
    private static bool Floods(StackView view, int i, int j) =>
        view.LeavesFilm(j) && view.Layers[j].Technique is Technique.AllOverWash or Technique.Filter or Technique.Glaze && Regions.Meet(view.Layers[j].Region, view.Layers[i].Region);

    private Finding Washed(StackView view, int i, int varnish)
    {
        List<StackEdit> last = [new StackEdit.Move(i, varnish)];
        var text = $"Move it above layer {varnish + 1}";
        if (view.Context.HouseRules.Pigments == PigmentSchool.FixWhenHandled && view.Context.Zone.Handling != Handling.Display && ShelfPick.Fixer(view.Context.Shelf) is { } fixer)
        {
            last.Add(new StackEdit.Insert(varnish + 1, PowderWork.Fixing(view.Layers[i], fixer)));
            text += $" and fix it with {fixer.Name}";
        }

        return new Finding(Facts.Id, Severity.Caution, [i, varnish], view.IsVarnish(varnish) ? "Varnish over pigment" : "Wet work over pigment",
            $"Layer {varnish + 1}, {view.Layers[varnish].MaterialName}, wets {view.Layers[i].MaterialName} below it: most of the powder's colour goes.",
            [new Remedy("pigment-last", text, last), .. PowderWork.Fix(view, i)]);
    }
}
