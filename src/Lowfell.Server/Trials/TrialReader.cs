using System.Text.Json;
using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Core.Trials;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>A trial that was read: the stack it came from and its factors, with materials.</summary>
internal sealed record Asked(Place At, IReadOnlyList<Layer> Stack, IReadOnlyList<TrialFactor> Factors, Tile Tile, Relief? Relief = null)
{
    public IReadOnlyList<int> Held => TrialStacks.Held(Stack, Factors);

    /// <summary>The zone as the tile is: with the relief of that.</summary>
    public Zone Ground { get; } = Relief is { } relief && relief != At.Context.Zone.Relief ? At.Context.Zone with { Relief = relief, Shares = Zone.UsualShares(relief) } : At.Context.Zone;

    public StackView View => field ??= new(At.Context with { Zone = Ground }, Stack);

    public static string Key(IReadOnlyList<int> levels) => string.Join(' ', levels);
}

/// <summary>Reads trials, and words what comes of them.</summary>
internal static class TrialReader
{
    /// <summary>Of more fields the ranges of hands take too long to be worth it.</summary>
    private const int MostRanged = 30;

    private static readonly JsonSerializerOptions json = new(JsonSerializerDefaults.Web) { Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter(new WordsPolicy(), allowIntegerValues: false) } };

    public static string Write(TrialBody body) => JsonSerializer.Serialize(body, json);

    /// <summary>What is kept; nothing where it is none that a trial has: it may have come in a file.</summary>
    public static TrialBody Body(TrialRow row)
    {
        try
        {
            return JsonSerializer.Deserialize<TrialBody>(row.Body, json) is { Stack: not null, Factors: not null } body && body.Factors.All(f => f?.Levels is not null) ? body : new([], []);
        }
        catch (JsonException)
        {
            return new([], []);
        }
    }

    /// <summary>A trial that is drafted; null with every fault named.</summary>
    public static Asked? Read(Place at, IReadOnlyList<Layer> stack, TileDto? tile, IReadOnlyList<TrialFactorDto?>? factors, Faults faults)
    {
        faults.Require(tile is not null, "tile", "Say how large the tile is.");
        faults.Range(tile?.WidthMm, "tile.widthMm", Tile.LeastMm, Tile.MostMm);
        faults.Range(tile?.HeightMm, "tile.heightMm", Tile.LeastMm, Tile.MostMm);
        faults.Require(factors?.Count is > 0 and <= FactorShape.MostFactors, "factors", $"Vary from one to {FactorShape.MostFactors} layers.");
        var read = new List<TrialFactor>();
        for (var f = 0; f < Math.Min(factors?.Count ?? 0, FactorShape.MostFactors); f++)
            if (ReadOne(at, stack, factors![f], $"factors[{f}]", faults) is { } factor)
            {
                faults.Require(read.All(r => r.Layer != factor.Layer), $"factors[{f}].layerId", "This layer is varied already. Give it more levels instead.");
                read.Add(factor);
            }

        return faults.Any ? null : new Asked(at, stack, read, new Tile(tile!.WidthMm, tile.HeightMm, tile.Round), tile.Relief);
    }

    private static TrialFactor? ReadOne(Place at, IReadOnlyList<Layer> stack, TrialFactorDto? entry, string field, Faults faults)
    {
        if (entry is null || stack.All(l => l.Id != entry.LayerId))
        {
            faults.Add($"{field}.layerId", "Choose a layer of this treatment.");
            return null;
        }

        var levels = entry.Levels ?? [];
        faults.Require(levels.Count is >= FactorShape.FewestLevels and <= FactorShape.MostLevels, $"{field}.levels", $"Give it from {FactorShape.FewestLevels} to {FactorShape.MostLevels} levels.");
        faults.Require(levels.Count(l => l is null) <= 1, $"{field}.levels", "It can be left out at one level only.");
        var laid = new List<Layer?>();
        for (var l = 0; l < Math.Min(levels.Count, FactorShape.MostLevels); l++)
        {
            if (levels[l] is not { } level)
            {
                laid.Add(null);
                continue;
            }

            var own = new Faults();
            var one = LayerWords.Read([level with { Id = entry.LayerId }], at.Graph.Materials, own);
            foreach (var fault in own.All)
                faults.Add($"{field}.levels[{l}]{fault.Field["layers[0]".Length..]}", fault.Message);
            laid.Add(one?[0]);
        }

        for (var a = 0; a < laid.Count && !faults.Any; a++)
            for (var b = a + 1; b < laid.Count; b++)
                faults.Require(laid[a] is null != (laid[b] is null) || laid[a] is null || StackDifference.Phrases([laid[a]!], [laid[b]!]).Count > 0, $"{field}.levels[{b}]", "This level is the same as one before it.");
        return faults.Any ? null : new TrialFactor(entry.LayerId, laid);
    }

    /// <summary>A kept trial; null where a material of it is no longer known.</summary>
    public static Asked? Read(Place at, TrialRow row)
    {
        var (body, faults) = (Body(row), new Faults());
        var stack = LayerWords.Read(body.Stack, at.Graph.Materials, faults);
        return stack is null ? null : Read(at, stack, new TileDto((double)row.TileWidthMm, (double)row.TileHeightMm, row.Round, row.Relief), body.Factors, faults);
    }

    /// <summary>Everything there is to say of a trial.</summary>
    public static TrialReading Word(Asked asked, string name, TrialRow? row, IReadOnlyList<TrialLookRow> looks, TrialLearned? learned, bool takenOver = false)
    {
        var (at, held) = (asked.At, asked.Held);
        var (layout, refusal) = TrialLayout.Of(asked.Tile, asked.Factors.Select(f => f.Shape).ToList(), held);
        var treatment = at.Graph.Treatments[at.Zone.TreatmentId];
        var (left, top) = ((asked.Tile.WidthMm - asked.Tile.UsedWidthMm) / 2, (asked.Tile.HeightMm - asked.Tile.UsedHeightMm) / 2);
        var factors = Factors(asked);
        var runs = layout?.Cells.Select(c => (Cell: c, Run: asked.View.Predict(TrialStacks.Of(asked.Stack, asked.Factors, c.Levels)))).ToList() ?? [];
        var cells = Cells(asked, runs, looks, learned);
        return new TrialReading(
            row?.Id, row?.Version, at.Graph.Set.Id, at.Graph.Workshop.Id, at.Zone.Id, at.Zone.Name, at.Design.Name, name, new TileDto(asked.Tile.WidthMm, asked.Tile.HeightMm, asked.Tile.Round, asked.Relief), Round(left), Round(top), factors, refusal,
            cells, Alikes(asked, runs, factors), layout is null ? [] : Steps(asked, layout, factors), layout?.MaskingMoves ?? 0,
            learned is null ? null : new TrialLesson(learned.Taught.Select(t => new TrialTaught(t.Material.Id, t.Material.Name, Round(t.Before.Hiding), Round(t.Before.Tint), Round(t.After.Hiding), Round(t.After.Tint))).ToList(), Round(learned.MissedBefore), Round(learned.MissedAfter), takenOver),
            row?.Chosen ?? "", treatment.Id, treatment.Version, row?.PutAwayAt is not null, row?.DesignId is { } design && at.Graph.Designs.Any(d => d.Id == design));
    }

    private static List<TrialCellReading> Cells(Asked asked, List<(TrialCell Cell, StackRun Run)> runs, IReadOnlyList<TrialLookRow> looks, TrialLearned? learned)
    {
        if (runs.Count == 0)
            return [];
        var heldKey = Asked.Key(asked.Held);
        var heldRun = runs.First(r => Asked.Key(r.Cell.Levels) == heldKey).Run;
        Seen Mean(StackRun run) => run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
        var (zone, metres) = (asked.Ground, (double)asked.At.Graph.Set.TableMetres);
        return runs.Select(r =>
        {
            var (cell, run) = r;
            var (end, key) = (run.SeenBelow(run.Count), Asked.Key(cell.Levels));
            var table = FromTheTable.Between(zone, Mean(run), zone, Mean(heldRun), metres);
            return new TrialCellReading(
                cell.Number, key, cell.Levels, Round(cell.LeftMm), Round(cell.TopMm), Round(cell.WidthMm), Round(cell.HeightMm), end.Raised.Colour.ToString(), end.Field.Colour.ToString(), end.Recess.Colour.ToString(), Mean(run).Colour.ToString(),
                runs.Count <= MostRanged ? Round(run.RangeBelow(run.Count).Field.Difference) : 0, key == heldKey, Round(ColourDifference.Ciede2000(Mean(run).Lab, Mean(heldRun).Lab)), Round(table.Difference), table.Verdict,
                looks.Where(l => l.Cell == key).OrderBy(l => l.Position).Select(l => Word(l, end, learned)).ToList());
        }).ToList();
    }

    private static TrialLookReading Word(TrialLookRow look, SeenSplit end, TrialLearned? learned)
    {
        var (seen, predicted) = (SrgbColour.Parse(look.Observed).ToLab(), end[look.Position]);
        return new TrialLookReading(
            look.Position, look.Observed, predicted.Colour.ToString(), Round(ColourDifference.Ciede2000(predicted.Lab, seen)), DifferenceWords.Of(predicted.Lab, seen), learned?.Believed.GetValueOrDefault((look.Cell, look.Position)) is { } b ? Round(b) : null);
    }

    private static TrialFactorReading Word(Asked asked, TrialFactor factor)
    {
        var index = asked.View.IndexOf(factor.Layer);
        var now = asked.Stack[index];
        return new TrialFactorReading(
            factor.Layer, $"layer {index + 1}, {EnumWords.Of(now.Technique)} {now.MaterialName}", factor.Levels.Select(l => Word(now, l, factor)).ToList(), factor.Shape.Coats is not null, factor.Levels.Select(l => l is null ? null : LayerWords.ToDto(l)).ToList());
    }

    /// <summary>A level in words: what differs from the treatment; the number of coats where only that does.</summary>
    private static string Word(Layer now, Layer? level, TrialFactor factor)
    {
        if (level is null)
            return "left out";
        if (factor.Shape.Coats is not null)
            return level.Coats == 1 ? "1 coat" : $"{level.Coats} coats";
        var phrases = StackDifference.Phrases([now], [level]);
        return phrases.Count == 0 ? "as it is" : phrases[0][(phrases[0].IndexOf(' ', StringComparison.Ordinal) is var space && phrases[0].StartsWith(EnumWords.Of(level.Technique), StringComparison.Ordinal) ? EnumWords.Of(level.Technique).Length : 0)..].Trim() is { Length: > 0 } words
            ? After(words) : phrases[0];
    }

    /// <summary>Of "3 → 2 coats" what it becomes.</summary>
    private static string After(string words) => string.Join(", ", words.Split(", ").Select(w => w.IndexOf('→', StringComparison.Ordinal) is >= 0 and var arrow ? w[(arrow + 1)..].Trim() : w));

    private static List<TrialAlike> Alikes(Asked asked, List<(TrialCell Cell, StackRun Run)> runs, List<TrialFactorReading> factors) =>
        runs.Count == 0 ? [] : Merging.Of(asked.Factors.Select(f => f.Levels.Count).ToList(), runs.Select(r => (r.Cell.Levels, r.Run.SeenBelow(r.Run.Count))).ToList())
            .Select(a => new TrialAlike(a.Factor, a.First, a.Second, Round(a.Difference), FormattableString.Invariant($"{Capital(factors[a.Factor].Words)}: {factors[a.Factor].Levels[a.First]} and {factors[a.Factor].Levels[a.Second]} differ by {a.Difference:0.0} at most, which nobody sees. Leave one out."))).ToList();

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    /// <summary>The work from the bottom up: what is not varied goes over all of it, a factor in its steps.</summary>
    public static List<TrialStepReading> Steps(Asked asked, TrialLayout layout, List<TrialFactorReading> factors) => Work(asked, layout, factors).Select(w => w.Step).ToList();

    /// <summary>The same with what is laid in each step.</summary>
    public static List<(TrialStepReading Step, Layer Laid)> Work(Asked asked, TrialLayout layout, IReadOnlyList<TrialFactorReading> factors)
    {
        var steps = new List<(TrialStepReading, Layer)>();
        var (view, all) = (asked.View, layout.Cells.Select(c => c.Number).ToList());
        var conditions = new DryingConditions(asked.At.Context.Climate);
        for (var i = 0; i < view.Count; i++)
        {
            var layer = view.Layers[i];
            var name = $"Layer {i + 1}, {EnumWords.Of(layer.Technique)}";
            var next = i + 1 < view.Count ? view.Needed(i, i + 1).Minutes.Usual : view.DryingOf(i).TouchMinutes.Usual;
            var factor = asked.Factors.ToList().FindIndex(f => f.Layer == layer.Id);
            if (factor < 0)
            {
                steps.Add((new(steps.Count + 1, $"{name} {layer.MaterialName}: over all of it.", [], all, Math.Round(next)), layer));
                continue;
            }

            // Tape goes onto what is dry enough to be masked.
            var taped = DryingModel.Needed(layer, layer with { Technique = Technique.Mask }, conditions).Minutes.Usual;
            var own = layout.Steps[factor];
            for (var s = 0; s < own.Count; s++)
            {
                var levels = own[s].Levels;
                var what = factors[factor].InCoats ? $"coat {own[s].Coat} where {string.Join(" and ", levels.Select(l => factors[factor].Levels[l]))} {(levels.Count == 1 ? "is" : "are")} wanted" : string.Join("; ", levels.Select(l => factors[factor].Levels[l]));
                var cells = layout.Cells.Where(c => levels.Contains(c.Levels[factor])).Select(c => c.Number).ToList();
                var laid = asked.Factors[factor].Levels[levels[0]] ?? layer;
                steps.Add((new(steps.Count + 1, $"{name}: {what}, on fields {Ranges(cells)}{(own[s].Masks.Count == 0 ? "" : $"; tape {Lines(own[s].Masks)}")}.", own[s].Masks.Select(m => new TrialMask(m.Upright, Round(m.AtMm))).ToList(), cells, Math.Round(s + 1 < own.Count ? Math.Max(next, taped) : next)), factors[factor].InCoats ? laid with { Coats = 1 } : laid));
            }
        }

        return steps;
    }

    private static string Lines(IReadOnlyList<MaskLine> masks) => string.Join(", ", masks.Select(m => FormattableString.Invariant($"{m.AtMm:0.#}"))) + (masks[0].Upright ? " mm from the left" : " mm from the top");

    /// <summary>1–3, 5.</summary>
    private static string Ranges(List<int> numbers)
    {
        var words = new List<string>();
        for (var i = 0; i < numbers.Count;)
        {
            var j = i;
            while (j + 1 < numbers.Count && numbers[j + 1] == numbers[j] + 1)
                j++;
            words.Add(i == j ? $"{numbers[i]}" : $"{numbers[i]}–{numbers[j]}");
            i = j + 1;
        }

        return string.Join(", ", words);
    }

    /// <summary>Factors in words.</summary>
    public static List<TrialFactorReading> Factors(Asked asked) => asked.Factors.Select(f => Word(asked, f)).ToList();

    private static double Round(double figure) => Math.Round(figure, 2);
}

/// <summary>What the looks at a trial teach: strengths, how much each look counts, and how far off predictions were.</summary>
internal sealed record TrialLearned(IReadOnlyList<Taught> Taught, IReadOnlyDictionary<(string Cell, Position Position), double> Believed, double MissedBefore, double MissedAfter);
