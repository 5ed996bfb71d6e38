using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Sight;

/// <summary>Whether something can be told from what surrounds it.</summary>
public enum Verdict
{
    /// <summary>Plain to anyone who looks.</summary>
    Seen,

    /// <summary>There for those who search.</summary>
    Just,

    /// <summary>Nobody can tell.</summary>
    Lost,
}

/// <summary>
/// What an eye makes of a small mark from a distance: the colours are blurred per opponent channel as the eye's own optics
/// and nerves blur them, then compared. Sources: Zhang and Wandell (1996), SID Symposium Digest 27, for the kernels;
/// Poirson and Wandell (1993), J. Opt. Soc. Am. A 10, for the opponent channels.
/// </summary>
public static class Eye
{
    /// <summary>CIEDE2000 below which nobody can tell, and from which it is plain.</summary>
    public const double LostBelow = 1, SeenFrom = 2;

    // Weight and spread in degrees of the Gaussians of each channel; weights are divided by their sum where they are used.
    private static readonly (double Weight, double Sigma)[] luminance = [(0.921, 0.0283), (0.105, 0.133), (-0.108, 4.336)];
    private static readonly (double Weight, double Sigma)[] redGreen = [(0.531, 0.0392), (0.330, 0.494)];
    private static readonly (double Weight, double Sigma)[] blueYellow = [(0.488, 0.0536), (0.371, 0.386)];

    private static readonly double[,] toOpponent = { { 0.279, 0.720, -0.107 }, { -0.449, 0.290, -0.077 }, { 0.086, -0.590, 0.501 } };
    private static readonly double[,] fromOpponent = Matrix3.Invert(toOpponent);

    /// <summary>How many times as long as wide a line is taken to be.</summary>
    private const double LineLength = 30;

    // Angles searched for the first that is seen, from far (small) to near.
    private const double SmallestDegrees = 1e-6, LargestDegrees = 80, StepFactor = 1.05, CoarseFactor = 1.4, NearlyTold = 0.6 * LostBelow, Precise = 1e-5;

    /// <summary>Up to this half-angle, degrees, every channel fades with each step backwards: one look stands for all smaller ones.</summary>
    private const double FadingDegrees = 0.006;

    private static readonly (double Luminance, double RedGreen, double BlueYellow)[] coarseSpots = CoarseGains(MarkShape.Spot), coarseLines = CoarseGains(MarkShape.Line);

    private static (double, double, double)[] CoarseGains(MarkShape shape)
    {
        var gains = new List<(double, double, double)>();
        for (var degrees = FadingDegrees; degrees < LargestDegrees; degrees *= CoarseFactor)
            gains.Add(Gains(degrees, shape));
        return [.. gains];
    }

    /// <summary>Half the angle, degrees, under which a width is seen.</summary>
    public static double HalfAngle(double millimetres, double metres) => Math.Atan(millimetres / 2 / (1000 * metres)) * (180 / Math.PI);

    /// <summary>Share of its contrast that a mark keeps at its centre in luminance, red-green and blue-yellow; luminance may pass 1.</summary>
    /// <param name="halfAngleDegrees">Half its width as seen.</param>
    /// <param name="shape">A line keeps more than a spot of its width, for it is blurred across only.</param>
    public static (double Luminance, double RedGreen, double BlueYellow) Gains(double halfAngleDegrees, MarkShape shape = MarkShape.Spot) =>
        (Gain(luminance, halfAngleDegrees, shape), Gain(redGreen, halfAngleDegrees, shape), Gain(blueYellow, halfAngleDegrees, shape));

    /// <summary>CIEDE2000 between a mark and its field as seen from a distance.</summary>
    /// <param name="mark">Colour of the mark.</param>
    /// <param name="field">Colour around it.</param>
    /// <param name="millimetres">Width of the mark.</param>
    /// <param name="metres">Distance of the eye.</param>
    /// <param name="shape">Spot or line.</param>
    public static double Difference(Xyz mark, Xyz field, double millimetres, double metres, MarkShape shape = MarkShape.Spot) =>
        Missed(mark, field, field, HalfAngle(millimetres, metres), shape);

