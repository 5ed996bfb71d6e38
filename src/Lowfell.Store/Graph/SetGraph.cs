using System.Collections.Concurrent;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;
using Lowfell.Core.Treatments;
using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>A zone in its set.</summary>
public sealed record Place(SetGraph Graph, DesignRow Design, ZoneRow Zone)
{
    /// <summary>"Brick field on Lock-wall straight".</summary>
    public string Name => $"{Zone.Name} on {Design.Name}";

    /// <summary>Its stored layers, bottom first.</summary>
    public IReadOnlyList<Layer> Layers => Graph.Layers(Zone);

    /// <summary>The treatment whose surface it takes.</summary>
    public TreatmentRow Treatment => Graph.Treatments[Zone.TreatmentId];

    /// <summary>What rules may look at around it.</summary>
    public StackContext Context => Graph.Context(Zone, Design);

    /// <summary>Its stored layers as rules look at them.</summary>
    public StackView View => new(Context, Layers);
}

/// <summary>
/// A set as it stood at one moment: plan, shelf, stock and progress of one snapshot, with everything that predictions need of them.
/// Never changed; a later moment is another graph, which takes over what is the same.
/// </summary>
public sealed class SetGraph
{
    private readonly ConcurrentDictionary<Guid, Treated> treated = new();
    private readonly ConcurrentDictionary<Guid, StackContext> contexts = new(), bare = new();
    private readonly ConcurrentDictionary<Guid, IReadOnlyList<PieceZone>> pieces = new();
    private readonly Dictionary<Guid, Place> places;
    private readonly Lazy<Dictionary<string, Recipe>> recipes;
    private readonly ConcurrentDictionary<(Guid Design, string Question, bool OfShelf), object> answers = new();
    private readonly ConcurrentDictionary<string, Lazy<Task<object>>> whole = new();
    private readonly ShelfMaterials shelf;
    private readonly SetProgress progress;

    public SetGraph(SetPlan plan, ShelfMaterials shelf, IReadOnlyDictionary<Guid, double> stockMl, SetProgress progress, SetGraph? before = null)
    {
        (Plan, this.shelf, StockMl, this.progress) = (plan, shelf, stockMl, progress);
        Places = plan.Designs.SelectMany(d => d.Zones.Select(z => new Place(this, d, z))).ToList();
        places = Places.ToDictionary(p => p.Zone.Id);
        over = new(Over);
        recipes = new(() => Treatments.Keys.SelectMany(t => TreatmentOf(t).Steps).Select(s => Recipe.Of(s.Layer)).OfType<Recipe>().DistinctBy(r => r.Key).ToDictionary(r => r.Key));
        if (before is not null)
            TakeOver(before);
    }

    public SetPlan Plan { get; }

    /// <summary>The versions of everything it was read from, in one word: what is worked out from it holds as long as this does.</summary>
    public string At { get; init; } = "";
    internal SetProgress Progress => progress;
    public WorkshopRow Workshop => Plan.Workshop;
    public SetRow Set => Plan.Set;
    public IReadOnlyList<DesignRow> Designs => Plan.Designs;
    public IReadOnlyDictionary<Guid, TreatmentRow> Treatments => Plan.Treatments;
    public ILookup<Guid, Guid> Touching => Plan.Touching;
    public ILookup<Guid, AcceptedFindingRow> Accepted => Plan.Accepted;

    /// <summary>Every zone of every design, in their order.</summary>
    public IReadOnlyList<Place> Places { get; }

    /// <summary>Every material of the workshop, those taken off the shelf too.</summary>
    public IReadOnlyDictionary<Guid, Material> Materials => shelf.Materials;

    /// <summary>What entries of the shelf say of their own hazards.</summary>
    public IReadOnlyList<(Guid Id, string Name, string Hazards)> Hazards => shelf.Hazards;

    /// <summary>Millilitres in stock by material.</summary>
    public IReadOnlyDictionary<Guid, double> StockMl { get; }

    /// <summary>What was laid on each zone from which pot, oldest first.</summary>
    public ILookup<Guid, PotGiven> Given => progress.Given;

