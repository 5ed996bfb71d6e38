using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store.Demo;

/// <summary>Harrowmere Sluice, an invented tidal lock: seven designs, 43 pieces. Loaded into a new database only.</summary>
public static class DemoSet
{
    /// <summary>Loads the demo when there is no workshop yet; true when it did.</summary>
    public static async Task<bool> LoadIfNew(LowfellDb db, DateTimeOffset now, CancellationToken stop = default)
    {
        if (await db.Workshops.AnyAsync(stop))
            return false;
        var workshop = new WorkshopRow { Name = "Fen Row bench", CreatedAt = now, TemperatureC = 17, RelativeHumidity = 0.62m, Currency = "€", TimeZone = "Europe/London", Hours = "Mon Tue Wed Thu Fri 19:00-22:00, Sat 10:00-16:00, spraying until 21:30", Painters = ["EW", "TB"] };
        db.Add(workshop);
        var shelf = DemoShelf.Materials(workshop.Id).ToDictionary(m => m.Name);
        DemoPots.FillBottles(shelf);
        db.AddRange(shelf.Values);
        var mixes = new Dictionary<string, MixRow>();
        var text = new StackText(workshop.Id, shelf, mixes);
        var treatments = DemoTreatments.ByName.ToDictionary(t => t.Key, t => text.Read(t.Key, now, t.Value));
        db.AddRange(mixes.Values);
        foreach (var treatment in treatments.Values)
            Revisions.Begin(db, treatment, "demo");

        var set = new SetRow
        {
            WorkshopId = workshop.Id,
            Name = "Harrowmere Sluice",
            Scale = 56,
            TableMetres = 0.9m,
            Handling = Handling.Careful,
            TargetSheen = Sheen.Matt,
        };
        set.Designs.AddRange(Designs(treatments));
        for (var i = 0; i < set.Designs.Count; i++)
            set.Designs[i].Position = i;
        db.Add(set);
        foreach (var design in set.Designs)
            AddTouches(db, design);
        await db.SaveChangesAsync(stop);
        await new DemoPots(db, set, shelf, now).Load(stop);
        await new DemoBench(db, set, now).Load(stop);
        await new DemoRoom(db, set.WorkshopId, now).Load(stop);
        await NoteMarks(db, set, now, stop);
        await PieceBook.Rebuild(db, workshop.Id, stop);
        await db.SaveChangesAsync(stop);
        return true;
    }

    /// <summary>On one coping the stipple came out otherwise than its plan says.</summary>
    private static async Task NoteMarks(LowfellDb db, SetRow set, DateTimeOffset now, CancellationToken stop)
    {
        var (walls, coping) = (set.Designs[0], set.Designs[0].Zones.Single(z => z.Name == "Coping"));
        var stipple = await Revisions.Layers(db).FirstAsync(l => l.TreatmentId == coping.TreatmentId && l.Technique == Technique.Stipple, stop);
        db.Add(new MarksDoneRow { ZoneId = coping.Id, LineId = stipple.StepId, PieceId = walls.Pieces.Single(p => p.Label == "W2").Id, Marks = 2, MeanMm = 31, Note = "two ran into one", At = now.AddHours(-29) });
    }