    /// <summary>CIEDE2000 between a place with and without a mark, both blurred into what surrounds it.</summary>
    public static double Missed(Xyz with, Xyz without, Xyz around, double halfAngleDegrees, MarkShape shape) => Missed(with, without, around, Gains(halfAngleDegrees, shape));

    private static double Missed(Xyz with, Xyz without, Xyz around, (double Luminance, double RedGreen, double BlueYellow) gains) =>
        ColourDifference.Ciede2000(Lab.FromXyz(Blur(with, around, gains)), Lab.FromXyz(Blur(without, around, gains)));

    /// <summary>A colour drawn towards its surround by the gains of the three channels; negative tristimulus values are raised to 0.</summary>
    public static Xyz Blur(Xyz colour, Xyz around, (double Luminance, double RedGreen, double BlueYellow) gains)
    {
        Span<double> step = stackalloc double[3];
        double x = colour.X - around.X, y = colour.Y - around.Y, z = colour.Z - around.Z;
        ReadOnlySpan<double> gain = [gains.Luminance, gains.RedGreen, gains.BlueYellow];
        for (var c = 0; c < 3; c++)
            step[c] = gain[c] * (toOpponent[c, 0] * x + toOpponent[c, 1] * y + toOpponent[c, 2] * z);
        return new Xyz(
            Math.Max(0, around.X + fromOpponent[0, 0] * step[0] + fromOpponent[0, 1] * step[1] + fromOpponent[0, 2] * step[2]),
            Math.Max(0, around.Y + fromOpponent[1, 0] * step[0] + fromOpponent[1, 1] * step[1] + fromOpponent[1, 2] * step[2]),
            Math.Max(0, around.Z + fromOpponent[2, 0] * step[0] + fromOpponent[2, 1] * step[1] + fromOpponent[2, 2] * step[2]));
    }

    /// <summary>
    /// The distance, m, beyond which a mark is lost; 0 when it cannot be told from any distance. The difference does not fall
    /// at every step backwards, since the channels fade at different rates: the first crossing is looked for from far to near.
    /// </summary>
    public static double LostBeyond(Xyz with, Xyz without, Xyz around, double millimetres, MarkShape shape = MarkShape.Spot)
    {
        double At(double degrees) => Missed(with, without, around, degrees, shape);
        bool Tells(double degrees) => At(degrees) >= LostBelow;

        // A mark that comes nowhere near being told on a coarse look is not looked for closely.
        var most = 0.0;
        foreach (var gains in shape == MarkShape.Spot ? coarseSpots : coarseLines)
            if (most < NearlyTold)
                most = Math.Max(most, Missed(with, without, around, gains));
        if (most < NearlyTold)
            return 0;
        var far = SmallestDegrees;
        for (double near = FadingDegrees, seen; near < LargestDegrees; far = near, near *= StepFrom(seen))
        {
            seen = At(near);
            if (seen < LostBelow)
                continue;
            while (near - far > near * Precise)
            {
                var middle = (far + near) / 2;
                if (Tells(middle))
                    near = middle;
                else
                    far = middle;
            }

            return millimetres / 2000 / Math.Tan(near * (Math.PI / 180));
        }

        return 0;
    }

    /// <summary>No channel gains more than by the square of the angle: from what is far from being told the next look may be further off.</summary>
    private static double StepFrom(double seen) => Math.Clamp(Math.Pow(NearlyTold / seen, 0.25), StepFactor, CoarseFactor);

    /// <summary>The word for a difference.</summary>
    public static Verdict Judge(double difference) =>
        difference < LostBelow ? Verdict.Lost : difference < SeenFrom ? Verdict.Just : Verdict.Seen;

    private static double Gain((double Weight, double Sigma)[] channel, double r, MarkShape shape)
    {
        double gain = 0, total = 0;
        foreach (var (weight, sigma) in channel)
        {
            var u = r / sigma;
            gain += weight * (shape == MarkShape.Spot ? 1 - Math.Exp(-u * u) : Erf(u) * Erf(LineLength * u));
            total += weight;
        }

        return gain / total;
    }

    /// <summary>Error function for arguments from 0, to 2e-7. Source: Abramowitz and Stegun (1964), formula 7.1.26.</summary>
    private static double Erf(double x)
    {
        var t = 1 / (1 + 0.3275911 * x);
        return 1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.Exp(-x * x);
    }
}
