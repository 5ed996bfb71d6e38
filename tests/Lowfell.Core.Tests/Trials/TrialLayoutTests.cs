using System.Collections.Concurrent;
using Lowfell.Core.Trials;

namespace Lowfell.Core.Tests.Trials;

public sealed class TrialLayoutTests
{
    private static IEnumerable<FactorShape> Shapes(int levels) =>
    [
        new(levels),
        new(levels, None: 0),
        new(levels, Coats: Enumerable.Range(0, levels).ToList()),
        new(levels, Coats: Enumerable.Range(1, levels).Reverse().ToList()),
    ];

    /// <summary>All of one and of two. Of three every combination of levels and every combination of kinds, each with a quarter of the other.</summary>
    private static IEnumerable<List<FactorShape>> Factors(int most)
    {
        var one = Enumerable.Range(2, most - 1).SelectMany(Shapes).ToList();
        for (var a = 0; a < one.Count; a++)
        {
            yield return [one[a]];
            for (var b = 0; b < one.Count; b++)
            {
                yield return [one[a], one[b]];
                for (var c = 0; c < one.Count; c++)
                    if ((a + b + c + a / 4 + 2 * (b / 4) + 3 * (c / 4)) % 4 == 0)
                        yield return [one[a], one[b], one[c]];
            }
        }
    }

    [Fact]
    public void Every_combination_on_every_tile_is_laid_out_by_the_rules_or_refused_clearly()
    {
        var (laid, refused) = (0, 0);
        foreach (var mm in new[] { 25, 32, 40, 60, 80, 120 })
            foreach (var factors in Factors(5))
            {
                var held = factors.Select(f => f.Levels - 1).ToList();
                var tile = new Tile(mm, mm * 0.8, Round: mm == 40);
                var (layout, why) = TrialLayout.Of(tile, factors, held);
                if (layout is null)
                {
                    refused++;
                    Assert.Contains("do not fit", why);
                    continue;
                }

                laid++;
                Assert.Equal(factors.Aggregate(1, (n, f) => n * f.Levels), layout.Cells.Select(c => string.Join(' ', c.Levels)).Distinct().Count());
                Assert.All(layout.Cells, c => Assert.True(c.WidthMm >= TrialLayout.SmallestCellMm && c.HeightMm >= TrialLayout.SmallestCellMm));
                Assert.Equal(tile.UsedWidthMm * tile.UsedHeightMm, layout.Cells.Sum(c => c.WidthMm * c.HeightMm), 1e-6);
                Assert.True(layout.AtEdge(held));
                for (var f = 0; f < factors.Count; f++)
                    StepsHold(layout, f);
            }

        Assert.True(laid > 500 && refused > 500, $"{laid} laid, {refused} refused");
    }

    /// <summary>Every level comes about, nothing different lies wet beside something else, and tape lies wherever an edge is painted.</summary>
    private static void StepsHold(TrialLayout layout, int factor)
    {
        var shape = layout.Factors[factor];
        var times = new int[shape.Levels];
        foreach (var step in layout.Steps[factor])
        {
            foreach (var level in step.Levels)
                times[level]++;
            foreach (var (a, b, line) in Neighbours(layout))
            {
                var (one, other) = (a.Levels[factor], b.Levels[factor]);
                var (wet, too) = (step.Levels.Contains(one), step.Levels.Contains(other));
                if (shape.Coats is null && one != other)
                    Assert.False(wet && too, "two levels meet wet");
                if (wet != too)
                    Assert.Contains(step.Masks, m => m.Upright == line.Upright && Math.Abs(m.AtMm - line.AtMm) < 1e-6);
            }
        }

        for (var level = 0; level < shape.Levels; level++)
            Assert.Equal(shape.Coats?[level] ?? (level == shape.None ? 0 : 1), times[level]);
    }

