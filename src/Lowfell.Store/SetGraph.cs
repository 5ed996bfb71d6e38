using System.Collections.Concurrent;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A set with everything that predictions need, read in a fixed number of queries however large it is.</summary>
public sealed class SetGraph
{
    private readonly ConcurrentDictionary<Guid, IReadOnlyList<Layer>> layers = new();
    private readonly ConcurrentDictionary<Guid, StackContext> contexts = new(), bare = new();
    private readonly Lazy<IReadOnlyList<Material>> shelf;
    private readonly Lazy<Dictionary<string, Recipe>> recipes;

    private SetGraph(WorkshopRow workshop, SetRow set)
    {
        (Workshop, Set) = (workshop, set);
        shelf = new(() => Materials!.Values.ToList());
        recipes = new(() => Treatments!.Keys.SelectMany(t => Layers(t)).Select(Recipe.Of).OfType<Recipe>().DistinctBy(r => r.Key).ToDictionary(r => r.Key));
    }

    public WorkshopRow Workshop { get; }
    public SetRow Set { get; }
    public IReadOnlyList<DesignRow> Designs { get; private init; } = [];
    public required IReadOnlyDictionary<Guid, TreatmentRow> Treatments { get; init; }
    public required IReadOnlyDictionary<Guid, MixRow> Mixes { get; init; }
    public required IReadOnlyDictionary<Guid, Material> Materials { get; init; }

    /// <summary>Zones that touch each zone.</summary>
    public required ILookup<Guid, Guid> Touching { get; init; }

    /// <summary>Findings the painter lives with, by zone; those taken back are left out.</summary>
    public required ILookup<Guid, AcceptedFindingRow> Accepted { get; init; }

    /// <summary>What the entries of the shelf say of their own hazards.</summary>
    public required IReadOnlyList<(Guid Id, string Name, string Hazards)> Hazards { get; init; }

    /// <summary>What was laid on each zone from which pot, oldest first.</summary>
    public required ILookup<Guid, PotGiven> Given { get; init; }

    /// <summary>Millilitres in stock by material.</summary>
    public required IReadOnlyDictionary<Guid, double> StockMl { get; init; }