    private static IEnumerable<DesignRow> Designs(Dictionary<string, TreatmentRow> t)
    {
        yield return Design("Lock-wall straight", Silhouette.Wall, Substrate.PrintedPlastic, "W", 8,
            Zone("Brick field", t["Lock brick"], 318, Relief.Deep, joint: 2600, edge: 640, surface: SurfaceKind.Courses, wide: 240),
            Zone("Coping", t["Lock coping"], 64, Relief.Light, joint: 120, edge: 420, up: 0.6m, surface: SurfaceKind.Courses, wide: 240),
            Zone("Tide band", t["Tide band"], 46, Relief.Deep, joint: 380, edge: 160, surface: SurfaceKind.Courses, wide: 240),
            Zone("Mooring ring", t["Mooring iron"], 4, Relief.Light, joint: 30, edge: 60, detail: 0.8m),
            Zone("Back face", t["Back face"], 300, Relief.Smooth, joint: 0, edge: 640, wide: 240));
        yield return Design("Lock-wall corner", Silhouette.Corner, Substrate.PrintedPlastic, "C", 2,
            Zone("Brick field", t["Lock brick"], 286, Relief.Deep, joint: 2300, edge: 700, surface: SurfaceKind.Courses, wide: 220),
            Zone("Coping", t["Lock coping"], 72, Relief.Light, joint: 140, edge: 460, up: 0.6m, surface: SurfaceKind.Courses, wide: 240),
            Zone("Tide band", t["Tide band"], 42, Relief.Deep, joint: 340, edge: 150, surface: SurfaceKind.Courses, wide: 220),
            Zone("Mooring ring", t["Mooring iron"], 4, Relief.Light, joint: 30, edge: 60, detail: 0.8m),
            Zone("Back face", t["Back face"], 204, Relief.Smooth, joint: 0, edge: 600));
        yield return Design("Pump house", Silhouette.House, Substrate.Board, "P", 1,
            Zone("Walls", t["Pump house walls"], 262, Relief.Light, joint: 90, edge: 480, surface: SurfaceKind.Grain),
            Zone("Cut edges", t["Cut edges"], 22, Relief.Smooth, edge: 900, cutEdge: true),
            Zone("Timber", t["House timber"], 38, Relief.Light, joint: 160, edge: 520, surface: SurfaceKind.Boards),
            Zone("Slate roof", t["Slate roof"], 184, Relief.Deep, joint: 2100, edge: 380, up: 0.7m, surface: SurfaceKind.Slates),
            Zone("Door", t["House door"], 9, Relief.Light, joint: 110, edge: 140, surface: SurfaceKind.Boards, across: true),
            Zone("Window glass", t["Window glass"], 6, Relief.Smooth, edge: 110, sheen: Sheen.Gloss));
        yield return Design("Keeper’s cottage", Silhouette.Cottage, Substrate.Board, "K", 2,
            Zone("Walls", t["Cottage walls"], 198, Relief.Light, joint: 70, edge: 420, surface: SurfaceKind.Grain),
            Zone("Cut edges", t["Cut edges"], 18, Relief.Smooth, edge: 760, cutEdge: true),
            Zone("Timber", t["House timber"], 26, Relief.Light, joint: 120, edge: 400, surface: SurfaceKind.Boards),
            Zone("Slate roof", t["Slate roof"], 142, Relief.Deep, joint: 1650, edge: 310, up: 0.7m, surface: SurfaceKind.Slates),
            Zone("Door", t["House door"], 7, Relief.Light, joint: 90, edge: 120, surface: SurfaceKind.Boards, across: true),
            Zone("Window glass", t["Window glass"], 5, Relief.Smooth, edge: 96, sheen: Sheen.Gloss));
        yield return Design("Jetty section", Silhouette.Jetty, Substrate.PrintedPlastic, "J", 4,
            Zone("Timber", t["Jetty timber"], 124, Relief.Deep, joint: 900, edge: 860, up: 0.5m, surface: SurfaceKind.Boards),
            Zone("Rope", t["Jetty rope"], 8, Relief.Deep, joint: 140, edge: 10, surface: SurfaceKind.Grain),
            Zone("Iron", t["Mooring iron"], 10, Relief.Light, joint: 80, edge: 120));
        var dredger = Design("Reed dredger", Silhouette.Boat, Substrate.Resin, "D", 2,
            Zone("Hull", t["Dredger hull"], 158, Relief.Light, joint: 620, edge: 540, surface: SurfaceKind.Panels),
            Zone("Deck", t["Dredger deck"], 88, Relief.Light, joint: 300, edge: 320, up: 0.9m, surface: SurfaceKind.Boards),
            Zone("Tracks", t["Dredger tracks"], 72, Relief.Deep, joint: 640, edge: 500, beforeAssembly: true, surface: SurfaceKind.Links),
            Zone("Bucket arm", t["Dredger arm"], 34, Relief.Light, joint: 210, edge: 260, beforeAssembly: true, surface: SurfaceKind.Panels),
            Zone("Cab glass", t["Cab glass"], 5, Relief.Smooth, edge: 80, sheen: Sheen.Gloss),
            Zone("Hazard stripes", t["Hazard stripes"], 6, Relief.Smooth, edge: 190));
        foreach (var hull in dredger.Pieces.ToList())
        {
            dredger.Pieces.Add(new PieceRow { Label = hull.Label + " tracks", ParentId = hull.Id });
            dredger.Pieces.Add(new PieceRow { Label = hull.Label + " arm", ParentId = hull.Id });
        }

        yield return dredger;
        yield return Design("Mud-and-salt base", Silhouette.Base, Substrate.MouldedPlastic, "B", 24,
            Zone("Salt crust", t["Salt crust"], 4.4m, Relief.Deep, joint: 70, edge: 20, up: 1, surface: SurfaceKind.Crackle),
            Zone("Fen mud", t["Fen mud"], 2.8m, Relief.Deep, joint: 30, edge: 20, up: 1, surface: SurfaceKind.Grain),
            Zone("Reed bed", t["Reed bed"], 0.9m, Relief.Light, edge: 10, up: 1, surface: SurfaceKind.Grain),
            Zone("Rim", t["Base rim"], 3.5m, Relief.Smooth, edge: 201, sheen: Sheen.Satin));
    }

