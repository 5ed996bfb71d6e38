using Lowfell.Core.Sessions;
using Lowfell.Core.Treatments;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Timetables;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sessions;

/// <summary>What to leave out when there is no time, and back.</summary>
internal static class Fitting
{
    /// <summary>Below it nobody tells a difference from the table.</summary>
    private const double Unnoticed = 0.3;

    private const int Most = 200;

    public static void Map(RouteGroupBuilder group)
    {
        group.MapGet("/fit", Of).WithName("fitToHours").WithSummary("Minutes kept against difference seen, each point a list of what is left out.").ProducesProblem(404);
        group.MapPost("/left-out", LeaveOut).WithName("leaveOut").WithSummary("Leaves layers out of their treatments; they are kept, and can be put back.").Writes<LeftOutTold>();
        group.MapPost("/left-out/back", PutBack).WithName("putBack").WithSummary("Puts layers that were left out back to where they were.").Writes<LeftOutTold>();
    }

    private static async Task<Results<Ok<FitReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is not var (planner, _))
            return Problems.NotFound("workshop");
        var points = await Task.Run(() => Curve(planner, stop), stop);
        var places = planner.Sets.SelectMany(s => s.Places).ToLookup(p => p.Zone.SurfaceId);
        var dtos = points.Select((p, i) => new FitPointDto(
            Math.Round(p.Minutes, 1), Math.Round(p.Difference, 3), p.Out.Skip(i == 0 ? 0 : points[i - 1].Out.Count).Select(o => new OmissionDto(places[o.Surface].First().Zone.TreatmentId, o.Layer, Words(places[o.Surface], o.Layer), Minutes(places[o.Surface], o.Layer))).ToList())).ToList();
        var left = await (from l in db.LeftOut
                          join layer in db.Layers on l.LayerId equals layer.Id
                          join t in db.Treatments on l.TreatmentId equals t.Id
                          where t.WorkshopId == workshopId && t.PutAwayAt == null
                          orderby t.Name, l.At
                          select new { l.TreatmentId, l.LineId, layer.Technique, t.Name }).AsNoTracking().ToListAsync(stop);
        return TypedResults.Ok(new FitReading(dtos, left.Select(l => new LeftOutDto(l.TreatmentId, l.LineId, $"{EnumWords.Of(l.Technique)} of {l.Name}")).ToList()));
    }

    private static string Words(IEnumerable<Place> places, Guid line)
    {
        var all = places.ToList();
        var layer = all[0].Layers.First(l => l.Id == line);
        var paint = layer.Paint.Count > 0 ? $", {string.Join(" + ", layer.Paint.Select(p => p.Material.Name))}" : "";
        return $"{EnumWords.Of(layer.Technique)}{paint}: {string.Join("; ", all.GroupBy(p => p.Design.Name).Select(g => $"{string.Join(", ", g.Select(p => p.Zone.Name))} on {g.Key}"))}";
    }

    private static double Minutes(IEnumerable<Place> places, Guid line) => Math.Round(places.Sum(p =>
        Core.Estimates.HandsOn.Batch(p.Layers.First(l => l.Id == line), p.Context.Zone, Math.Max(0, SetGraph.PieceCount(p.Design) - p.Graph.OverCount(p.Zone.Id, line)), p.Context.Pace)), 1);

    private static IReadOnlyList<FitPoint> Curve(Planner planner, CancellationToken stop) => FitToHours.Of(
        planner.Sets.SelectMany(s => s.Places).GroupBy(p => p.Zone.SurfaceId).Select(g => new FitSurface(g.Key, g.Select(p =>
            new FitZone(p.View, SetGraph.PieceCount(p.Design), line => Math.Max(0, SetGraph.PieceCount(p.Design) - p.Graph.OverCount(p.Zone.Id, line)), (double)p.Graph.Set.TableMetres)).ToList())).ToList(), stop);

    /// <summary>As much as can be left out before anybody would notice.</summary>
    public static IReadOnlySet<Omission> Unseen(Planner planner, CancellationToken stop) => Curve(planner, stop).Last(p => p.Difference <= Unnoticed).Out.ToHashSet();

    private static async Task<Outcome<LeftOutTold>> LeaveOut(Guid workshopId, LeaveOutIn entry, Write write, SetGraphs graphs)
    {
        var (wanted, problem) = await Begin(workshopId, entry, write);
        if (problem is not null)
            return problem;
        var newest = await Revisions.Newest(write.Db, wanted.Select(w => w.Treatment.Id).ToList(), null, write.Stop);
        var edits = new List<TreatmentEdit>();
        foreach (var (treatment, lines) in wanted)
        {
            var now = newest[treatment.Id];
            var gone = now.Surfaces.SelectMany(s => now.On(s.SurfaceId)).Where(l => lines.Contains(l.LineId)).DistinctBy(l => l.LineId).ToList();
            if (gone.Count < lines.Count)
                return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", $"{treatment.Name} was changed in another window. Nothing was left out; load the page again.");
            if (await write.Db.DoneLayers.AnyAsync(d => lines.Contains(d.LineId) && write.Db.Zones.Any(z => z.Id == d.ZoneId && z.TreatmentId == treatment.Id), write.Stop))
                return Problems.Of(StatusCodes.Status409Conflict, "in-use", "One of these layers is on a piece already, and cannot be left out.");
            foreach (var layer in gone)
                write.Db.Add(new LeftOutRow
                {
                    TreatmentId = treatment.Id,
                    LineId = layer.LineId,
                    LayerId = layer.Layer.Id,
                    OnLineId = now.On(layer.Lay.SurfaceId).TakeWhile(l => l.LineId != layer.LineId).LastOrDefault()?.LineId,
                    At = write.Now,
                });
            edits.Add(new TreatmentEdit(treatment.Id, treatment.Version, was => Cover.Without(was, lines)));
        }

        var number = wanted.Sum(w => w.Lines.Count);
        await new StackWriter(write, (await graphs.ShelfOf(write.Db, workshopId, write.Stop)).Materials).Store(edits);
        write.Says($"Left {number} layer{(number == 1 ? "" : "s")} out for want of time");
        return new LeftOutTold(workshopId, number);
    }

    private static async Task<Outcome<LeftOutTold>> PutBack(Guid workshopId, LeaveOutIn entry, Write write, SetGraphs graphs)
    {
        var (wanted, problem) = await Begin(workshopId, entry, write);
        if (problem is not null)
            return problem;
        var newest = await Revisions.Newest(write.Db, wanted.Select(w => w.Treatment.Id).ToList(), null, write.Stop);
        var materials = (await graphs.ShelfOf(write.Db, workshopId, write.Stop)).Materials;
        var edits = new List<TreatmentEdit>();
        var number = 0;
        foreach (var (treatment, lines) in wanted)
        {
            var out1 = await write.Db.LeftOut.Where(l => l.TreatmentId == treatment.Id).ToListAsync(write.Stop);
            if (!lines.All(line => out1.Any(l => l.LineId == line)))
                return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", $"Not all of these are left out of {treatment.Name} any more. Load the page again.");
            var rows = await write.Db.Layers.AsNoTracking().Include(l => l.Over).Where(l => out1.Select(o => o.LayerId).Contains(l.Id)).ToDictionaryAsync(l => l.Id, write.Stop);
            var mixes = await Revisions.Mixes(write.Db, rows.Values, write.Stop);
            var turns = InTurn(out1.Where(l => lines.Contains(l.LineId)).ToList()).ToList();
            write.Db.RemoveRange(turns);
            number += turns.Count(t => newest[treatment.Id].Layers.All(l => l.Over.All(o => o.LineId != t.LineId)));
            edits.Add(new TreatmentEdit(treatment.Id, treatment.Version, was => turns.Aggregate(was, (now, turn) =>
                Cover.Back(now, StoredLayer.ToStep(rows[turn.LayerId], materials, mixes), turn.LineId, Below(turn, out1))))
            { Once = rows.Values.ToList() });
        }

        await new StackWriter(write, materials).Store(edits);
        write.Says($"Put {number} layer{(number == 1 ? "" : "s")} back that had been left out");
        return new LeftOutTold(workshopId, number);
    }

    /// <summary>What several lay on, one on the other, comes back from below.</summary>
    private static IEnumerable<LeftOutRow> InTurn(List<LeftOutRow> rows)
    {
        while (rows.Count > 0)
        {
            var next = rows.FirstOrDefault(r => rows.All(o => o.LineId != r.OnLineId)) ?? rows[0];
            rows.Remove(next);
            yield return next;
        }
    }

    /// <summary>What it lies on, and what that lay on in its turn where it was left out too.</summary>
    private static List<Guid> Below(LeftOutRow row, List<LeftOutRow> out1)
    {
        var below = new List<Guid>();
        for (var on = row.OnLineId; on is { } line && below.Count <= out1.Count; on = out1.FirstOrDefault(o => o.LineId == line)?.OnLineId)
            below.Add(line);
        return below;
    }

    private static async Task<(List<(TreatmentRow Treatment, HashSet<Guid> Lines)> Wanted, ProblemHttpResult? Problem)> Begin(Guid workshopId, LeaveOutIn entry, Write write)
    {
        await write.Hold<WorkshopRow>(workshopId);
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return ([], Problems.NotFound("workshop"));
        write.In(workshopId);
        var faults = new Faults();
        var layers = entry.Layers ?? [];
        faults.Require(layers.Count is > 0 and <= Most, "layers", $"Name 1 to {Most} layers.");
        for (var i = 0; i < Math.Min(layers.Count, Most); i++)
            faults.Require(layers[i] is { TreatmentId: not null, LayerId: not null }, $"layers[{i}]", "Name the treatment and the layer.");
        if (faults.Any)
            return ([], faults.ToProblem());
        var ids = layers.Select(l => l!.TreatmentId!.Value).Distinct().ToList();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from treatments where id = any({ids}) order by id for no key update", write.Stop);
        var rows = await write.Db.Treatments.Where(t => ids.Contains(t.Id) && t.WorkshopId == workshopId && t.PutAwayAt == null).OrderBy(t => t.Id).ToListAsync(write.Stop);
        return rows.Count < ids.Count ? ([], Problems.NotFound("treatment")) : (rows.Select(t => (t, layers.Where(l => l!.TreatmentId == t.Id).Select(l => l!.LayerId!.Value).ToHashSet())).ToList(), null);
    }
}
