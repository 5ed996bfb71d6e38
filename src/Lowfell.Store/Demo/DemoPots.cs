using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store.Demo;

/// <summary>
/// Pots of the demo bench: the first ground colour that ran out before the corners had it, lichen stipple on wet paper, and a tide
/// mix that was measured twice and did not come out alike.
/// </summary>
internal sealed class DemoPots(LowfellDb db, SetRow set, IReadOnlyDictionary<string, MaterialRow> shelf, DateTimeOffset now)
{
    private const string Actor = "EW", Device = "demo EW";

    private sealed record Given(double HoursAgo, string Design, string Zone, Technique Technique, string Pieces, decimal Ml);

    private sealed record Pot(string Label, Vessel Vessel, double HoursAgo, string Note, (string Name, decimal Ml, int? Drops)[] In, Given[] Uses);

    private static readonly Pot[] pots =
    [
        new("Ground one", Vessel.Jar, 76, "by syringe; ran out before the corners", [("Peat Seven", 27.8m, null), ("Brick Clay", 18.6m, null), ("Tap Water", 11.6m, null)],
        [
            new(75, "Lock-wall straight", "Back face", Technique.BaseCoat, "W1 W2 W3 W4 W5 W6", 43.4m),
            new(51, "Lock-wall straight", "Back face", Technique.BaseCoat, "W7 W8", 14.6m),
        ]),
        new("Tide ground", Vessel.Jar, 50, "", [("Wet Slate", 6, 120), ("Weed Green", 6, 120), ("Tap Water", 3, 60)],
        [
            new(49, "Lock-wall straight", "Tide band", Technique.BaseCoat, "W1 W2 W3 W4", 4.6m),
        ]),
        new("Lichen stipple", Vessel.WetPalette, 30, "two to one", [("Withy Grey", 1.2m, 24), ("Lichen Yellow", 0.6m, 12)],
        [
            new(29.5, "Lock-wall straight", "Coping", Technique.Stipple, "W1 W2 W3 W4 W5", 1.8m),
        ]),
        new("Tide again", Vessel.Jar, 28.5, "the green ran dry after fifteen drops", [("Wet Slate", 3, 60), ("Weed Green", 0.75m, 15), ("Tap Water", 0.9m, 18)],
        [
            new(28, "Lock-wall straight", "Tide band", Technique.BaseCoat, "W5 W6", 2.4m),
        ]),
    ];

    /// <summary>Puts back into the bottles what the pots took, so that what is left is what the shelf says.</summary>
    public static void FillBottles(IReadOnlyDictionary<string, MaterialRow> shelf)
    {
        foreach (var (name, ml, _) in pots.SelectMany(p => p.In))
            shelf[name].StockMl += ml;
    }

    public async Task Load(CancellationToken stop)
    {
        foreach (var pot in pots)
            await Make(pot, stop);
    }

    private async Task Make(Pot pot, CancellationToken stop)
    {
        var made = now.AddHours(-pot.HoursAgo);
        var contents = PotContents.Of(pot.In.Select(i => new Portion(shelf[i.Name].ToCore(), i.Ml)));
        var first = await Place(pot.Uses[0], stop);
        var row = new PotRow
        {
            Id = Guid.CreateVersion7(),
            WorkshopId = set.WorkshopId,
            Label = pot.Label,
            Vessel = pot.Vessel,
            RecipeKey = first.Recipe.Key,
            MadeAt = made,
            LifeBeganAt = made,
            GoodUntil = made.AddMinutes(PotLife.Of(contents, pot.Vessel, Climate.Standard).Usual),
            Note = pot.Note,
            ChangedAt = made,
            Filling = 1,
            FilledMl = pot.In.Sum(i => i.Ml),
        };
        db.Add(row);
        var filled = new WorkEventRow { Id = Guid.CreateVersion7(), WorkshopId = set.WorkshopId, Actor = Actor, Device = Device, PotId = row.Id, Kind = WorkKind.Made, ToldAt = made, At = made, ReceivedAt = made, Note = pot.Note };
        filled.Amounts.AddRange(pot.In.Select(i => new WorkAmountRow { EventId = filled.Id, MaterialId = shelf[i.Name].Id, Ml = i.Ml, Drops = i.Drops }));
        db.Add(filled);
        db.AddRange(pot.In.Select(i => new StockMoveRow { Id = Guid.CreateVersion7(), MaterialId = shelf[i.Name].Id, Kind = StockMoveKind.Used, Ml = -i.Ml, Reason = $"pot {pot.Label}", At = made, WorkEventId = filled.Id }));
        row.NewestEventId = filled.Id;
        await db.SaveChangesAsync(stop);
        foreach (var use in pot.Uses)
        {
            var place = await Place(use, stop);
            (var taken, contents) = contents.Take(use.Ml);
            var at = now.AddHours(-use.HoursAgo);
            var given = new WorkEventRow
            {
                Id = Guid.CreateVersion7(),
                WorkshopId = set.WorkshopId,
                Actor = Actor,
                Device = Device,
                PotId = row.Id,
                Kind = WorkKind.Given,
                ToldAt = at,
                At = at,
                ReceivedAt = at,
                BeforeId = row.NewestEventId,
                ZoneId = place.Zone,
                LayerId = place.Layer.Id,
                LineId = place.Layer.StepId,
                Filling = row.Filling,
            };
            row.NewestEventId = row.LastOutEventId = given.Id;
            given.Amounts.AddRange(taken.Portions.Select(p => new WorkAmountRow { EventId = given.Id, MaterialId = p.Material.Id, Ml = -p.Ml }));
            given.Pieces.AddRange(use.Pieces.Split(' ').Select(label => new WorkPieceRow { EventId = given.Id, PieceId = set.Designs.Single(d => d.Name == use.Design).Pieces.Single(p => p.Label == label).Id }));
            db.Add(given);

            // One by one: the stream keeps the order in which things happened.
            await db.SaveChangesAsync(stop);
        }
    }

    private async Task<(Guid Zone, LayerRow Layer, Recipe Recipe)> Place(Given use, CancellationToken stop)
    {
        var zone = set.Designs.Single(d => d.Name == use.Design).Zones.Single(z => z.Name == use.Zone);
        var layer = await Revisions.Layers(db).FirstAsync(l => l.TreatmentId == zone.TreatmentId && l.Technique == use.Technique, stop);
        var components = await db.MixComponents.AsNoTracking().Where(c => c.MixId == layer.MixId).OrderBy(c => c.Position).ToListAsync(stop);
        var byId = shelf.Values.ToDictionary(m => m.Id);
        var paint = components.Select(c => new MixPart(byId[c.MaterialId].ToCore(), Parts.Of(c.Parts))).ToList();
        var dilution = layer.ThinnerId is { } thinner ? new Dilution(byId[thinner].ToCore(), Parts.Of(layer.PaintParts!.Value), Parts.Of(layer.ThinnerParts!.Value)) : null;
        return (zone.Id, layer, Recipe.Of(new Layer { Technique = layer.Technique, Paint = paint, Dilution = dilution })!);
    }
}