    /// <summary>Reads a set; null when there is none with this id.</summary>
    public static async Task<SetGraph?> Load(LowfellDb db, CoreMaterials cache, Guid setId, CancellationToken stop)
    {
        var set = await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, stop);
        if (set is null)
            return null;
        var workshop = await db.Workshops.AsNoTracking().FirstAsync(w => w.Id == set.WorkshopId, stop);
        var designs = await db.Designs.AsNoTracking().Where(d => d.SetId == setId)
            .Include(d => d.Zones.OrderBy(z => z.Position)).Include(d => d.Pieces.OrderBy(p => p.Label))
            .OrderBy(d => d.Position).AsSplitQuery().ToListAsync(stop);
        var treatmentIds = designs.SelectMany(d => d.Zones).Select(z => z.TreatmentId).Distinct().ToList();
        var treatments = await db.Treatments.AsNoTracking().Where(t => treatmentIds.Contains(t.Id))
            .Include(t => t.Layers.OrderBy(l => l.Position)).AsSplitQuery().ToDictionaryAsync(t => t.Id, stop);
        var mixIds = treatments.Values.SelectMany(t => t.Layers).Where(l => l.MixId != null).Select(l => l.MixId!.Value).Distinct().ToList();
        var mixes = await db.Mixes.AsNoTracking().Where(m => mixIds.Contains(m.Id))
            .Include(m => m.Components.OrderBy(c => c.Position)).ToDictionaryAsync(m => m.Id, stop);
        var (materials, stock, hazards) = await cache.Of(db, workshop.Id, stop);
        var zoneIds = designs.SelectMany(d => d.Zones).Select(z => z.Id).ToList();
        var touches = await db.ZoneTouches.AsNoTracking().Where(t => zoneIds.Contains(t.FirstZoneId)).ToListAsync(stop);
        var accepted = await db.AcceptedFindings.AsNoTracking().Where(a => zoneIds.Contains(a.ZoneId) && a.TakenBackAt == null).ToListAsync(stop);
        return new SetGraph(workshop, set)
        {
            Touching = touches.SelectMany(t => new[] { (t.FirstZoneId, Other: t.SecondZoneId), (t.SecondZoneId, Other: t.FirstZoneId) }).ToLookup(t => t.Item1, t => t.Other),
            Accepted = accepted.ToLookup(a => a.ZoneId),
            Given = await PotUses.Of(db, zoneIds, stop),
            Designs = designs,
            Treatments = treatments,
            Mixes = mixes,
            Materials = materials,
            StockMl = stock,
            Hazards = hazards,
        };
    }

    /// <summary>Pieces that get a design's layers; sub-assemblies belong to their parent and do not count again.</summary>
    public static int PieceCount(DesignRow design) => design.Pieces.Count(p => p.ParentId is null);

    /// <summary>The layers of a treatment, bottom first; the same objects at every call, so that predictions can be shared.</summary>
    public IReadOnlyList<Layer> Layers(Guid treatment) => layers.GetOrAdd(treatment, id => Treatments[id].Layers.Select(ToCore).ToList());

    /// <summary>A stored layer with its materials.</summary>
    public Layer ToCore(LayerRow row)
    {
        List<MixPart> paint = row switch
        {
            { MaterialId: { } material } => [new MixPart(Materials[material], Parts.One)],
            { MixId: { } mix } => Mixes[mix].Components.Select(c => new MixPart(Materials[c.MaterialId], Parts.Of(c.Parts))).ToList(),
            _ => [],
        };
        return new Layer
        {
            Id = row.Id,
            Technique = row.Technique,
            Paint = paint,
            Dilution = row.ThinnerId is { } thinner ? new Dilution(Materials[thinner], Parts.Of(row.PaintParts!.Value), Parts.Of(row.ThinnerParts!.Value)) : null,
            Coats = row.Coats,
            Region = row.Region,
            Strength = (double)row.Strength,
            Tool = row.Tool,
            Drying = row.Drying,
            WaitMinutes = row.WaitMinutes,
            MarkMm = (double?)row.MarkMm,
            VariationSeed = row.VariationSeed,
            Optional = row.Optional,
        };
    }

    /// <summary>Every zone with its layers and pieces, as amounts are worked out from.</summary>
    /// <param name="draftOf">A treatment being edited, when there is one.</param>
    /// <param name="draft">Its layers as they are drafted.</param>
    public IEnumerable<ZonePlan> Plans(Guid? draftOf = null, IReadOnlyList<Layer>? draft = null) =>
        from design in Designs
        from zone in design.Zones
        select new ZonePlan(zone.Id, ToCore(zone, design), zone.TreatmentId == draftOf ? draft! : Layers(zone.TreatmentId), PieceCount(design));

    /// <summary>Pieces that have a layer of a zone from a pot.</summary>
    public int DoneCount(Guid zone, Guid layer) => Given.Contains(zone) ? Given[zone].Where(g => g.LayerId == layer).SelectMany(g => g.Pieces).Distinct().Count() : 0;

    /// <summary>The recipe with a key, of any layer of the set; null when no layer has it.</summary>
    public Recipe? RecipeOf(string key) => recipes.Value.GetValueOrDefault(key);

    /// <summary>Amounts as they are stored, with their materials.</summary>
    public PotContents Contents(IEnumerable<(Guid MaterialId, decimal Ml)> amounts) =>
        PotContents.Of(amounts.Where(a => a.Ml > 0).OrderBy(a => a.MaterialId).Select(a => new Portion(Materials[a.MaterialId], a.Ml)));

    /// <summary>A stored zone as the core sees it.</summary>
    public Zone ToCore(ZoneRow row, DesignRow design) => Context(row, design).Zone;

    /// <summary>What rules may look at around a zone's stack; the same object at every call.</summary>
    public StackContext Context(ZoneRow row, DesignRow design) => contexts.GetOrAdd(row.Id, _ => Bare(row, design) with
    {
        Neighbours = design.Zones.Where(z => Touching[row.Id].Contains(z.Id)).Select(z => Neighbour(row, z, design)).ToList(),
    });

    /// <summary>A zone's context under other house rules than the workshop's.</summary>
    public StackContext Context(ZoneRow row, DesignRow design, HouseRules rules) => Context(row, design) with { HouseRules = rules };

    /// <summary>Everything but the neighbours, which ask this of each other.</summary>
    private StackContext Bare(ZoneRow row, DesignRow design) => bare.GetOrAdd(row.Id, _ => new StackContext(
        Measures(row, design),
        new SetTerms(Set.Scale, (double)Set.TableMetres, Set.TargetSheen, Set.Handling),
        Workshop.HouseRules,
        new Climate((double)Workshop.TemperatureC, (double)Workshop.RelativeHumidity),
        shelf.Value)
    {
        Pieces = Math.Max(1, PieceCount(design)),
        Pots = PotUses.ForRules(Given[row.Id], this, design),
        EdgesApart = design.Zones.Any(z => z.CutEdge && z.Id != row.Id),

        // One zone speaks for the whole piece, and only when none has a touch-up yet.
        LooksForGates = design.Zones[0].Id == row.Id && !design.Zones.Any(z => Has(z, Technique.TrimAndTouchUp)),
    });

    private Neighbour Neighbour(ZoneRow row, ZoneRow other, DesignRow design)
    {
        var context = Bare(other, design);
        return new Neighbour(other.Name, context.Zone, Layers(other.TreatmentId), new Lazy<Seen>(() =>
        {
            var run = new StackView(context, Layers(other.TreatmentId)).Predictions;
            return run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
        }), FinishedFirst: other.Position < row.Position);
    }

    private bool Has(ZoneRow row, Technique technique) => Treatments[row.TreatmentId].Layers.Any(l => l.Technique == technique);

    private Zone Measures(ZoneRow row, DesignRow design) => new()
    {
        Name = row.Name,
        AreaCm2 = (double)row.AreaCm2,
        Substrate = design.Substrate,
        Relief = row.Relief,
        Orientation = new Orientation((double)row.UpShare, (double)row.SideShare, (double)row.DownShare),
        Shares = new Split((double)row.RaisedShare, (double)row.FieldShare, (double)row.RecessShare),
        EdgeMm = (double)row.EdgeMm,
        JointMm = (double)row.JointMm,
        SmallestDetailMm = (double)row.SmallestDetailMm,
        Handling = row.Handling ?? Set.Handling,
        TargetSheen = row.TargetSheen,
        CutEdge = row.CutEdge,
        BeforeAssembly = row.BeforeAssembly,
        AtRim = Has(row, Technique.Rim) || design.Zones.Any(z => Touching[row.Id].Contains(z.Id) && Has(z, Technique.Rim)),
    };
}
