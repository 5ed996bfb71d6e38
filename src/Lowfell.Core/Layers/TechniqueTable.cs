using static Lowfell.Core.Materials.MaterialKind;
using M = Lowfell.Core.Materials.MaterialKind;

namespace Lowfell.Core.Layers;

/// <summary>
/// The figures of every technique: ordinary rules of thumb, one place each. The label and the workshop's own log win.
/// </summary>
public static class TechniqueTable
{
    private static readonly Split even = Split.Even(1);

    // Brush and spray: a little less on edges that shed paint, a little more in corners that hold it.
    private static readonly Split lightFilm = new(0.95, 1, 1.1), deepFilm = new(0.9, 1, 1.2);

    private static readonly M[] paints = [Paint, Ink, M.Primer];
    private static readonly M[] solids = [M.TexturePaste, M.Filler, Paint];

    private static readonly Dictionary<Technique, TechniqueFigures> byTechnique = All().ToDictionary(f => f.Technique);

    /// <summary>Figures for a technique, with film, transfer and minutes of the tool where the tool decides them.</summary>
    public static TechniqueFigures For(Technique technique, Tool tool)
    {
        var figures = byTechnique[technique];
        if (figures.Laydown != Laydown.Film || tool == figures.UsualTool)
            return figures;
        return tool switch
        {
            Tool.Airbrush => figures with
            {
                FilmUm = new(20, 30, 45),
                Efficiency = 0.6,
                LossPerFillMl = 0.7,
                FillCoversCm2 = 300,
                SetUpMinutes = 8,
                CleanUpMinutes = 10,
                MinutesPerCm2 = 0.015,
            },
            Tool.SprayCan => figures with
            {
                FilmUm = new(25, 40, 60),
                Efficiency = 0.5,
                LossPerFillMl = 0,
                FillCoversCm2 = 0,
                SetUpMinutes = 3,
                CleanUpMinutes = 1,
                MinutesPerCm2 = 0.01,
            },
            Tool.Brush when figures.UsualTool is Tool.Airbrush or Tool.SprayCan => figures with
            {
                FilmUm = new(60, 90, 130),
                Efficiency = 0.9,
                LossPerFillMl = 0.15,
                FillCoversCm2 = 150,
                SetUpMinutes = 2,
                CleanUpMinutes = 2,
                MinutesPerCm2 = 0.09,
            },
            _ => figures,
        };
    }

    /// <summary>Figures for a technique with its usual tool.</summary>
    public static TechniqueFigures For(Technique technique) => byTechnique[technique];