    private static DesignRow Design(string name, Silhouette silhouette, Substrate substrate, string letter, int pieces, params ZoneRow[] zones)
    {
        var design = new DesignRow { Name = name, Silhouette = silhouette, Substrate = substrate };
        for (var i = 0; i < zones.Length; i++)
            zones[i].Position = i;
        design.Zones.AddRange(zones);
        for (var i = 1; i <= pieces; i++)
            design.Pieces.Add(new PieceRow { Label = $"{letter}{i}", RimNumber = $"{i}" });
        return design;
    }

    /// <summary>Sizes of a surface whose joints come to what was measured.</summary>
    private static (decimal? Length, decimal? Height) Sizes(SurfaceKind surface, decimal areaCm2, decimal joint)
    {
        if (joint == 0)
            return (null, null);
        var one = areaCm2 * 100 / joint;
        return surface switch
        {
            SurfaceKind.Courses => (Math.Round(3 * one, 1), Math.Round(1.5m * one, 1)),
            SurfaceKind.Slates => (Math.Round(2.25m * one, 1), Math.Round(1.8m * one, 1)),
            SurfaceKind.Panels => (Math.Round(2.5m * one, 1), Math.Round(5m / 3 * one, 1)),
            SurfaceKind.Boards or SurfaceKind.Ribs or SurfaceKind.Links => (Math.Round(one, 1), null),
            SurfaceKind.Crackle => (Math.Round(2 * one, 1), null),
            _ => (null, null),
        };
    }

    private static ZoneRow Zone(string name, TreatmentRow treatment, decimal areaCm2, Relief relief, decimal joint = 0, decimal edge = 0,
        decimal up = 0, decimal detail = 1, Sheen? sheen = null, bool beforeAssembly = false, bool cutEdge = false, SurfaceKind surface = SurfaceKind.Plain, bool across = false, decimal? wide = null)
    {
        var shares = Core.Layers.Zone.UsualShares(relief);
        var (length, height) = Sizes(surface, areaCm2, joint);
        return new ZoneRow
        {
            Surface = surface,
            SurfaceLengthMm = length,
            SurfaceHeightMm = height,
            RivetMm = surface == SurfaceKind.Panels ? 4 : null,
            Across = across,
            FaceWidthMm = wide,
            Name = name,
            TreatmentId = treatment.Id,
            SurfaceId = treatment.Surfaces[0].SurfaceId,
            AreaCm2 = areaCm2,
            Relief = relief,
            JointMm = joint,
            EdgeMm = edge,
            UpShare = up,
            SideShare = 1 - up,
            RaisedShare = (decimal)shares.Raised,
            FieldShare = (decimal)shares.Field,
            RecessShare = (decimal)shares.Recess,
            SmallestDetailMm = detail,
            TargetSheen = sheen,
            BeforeAssembly = beforeAssembly,
            CutEdge = cutEdge,
        };
    }

    /// <summary>Neighbours in the list of zones touch each other on these designs.</summary>
    private static void AddTouches(LowfellDb db, DesignRow design)
    {
        foreach (var (a, b) in design.Zones.Zip(design.Zones.Skip(1)))
        {
            var (first, second) = a.Id.CompareTo(b.Id) < 0 ? (a.Id, b.Id) : (b.Id, a.Id);
            db.Add(new ZoneTouchRow { FirstZoneId = first, SecondZoneId = second });
        }
    }
}
