using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Trials;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>Takes what a trial teaches over into its materials, each with a look that can be taken back.</summary>
internal static class TrialTeaching
{
    /// <summary>Less than this is no lesson.</summary>
    private const double Least = 0.005;

    /// <summary>How a look says which trial it came from.</summary>
    private static string Place(TrialRow row) => $"trial {row.Name}, ";

    /// <summary>Whether what is seen now was taken over before: the same looks must not count twice.</summary>
    public static async Task<bool> Done(TrialRow row, Asked asked, IReadOnlyList<TrialLookRow> looks, LowfellDb db, CancellationToken stop)
    {
        if (looks.Count == 0)
            return false;
        var (ids, newest) = (TrialMaterials.Of(asked.Stack, asked.Factors).Select(m => m.Id).ToList(), looks.Max(l => l.At));
        return await db.Calibrations.AnyAsync(c => ids.Contains(c.MaterialId) && c.TakenBackAt == null && c.At >= newest && c.TrialId == row.Id, stop);
    }

    public static async Task Store(TrialRow row, Asked asked, IReadOnlyList<TrialLookRow> looks, TrialLearned learned, Write write)
    {
        var ids = learned.Taught.Select(t => t.Material.Id).Order().ToList();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from materials where id = any({ids}) order by id for no key update", write.Stop);
        var materials = await write.Db.Materials.Where(m => ids.Contains(m.Id)).ToDictionaryAsync(m => m.Id, write.Stop);
        var look = looks[0];
        var strong = learned.Taught.ToDictionary(t => t.Material.Id, t => t.Material with { Optics = t.After.Since(t.Before).Of(t.Material.Optics) });
        var levels = look.Cell.Split(' ').Select(int.Parse).ToList();
        Seen At(Func<Layer, Layer> with)
        {
            var run = asked.View.Predict(TrialStacks.Of(asked.Stack, asked.Factors, levels).Select(with).ToList());
            return run.SeenBelow(run.Count)[look.Position];
        }

        var (before, after) = (At(l => l), At(l => TrialMaterials.With(l, strong)));
        foreach (var taught in learned.Taught)
        {
            var step = taught.After.Since(taught.Before);
            if (!materials.TryGetValue(taught.Material.Id, out var material) || (Math.Abs(step.Hiding - 1) < Least && Math.Abs(step.Tint - 1) < Least))
                continue;
            var place = $"{Place(row)}{looks.Count} looks";
            write.Db.Add(new CalibrationRow
            {
                MaterialId = material.Id,
                TrialId = row.Id,
                At = write.Now,
                Place = place.Length <= LongestPlace ? place : place[..LongestPlace],
                Position = look.Position,
                Observed = look.Observed,
                PredictedBefore = before.Colour.ToString(),
                PredictedAfter = after.Colour.ToString(),
                HidingStep = (decimal)step.Hiding,
                TintStep = (decimal)step.Tint,
            });
            (material.HidingFactor, material.TintFactor) = ((decimal)taught.After.Hiding, (decimal)taught.After.Tint);
            material.Looks++;
        }

        await write.Save();
    }

    private const int LongestPlace = 200;
}
