using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Reading;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>What a mix is found to be.</summary>
public enum PotFit
{
    Fits, TooThin, WrongThinner, DoesNotMix, OnlyThinner, Empty,
}

/// <summary>One thing to say of a mix, worst first.</summary>
/// <param name="Fit">What was found.</param>
/// <param name="Severity">How bad it is; null when it fits.</param>
/// <param name="Says">What, why and what to do.</param>
public sealed record PotRemark(PotFit Fit, Severity? Severity, string Says);

/// <summary>Looks at a mix as it stands in the pot, before it meets a surface.</summary>
public static class PotCheck
{
    /// <summary>Rounding to whole drops must not count as too thin.</summary>
    private const double Slack = 0.005;

    /// <summary>Everything there is to say; one line that it fits when nothing speaks against it.</summary>
    /// <param name="contents">What is in it.</param>
    /// <param name="technique">What it is for.</param>
    /// <param name="tool">With what.</param>
    public static IReadOnlyList<PotRemark> Of(PotContents contents, Technique technique, Tool tool)
    {
        if (contents.Portions.Count == 0)
            return [new(PotFit.Empty, null, "Nothing is in it yet.")];
        var paints = contents.Portions.Where(p => !p.Material.IsThinner).Select(p => p.Material).ToList();
        if (paints.Count == 0)
            return [new(PotFit.OnlyThinner, Severity.Hint, "Only thinner is in it. Good for cleaning; put paint in to lay it.")];
        var remarks = DoesNotMix(paints).Concat(WrongThinner(contents, paints)).Concat(TooThin(contents, technique, tool)).OrderBy(r => r.Severity).ToList();
        return remarks.Count > 0 ? remarks : [Fits(contents, technique, tool)];
    }

    /// <summary>The largest share of thinner this mix holds, 0..1, and what sets it.</summary>
    public static (double Most, Material Material)? Limit(PotContents contents, Technique technique, Tool tool) => ThinnerLimits.Least(AsLayer(contents, technique, tool));

    /// <summary>What painters call it and how far that reaches: "about like milk (2 : 1 to 1 : 1)"; empty when it is neat or no name reaches it.</summary>
    public static string Consistency(PotContents contents)
    {
        if (contents.ThinnerMl == 0)
            return "";
        var share = contents.ThinnerShare;
        static double Share((int Paint, int Thinner) ratio) => (double)ratio.Thinner / (ratio.Paint + ratio.Thinner);
        return Reading.Consistency.All.Where(c => share >= Share(c.Thickest) - Slack && share <= Share(c.Thinnest) + Slack).MinBy(c => Math.Abs(share - Share(c.Usual))) is { } near
            ? $"about like {near.Names[0]} ({near.Thickest.Paint} : {near.Thickest.Thinner} to {near.Thinnest.Paint} : {near.Thinnest.Thinner})"
            : "";
    }

    private static IEnumerable<PotRemark> DoesNotMix(List<Material> paints)
    {
        if (Apart(paints) is not var (first, second))
            yield break;
        yield return new(PotFit.DoesNotMix, Severity.Stop,
            $"{first.Name} is {EnumWords.Of(first.Carrier)}, {second.Name} is {EnumWords.Of(second.Carrier)}: they curdle or separate. Lay one over the other instead, with what the order rules ask between them.");
    }

    /// <summary>Two paints of a mix whose carriers do not go together, or null.</summary>
    public static (Material First, Material Second)? Apart(IReadOnlyList<Material> paints)
    {
        for (var i = 0; i < paints.Count; i++)
            for (var j = i + 1; j < paints.Count; j++)
                if (!paints[i].Carrier.MixesWith(paints[j].Carrier))
                    return (paints[i], paints[j]);
        return null;
    }

    private static IEnumerable<PotRemark> WrongThinner(PotContents contents, List<Material> paints)
    {
        foreach (var thinner in contents.Portions.Where(p => p.Material.IsThinner).Select(p => p.Material))
            if (paints.Find(p => !p.TakesThinner(thinner)) is { } paint)
                yield return new(PotFit.WrongThinner, Severity.Stop,
                    $"{thinner.Name} does not belong to {paint.Name}, which is {EnumWords.Of(paint.Carrier)}. The mix curdles or separates; take {Own(paint)}.");
    }

    private static string Own(Material paint) => paint.Thinners.Count == 0 ? "no thinner at all" : string.Join(" or ", paint.Thinners.Select(f => EnumWords.Of(f)));

    private static IEnumerable<PotRemark> TooThin(PotContents contents, Technique technique, Tool tool)
    {
        if (Limit(contents, technique, tool) is not { } limit || contents.ThinnerShare <= limit.Most + Slack)
            yield break;
        var (paint, thinner) = ThinnerLimits.AsParts(limit.Most);
        var back = contents.ThinnerMl * paint / thinner - (contents.Ml - contents.ThinnerMl);
        yield return new(PotFit.TooThin, Severity.Caution,
            Invariant($"{contents.ThinnerShare * 100:0} % is thinner; {limit.Material.Name} keeps its binder up to about {limit.Most * 100:0} % (the label wins). Beyond that it rubs off and dries in rings. {back:0.0} ml more paint brings it back to {paint} : {thinner}; medium does too."));
    }

    private static PotRemark Fits(PotContents contents, Technique technique, Tool tool)
    {
        var limit = Limit(contents, technique, tool)!.Value;
        return new(PotFit.Fits, null, contents.ThinnerMl == 0
            ? "Fits. Neat."
            : Invariant($"Fits. {contents.ThinnerShare * 100:0} % is thinner; {limit.Material.Name} takes up to about {limit.Most * 100:0} % (the label wins)."));
    }

    private static Layer AsLayer(PotContents contents, Technique technique, Tool tool)
    {
        var (paint, dilution) = contents.AsPaint();
        return new Layer { Technique = technique, Tool = tool, Paint = paint, Dilution = dilution };
    }
}
