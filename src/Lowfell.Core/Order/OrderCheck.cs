using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Lowfell.Core.Layers;
using Lowfell.Core.Order.Rules;

namespace Lowfell.Core.Order;

/// <summary>Runs every rule on a stack and keeps only remedies that really help.</summary>
public static partial class OrderCheck
{
    /// <summary>From so many remedies on they are tried side by side.</summary>
    private const int WorthTwoCores = 8;

    /// <summary>Every rule, in the order of the craft.</summary>
    public static readonly IReadOnlyList<IOrderRule> Rules =
    [
        // Ground
        new BareGround(), new SolventOnFoam(), new ThirstyEdge(), new GatesLeft(),

        // Chemistry
        new HotOverSoft(), new SameSolvent(), new NoBarrier(), new MixedCarriers(), new WrongThinner(), new Overthinned(), new SoftBelow(), new BuriedBarrier(),

        // Texture
        new UnsealedTexture(), new RenderOrder(), new CrackleFilm(), new RimMargin(), new PasteThenTuft(), new LooseGrains(),

        // Washes and filters
        new WashOnFlat(), new PinOnMatt(), new FilterOrder(), new CleanUpMissed(), new NeighboursWet(), new OneHeavyWash(), new HotAirWash(),
        new NoVisibleChange(), new TooDarkToShade(), new RunOffSource(),

        // Light and colour
        new LightBuried(), new ModulationOverLight(), new CoatsToHide(), new WetBlendWindow(), new SameToneNeighbours(), new BuriedColour(), new WhiteBeneath(),

        // Order and access
        new CutInCost(), new OutOfReach(), new Overspray(), new MaskLeft(), new ChipWindow(), new ScaleSize(),

        // Sealing
        new NoProtection(), new SheenTarget(), new MattOverMetal(), new MattFrost(), new PigmentSealed(), new DecalBed(), new BrittleUnsealed(), new RimLast(),

        // Consistency
        new MixedPots(), new SameSplodge(),

        // Care
        new CautionNotes(),
    ];

    /// <summary>Rules that may stop or caution, the stops first.</summary>
    private static readonly IOrderRule[] troublesome = Rules.Where(r => !r.Facts.OnlyHints).OrderByDescending(r => r.Facts.CanStop).ToArray();

    /// <summary>All findings, worst first, then from the bottom of the stack up.</summary>
    public static IReadOnlyList<Finding> Run(StackContext context, IReadOnlyList<Layer> layers) => Run(new StackView(context, layers));

    /// <inheritdoc cref="Run(StackContext, IReadOnlyList{Layer})"/>
    public static IReadOnlyList<Finding> Run(StackView view) => Run(view, _ => true);

    /// <summary>Findings of some rules; their remedies are tried against every rule.</summary>
    public static IReadOnlyList<Finding> Run(StackView view, Func<IOrderRule, bool> which)
    {
        var found = Rules.Where(r => which(r) || !r.Facts.OnlyHints).SelectMany(r => r.Check(view).Select(f => (Rule: r, Finding: f))).ToList();
        var trial = new RemedyTrial(view, found.Select(f => f.Finding));
        var told = found.Where(f => which(f.Rule)).ToArray();
        var tried = new Finding[told.Length];
        void Try(int i) => tried[i] = told[i].Finding with { Remedies = trial.Offered(told[i].Rule, told[i].Finding) };
        if (told.Sum(f => f.Finding.Remedies.Count) < WorthTwoCores)
            for (var i = 0; i < told.Length; i++)
                Try(i);
        else
            Parallel.For(0, told.Length, Try);
        return tried
            .OrderBy(f => f.Severity)
            .ThenBy(f => f.Layers.Count > 0 ? f.Layers[0] : -1)
            .ToList();
    }

    /// <summary>Findings without trying their remedies: for counts.</summary>
    public static IReadOnlyList<Finding> Glance(StackView view) =>
        Rules.SelectMany(r => r.Check(view)).OrderBy(f => f.Severity).ToList();

    /// <summary>
    /// The facts a finding rests on, in few letters: its wording with every figure, and the layers it speaks of. Where they lie in
    /// the stack is left out, so that a layer put in elsewhere changes nothing. An accepted finding counts as long as this stays.
    /// </summary>
    public static string FactsOf(StackView view, Finding finding)
    {
        var text = new StringBuilder(PlaceOfLayer().Replace(finding.Why, "layer")).Append('|').Append(finding.Severity);
        foreach (var i in finding.Layers)
        {
            var layer = view.Layers[i];
            text.Append(CultureInfo.InvariantCulture, $"|{layer.Technique},{layer.Coats},{layer.Strength},{layer.Region},{layer.Tool},{layer.Drying},{layer.WaitMinutes},{layer.MarkMm},{layer.Dilution}");
            foreach (var part in layer.Paint)
                text.Append(CultureInfo.InvariantCulture, $",{part.Parts} {part.Material.Id}");
        }

        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())).AsSpan(0, 16));
    }

    [GeneratedRegex(@"[Ll]ayers? \d+")]
    private static partial Regex PlaceOfLayer();

    /// <summary>House rules that this finding follows: with the other answer it would be gone, or say something else.</summary>
    public static IReadOnlyList<School> SchoolsOf(StackView view, Finding finding)
    {
        var rule = Rules.First(r => r.Id == finding.Rule);
        return rule.Facts.Schools.Where(school =>
        {
            // What a brush carries over only matters where two dry-brush steps meet.
            if (school == School.DryBrushCleaning && view.Layers.Count(l => l.Technique == Technique.DryBrush) < 2)
                return false;
            var rules = view.Context.HouseRules;
            var other = Schools.All.First(q => q.School == school).Answers.First(a => a.Word != Schools.Word(rules, school));
            var switched = new StackView(view.Context with { HouseRules = Schools.With(rules, school, other.Word)! }, view.Layers);
            return !rule.Check(switched).Any(f => Said(f) == Said(finding) && f.Layers.SequenceEqual(finding.Layers));
        }).ToList();
    }

    private static string Said(Finding f) => $"{f.Severity} {f.Title} {f.Why}";

    /// <summary>A finding's identity across edits: its rule and the layer it hangs on.</summary>
    public static (string Rule, Guid Layer) Key(StackView view, Finding finding) =>
        (finding.Rule, finding.Layers.Count > 0 ? view.Layers[finding.Layers[0]].Id : Guid.Empty);

    /// <summary>What is stopped or cautioned in a stack and not known yet, worst rules first, as far as it is asked for.</summary>
    /// <param name="view">The stack.</param>
    /// <param name="known">Of a rule, the layers of which it is known to say so: to stop them, for rules that may.</param>
    internal static IEnumerable<Finding> Troubles(StackView view, Func<IOrderRule, IReadOnlySet<Guid>> known)
    {
        foreach (var rule in troublesome)
            foreach (var finding in rule.Check(view, known(rule)))
                if (finding.Severity != Severity.Hint && !finding.IsCare)
                    yield return finding;
    }
}