    /// <summary>The same by pot, with the zones.</summary>
    public ILookup<Guid, (Guid Zone, PotGiven Given)> GivenFrom => progress.GivenFrom;

    public Climate Climate => new((double)Workshop.TemperatureC, (double)Workshop.RelativeHumidity, Workshop.AirMoves);

    /// <summary>A zone; null when the set has none with this id.</summary>
    public Place? Find(Guid zone) => places.GetValueOrDefault(zone);

    /// <summary>Pieces that get a design's layers; sub-assemblies belong to their parent and do not count again.</summary>
    public static int PieceCount(DesignRow design) => design.Pieces.Count(p => p.ParentId is null);

    /// <summary>Pieces that get a design's layers, W2 before W10.</summary>
    public static IEnumerable<PieceRow> PiecesOf(DesignRow design) => design.Pieces.Where(p => p.ParentId is null).OrderBy(p => p.Label.Length).ThenBy(p => p.Label, StringComparer.Ordinal);

    /// <summary>A treatment as its newest revision has it; the same object at every call.</summary>
    public Treatment TreatmentOf(Guid treatment) => treated.GetOrAdd(treatment, id => new(StoredLayer.ToCore(Treatments[id], Materials, Plan.Mixes))).Of;

    /// <summary>The layers of a zone, bottom first, each by its line; the same objects at every call, so that predictions can be shared.</summary>
    public IReadOnlyList<Layer> Layers(ZoneRow zone)
    {
        TreatmentOf(zone.TreatmentId);
        return treated[zone.TreatmentId].Stack(zone.SurfaceId);
    }

    /// <summary>The rows that the layers of a zone come from, in their order.</summary>
    public IEnumerable<LayerOn> Rows(ZoneRow zone) => Treatments[zone.TreatmentId].On(zone.SurfaceId);

    /// <summary>A treatment and the stacks of its surfaces, each made once.</summary>
    private sealed class Treated(Treatment of)
    {
        private readonly ConcurrentDictionary<Guid, IReadOnlyList<Layer>> stacks = new();

        public Treatment Of => of;
        public IReadOnlyList<Layer> Stack(Guid surface) => stacks.GetOrAdd(surface, of.Stack);
    }

    /// <summary>Every zone with its layers and pieces, as amounts are worked out from.</summary>
    /// <param name="draftOf">A surface whose layers are being edited, when there is one.</param>
    /// <param name="draft">Its layers as they are drafted.</param>
    public IEnumerable<ZonePlan> Plans(Guid? draftOf = null, IReadOnlyList<Layer>? draft = null) =>
        Places.Select(p => new ZonePlan(p.Zone.Id, p.Context.Zone, p.Zone.SurfaceId == draftOf ? draft! : p.Layers, PieceCount(p.Design), (double)Set.ReserveMl));

    /// <summary>Pieces on which a layer of a zone is over.</summary>
    public int OverCount(Guid zone, Guid line) => over.Value.GetValueOrDefault((zone, line))?.Count ?? 0;

    /// <summary>
    /// Whether a layer is over on a piece: it lies there, or one above it does. What was leapt is not reached over; what becomes of it is asked
    /// where cores are looked at.
    /// </summary>
    public bool IsOver(Guid zone, Guid line, Guid piece) => over.Value.GetValueOrDefault((zone, line))?.Contains(piece) == true;

    /// <summary>Pieces by zone and line on which it is over, those put away left out.</summary>
    private readonly Lazy<Dictionary<(Guid Zone, Guid Line), HashSet<Guid>>> over;

    private Dictionary<(Guid Zone, Guid Line), HashSet<Guid>> Over()
    {
        var all = new Dictionary<(Guid, Guid), HashSet<Guid>>();
        foreach (var place in Places.Where(p => Given.Contains(p.Zone.Id)))
        {
            var (here, done) = (place.Design.Pieces.Select(p => p.Id).ToHashSet(), Given[place.Zone.Id].ToLookup(g => g.LineId, g => g.Pieces));
            var above = new HashSet<Guid>();
            foreach (var layer in place.Layers.Reverse())
            {
                above.UnionWith(done[layer.Id].SelectMany(p => p).Where(p => here.Contains(p) && !IsPartly(place.Zone.Id, layer, p)));
                all[(place.Zone.Id, layer.Id)] = [.. above];
            }
        }

        return all;
    }

