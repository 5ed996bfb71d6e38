using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A set with everything that predictions need, read in a fixed number of queries however large it is.</summary>
public sealed class SetGraph
{
    private SetGraph(WorkshopRow workshop, SetRow set) => (Workshop, Set) = (workshop, set);

    public WorkshopRow Workshop { get; }
    public SetRow Set { get; }
    public IReadOnlyList<DesignRow> Designs { get; private init; } = [];
    public required IReadOnlyDictionary<Guid, TreatmentRow> Treatments { get; init; }
    public required IReadOnlyDictionary<Guid, MixRow> Mixes { get; init; }
    public required IReadOnlyDictionary<Guid, Material> Materials { get; init; }

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
        var (materials, stock) = await cache.Of(db, workshop.Id, stop);
        return new SetGraph(workshop, set) { Designs = designs, Treatments = treatments, Mixes = mixes, Materials = materials, StockMl = stock };
    }

    /// <summary>Pieces that get a design's layers; sub-assemblies belong to their parent and do not count again.</summary>
    public static int PieceCount(DesignRow design) => design.Pieces.Count(p => p.ParentId is null);

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
            Optional = row.Optional,
        };
    }

    /// <summary>A stored zone as the core sees it.</summary>
    public Zone ToCore(ZoneRow row, DesignRow design) => new()
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
    };

    /// <summary>What rules may look at around a zone's stack.</summary>
    public StackContext Context(Zone zone) => new(
        zone,
        new SetTerms(Set.Scale, (double)Set.TableMetres, Set.TargetSheen, Set.Handling),
        Workshop.HouseRules,
        new Climate((double)Workshop.TemperatureC, (double)Workshop.RelativeHumidity),
        Materials.Values.ToList());
}