    private static IEnumerable<TechniqueFigures> All() =>
    [
        new()
        {
            Technique = Technique.Prime, Laydown = Laydown.Film, UsualTool = Tool.SprayCan, FilmUm = new(25, 40, 60), Efficiency = 0.5,
            Smooth = even, Light = lightFilm, Deep = deepFilm, SetUpMinutes = 3, CleanUpMinutes = 1, MinutesPerCm2 = 0.01, Suits = [M.Primer, Paint],
        },
        new()
        {
            // From above: flats and tops catch it, recesses hide from it. Orientation is applied on top of this split.
            Technique = Technique.DirectionalLight, Laydown = Laydown.Cover, UsualTool = Tool.Airbrush, FilmUm = new(20, 30, 45), Efficiency = 0.6,
            LossPerFillMl = 0.7, FillCoversCm2 = 300, Smooth = new(0.9, 0.85, 0.7), Light = new(0.9, 0.75, 0.4), Deep = new(0.95, 0.7, 0.2),
            SetUpMinutes = 8, CleanUpMinutes = 10, MinutesPerCm2 = 0.015, Suits = paints,
        },
        new()
        {
            Technique = Technique.BaseCoat, Laydown = Laydown.Film, FilmUm = new(60, 90, 130), Efficiency = 0.9, LossPerFillMl = 0.15, FillCoversCm2 = 150,
            Smooth = even, Light = lightFilm, Deep = deepFilm, SetUpMinutes = 2, CleanUpMinutes = 2, MinutesPerCm2 = 0.09, Suits = paints,
        },
        Cover(Technique.Overbrush, new(15, 20, 25), new(0.9, 0.85, 0.3), new(0.95, 0.7, 0.1), new(1, 0.6, 0.03), 0.5, 0.03, Tool.Brush, paints),
        Cover(Technique.DryBrush, new(4, 6, 8), new(0.35, 0.12, 0), new(0.7, 0.2, 0), new(0.85, 0.15, 0), 0.3, 0.035, Tool.Brush, paints),
        Cover(Technique.Sponge, new(25, 40, 60), new(0.9, 0.85, 0.3), new(0.95, 0.7, 0.1), new(1, 0.6, 0.03), 0.6, 0.035, Tool.Sponge, paints) with { LossPerFillMl = 0.5, FillCoversCm2 = 250 },
        Cover(Technique.Stipple, new(20, 40, 60), new(0.4, 0.4, 0.35), new(0.45, 0.4, 0.25), new(0.5, 0.4, 0.15), 0.8, 0.08, Tool.Brush, [.. paints, M.Wash]),
        Cover(Technique.Patch, new(40, 70, 110), new(0.4, 0.4, 0.4), new(0.4, 0.4, 0.38), new(0.4, 0.4, 0.35), 0.9, 0.12, Tool.Brush, paints),
        new()
        {
            Technique = Technique.AllOverWash, Laydown = Laydown.Wash, FilmUm = new(40, 70, 110), Efficiency = 0.95, LossPerFillMl = 0.1, FillCoversCm2 = 200,
            Smooth = new(0.9, 1, 1.1), Light = new(0.55, 1, 2.5), Deep = new(0.35, 1, 4),
            SetUpMinutes = 2, CleanUpMinutes = 2, MinutesPerCm2 = 0.03, Suits = [M.Wash, Ink, Paint],
        },
        new()
        {
            // After clean-up; before it the bead stands wider, see StackPrediction.
            Technique = Technique.PinWash, Laydown = Laydown.Bead, LossPerFillMl = 0.1, FillCoversCm2 = 0,
            Smooth = new(0.05, 0.08, 2), Light = new(0.05, 0.1, 3), Deep = new(0.08, 0.15, 4),
            SetUpMinutes = 4, CleanUpMinutes = 5, MinutesPerCm = 0.05, Suits = [M.Wash, Paint, Ink],
        },
        Film(Technique.Filter, new(10, 20, 30), new(0.9, 1, 1.15), new(0.85, 1, 1.3), 0.02, [M.Filter, M.Wash, Ink, Paint]),
        Film(Technique.Glaze, new(10, 20, 30), new(0.9, 1, 1.15), new(0.85, 1, 1.3), 0.02, [M.Ink, Paint, M.Filter, M.Wash, GlazeMedium]),
        Cover(Technique.EdgeLine, new(30, 50, 70), new(0.6, 0, 0), new(0.55, 0, 0), new(0.5, 0, 0), 0.9, 0, Tool.Brush, [.. paints, Pencil]) with { MinutesPerCm = 0.06 },
        Cover(Technique.PaintedChip, new(20, 40, 60), new(0.25, 0.03, 0), new(0.3, 0.03, 0), new(0.35, 0.02, 0), 0.6, 0.03, Tool.Sponge, [.. paints, Pencil]),
        Cover(Technique.FluidChip, new(20, 30, 40), new(0, 0, 0), new(0, 0, 0), new(0, 0, 0), 0.8, 0.03, Tool.Brush, [M.ChippingFluid]),
        Cover(Technique.Scratch, new(20, 40, 60), new(0.1, 0.04, 0), new(0.1, 0.04, 0), new(0.1, 0.03, 0), 0.9, 0.02, Tool.Brush, [.. paints, Pencil]),
        Cover(Technique.Streak, new(10, 20, 30), new(0.1, 0.18, 0.2), new(0.12, 0.18, 0.25), new(0.12, 0.18, 0.3), 0.9, 0.05, Tool.Brush, [M.Wash, Paint, Ink, M.Filter]),
        Cover(Technique.Speckle, new(10, 20, 40), new(0.25, 0.25, 0.2), new(0.25, 0.3, 0.35), new(0.2, 0.3, 0.4), 0.5, 0.02, Tool.Brush, [Paint, M.Wash, M.Pigment, Ink]),
        Cover(Technique.Dust, new(20, 40, 60), new(0.25, 0.25, 0.2), new(0.25, 0.3, 0.35), new(0.2, 0.3, 0.4), 0.5, 0.03, Tool.Brush, [M.Pigment, Paint]),
        new()
        {
            Technique = Technique.Pigment, Laydown = Laydown.Powder, FilmUm = new(20, 40, 80), Efficiency = 0.6,
            Smooth = new(0.3, 0.5, 0.8), Light = new(0.2, 0.6, 2), Deep = new(0.15, 0.6, 3.5),
            SetUpMinutes = 4, CleanUpMinutes = 6, MinutesPerCm2 = 0.03, Suits = [M.Pigment],
        },
        new()
        {
            Technique = Technique.Varnish, Laydown = Laydown.Film, UsualTool = Tool.Airbrush, FilmUm = new(20, 30, 45), Efficiency = 0.6, LossPerFillMl = 0.7, FillCoversCm2 = 300,
            Smooth = even, Light = lightFilm, Deep = deepFilm, SetUpMinutes = 8, CleanUpMinutes = 10, MinutesPerCm2 = 0.015, Suits = [M.Varnish],
        },
        Film(Technique.SealTexture, new(60, 90, 130), lightFilm, deepFilm, 0.05, [M.Varnish, M.Glue, M.Primer, M.Medium]),
        Thick(Technique.TexturePaste, 1000, solids),
        Thick(Technique.Render, 800, solids),
        Thick(Technique.CracklePaste, 1000, [M.CracklePaste]),
        Film(Technique.CrackleMedium, new(60, 100, 140), lightFilm, deepFilm, 0.06, [M.CrackleMedium]),
        Cover(Technique.GlueAndScatter, new(600, 900, 1200), new(0.9, 0.95, 1), new(0.85, 0.95, 1), new(0.8, 0.95, 1), 0.8, 0.06, Tool.Spatula, [M.Aggregate, M.Glue]),
        Cover(Technique.Rock, new(1000, 2000, 4000), new(0.1, 0.08, 0.05), new(0.1, 0.08, 0.05), new(0.1, 0.08, 0.05), 1, 0.05, Tool.Fingers, [M.Aggregate]),
        Cover(Technique.Tuft, new(0, 0, 0), new(0.08, 0.08, 0.08), new(0.08, 0.08, 0.08), new(0.08, 0.08, 0.08), 1, 0.06, Tool.Fingers, [M.Tuft]),
        Cover(Technique.Decal, new(0, 0, 0), new(0.05, 0.05, 0.05), new(0.05, 0.05, 0.05), new(0.05, 0.05, 0.05), 1, 0.05, Tool.Brush, [M.Decal]),
        Work(Technique.Mask, 0, 0.05),
        Work(Technique.Unmask, 0, 0.02),
        new()
        {
            Technique = Technique.CleanUpExcess, Laydown = Laydown.Lift, UsualTool = Tool.Swab, FilmUm = new(2, 4, 8),
            Smooth = even, Light = even, Deep = even, SetUpMinutes = 4, CleanUpMinutes = 5, MinutesPerCm = 0.07, Suits = [M.Thinner],
        },
        Work(Technique.TrimAndTouchUp, 0.01, 0, paints),
        Film(Technique.Rim, new(60, 90, 130), lightFilm, deepFilm, 0.09, paints),
        Work(Technique.Assemble, 0.02, 0, [M.Glue]),
        Work(Technique.Weight, 0.02, 0, [M.Glue]),
        Work(Technique.Inspect, 0.005, 0),
    ];