    private static IEnumerable<(TrialCell, TrialCell, MaskLine)> Neighbours(TrialLayout layout)
    {
        var at = layout.Cells.ToDictionary(c => (Math.Round(c.LeftMm / c.WidthMm), Math.Round(c.TopMm / c.HeightMm)));
        foreach (var ((x, y), cell) in at)
        {
            if (at.TryGetValue((x + 1, y), out var right))
                yield return (cell, right, new(true, right.LeftMm));
            if (at.TryGetValue((x, y + 1), out var below))
                yield return (cell, below, new(false, below.TopMm));
        }
    }

    /// <summary>Every way there is: factors across or down, one inside the other, and in every outer stripe the inner levels in any order.</summary>
    [Fact]
    public void No_other_way_moves_the_tape_less_often()
    {
        foreach (var factors in Factors(3).Where(f => f.Aggregate(1, (n, x) => n * x.Levels) <= 12))
        {
            var (layout, _) = TrialLayout.Of(new Tile(150, 150), factors, factors.Select(f => f.None == 0 ? 1 : 0).ToList());
            Assert.Equal(Fewest(factors), layout!.MaskingMoves);
        }
    }

    private static int Fewest(List<FactorShape> factors)
    {
        var best = int.MaxValue;
        for (var mask = 0; mask < 1 << factors.Count; mask++)
        {
            var (across, down) = (Side(factors, f => (mask & (1 << f)) != 0), Side(factors, f => (mask & (1 << f)) == 0));
            best = Math.Min(best, across + down);
        }

        return best;
    }

    /// <summary>Sides that were gone through already: the same factors in another order are the same side.</summary>
    private static readonly ConcurrentDictionary<string, int> sides = [];

    private static int Side(List<FactorShape> factors, Func<int, bool> here)
    {
        var along = factors.Where((_, f) => here(f)).OrderBy(Words, StringComparer.Ordinal).ToList();
        return sides.GetOrAdd(string.Join(" | ", along.Select(Words)), _ => Side(along));
    }

    private static string Words(FactorShape f) => $"{f.Levels} {f.None} {string.Join(',', f.Coats ?? [])}";

    /// <summary>The fewest moves along one side, by going through all sequences of all combinations that keep outer stripes together.</summary>
    private static int Side(List<FactorShape> factors)
    {
        var along = Enumerable.Range(0, factors.Count).ToArray();
        var best = along.Length == 0 ? 0 : int.MaxValue;
        foreach (var nested in Orders(along))
            foreach (var sequence in Sequences(factors, nested, 0))
                best = Math.Min(best, Enumerable.Range(1, sequence.Count - 1).Sum(i => nested.Select((f, n) => factors[f].Moves(sequence[i - 1][n], sequence[i][n])).Sum()));
        return best;
    }

    private static IEnumerable<List<List<int>>> Sequences(List<FactorShape> factors, int[] nested, int at)
    {
        if (at == nested.Length)
        {
            yield return [[]];
            yield break;
        }

        foreach (var order in Orders(Enumerable.Range(0, factors[nested[at]].Levels).ToArray()))
            foreach (var inner in Combine(order.Select(_ => Sequences(factors, nested, at + 1).ToList()).ToList(), 0))
                yield return order.SelectMany((level, i) => inner[i].Select(rest => new List<int> { level }.Concat(rest).ToList())).ToList();
    }

    private static IEnumerable<int[]> Orders(int[] things) => things.Length == 0 ? [[]] : things.SelectMany(first => Orders(things.Where(t => t != first).ToArray()).Select(rest => (int[])[first, .. rest]));

    private static IEnumerable<List<List<List<int>>>> Combine(List<List<List<List<int>>>> choices, int at)
    {
        if (at == choices.Count)
        {
            yield return [];
            yield break;
        }

        foreach (var choice in choices[at])
            foreach (var rest in Combine(choices, at + 1))
                yield return [choice, .. rest];
    }

    [Fact]
    public void What_cannot_be_a_trial_is_an_error() => Assert.Throws<ArgumentException>(() => TrialLayout.Of(new Tile(50, 50), [new(6)], [0]));
}
