using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static System.FormattableString;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>From low to high.</summary>
public readonly record struct Band(double Low, double High)
{
    public bool Holds(double value) => value >= Low - 1e-9 && value <= High + 1e-9;
}

/// <summary>
/// Pressure, needle and thinning that go together for a mix: rules of thumb; the label and the maker of the airbrush win.
/// </summary>
/// <param name="PressureBar">Sensible pressures, bar.</param>
/// <param name="StartBar">Where to start within them: the thinner the mix and the finer the needle, the lower.</param>
/// <param name="NeedleMm">Sensible needles, mm.</param>
/// <param name="ThinnerShare">Sensible thinning, thinner's share of the mix 0..1.</param>
/// <param name="Warnings">What is outside, and what it does.</param>
public sealed record AirbrushNote(Band PressureBar, double StartBar, Band NeedleMm, Band ThinnerShare, IReadOnlyList<string> Warnings)
{
    private const double UsualNeedle = 0.3, FinestNeedle = 0.2, WidestNeedle = 0.5;

    // Detail 0.2 to 0.3, coats 0.3 to 0.5; the grains of matt varnish stick in less than 0.3.
    private static readonly Band detail = new(0.2, 0.3), coats = new(0.3, 0.5);

    /// <summary>The note for a mix.</summary>
    /// <param name="contents">What is in the pot; some paint at least.</param>
    /// <param name="technique">What it is for: lines and shades take a finer needle than coats.</param>
    /// <param name="needleMm">The needle in the airbrush, or null for the usual.</param>
    /// <param name="bar">The pressure set, or null for none yet.</param>
    public static AirbrushNote For(PotContents contents, Technique technique, double? needleMm = null, double? bar = null)
    {
        var main = contents.Portions.Where(p => !p.Material.IsThinner).OrderByDescending(p => p.Ml).FirstOrDefault().Material ?? throw new ArgumentException("There is no paint in this pot to spray.", nameof(contents));
        var (pressure, thinning) = Bands(main.Kind, main.Carrier, PotCheck.Limit(contents, technique, Tool.Airbrush)?.Most ?? 0);
        var needle = main is { Kind: MaterialKind.Varnish, Sheen: Sheen.Matt } || technique is not (Technique.DirectionalLight or Technique.EdgeLine or Technique.Streak or Technique.Patch) ? coats : detail;
        var share = contents.ThinnerShare;
        var size = needleMm ?? Math.Clamp(UsualNeedle, needle.Low, needle.High);
        var start = Start(pressure, thinning, share, size);
        return new AirbrushNote(pressure, start, needle, thinning, Warn(main, share, size, bar, pressure, needle, thinning).ToList());
    }

    /// <summary>Pressure and thinning of a carrier: thin films of lacquer fly at little pressure, varnish wants more.</summary>
    internal static (Band Bar, Band Thinner) Bands(MaterialKind kind, Carrier carrier, double most) => (kind, carrier) switch
    {
        (MaterialKind.Varnish, Carrier.WaterAcrylic) => (new(1.2, 2.0), new(0, most)),

        // Inks and washes are thin as they come.
        (MaterialKind.Ink or MaterialKind.Wash or MaterialKind.Filter, Carrier.WaterAcrylic) => (new(0.8, 1.5), new(0, most)),
        (_, Carrier.SolventAcrylic) => (new(0.8, 1.5), new(1.0 / 2, most)),
        (_, Carrier.Enamel or Carrier.Oil) => (new(1.0, 1.8), new(1.0 / 3, most)),
        _ => (new(1.0, 2.0), new(Math.Min(1.0 / 4, most), most)),
    };

    private static double Start(Band pressure, Band thinning, double share, double needle)
    {
        var thin = thinning.High > thinning.Low ? Math.Clamp((share - thinning.Low) / (thinning.High - thinning.Low), 0, 1) : 0.5;
        var fine = Math.Clamp((WidestNeedle - needle) / (WidestNeedle - FinestNeedle), 0, 1);
        return Math.Round(pressure.High - (pressure.High - pressure.Low) * (0.6 * thin + 0.4 * fine), 1);
    }

    private static IEnumerable<string> Warn(Material main, double share, double needle, double? bar, Band pressure, Band needles, Band thinning)
    {
        if (share < thinning.Low - 0.005)
            yield return Invariant($"{share * 100:0} % thinner is thick for spraying {main.Name}: it spits and dries on the tip. From about {thinning.Low * 100:0} % it flows.");
        if (share > thinning.High + 0.005)
            yield return Invariant($"{share * 100:0} % thinner is more than {main.Name} takes ({thinning.High * 100:0} %): it runs in spiders and rubs off. Thin it less, spray several mists.");
        if (!needles.Holds(needle))
            yield return needle < needles.Low
                ? Invariant($"A {needle:0.0#} mm needle is fine for this: it clogs. From {needles.Low:0.0} mm.")
                : Invariant($"A {needle:0.0#} mm needle is wide for this: lines get soft. Up to {needles.High:0.0} mm.");
        if (bar is { } set && !pressure.Holds(set))
            yield return set < pressure.Low
                ? Invariant($"At {set:0.0} bar {main.Name} comes in drops; from {pressure.Low:0.0} bar it turns to mist.")
                : Invariant($"At {set:0.0} bar paint dries in the air and lands rough; up to {pressure.High:0.0} bar.");
    }
}
