using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Trials;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>
/// The trial that the demo begins with: which dry brush, under how much of a wash, on the mud of the bases. It was done and looked at: the wash tinted
/// more than its entry says, the eye was a little off in every field, and one field was smudged. The treatment was left as it is.
/// </summary>
internal static class DemoTrial
{
    private const double WashTints = 1.35, Eye = 0.8;
    private const double TileMm = 40;

    public static async Task Begin(IServiceProvider services)
    {
        var (db, now) = (services.GetRequiredService<LowfellDb>(), services.GetRequiredService<TimeProvider>().GetUtcNow());
        var zone = await db.Zones.Where(z => z.Name == "Fen mud").Select(z => z.Id).FirstAsync();
        var graphs = new SetGraphs(services.GetRequiredService<IDbContextFactory<LowfellDb>>());
        if (await graphs.OfZone(db, zone, CancellationToken.None) is not { } at || Find(at, Technique.DryBrush) is not { } brush || Find(at, Technique.AllOverWash) is not { } wash)
            return;
        var other = at.Graph.Materials.Values.First(m => m.Name == "Salt White");
        var asked = new Asked(
            at, at.Layers, [new(wash.Id, [wash with { Strength = 0.5 }, wash]), new(brush.Id, [brush, brush with { Paint = [new MixPart(other, Parts.One)] }])], new Tile(TileMm, TileMm));
        var row = new TrialRow
        {
            WorkshopId = at.Graph.Workshop.Id,
            ZoneId = zone,
            Name = "Which dry brush, under how much wash?",
            TileWidthMm = (decimal)TileMm,
            TileHeightMm = (decimal)TileMm,
            Body = TrialReader.Write(new TrialBody(asked.Stack.Select(LayerWords.ToDto).ToList(), asked.Factors.Select(f => new TrialFactorDto(f.Layer, f.Levels.Select(l => l is null ? null : LayerWords.ToDto(l)).ToList())).ToList())),
            Chosen = Asked.Key(asked.Held),
            CreatedAt = now.AddDays(-14),
        };
        db.Add(row);
        db.AddRange(Looks(asked, wash.Main!).Select(l => new TrialLookRow { TrialId = row.Id, Cell = l.Cell, Position = l.Position, Observed = l.Seen.ToString(), At = now.AddDays(-13) }));
        await db.SaveChangesAsync();
    }

    private static Layer? Find(Place at, Technique technique) => at.Layers.LastOrDefault(l => l.Technique == technique);

    /// <summary>What the four fields looked like: as the paints really are, seen by an eye.</summary>
    private static IEnumerable<(string Cell, Position Position, SrgbColour Seen)> Looks(Asked asked, Material wash)
    {
        var real = new Dictionary<Guid, Material> { [wash.Id] = wash with { Optics = new Strength(1, WashTints).Of(wash.Optics) } };
        var off = 0;
        foreach (var levels in new[] { new[] { 0, 0 }, [0, 1], [1, 0], [1, 1] })
        {
            var run = asked.View.Predict(TrialStacks.Of(asked.Stack, asked.Factors, levels).Select(l => TrialMaterials.With(l, real)).ToList());
            foreach (var position in new[] { Position.Field, Position.Raised })
            {
                var by = (++off % 3 - 1) * Eye;
                var seen = run.SeenBelow(run.Count)[position].Lab + new Lab(by, -by / 2, by / 3) + (off == 7 ? new Lab(-9, 2, 1) : default);
                yield return (Asked.Key(levels), position, Observer.ToLinear(Lab.ToXyz(seen)).ToSrgb());
            }
        }
    }
}
