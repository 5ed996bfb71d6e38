using System.Globalization;
using System.Text;
using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;

namespace Lowfell.Benchmarks;

/// <summary>Made-up zones and stacks of a given size, the same in every run.</summary>
internal static class Workload
{
    private static readonly Material primer = Make("Slate Undercoat", MaterialKind.Primer, Carrier.SolventAcrylic, "#45494c");
    private static readonly Material brown = Make("Peat Seven", MaterialKind.Paint, Carrier.WaterAcrylic, "#4a3527");
    private static readonly Material white = Make("Salt White", MaterialKind.Paint, Carrier.WaterAcrylic, "#e6e1d3");
    private static readonly Material wash = Make("Peat Wash", MaterialKind.Wash, Carrier.WaterAcrylic, "#94764f");
    private static readonly Material enamel = Make("Bog Umber", MaterialKind.Wash, Carrier.Enamel, "#7a5f3f");
    private static readonly Material satin = Make("Tarnside Satin", MaterialKind.Varnish, Carrier.WaterAcrylic, null, Sheen.Satin);
    private static readonly Material matt = Make("Tarnside Matt", MaterialKind.Varnish, Carrier.WaterAcrylic, null);
    private static readonly Material water = Make("Tap Water", MaterialKind.Thinner, Carrier.WaterAcrylic, null) with { Thinners = [ThinnerFamily.Water] };
    private static readonly Material[] shelf = [primer, brown, white, wash, enamel, satin, matt, water];

    public static Zone Zone(int n) => new()
    {
        Name = $"Face {n}",
        AreaCm2 = 50 + n % 200,
        Substrate = Substrate.PrintedPlastic,
        Relief = Relief.Deep,
        Shares = Core.Layers.Zone.UsualShares(Relief.Deep),
        JointMm = 900,
        EdgeMm = 400,
    };

    public static StackContext Context(Zone zone) =>
        new(zone, new SetTerms(56, 0.9, Sheen.Matt, Handling.Careful), new HouseRules(), new Climate(17, 0.62), shelf);

    public static List<Layer> Stack(int layers, bool sound)
    {
        (Technique, Material)[] cycle = sound
            ? [(Technique.BaseCoat, brown), (Technique.AllOverWash, wash), (Technique.DryBrush, white), (Technique.Varnish, satin), (Technique.PinWash, enamel), (Technique.Varnish, matt)]
            : [(Technique.BaseCoat, white), (Technique.PinWash, enamel), (Technique.Streak, enamel), (Technique.DirectionalLight, white), (Technique.AllOverWash, wash), (Technique.Filter, wash)];
        var stack = new List<Layer> { Lay(0, Technique.Prime, primer, sound) };
        for (var i = 1; i < layers; i++)
            stack.Add(Lay(i, cycle[i % cycle.Length].Item1, cycle[i % cycle.Length].Item2, sound));
        return stack;
    }

    /// <summary>A long treatment as it should be: every layer adds something to see.</summary>
    public static List<Layer> Ordinary(int layers)
    {
        (Technique, Material)[] cycle = [(Technique.Stipple, white), (Technique.Speckle, brown), (Technique.Sponge, brown), (Technique.DryBrush, white), (Technique.Patch, white), (Technique.Overbrush, brown)];
        var stack = new List<Layer> { Lay(0, Technique.Prime, primer, sound: true), Lay(1, Technique.BaseCoat, brown, sound: true) };
        for (var i = 2; i < layers - 1; i++)
            stack.Add(Lay(1, cycle[i % cycle.Length].Item1, cycle[i % cycle.Length].Item2, sound: true) with { Coats = 1 });
        stack.Add(Lay(1, Technique.Varnish, matt, sound: true));
        return stack;
    }

    /// <summary>A long treatment as a painter really gets it wrong: two barriers forgotten, two waits too short, two layers nobody sees.</summary>
    public static List<Layer> WithSlips(int layers)
    {
        var stack = Stack(layers, sound: true);
        foreach (var i in new[] { 10, 22 })
            stack[i] = stack[i] with { WaitMinutes = 30 };
        foreach (var i in new[] { 14, 26 })
            stack[i] = stack[i] with { Strength = 0.02 };
        foreach (var i in new[] { 35, 23 })
            stack[stack.FindLastIndex(i, l => l.Technique == Technique.Varnish)] = Lay(100 + i, Technique.Streak, enamel, sound: true);
        return stack;
    }

