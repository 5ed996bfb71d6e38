using System.Numerics;
using System.Runtime.InteropServices;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Start;

/// <summary>What a search works on, the same for every candidate. Grounds are reflectances of 36 bands, films wet um of one coat.</summary>
internal sealed record Bench(
    double[] K, double[] S, double[] FieldGround, double FieldUm, double[] Ground, double Um, bool AtField, LayersAbove Above);

/// <summary>
/// Carries one candidate at a time through mixing, coats and the layers above: in double precision and all 36 bands for what
/// is kept, in single precision and 24 bands, the outer ones wider, for a first glance. Not for several threads at once.
/// </summary>
internal sealed class Films<T> where T : unmanaged, IFloatingPointIeee754<T>
{
    // The eye sees little at both ends of the spectrum, and reflectances hardly change from one band to the next.
    private static readonly Range[] bands = typeof(T) == typeof(float)
        ? [0..4, .. Enumerable.Range(4, 6).Select(i => i..(i + 1)), 10..12, .. Enumerable.Range(12, 12).Select(i => i..(i + 1)), 24..26, 26..28, 28..31, 31..36]
        : [.. Enumerable.Range(0, Observer.Bands).Select(i => i..(i + 1))];

    /// <summary>Bands filled up to whole vectors; what is filled in weighs nothing.</summary>
    private static readonly int width = (bands.Length + Vector<T>.Count - 1) / Vector<T>.Count * Vector<T>.Count;

    // Nothing comes through a film this deep; even smaller exponentials would only slow the processor down with denormal numbers.
    private static readonly Vector<T> opaque = new(T.CreateChecked(typeof(T) == typeof(float) ? -20 : -40));

    private static readonly T[][] rows = [Sum(Observer.RowOf(0)), Sum(Observer.RowOf(1)), Sum(Observer.RowOf(2)), Sum(Observer.LuminanceRow)];

    private readonly Bench task;
    private readonly T[] k, s, fieldGround, ground;
    private readonly (T[] A, T[] B, T[] C, T Cover, int From, T[]? Kept)[] above;
    private readonly T[] mixK = new T[width], mixS = new T[width], masstone = new T[width], beta = new T[width], once = new T[width], decay = new T[width], film = new T[width], shown = new T[width];

    public Films(Bench task)
    {
        this.task = task;
        k = All(task.K);
        s = All(task.S);
        fieldGround = Fill(task.FieldGround, 0.5);
        ground = Fill(task.Ground, 0.5);
        above = task.Above.Steps.Select(x => (Fill(x.A, 0), Fill(x.B, 1), Fill(x.C, 0), T.CreateChecked(x.Cover), x.From, x == LayersAbove.Step.Keep ? new T[width] : null)).ToArray();
    }

    /// <summary>Coats laid.</summary>
    public int Coats { get; private set; }

    /// <summary>Whether they hide the ground.</summary>
    public bool Hides { get; private set; }

    /// <summary>How far the last decision about another coat was from going the other way, as a share of luminance.</summary>
    public double Doubt { get; private set; }

    /// <summary>
    /// The finished film over this candidate; <paramref name="share"/> is the paint's share after thinning, <paramref name="first"/> its own
    /// first-surface share, through which its hiding is judged.
    /// </summary>
    public void Lay(Candidate candidate, double share, double first)
    {
        Mix(candidate);
        Decay(task.FieldUm * share);
        Cover(Surface.Of(first));
        if (!task.AtField)
        {
            Exp(decay, -2 * task.Um * share * Coats);
            Over(ground);
        }

        foreach (var (a, b, c, cover, from, kept) in above)
        {
            if (kept is not null)
                film.CopyTo(kept, 0);
            else if (from >= 0)
                Recall(above[from].Kept!, cover);
            else
                Finish(a, b, c, cover);
        }
    }

    /// <summary>Luminance of the finished film through a surface, 0..1; shows it, for <see cref="Linear"/> to take its colour.</summary>
    public double Luminance(Surface top)
    {
        Show(film);
        return Through(top, Dot(rows[3], shown));
    }

