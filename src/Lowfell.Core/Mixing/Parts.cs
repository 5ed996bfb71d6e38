using System.Globalization;

namespace Lowfell.Core.Mixing;

/// <summary>An exact, non-negative number of parts: a reduced fraction, so that 1/3 stays a third.</summary>
public readonly record struct Parts
{
    private Parts(long numerator, long denominator) => (Numerator, Denominator) = (numerator, denominator);

    public long Numerator { get; }

    /// <summary>Zero only in <c>default</c>, which is no parts at all.</summary>
    public long Denominator { get; }

    public static readonly Parts Zero = Of(0);
    public static readonly Parts One = Of(1);

    /// <summary>A fraction of parts.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Negative, or a zero denominator.</exception>
    public static Parts Of(long numerator, long denominator = 1)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(numerator);
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(denominator);
        var divisor = Math.Max(1, Gcd(numerator, denominator));
        return new Parts(numerator / divisor, denominator / divisor);
    }

    /// <summary>Parts from a decimal, exactly.</summary>
    public static Parts Of(decimal value)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(value);
        long denominator = 1;
        while (value != decimal.Truncate(value) && denominator < 1_000_000)
        {
            value *= 10;
            denominator *= 10;
        }

        return Of((long)decimal.Round(value), denominator);
    }

    /// <summary>Nearest ordinary number.</summary>
    public double ToDouble() => Denominator == 0 ? 0 : (double)Numerator / Denominator;

    /// <summary>Nearest decimal.</summary>
    public decimal ToDecimal() => Denominator == 0 ? 0 : (decimal)Numerator / Denominator;

    public static Parts operator +(Parts a, Parts b) =>
        Of(checked(a.Numerator * b.Den() + b.Numerator * a.Den()), checked(a.Den() * b.Den()));

    /// <exception cref="ArgumentOutOfRangeException">More is taken away than there is.</exception>
    public static Parts operator -(Parts a, Parts b) =>
        Of(checked(a.Numerator * b.Den() - b.Numerator * a.Den()), checked(a.Den() * b.Den()));

    public static Parts operator *(Parts a, Parts b) =>
        Of(checked(a.Numerator * b.Numerator), checked(a.Den() * b.Den()));

    /// <summary>The same ratio in the smallest whole numbers.</summary>
    public static IReadOnlyList<Parts> Whole(IReadOnlyList<Parts> ratio)
    {
        var scale = ratio.Aggregate(1L, (s, p) => checked(s / Gcd(s, p.Den()) * p.Den()));
        var whole = ratio.Select(p => p.Numerator * (scale / p.Den())).ToList();
        var divisor = Math.Max(1, whole.Aggregate(0L, Gcd));
        return whole.Select(n => Of(n / divisor)).ToList();
    }

    /// <summary>Share of a whole, 0..1.</summary>
    public double ShareOf(Parts whole) => ToDouble() / whole.ToDouble();

    /// <inheritdoc/>
    public override string ToString() => Den() == 1
        ? Numerator.ToString(CultureInfo.InvariantCulture)
        : 1_000_000 % Den() == 0
            ? ToDecimal().ToString("0.######", CultureInfo.InvariantCulture)
            : string.Create(CultureInfo.InvariantCulture, $"{Numerator}/{Denominator}");

    private long Den() => Denominator == 0 ? 1 : Denominator;

    private static long Gcd(long a, long b) => b == 0 ? a : Gcd(b, a % b);
}
