using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>How a technique leaves its material behind.</summary>
public enum Laydown
{
    /// <summary>A continuous film, a little uneven over the relief.</summary>
    Film,

    /// <summary>Patches of film: the split says how much of each position is covered.</summary>
    Cover,

    /// <summary>A flood that runs together in recesses; the film laid equals the film left.</summary>
    Wash,

    /// <summary>A bead along the joints.</summary>
    Bead,

    /// <summary>Dry grains, caught most by recesses; mass is conserved as in a wash.</summary>
    Powder,

    /// <summary>Takes away what the bead below left where it was not meant.</summary>
    Lift,

    /// <summary>Breaks through what lies above the chipping fluid, in places: the split says how much of each position.</summary>
    Chip,

    /// <summary>Takes a film off what stands highest: the split says how much of it at each position.</summary>
    Rub,

    /// <summary>Work that leaves no colour.</summary>
    None,
}

/// <summary>low – usual – high of a rule of thumb.</summary>
public readonly record struct Span3(double Low, double Usual, double High);

/// <summary>The shape of the mark a technique leaves, as an eye resolves it.</summary>
public enum MarkShape
{
    /// <summary>About as wide as long.</summary>
    Spot,

    /// <summary>Much longer than wide.</summary>
    Line,
}

/// <summary>A mark small enough to get lost with distance.</summary>
/// <param name="Mm">Its width on the model; 0 stands for the smallest detail of the zone.</param>
/// <param name="Shape">Spot or line.</param>
public readonly record struct Mark(double Mm, MarkShape Shape);

/// <summary>
/// Figures of one technique. Films are wet, in um per coat over the region touched; minutes are a prior for one pair of hands.
/// </summary>
public sealed record TechniqueFigures
{
    public required Technique Technique { get; init; }
    public required Laydown Laydown { get; init; }

    /// <summary>Why its film lies as it does.</summary>
    public required string Why { get; init; }

    public Span3 FilmUm { get; init; }

    /// <summary>Share of what leaves the tool that reaches the surface, 0..1.</summary>
    public double Efficiency { get; init; } = 1;

    /// <summary>Left in cup, brush, sponge or palette at each fill, ml.</summary>
    public double LossPerFillMl { get; init; }

    /// <summary>Area one fill covers, cm2; 0 when there are no fills to speak of.</summary>
    public double FillCoversCm2 { get; init; }

    /// <summary>Film (relative to field = 1) or cover (share) on raised, field and recess for smooth, light and deep relief.</summary>
    public required Split Smooth { get; init; }
    public required Split Light { get; init; }
    public required Split Deep { get; init; }

    public double SetUpMinutes { get; init; }
    public double CleanUpMinutes { get; init; }
    public double MinutesPerCm2 { get; init; }
    public double MinutesPerCm { get; init; }
    /// <summary>The separate marks it makes; null when it covers evenly or follows the relief alone.</summary>
    public Mark? Mark { get; init; }

    public Tool UsualTool { get; init; } = Tool.Brush;

    /// <summary>Kinds of material it is done with; empty when it needs none.</summary>
    public IReadOnlyList<MaterialKind> Suits { get; init; } = [];

    /// <summary>It leaves something of its own behind, rather than working on what is there.</summary>
    public bool Leaves => Laydown is Laydown.Film or Laydown.Cover or Laydown.Wash or Laydown.Bead or Laydown.Powder;

    /// <summary>Usually laid over the whole piece, and not over one surface of it.</summary>
    public bool OverEverything => Technique is Technique.Prime or Technique.DirectionalLight or Technique.AllOverWash or Technique.Filter or Technique.Glaze or Technique.DryBrush or Technique.Dust or Technique.Varnish;

    /// <summary>Minutes for each detail of the layer: a letter, a hit, a tuft.</summary>
    public double MinutesPerDetail { get; init; }

    /// <summary>Details of this size on a face of a cm2, where their number was not counted; 0 for work that is not done one by one.</summary>
    public double DetailsPerCm2 { get; init; }

    /// <summary>The split for a relief.</summary>
    public Split SplitFor(Relief relief) => relief switch { Relief.Smooth => Smooth, Relief.Light => Light, _ => Deep };
}