    /// <summary>Linear colour of the finished film through a surface.</summary>
    public LinearRgb Linear(Surface top)
    {
        Show(film);
        return new(Through(top, Dot(rows[0], shown)), Through(top, Dot(rows[1], shown)), Through(top, Dot(rows[2], shown)));
    }

    private void Mix(Candidate c)
    {
        Span<Vector<T>> ks = Cast(mixK), ss = Cast(mixS), k1 = At(k, c.First), s1 = At(s, c.First);
        Span<Vector<T>> k2 = At(k, Math.Max(0, c.Second)), s2 = At(s, Math.Max(0, c.Second));
        var p = T.CreateChecked(c.FirstParts) / T.CreateChecked(c.FirstParts + c.SecondParts);
        var q = T.One - p;
        for (var i = 0; i < ks.Length; i++)
        {
            ks[i] = p * k1[i] + q * k2[i];
            ss[i] = p * s1[i] + q * s2[i];
        }
    }

    /// <summary>Reflectance of the endless film, and exp(-2 beta X) of one coat, from which any number of coats follows by powers.</summary>
    private void Decay(double coatUm)
    {
        Span<Vector<T>> ks = Cast(mixK), ss = Cast(mixS), rhos = Cast(masstone), betas = Cast(beta);
        for (var i = 0; i < ks.Length; i++)
        {
            betas[i] = Vector.SquareRoot(ks[i] * (ks[i] + ss[i] + ss[i]));
            rhos[i] = ss[i] / (ks[i] + ss[i] + betas[i]);
        }

        Exp(once, -2 * coatUm);
    }

    /// <summary>Lays the least coats that hide the field's ground.</summary>
    private void Cover(Surface own)
    {
        once.CopyTo(decay, 0);
        Show(masstone);
        var endless = Through(own, Dot(rows[3], shown));
        for (Coats = 1; ; Coats++)
        {
            Over(fieldGround);
            Show(film);
            var lightness = Through(own, Dot(rows[3], shown));
            var ratio = Math.Min(lightness, endless) / Math.Max(lightness, endless);
            Doubt = Coats == 1 ? Math.Abs(ratio - Hiding.HiddenRatio) : Math.Min(Doubt, Math.Abs(ratio - Hiding.HiddenRatio));
            Hides = ratio >= Hiding.HiddenRatio;
            if (Hides || Coats == StartHere.MostCoats)
                return;
            Span<Vector<T>> decays = Cast(decay), each = Cast(once);
            for (var i = 0; i < decays.Length; i++)
                decays[i] *= each[i];
        }
    }

    /// <summary>Film over a ground in the form with exp(-2 beta X); see <see cref="KubelkaMunk.Film(double, double, double, double)"/>.</summary>
    private void Over(T[] under)
    {
        Span<Vector<T>> rhos = Cast(masstone), es = Cast(decay), grounds = Cast(under), films = Cast(film);
        for (var i = 0; i < films.Length; i++)
        {
            var gone = rhos[i] * (Vector<T>.One - es[i]);
            films[i] = (gone + grounds[i] * (es[i] - rhos[i] * rhos[i])) / (Vector<T>.One - rhos[i] * rhos[i] * es[i] - grounds[i] * gone);
        }
    }

    /// <summary>What comes out of a film for what goes in: the part of <see cref="Surface.Shown(double)"/> that each band has to itself.</summary>
    private void Show(T[] inside)
    {
        Span<Vector<T>> from = Cast(inside), to = Cast(shown);
        for (var i = 0; i < to.Length; i++)
            to[i] = from[i] / (Vector<T>.One - inner * from[i]);
    }

    /// <summary>The part that all bands share: every row of the observer adds up to 1 over a perfect white.</summary>
    private static double Through(Surface surface, double shown) => surface.First + (1 - surface.First) * (1 - surface.Inner) * shown;

    private static readonly Vector<T> inner = new(T.CreateChecked(Surface.UsualInner));

    private void Finish(T[] a, T[] b, T[] c, T cover)
    {
        Span<Vector<T>> films = Cast(film), va = Cast(a), vb = Cast(b), vc = Cast(c);
        for (var i = 0; i < films.Length; i++)
            films[i] += cover * ((va[i] + vb[i] * films[i]) / (Vector<T>.One + vc[i] * films[i]) - films[i]);
    }

