using Lowfell.Core.Layers;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>A second mix never quite matches the first.</summary>
internal sealed class MixedPots : LayerRule
{
    public override RuleFacts Facts { get; } = new("mixed-pots",
        "Same layer over the set from pots whose predicted colour differs visibly.",
        "Pieces side by side show two colours where one was meant.",
        "One pot for all: intermix them.")
    {
        Schools = [School.DryBrushCleaning],
        Limits = [new("two pots apart", Visible, "ΔE00")],
    };

    /// <summary>CIEDE2000 from which two finished pieces side by side look different.</summary>
    private const double Visible = 1;

    protected override Finding? At(StackView view, int i)
    {
        var pots = view.Context.Pots.Where(p => p.Layer == view.Layers[i].Id).ToList();
        if (pots.Count < 2 || !view.LeavesFilm(i))
            return null;
        var ends = pots.Select(p => (Pot: p, End: End(view, i, p))).ToList();
        (PotUse A, PotUse B, double Apart) worst = (pots[0], pots[1], 0);
        for (var a = 0; a < ends.Count; a++)
            for (var b = a + 1; b < ends.Count; b++)
                if (ends[a].End.DifferenceTo(ends[b].End).Largest() is var apart && apart > worst.Apart)
                    worst = (ends[a].Pot, ends[b].Pot, apart);
        if (worst.Apart < Visible)
            return null;
        return new Finding(Facts.Id, Severity.Caution, [i], "Pots that differ",
            Invariant($"{view.Says(i)}, comes from {pots.Count} pots. {worst.A.Label} ({Pieces(worst.A)}) and {worst.B.Label} ({Pieces(worst.B)}) end {worst.Apart:0.0} apart; from about {Visible:0} on it shows side by side. Intermix what is left, or keep those pieces apart."),
            []);
    }

    private static SeenSplit End(StackView view, int i, PotUse pot)
    {
        var stack = view.Layers.ToList();
        stack[i] = stack[i] with { Paint = pot.Paint, Dilution = pot.Dilution };
        return view.Predict(stack).SeenWithin(view.Count, stack[i].Region);
    }

    private static string Pieces(PotUse pot) => pot.Pieces.Count == 0 ? "no piece yet" : string.Join(", ", pot.Pieces);
}