    /// <summary>Whether coats that the plan has of a layer are still to be laid on a piece that has others of them.</summary>
    public bool IsPartly(Guid zone, Layer layer, Guid piece) => progress.Partly(zone, layer.Id, piece) < layer.Coats;

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
        Neighbours = design.Zones.Where(z => Touching[row.Id].Contains(z.Id)).Select(z => Neighbour(z, design)).ToList(),
        Piece = new PieceAround(InPiece(design), design.Zones.IndexOf(row)),
    });

    /// <summary>The order of the layers of a design's pieces.</summary>
    public PieceOrder OrderOf(DesignRow design) => PieceOrder.Of(InPiece(design), Math.Max(1, PieceCount(design)), StoredPace.Read(Workshop.Paces));

    /// <summary>The zones of a design as the order of the whole piece looks at them; they hold on to nothing of this graph.</summary>
    private IReadOnlyList<PieceZone> InPiece(DesignRow design) => pieces.GetOrAdd(design.Id, _ =>
    {
        var all = PiecesOf(design).Select(p => p.Id).ToList();
        return design.Zones.Select(z =>
        {
            var done = Given[z.Id].SelectMany(g => g.Pieces.Select(p => (g.LineId, p))).ToHashSet();
            return new PieceZone(z.Id, Bare(z, design).Zone, z.TreatmentId, z.SurfaceId, Layers(z))
            {
                Steps = Steps(z),
                Touching = Touching[z.Id].ToHashSet(),
                IsDone = (line, piece) => done.Contains((line, all[piece])),
                DoneOf = all.Count,
            };
        }).ToList();
    });

    /// <summary>The step of every line of a zone, with its place in the treatment.</summary>
    private Dictionary<Guid, (Guid Step, int At)> Steps(ZoneRow zone) => TreatmentOf(zone.TreatmentId).Steps
        .Select((s, at) => (Lay: s.On(zone.SurfaceId), s.Id, at)).Where(s => s.Lay is not null).ToDictionary(s => s.Lay!.Line, s => (s.Id, s.at));

    /// <summary>A zone's context under other house rules than the workshop's.</summary>
    public StackContext Context(ZoneRow row, DesignRow design, HouseRules rules) => Context(row, design) with { HouseRules = rules };

    /// <summary>A zone's stack for counting what is to be said of it: with an empty shelf no remedy is looked for.</summary>
    public StackView Glance(ZoneRow row, DesignRow design) => new(Context(row, design) with { Shelf = [] }, Layers(row));

    /// <summary>
    /// An answer about one design, worked out once and taken over by later graphs as long as nothing it rests on has changed.
    /// It must not hold on to this graph.
    /// </summary>
    /// <param name="design">The design.</param>
    /// <param name="question">Names the answer.</param>
    /// <param name="work">Works it out.</param>
    /// <param name="ofShelf">Whether it rests on materials that no layer of the design has, as remedies do.</param>
    public T Once<T>(DesignRow design, string question, Func<T> work, bool ofShelf = true) where T : class => (T)answers.GetOrAdd((design.Id, question, ofShelf), _ => work());

    /// <summary>An answer about the whole set, worked out once for however many ask at a time. It goes when this graph goes.</summary>
    public async Task<T> OfAll<T>(string question, Func<T> work) where T : class
    {
        var answer = whole.GetOrAdd(question, _ => new(() => Task.Run<object>(work)));
        try
        {
            return (T)await answer.Value;
        }
        catch
        {
            whole.TryRemove(new(question, answer));
            throw;
        }
    }

    /// <summary>Whether an answer about one design is known without work.</summary>
    public bool Knows(DesignRow design, string question) => answers.ContainsKey((design.Id, question, true));

    /// <summary>Everything but the neighbours, which ask this of each other.</summary>
    private StackContext Bare(ZoneRow row, DesignRow design) => bare.GetOrAdd(row.Id, _ => new StackContext(
        Measures(row, design), new SetTerms(Set.Scale, (double)Set.TableMetres, Set.TargetSheen, Set.Handling), Workshop.HouseRules, Climate, shelf.OnShelf)
    {
        Pieces = Math.Max(1, PieceCount(design)),
        Pace = StoredPace.Read(Workshop.Paces),
        Pots = progress.ForRules(row.Id, this, design),
        EdgesApart = design.Zones.Any(z => z.CutEdge && z.Id != row.Id),

        // One zone speaks for the whole piece, and only when none has a touch-up yet.
        LooksForGates = design.Zones[0].Id == row.Id && !design.Zones.Any(z => Has(z, Technique.TrimAndTouchUp)),
    });

    private Neighbour Neighbour(ZoneRow other, DesignRow design)
    {
        var (context, theirs) = (Bare(other, design), Layers(other));

        // Holds on to these two alone and not to this graph: later graphs take it over.
        return new Neighbour(other.Name, context.Zone, theirs, new Lazy<Seen>(() => Finished(context, theirs)));
    }

    private static Seen Finished(StackContext context, IReadOnlyList<Layer> layers)
    {
        var run = new StackView(context, layers).Predictions;
        return run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
    }

    private bool Has(ZoneRow row, Technique technique) => Rows(row).Any(l => l.Layer.Technique == technique);

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

    /// <summary>Takes over layers, contexts and answers of a former moment wherever everything they rest on is the same.</summary>
    private void TakeOver(SetGraph before)
    {
        foreach (var (id, treatment) in Treatments)
            if (before.Treatments.TryGetValue(id, out var old) && old.Revision == treatment.Revision && before.treated.TryGetValue(id, out var known) && known.Of.Steps.All(s => SameMaterials(s.Layer)))
                treated[id] = known;
        if (before.Workshop.Version != Workshop.Version || before.Set.Version != Set.Version)
            return;

        // What may look for a remedy rests on everything there is to choose from; the rest only on what its layers are done with.
        var sameShelf = before.shelf.OnShelf == shelf.OnShelf;
        var old2 = before.Designs.ToDictionary(d => d.Id);
        foreach (var design in Designs.Where(d => old2.TryGetValue(d.Id, out var was) && SameDesign(d, was, before)))
        {
            foreach (var zone in sameShelf ? design.Zones : [])
            {
                if (before.contexts.TryGetValue(zone.Id, out var context))
                    contexts[zone.Id] = context;
                if (before.bare.TryGetValue(zone.Id, out var plain))
                    bare[zone.Id] = plain;
            }

            foreach (var (key, answer) in before.answers.Where(a => a.Key.Design == design.Id && (sameShelf || !a.Key.OfShelf)))
                answers[key] = answer;
        }
    }

    private bool SameMaterials(Layer layer) =>
        layer.Paint.All(p => Materials.GetValueOrDefault(p.Material.Id) == (object)p.Material) && (layer.Dilution is null || Materials.GetValueOrDefault(layer.Dilution.Thinner.Id) == (object)layer.Dilution.Thinner);

    private bool SameDesign(DesignRow now, DesignRow was, SetGraph before) =>
        now.Version == was.Version
        && now.Zones.Select(z => (z.Id, z.Version)).SequenceEqual(was.Zones.Select(z => (z.Id, z.Version)))
        && now.Pieces.Select(p => (p.Id, p.Version)).SequenceEqual(was.Pieces.Select(p => (p.Id, p.Version)))
        && now.Zones.All(z => treated.TryGetValue(z.TreatmentId, out var mine) && before.treated.TryGetValue(z.TreatmentId, out var theirs) && mine == theirs
            && Touching[z.Id].Order().SequenceEqual(before.Touching[z.Id].Order())
            && Accepted[z.Id].Select(a => a.Id).Order().SequenceEqual(before.Accepted[z.Id].Select(a => a.Id).Order())
            && Given[z.Id].Select(Told).SequenceEqual(before.Given[z.Id].Select(Told)));

    private static (Guid?, Guid, long, string, int) Told(PotGiven g) => (g.PotId, g.LineId, g.Sequence, g.Label, g.Pieces.Count);
}
