using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store.Demo;

/// <summary>
/// Evenings at the demo bench, told backwards from when it is first started: four bases are finished, the walls are half way, a sleeve
/// went through wet paint, one base missed a layer, and a wash is drying.
/// </summary>
internal sealed class DemoBench(LowfellDb db, SetRow set, DateTimeOffset now)
{
    private const string Walls = "W1 W2 W3 W4 W5 W6 W7 W8";

    /// <summary>A layer, counted from 1 at the bottom, on some pieces; hands were on it for so many minutes.</summary>
    private sealed record Laid(double HoursAgo, string By, string Design, string Zone, int Number, string Pieces, double Minutes);

    private static IEnumerable<Laid> Evenings =>
    [
        .. Base("Fen mud", 7, [9, 12, 4, 9, 7, 6, 17]),
        .. Base("Salt crust", 7, [4, 10, 14, 24, 8, 6, 18]),
        .. Base("Reed bed", 6, [4, 8, 6, 5, 15, 11]),
        .. Base("Rim", 5, [4, 10, 9, 5, 17]),
        new(98, "EW", "Lock-wall straight", "Brick field", 1, Walls, 31),
        new(97.3, "EW", "Lock-wall straight", "Coping", 1, Walls, 13),
        new(97, "EW", "Lock-wall straight", "Tide band", 1, Walls, 12),
        new(96.8, "TB", "Lock-wall straight", "Mooring ring", 1, Walls, 9),
        new(96.5, "EW", "Lock-wall straight", "Back face", 1, Walls, 24),
        new(53, "EW", "Lock-wall straight", "Coping", 2, "W1 W2 W3 W4 W5", 30),
        new(26.6, "EW", "Lock-wall straight", "Tide band", 3, "W1 W2 W3 W4", 33),
        new(25.9, "EW", "Lock-wall straight", "Tide band", 3, "W3", 9),
        new(25.4, "TB", "Lock-wall straight", "Back face", 3, "W1 W2 W3 W5 W6", 37),
        new(0.7, "TB", "Lock-wall straight", "Mooring ring", 2, Walls, 17),
        new(0.3, "EW", "Lock-wall straight", "Coping", 4, "W1 W2 W3 W4", 14),
    ];

    /// <summary>Every layer of a zone of the first four bases, an evening apart; the third was overlooked once.</summary>
    private static IEnumerable<Laid> Base(string zone, int layers, double[] minutes) =>
        Enumerable.Range(1, layers).Select(n => new Laid(270 - 24 * n - zone.Length / 10.0, "TB", "Mud-and-salt base", zone, n, (zone, n) == ("Reed bed", 4) ? "B1 B2 B4" : "B1 B2 B3 B4", minutes[n - 1]));

    public async Task Load(CancellationToken stop)
    {
        var told = new List<(double HoursAgo, Func<Task> Tell)>();
        foreach (var laid in Evenings)
        {
            told.Add((laid.HoursAgo + laid.Minutes / 60, () => Tell(WorkKind.Begun, laid.HoursAgo + laid.Minutes / 60, laid, "", "", stop)));
            told.Add((laid.HoursAgo, () => Tell(WorkKind.Given, laid.HoursAgo, laid, "", "", stop)));
        }

        var band = new Laid(0, "EW", "Lock-wall straight", "Tide band", 3, "W3", 0);
        told.Add((26.4, () => Tell(WorkKind.Mishap, 26.4, band, "a sleeve went through it", "a damp cloth at once, then sponged again", stop)));
        told.Add((26.3, () => Tell(WorkKind.Wiped, 26.3, band, "a sleeve went through it", "", stop)));
        told.Add((26.5, () => Tell(WorkKind.Noted, 26.5, band with { Pieces = "W1 W2 W3 W4" }, "on the sponge it dries darker than on paper", "", stop)));

        // One by one: the stream keeps the order in which things happened.
        foreach (var (_, tell) in told.OrderByDescending(t => t.HoursAgo))
            await tell();
    }

    private async Task Tell(WorkKind kind, double hoursAgo, Laid on, string note, string savedBy, CancellationToken stop)
    {
        var design = set.Designs.Single(d => d.Name == on.Design);
        var zone = design.Zones.Single(z => z.Name == on.Zone);
        var layerId = await db.RevisionLayers.Where(r => r.TreatmentId == zone.TreatmentId && r.Revision == 1 && r.Position == on.Number - 1).Select(r => r.LayerId).SingleAsync(stop);
        var layer = await db.Layers.AsNoTracking().SingleAsync(l => l.Id == layerId, stop);
        var at = now.AddHours(-hoursAgo);
        var row = new WorkEventRow
        {
            Id = Guid.CreateVersion7(),
            WorkshopId = set.WorkshopId,
            Actor = on.By,
            Device = $"demo {on.By}",
            Kind = kind,
            ToldAt = at,
            At = at,
            ReceivedAt = at,
            Note = note,
            SavedBy = savedBy,
            ZoneId = zone.Id,
            LayerId = layer.Id,
            LineId = layer.StepId,
        };
        row.Pieces.AddRange(on.Pieces.Split(' ').Select(label => new WorkPieceRow { EventId = row.Id, PieceId = design.Pieces.Single(p => p.Label == label).Id }));
        db.Add(row);
        await db.SaveChangesAsync(stop);
    }
}
