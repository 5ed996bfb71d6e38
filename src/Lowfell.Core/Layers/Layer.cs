using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Layers;

/// <summary>One application in a treatment, with its materials resolved.</summary>
public sealed record Layer
{
    public Guid Id { get; init; }
    public required Technique Technique { get; init; }

    /// <summary>What is in the pot besides the thinner, in parts; empty for work without material.</summary>
    public IReadOnlyList<MixPart> Paint
    {
        get;
        init => (field, pot) = (value, Pot.Of(value));
    } = [];

    private readonly Pot pot = Pot.Of([]);

    /// <summary>How it is thinned; null when neat.</summary>
    public Dilution? Dilution { get; init; }

    /// <summary>Equal passes, at least 1.</summary>
    public int Coats { get; init; } = 1;

    public Region Region { get; init; } = Region.All;

    /// <summary>How heavily it is laid: 1 is usual, 0 lays nothing.</summary>
    public double Strength { get; init; } = 1;

    public Tool Tool { get; init; } = Tool.Brush;
    public DryingMode Drying { get; init; } = DryingMode.Air;

    /// <summary>Minutes planned between this layer and the next; null waits as long as it takes.</summary>
    public double? WaitMinutes { get; init; }

    public bool Optional { get; init; }

    /// <summary>Width of its marks on the model, mm; null takes the technique's usual.</summary>
    public double? MarkMm { get; init; }

    /// <summary>The plan that lays it differently on every piece; null has none.</summary>
    public Varied? Varied { get; init; }

    /// <summary>The lowest layer that one which takes away may take; null takes all above the chipping fluid, or as deep as it rubs.</summary>
    public Guid? DownTo { get; init; }

    /// <summary>Details on one piece on the mean, one by one: letters, hits, tufts, stones; null counts them by the area.</summary>
    public double? Details { get; init; }

    /// <summary>Full at one end of its region and nothing at the other: half of it on the whole.</summary>
    public bool Fades { get; init; }

    /// <summary>What is done to its material beforehand.</summary>
    public Preparation Preparation { get; init; }

    /// <summary>Asks for the colour inside one of its marks: covered wholly wherever it covers at all.</summary>
    internal bool Whole { get; init; }

    /// <summary>The component with most parts that is not a thinner, or null when the layer has no material.</summary>
    public Material? Main => pot.Main;

    /// <summary>
    /// What it is carried by: the strongest solvent of its components. A clean-up counts by the thinner it uses.
    /// </summary>
    public Carrier Carrier => pot.Carrier;

    /// <summary>Share of the pot that is not thinner, 0..1, whether the thinner was written as a dilution or as a component of the mix.</summary>
    public double PaintShare => (Dilution?.PaintShare ?? 1) * pot.PaintShare;

    /// <summary>The same pot with thinner that was written as a component in the dilution, where it belongs.</summary>
    public Layer WithThinnerApart()
    {
        if (pot.PaintShare == 1)
            return this;
        var paints = Paint.Where(p => !p.Material.IsThinner).ToList();
        static Parts Sum(IEnumerable<MixPart> parts) => parts.Aggregate(Parts.Zero, (sum, p) => sum + p.Parts);
        Parts paint = Sum(paints), thinner = Sum(Paint.Where(p => p.Material.IsThinner));
        var (p, t) = Dilution is { } d ? (d.PaintParts, d.ThinnerParts) : (Parts.One, Parts.Zero);
        var whole = Parts.Whole([paint * p, thinner * p + (paint + thinner) * t]);
        return this with { Paint = paints, Dilution = new Dilution(Dilution?.Thinner ?? Paint.First(x => x.Material.IsThinner).Material, whole[0], whole[1]) };
    }

    /// <summary>It leaves something behind on the surface.</summary>
    public bool LeavesFilm => Paint.Count > 0 && Strength > 0 && TechniqueTable.For(Technique, Tool).Leaves;

    /// <summary>Its materials are not mixed, but dealt to the pieces one by one.</summary>
    public bool IsDealt => Varied is { Dealt: true } && Varied.CanBeDealt(this);

    /// <summary>A name for findings: "Peat Seven + Brick Clay".</summary>
    public string MaterialName => Paint.Count == 0 ? "no material" : string.Join(" + ", Paint.Select(p => p.Material.Name));

    /// <summary>What is asked of a pot all the time, worked out once.</summary>
    private readonly record struct Pot(Material? Main, Carrier Carrier, double PaintShare)
    {
        public static Pot Of(IReadOnlyList<MixPart> paint)
        {
            MixPart? main = null;
            double all = 0, thinner = 0;
            foreach (var part in paint)
            {
                var parts = part.Parts.ToDouble();
                all += parts;
                if (part.Material.IsThinner)
                    thinner += parts;
                else if (main is null || parts > main.Parts.ToDouble())
                    main = part;
            }

            var material = main?.Material ?? (paint.Count > 0 ? paint[0].Material : null);
            var carrier = material?.Carrier ?? Carrier.None;
            foreach (var part in paint)
                if (Rank(part.Material.Carrier) > Rank(carrier))
                    carrier = part.Material.Carrier;

            // Thinner alone is what cleans.
            return new Pot(material, carrier, thinner > 0 && thinner < all ? 1 - thinner / all : 1);
        }

        private static int Rank(Carrier carrier) => carrier switch
        {
            Carrier.SolventAcrylic => 4,
            Carrier.Enamel => 3,
            Carrier.Oil => 3,
            Carrier.Alcohol => 2,
            Carrier.None or Carrier.Dry => 0,
            _ => 1,
        };
    }
}