    private void Recall(T[] kept, T share)
    {
        Span<Vector<T>> films = Cast(film), was = Cast(kept);
        for (var i = 0; i < films.Length; i++)
            films[i] += share * (was[i] - films[i]);
    }

    private void Exp(T[] result, double factor)
    {
        Span<Vector<T>> results = Cast(result), betas = Cast(beta);
        var by = T.CreateChecked(factor);
        for (var i = 0; i < results.Length; i++)
            results[i] = Exp(Vector.Max(betas[i] * by, opaque));
    }

    private static Vector<T> Exp(Vector<T> x) => typeof(T) == typeof(float)
        ? QuickExp(x.As<T, float>()).As<float, T>()
        : Vector.Exp(x.As<T, double>()).As<double, T>();

    /// <summary>e^x for x from -20 to 0, to 1e-6 of the value: 2^n times a short series in what is left. The library's is good to every bit and four times as slow.</summary>
    private static Vector<float> QuickExp(Vector<float> x)
    {
        var n = Vector.Round(x * 1.44269504f);
        var f = x - n * 0.693147181f;
        var series = Vector.MultiplyAddEstimate(new Vector<float>(1f / 720), f, new Vector<float>(1f / 120));
        series = Vector.MultiplyAddEstimate(series, f, new Vector<float>(1f / 24));
        series = Vector.MultiplyAddEstimate(series, f, new Vector<float>(1f / 6));
        series = Vector.MultiplyAddEstimate(series, f, new Vector<float>(0.5f));
        series = Vector.MultiplyAddEstimate(series, f, Vector<float>.One);
        series = Vector.MultiplyAddEstimate(series, f, Vector<float>.One);
        return series * Vector.AsVectorSingle(Vector.ShiftLeft(Vector.ConvertToInt32(n) + new Vector<int>(127), 23));
    }

    private static double Dot(T[] row, T[] values)
    {
        Span<Vector<T>> r = Cast(row), v = Cast(values);
        var sum = Vector<T>.Zero;
        for (var i = 0; i < r.Length; i++)
            sum += r[i] * v[i];
        return double.CreateChecked(Vector.Sum(sum));
    }

    private static T[] All(double[] materials)
    {
        var all = new T[materials.Length / Observer.Bands * width];
        for (var m = 0; m < materials.Length / Observer.Bands; m++)
            Fill(materials.AsSpan(m * Observer.Bands, Observer.Bands), 1).CopyTo(all, m * width);
        return all;
    }

    /// <summary>Means over the bands, each wavelength by how much the eye makes of it.</summary>
    private static T[] Fill(ReadOnlySpan<double> values, double rest)
    {
        var filled = new T[width];
        filled.AsSpan().Fill(T.CreateChecked(rest));
        for (var i = 0; i < bands.Length; i++)
        {
            var (start, count) = bands[i].GetOffsetAndLength(Observer.Bands);
            double sum = 0, total = 0;
            for (var k = start; k < start + count; k++)
            {
                var weight = Math.Abs(Observer.RowOf(0)[k]) + Math.Abs(Observer.RowOf(1)[k]) + Math.Abs(Observer.RowOf(2)[k]);
                sum += weight * values[k];
                total += weight;
            }

            filled[i] = T.CreateChecked(sum / total);
        }

        return filled;
    }

    private static T[] Sum(ReadOnlySpan<double> weights)
    {
        var summed = new T[width];
        for (var i = 0; i < bands.Length; i++)
            summed[i] = T.CreateChecked(Total(weights[bands[i]]));
        return summed;
    }

    private static double Total(ReadOnlySpan<double> values)
    {
        var total = 0.0;
        foreach (var v in values)
            total += v;
        return total;
    }

    private static Span<Vector<T>> Cast(T[] values) => MemoryMarshal.Cast<T, Vector<T>>(values.AsSpan());

    private static Span<Vector<T>> At(T[] values, int material) => MemoryMarshal.Cast<T, Vector<T>>(values.AsSpan(material * width, width));
}
