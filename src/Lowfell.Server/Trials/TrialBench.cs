using Lowfell.Core.Layers;
using Lowfell.Core.Trials;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Trials;

/// <summary>
/// Puts the tile of a trial on the bench: a design of its own with one piece, whose layers are the steps of the trial. So it is put into sessions, guided
/// at the bench, drawn from pots and logged like any piece; each step says which fields it is for, and where the tape goes.
/// </summary>
internal static class TrialBench
{
    private const int LongestName = 120, LongestNote = 500;

    public static async Task<Outcome<TrialTold>> Put(TrialRow row, Asked asked, Write write)
    {
        if (TrialLayout.Of(asked.Tile, asked.Factors.Select(f => f.Shape).ToList(), asked.Held).Layout is not { } layout)
            return Faults.One("tile", "It cannot be laid out on this tile, and so there is nothing to do yet.");
        if (row.DesignId is { } there && await write.Db.Designs.AnyAsync(d => d.Id == there && d.PutAwayAt == null, write.Stop))
            return Problems.Of(StatusCodes.Status409Conflict, "on-the-bench", "The tile is a piece of the set already. Put that away first.");
        var (at, name) = (asked.At, Cut($"Tile: {row.Name}", LongestName));
        if (await write.Db.Designs.AnyAsync(d => d.SetId == asked.At.Graph.Set.Id && d.Name == name && d.PutAwayAt == null, write.Stop))
            return Problems.Of(StatusCodes.Status409Conflict, "on-the-bench", $"There is a design called {name} already. Give the trial another name.");
        var work = TrialReader.Work(asked, layout, TrialReader.Factors(asked)).Select(w => (w.Step, Laid: w.Laid with { Id = Guid.CreateVersion7(), Varied = null, DownTo = null })).ToList();
        var treatment = await new StackWriter(write, at.Graph.Materials).Begin(await write.Db.Treatments.FirstAsync(t => t.Id == at.Zone.TreatmentId, write.Stop), name, work.Select(w => w.Laid).ToList(), work.Select(w => Cut(w.Step.Words, LongestNote)).ToList());
        var (zone, mm) = (at.Zone, asked.Tile);
        var design = new DesignRow { SetId = at.Graph.Set.Id, Name = name, Silhouette = Silhouette.Base, Substrate = at.Design.Substrate, Position = at.Graph.Designs.Max(d => d.Position) + 1 };
        var share = (decimal)(mm.WidthMm * mm.HeightMm / 100) / zone.AreaCm2;
        design.Zones.Add(new ZoneRow
        {
            Name = "Fields",
            TreatmentId = treatment,
            SurfaceId = treatment,
            AreaCm2 = Math.Max(0.01m, Math.Round(zone.AreaCm2 * share, 2)),
            Relief = asked.Ground.Relief,
            UpShare = zone.UpShare,
            SideShare = zone.SideShare,
            DownShare = zone.DownShare,
            RaisedShare = (decimal)asked.Ground.Shares.Raised,
            FieldShare = (decimal)asked.Ground.Shares.Field,
            RecessShare = (decimal)asked.Ground.Shares.Recess,
            EdgeMm = Math.Round(zone.EdgeMm * share, 2),
            JointMm = Math.Round(zone.JointMm * share, 2),
            SmallestDetailMm = zone.SmallestDetailMm,
            Handling = Handling.Display,
            TargetSheen = zone.TargetSheen,
            Surface = zone.Surface,
            SurfaceLengthMm = zone.SurfaceLengthMm,
            SurfaceHeightMm = zone.SurfaceHeightMm,
        });
        design.Pieces.Add(new PieceRow { Label = "T1", Spare = true });
        write.Db.Add(design);
        (await write.Db.Trials.FirstAsync(t => t.Id == row.Id, write.Stop)).DesignId = design.Id;
        write.Says($"Put the tile of {row.Name} on the bench");
        await write.Save();
        return new TrialTold(at.Graph.Set.Id, row.Id);
    }

    private static string Cut(string words, int longest) => words.Length <= longest ? words : words[..(longest - 1)] + "…";
}