    private static TechniqueFigures Film(Technique technique, Span3 film, Split light, Split deep, double minutes, M[] suits) => new()
    {
        Technique = technique,
        Laydown = Laydown.Film,
        FilmUm = film,
        Efficiency = 0.8,
        LossPerFillMl = 0.1,
        FillCoversCm2 = 300,
        Smooth = even,
        Light = light,
        Deep = deep,
        SetUpMinutes = 2,
        CleanUpMinutes = 2,
        MinutesPerCm2 = minutes,
        Suits = suits,
    };

    private static TechniqueFigures Cover(
        Technique technique, Span3 film, Split smooth, Split light, Split deep, double efficiency, double minutes, Tool tool, M[] suits) => new()
        {
            Technique = technique,
            Laydown = Laydown.Cover,
            FilmUm = film,
            Efficiency = efficiency,
            LossPerFillMl = 0.1,
            FillCoversCm2 = 200,
            Smooth = smooth,
            Light = light,
            Deep = deep,
            SetUpMinutes = 2,
            CleanUpMinutes = 2,
            MinutesPerCm2 = minutes,
            UsualTool = tool,
            Suits = suits,
        };

    private static TechniqueFigures Thick(Technique technique, double filmUm, M[] suits) => new()
    {
        Technique = technique,
        Laydown = Laydown.Film,
        UsualTool = Tool.Spatula,
        FilmUm = new(filmUm / 2, filmUm, filmUm * 2),
        Efficiency = 0.95,
        LossPerFillMl = 2,
        FillCoversCm2 = 400,
        Smooth = even,
        Light = lightFilm,
        Deep = deepFilm,
        SetUpMinutes = 4,
        CleanUpMinutes = 4,
        MinutesPerCm2 = 0.06,
        Suits = suits,
    };

    private static TechniqueFigures Work(Technique technique, double minutesPerCm2, double minutesPerCm, M[]? suits = null) => new()
    {
        Technique = technique,
        Laydown = Laydown.None,
        Smooth = even,
        Light = even,
        Deep = even,
        SetUpMinutes = 1,
        CleanUpMinutes = 0,
        MinutesPerCm2 = minutesPerCm2,
        MinutesPerCm = minutesPerCm,
        Suits = suits ?? [],
    };
}