    /// <summary>A piece of zones that all touch: one treatment of so many layers over a surface for each, or a treatment each; some of it sprayed, the last over everything.</summary>
    public static (StackContext Context, IReadOnlyList<Layer> Stack) Piece(int layers, int surfaces, bool together)
    {
        var steps = Ordinary(layers).Select((l, i) => l with { Id = Guid.NewGuid(), Tool = i % 7 == 2 || i == layers - 1 ? Tool.Airbrush : l.Tool }).ToList();
        var (ids, treatment) = (Enumerable.Range(0, surfaces).Select(_ => Guid.NewGuid()).ToList(), Guid.NewGuid());
        var zones = ids.Select((id, z) =>
        {
            var mine = steps.Select((l, at) => (Layer: l with { Id = Guid.NewGuid() }, Step: l.Id, at)).Where(s => s.at is 0 or 1 || s.at == layers - 1 || (s.at + z) % 3 > 0).ToList();
            return new PieceZone(id, Zone(z), together ? treatment : id, id, mine.Select(s => s.Layer).ToList())
            {
                Steps = together ? mine.ToDictionary(s => s.Layer.Id, s => (s.Step, s.at)) : new Dictionary<Guid, (Guid, int)>(),
                Touching = ids.Where(i => i != id).ToHashSet(),
            };
        }).ToList();
        return (Context(zones[0].Zone) with { Pieces = 8, Piece = new PieceAround(zones, 0) }, zones[0].Layers);
    }

    public static List<ZonePlan> Set(int pieces, int zones, int layers)
    {
        var stack = Stack(layers, sound: true);
        return Enumerable.Range(0, pieces * zones).Select(n => new ZonePlan(Guid.NewGuid(), Zone(n), stack, 1)).ToList();
    }

    /// <summary>A base coat with six layers on it, two of them partial.</summary>
    public static List<Layer> BaseUnderSix() =>
        new (Technique, Material)[]
        {
            (Technique.Prime, primer), (Technique.BaseCoat, brown), (Technique.Overbrush, white), (Technique.Varnish, satin), (Technique.Filter, enamel),
            (Technique.AllOverWash, wash), (Technique.DryBrush, white), (Technique.Varnish, matt),
        }.Select((l, i) => Lay(i, l.Item1, l.Item2, sound: true) with { Coats = 1, Strength = l.Item1 is Technique.Overbrush or Technique.AllOverWash ? 0.5 : 1 }).ToList();

    /// <summary>Made-up paints of many hues and strengths.</summary>
    public static List<Material> Paints(int count)
    {
        var random = new Random(7);
        return Enumerable.Range(0, count).Select(i => brown with
        {
            Id = Guid.NewGuid(),
            Name = $"Paint {i}",
            Optics = Optics.FromMasstone(new SrgbColour((byte)random.Next(20, 240), (byte)random.Next(20, 240), (byte)random.Next(20, 240)), 0.5 + random.NextDouble() * 4),
        }).ToList();
    }

    /// <summary>A shelf as a file, with some rows that cannot be read.</summary>
    public static string Csv(int rows, int bad)
    {
        var random = new Random(11);
        var text = new StringBuilder("name,maker,kind,carrier,colour,coats_to_hide,stock_ml,pack_ml,price\n");
        for (var i = 0; i < rows; i++)
        {
            var colour = i < bad * 100 && i % 100 == 0 ? "grey" : new SrgbColour((byte)random.Next(20, 240), (byte)random.Next(20, 240), (byte)random.Next(20, 240)).ToString();
            text.Append(CultureInfo.InvariantCulture, $"Paint {i},Plain,paint,water acrylic,{colour},{1 + random.Next(4)},{random.Next(60)},17,2.80\n");
        }

        return text.ToString();
    }

    /// <summary>Bare exponentials and roots, as many as a prediction cannot do without.</summary>
    public static double Yardstick(int count)
    {
        var sum = 0.0;
        for (var i = 0; i < count; i++)
            sum += Math.Exp(-Math.Sqrt(0.001 * i));
        return sum;
    }

    private static Layer Lay(int i, Technique technique, Material material, bool sound) => new()
    {
        Id = Guid.NewGuid(),
        Technique = technique,
        Paint = [new MixPart(material, Parts.One)],
        Coats = sound ? 2 : 1,
        Dilution = material.Carrier == Carrier.WaterAcrylic && i % 3 == 0 ? new Dilution(water, Parts.Of(3), Parts.One) : null,
        Tool = TechniqueTable.For(technique).UsualTool,
        WaitMinutes = sound ? null : 30,
    };

    private static Material Make(string name, MaterialKind kind, Carrier carrier, string? colour, Sheen sheen = Sheen.Matt)
    {
        var evidence = new ColourEvidence(colour is null ? null : SrgbColour.Parse(colour));
        var found = evidence.Resolve(kind, sheen);
        return new Material
        {
            Id = Guid.NewGuid(),
            Name = name,
            Kind = kind,
            Carrier = carrier,
            Optics = found.Optics,
            Surface = found.Surface,
            OpticsSource = evidence.Source(kind),
            Sheen = sheen,
            Thinners = carrier.UsualThinners(),
            DryTimes = UsualDryTimes.For(kind, carrier),
        };
    }
}
