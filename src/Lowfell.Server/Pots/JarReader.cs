using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Pots;

/// <summary>Turns a typed jar into one of the core, and says everything there is to say of it.</summary>
internal static class JarReader
{
    private const int MostComponents = 12;
    private const decimal MostParts = 100_000, MostMl = 5_000, SmallestTotal = 0.1m, UsualTotal = 10;

    public static async Task<Results<Ok<JarLook>, ProblemHttpResult>> Look(Guid setId, JarIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        var recipe = ReadRecipe(ask.Parts, "parts", graph.Materials, faults);
        var against = ask.Against is null ? null : ReadRecipe(ask.Against, "against", graph.Materials, faults);
        faults.Range(ask.TotalMl, "totalMl", SmallestTotal, MostMl);
        faults.Range(ask.NeedleMm, "needleMm", 0.1, 2);
        faults.Range(ask.Bar, "bar", 0.1, 10);
        var jar = recipe is null ? null : Changed(new Jar(recipe, ask.TotalMl ?? UsualTotal), ask.Change, faults);
        if (faults.Any)
            return faults.ToProblem();
        return TypedResults.Ok(Say(jar!, against, ask, graph));
    }

    public static Recipe? ReadRecipe(IReadOnlyList<JarPartIn?>? parts, string field, IReadOnlyDictionary<Guid, Material> shelf, Faults faults)
    {
        parts ??= [];
        faults.Require(parts.Count is > 0 and <= MostComponents, field, $"Put from 1 to {MostComponents} materials in.");
        var read = new List<MixPart>();
        for (var i = 0; i < Math.Min(parts.Count, MostComponents); i++)
        {
            var at = $"{field}[{i}]";
            var material = parts[i]?.MaterialId is { } id && shelf.TryGetValue(id, out var known) ? known : null;
            faults.Require(material is not null, $"{at}.materialId", "This material is not on the shelf. Choose one that is.");
            var value = parts[i]?.Parts ?? 0;
            faults.Require(value is > 0 and <= MostParts && decimal.Round(value, PotContents.Decimals) == value, $"{at}.parts", $"Give parts above 0, at most {MostParts:0}, with at most {PotContents.Decimals} decimals.");
            if (material is not null && value is > 0 and <= MostParts)
                read.Add(new MixPart(material, Parts.Of(value)));
        }

        return faults.Any ? null : Recipe.Of(read);
    }

    private static Jar? Changed(Jar jar, JarChangeIn? change, Faults faults)
    {
        if (change is null)
            return jar;
        faults.Require(change.Measure is not null && change.MaterialId is not null, "change", "Say which material was changed, and in what measure.");
        faults.Require(change.Value is > 0, "change.value", "Give a number above 0; to leave a material out, take it from the list.");
        if (faults.Any)
            return null;
        try
        {
            var changed = jar.With(change.MaterialId!.Value, change.Measure!.Value, change.Value!.Value);
            faults.Require(changed.Ml is >= SmallestTotal and <= MostMl, "change.value", $"That makes {changed.Ml:0.##} ml in all; from {SmallestTotal} to {MostMl:0} ml is possible.");
            return changed;
        }
        catch (Exception e) when (e is ArgumentException or OverflowException)
        {
            faults.Add("change.value", change.Measure == JarMeasure.Percent ? "Give a percentage below 100 of a mix of several." : "This value is not possible here.");
            return null;
        }
    }

    private static JarLook Say(Jar jar, Recipe? against, JarIn ask, SetGraph graph)
    {
        var recipe = jar.Recipe;
        var contents = jar.Contents;
        var technique = ask.Technique ?? Technique.BaseCoat;
        var tool = ask.Tool ?? TechniqueTable.For(technique).UsualTool;
        var climate = graph.Climate;
        var (paint, dilution) = recipe.Whole().AsPaint();
        var fewest = WholeDrops.Fewest(recipe);
        var stock = recipe.Parts.ToDictionary(p => p.Material.Id, p => (decimal)graph.StockMl.GetValueOrDefault(p.Material.Id));
        var most = Solve.Most(recipe, stock);
        var sprays = tool == Tool.Airbrush && paint.Any(p => !p.Material.IsThinner);
        return new JarLook(
            recipe.Key, jar.Ml, Lines(jar, contents, graph), PotColour.InTheJar(paint).ToString(), Drawdowns.Of(paint, dilution), Math.Round(contents.ThinnerShare, 6),
            dilution is null ? "neat" : dilution.ToString(), PotCheck.Consistency(recipe.Whole()),
            PotCheck.Of(contents, technique, tool).Select(r => new PotRemarkDto(r.Fit, r.Severity, r.Says)).ToList(),
            sprays ? Spray(contents, technique, ask) : null, Life(contents, climate),
            new FewestDrops(fewest.Counts, fewest.Contents.Ml, Math.Round(fewest.Difference, 2)), Math.Floor(most.Ml * 10) / 10, most.Limit.Material.Name,
            against is null ? null : Math.Round(PotColour.Draw(recipe.Whole()).DifferenceTo(PotColour.Draw(against.Whole())), 2),
            Care.For(new Layer { Technique = technique, Tool = tool, Paint = paint, Dilution = dilution }, Substrate.PrintedPlastic).Select(c => c.Text).ToList());
    }

    private static AirbrushDto Spray(PotContents contents, Technique technique, JarIn ask)
    {
        var note = AirbrushNote.For(contents, technique, ask.NeedleMm, ask.Bar);
        static RangeDto Range(Band b) => new(b.Low, b.High);
        return new AirbrushDto(Range(note.PressureBar), note.StartBar, Range(note.NeedleMm), Range(note.ThinnerShare), note.Warnings);
    }

    public static IReadOnlyList<LifeDto> Life(PotContents contents, Climate climate) => Enum.GetValues<Vessel>().Select(v =>
    {
        var life = PotLife.Of(contents, v, climate);
        return new LifeDto(v, Math.Round(life.Low), Math.Round(life.Usual), Math.Round(life.High), PotAdvice.Holds(v));
    }).ToList();

    private static List<JarLine> Lines(Jar jar, PotContents contents, SetGraph graph)
    {
        var whole = WholeDrops.Nearest(jar.Recipe, jar.Ml);
        var ml = contents.Portions.ToDictionary(p => p.Material.Id, p => p.Ml);
        var all = jar.Recipe.Parts.Sum(p => p.Parts.ToDecimal());
        return jar.Recipe.Parts.Select((part, i) =>
        {
            var m = part.Material;
            var here = ml.GetValueOrDefault(m.Id);
            var unit = WholeDrops.UnitMl(part);
            var density = UsualMeasures.DensityOf(m);
            return new JarLine(
                m.Id, m.Name, PotColour.InTheJar([new MixPart(m, Parts.One)]).ToString(), m.IsThinner, part.Parts.ToString(), decimal.Round(part.Parts.ToDecimal() * 100 / all, 2), here,
                decimal.Round(here / unit, 2), whole.Counts[i], UsualMeasures.DoesNotDrip(m.Kind) ? "brush-loads" : "drops", unit, m.DropMl is not null,
                decimal.Round(here * density, 2), density, m.DensityGPerMl is not null, (decimal)graph.StockMl.GetValueOrDefault(m.Id));
        }).ToList();
    }
}
