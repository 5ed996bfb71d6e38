using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>Mean and covariance of a sum of independent parts, in CIELAB.</summary>
internal struct HandSpread
{
    /// <summary>What layers do to each other never takes more off what they do alone than leaves this.</summary>
    public const double LeastShare = 0.1;

    private double ll, la, lb, aa, ab, bb;

    public Lab Mean { get; private set; }

    public readonly double Total => ll + aa + bb;

    /// <summary>Adds one part, given by values of it that weigh the same, the rest at the usual; or takes it away again.</summary>
    public void Add(ReadOnlySpan<Lab> points, double weight, double sign = 1)
    {
        double l = 0, a = 0, b = 0;
        var w = sign * weight;
        foreach (var d in points)
        {
            (l, a, b) = (l + weight * d.L, a + weight * d.A, b + weight * d.B);
            ll += w * d.L * d.L;
            la += w * d.L * d.A;
            lb += w * d.L * d.B;
            aa += w * d.A * d.A;
            ab += w * d.A * d.B;
            bb += w * d.B * d.B;
        }

        ll -= sign * l * l;
        la -= sign * l * a;
        lb -= sign * l * b;
        aa -= sign * a * a;
        ab -= sign * a * b;
        bb -= sign * b * b;
        Mean = new(Mean.L + sign * l, Mean.A + sign * a, Mean.B + sign * b);
    }

    /// <summary>Puts the sum right by what was really seen of stacks against what was added up for them.</summary>
    public void Correct(ReadOnlySpan<Lab> real, ReadOnlySpan<Lab> added)
    {
        var (l, a, b) = (ll, aa, bb);
        Add(real, 1.0 / HandSample.Together);
        Add(added, 1.0 / HandSample.Together, -1);
        (ll, aa, bb) = (Math.Max(ll, LeastShare * l), Math.Max(aa, LeastShare * a), Math.Max(bb, LeastShare * b));
    }

    public readonly double Along(Lab v) => v.L * (ll * v.L + 2 * la * v.A + 2 * lb * v.B) + v.A * (aa * v.A + 2 * ab * v.B) + v.B * bb * v.B;

    /// <summary>The direction of most variance, by repeated multiplication.</summary>
    public readonly Lab Axis()
    {
        var v = ll >= aa && ll >= bb ? new Lab(1, 0.1, 0.1) : aa >= bb ? new Lab(0.1, 1, 0.1) : new Lab(0.1, 0.1, 1);
        for (var round = 0; round < 24; round++)
        {
            var w = new Lab(ll * v.L + la * v.A + lb * v.B, la * v.L + aa * v.A + ab * v.B, lb * v.L + ab * v.A + bb * v.B);
            var length = Math.Sqrt(w.Dot(w));
            if (length == 0)
                break;
            v = new(w.L / length, w.A / length, w.B / length);
        }

        return v;
    }
}
