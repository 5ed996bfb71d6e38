using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Trials;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>Fits the materials of a trial to all that was seen of it.</summary>
internal static class TrialLessons
{
    /// <summary>What the looks teach; null where nothing was seen yet, or nothing in it has a colour to learn.</summary>
    public static async Task<TrialLearned?> Of(Asked asked, IReadOnlyList<TrialLookRow> looks, LowfellDb db, CancellationToken stop)
    {
        var materials = TrialMaterials.Of(asked.Stack, asked.Factors);
        var cells = asked.Factors.Select(f => f.Levels.Count).ToList();
        var seen = looks.Select(l => (Row: l, Levels: l.Cell.Split(' ').Select(int.Parse).ToList())).Where(l => l.Levels.Count == cells.Count && l.Levels.Zip(cells).All(x => x.First >= 0 && x.First < x.Second)).ToList();
        if (seen.Count == 0 || materials.Count == 0)
            return null;
        var ids = materials.Select(m => m.Id).ToList();
        var rows = await db.Materials.AsNoTracking().Where(m => ids.Contains(m.Id)).ToDictionaryAsync(m => m.Id, stop);
        (Optics, Strength) Entered(Material m) => rows.TryGetValue(m.Id, out var row) ? (row.Evidence().Resolve(row.Kind, row.Sheen).Optics, row.Strength()) : (m.Optics, Strength.AsEntered);
        var list = seen.Select(l => new TrialLook(l.Levels, l.Row.Position, SrgbColour.Parse(l.Row.Observed).ToLab())).ToList();
        return await Task.Run(() =>
        {
            var (taught, believed) = TrialMaterials.Learn(asked.View.Predict, asked.Stack, asked.Factors, list, Entered);
            double Missed(Func<Taught, Strength> at)
            {
                var strong = taught.ToDictionary(t => t.Material.Id, t => t.Material with { Optics = at(t).Of(Entered(t.Material).Item1) });
                return list.Average(l =>
                {
                    var run = asked.View.Predict(TrialStacks.Of(asked.Stack, asked.Factors, l.Levels).Select(x => TrialMaterials.With(x, strong)).ToList());
                    return ColourDifference.Ciede2000(run.SeenBelow(run.Count)[l.Position].Lab, l.Seen);
                });
            }

            return new TrialLearned(taught, seen.Zip(believed).ToDictionary(x => (x.First.Row.Cell, x.First.Row.Position), x => x.Second), Missed(t => t.Before), Missed(t => t.After));
        }, stop);
    }
}
