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

    private static readonly IReadOnlyList<IOrderRule> stopRules = Rules.Where(r => r.Facts.CanStop).ToList();

    /// <summary>All findings, worst first, then from the bottom of the stack up.</summary>
    public static IReadOnlyList<Finding> Run(StackContext context, IReadOnlyList<Layer> layers) => Run(new StackView(context, layers));

    /// <inheritdoc cref="Run(StackContext, IReadOnlyList{Layer})"/>
    public static IReadOnlyList<Finding> Run(StackView view) => Run(view, _ => true);

    /// <summary>Findings of some rules; their remedies are tried against every rule that can stop.</summary>
    public static IReadOnlyList<Finding> Run(StackView view, Func<IOrderRule, bool> which)
    {
        var found = Rules.Where(r => which(r) || r.Facts.CanStop).SelectMany(r => r.Check(view).Select(f => (Rule: r, Finding: f))).ToList();
        var stops = found.Where(f => f.Finding.Severity == Severity.Stop).Select(f => Key(view, f.Finding)).ToHashSet();
        return found
            .Where(f => which(f.Rule))
            .Select(f => f.Finding with { Remedies = f.Finding.Remedies.Where(r => Helps(view, f.Rule, f.Finding, r, stops)).ToList() })
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

    /// <summary>On a piece half done nothing below the last layer can be changed, and of that one only how long it still waits.</summary>
    private static bool Undoes(StackView view, StackEdit edit)
    {
        var laid = view.Context.Progress.Laid;
        if (edit is StackEdit.Replace replace && replace.At == laid - 1 && laid > 0)
            return replace.Layer with { WaitMinutes = view.Layers[replace.At].WaitMinutes } != view.Layers[replace.At];
        return edit.At < laid;
    }

    private static bool Helps(StackView before, IOrderRule rule, Finding finding, Remedy remedy, HashSet<(string, Guid)> stops)
    {
        if (remedy.Edits.Any(e => Undoes(before, e)))
            return false;
        var after = new StackView(before.Context, StackEdit.Apply(before.Layers, remedy.Edits), before);
        var key = Key(before, finding);
        if (rule.SpeaksOf(after, key.Layer))
            return false;
        return !stopRules
            .SelectMany(r => r.Stops(after))
            .Any(f => !stops.Contains(Key(after, f)));
    }
}
