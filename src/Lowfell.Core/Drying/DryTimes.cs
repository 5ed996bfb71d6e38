using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>Minutes until a coat can be touched, coated again, and is cured, at 20 C, 50 % relative humidity, usual film.</summary>
public sealed record DryTimes(double TouchMinutes, double RecoatMinutes, double CureMinutes)
{
    /// <summary>These with what a label says of them, in minutes; none is sooner than the one before it.</summary>
    public DryTimes With(double? touch, double? recoat, double? cure)
    {
        var first = touch ?? TouchMinutes;
        var second = Math.Max(first, recoat ?? RecoatMinutes);
        return new DryTimes(first, second, Math.Max(second, cure ?? CureMinutes));
    }
}

/// <summary>The same as a range, minutes: low – usual – high.</summary>
public sealed record DryRange(Span3 TouchMinutes, Span3 RecoatMinutes, Span3 CureMinutes)
{
    public static readonly DryRange None = new(default, default, default);

    public DryTimes Usual => new(TouchMinutes.Usual, RecoatMinutes.Usual, CureMinutes.Usual);

    /// <summary>The slower of both, figure by figure.</summary>
    public DryRange Slower(DryRange other) => new(Most(TouchMinutes, other.TouchMinutes), Most(RecoatMinutes, other.RecoatMinutes), Most(CureMinutes, other.CureMinutes));

    private static Span3 Most(Span3 a, Span3 b) => new(Math.Max(a.Low, b.Low), Math.Max(a.Usual, b.Usual), Math.Max(a.High, b.High));
}

/// <summary>
/// Bench climate. <paramref name="TemperatureC"/> in Celsius, <paramref name="RelativeHumidity"/> 0..1; <paramref name="AirMoves"/> where a
/// fan or an open window keeps it moving.
/// </summary>
public sealed record Climate(double TemperatureC, double RelativeHumidity, bool AirMoves = false)
{
    /// <summary>The climate that drying figures are stated for.</summary>
    public static readonly Climate Standard = new(20, 0.5);
}

/// <summary>What a coat dries in: the room, what it lies on, and what the house does with hot air.</summary>
/// <param name="Climate">The room.</param>
/// <param name="Thirsty">It lies on bare board, plaster, filler or sand, which drinks.</param>
/// <param name="HotAirOnWashes">House rule: washes may be dried with hot air.</param>
public readonly record struct DryingConditions(Climate Climate, bool Thirsty = false, bool HotAirOnWashes = false);

/// <summary>Usual drying figures by kind and carrier: rules of thumb, overridden by the material; the label wins.</summary>
public static class UsualDryTimes
{
    /// <summary>The usual figures for a material whose label has not been copied yet.</summary>
    public static DryTimes For(MaterialKind kind, Carrier carrier) => DryingTable.For(kind, carrier).Usual;
}
