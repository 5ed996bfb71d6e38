using static Lowfell.Core.Materials.MaterialKind;
using M = Lowfell.Core.Materials.MaterialKind;

namespace Lowfell.Core.Layers;

/// <summary>
/// The figures of every technique: ordinary rules of thumb, one row each with the reason. The label and the workshop's own log win.
/// Films are wet um; a split is raised, field, recess: relative film (field = 1) for films and washes, share covered for partial covers.
/// </summary>
public static class TechniqueTable
{
    private static readonly Split even = Split.Even(1);

    // Brushed: a little less on edges that shed paint, a little more in corners that hold it.
    private static readonly Split lightFilm = new(0.95, 1, 1.1), deepFilm = new(0.9, 1, 1.2);

    // Sprayed: the jet does not reach the bottom of deep joints.
    private static readonly Split deepSpray = new(0.9, 1, 0.8);

    private static readonly M[] paints = [Paint, Ink, M.Primer];
    private static readonly M[] solids = [M.TexturePaste, M.Filler, Paint];
    private static readonly Mark detail = new(0, MarkShape.Spot);

    private static readonly TechniqueFigures[] usual = All().OrderBy(f => f.Technique).ToArray();
    private static readonly TechniqueFigures[,] byTool = ByTool();

    /// <summary>Figures for a technique, with film, transfer and minutes of the tool where the tool decides them.</summary>
    public static TechniqueFigures For(Technique technique, Tool tool) => byTool[(int)technique, (int)tool];

    /// <summary>Figures for a technique with its usual tool.</summary>
    public static TechniqueFigures For(Technique technique) => usual[(int)technique];

    private static IEnumerable<TechniqueFigures> All() =>
    [
        // Ground and light
        Film(Technique.Prime, new(25, 40, 60), even, lightFilm, deepSpray, 0.01, [M.Primer, Paint],
            "From the can: half the spray passes by, and deep joints see little of it.") with
            { UsualTool = Tool.SprayCan, Efficiency = 0.5, LossPerFillMl = 0, FillCoversCm2 = 0, SetUpMinutes = 3, CleanUpMinutes = 1 },
        Cover(Technique.DirectionalLight, new(20, 30, 45), new(0.9, 0.85, 0.7), new(0.9, 0.75, 0.4), new(0.95, 0.7, 0.2), 0.6, 0.015, paints,
            "From above: tops catch it and recesses hide from it; how much arrives on a face comes on top, from the way it looks.") with
            { UsualTool = Tool.Airbrush, LossPerFillMl = 0.7, FillCoversCm2 = 300, SetUpMinutes = 8, CleanUpMinutes = 10 },
        Film(Technique.BaseCoat, new(60, 90, 130), even, lightFilm, deepFilm, 0.09, paints,
            "Brushed: edges shed a little, corners hold a little.") with { Efficiency = 0.9, LossPerFillMl = 0.15, FillCoversCm2 = 150 },

        // Dragged and dabbed: shares covered, not films
        Cover(Technique.Overbrush, new(15, 20, 25), new(0.9, 0.85, 0.3), new(0.95, 0.7, 0.1), new(1, 0.6, 0.03), 0.5, 0.03, paints,
            "A loaded brush dragged flat: all but the recesses.") with { Mark = detail },
        Cover(Technique.DryBrush, new(4, 6, 8), new(0.35, 0.12, 0), new(0.7, 0.2, 0), new(0.85, 0.15, 0), 0.3, 0.035, paints,
            "Almost none on the brush: edges take it, a smooth face hardly; most stays in the rag.") with { Mark = detail },
        Cover(Technique.Sponge, new(25, 40, 60), new(0.9, 0.85, 0.3), new(0.95, 0.7, 0.1), new(1, 0.6, 0.03), 0.6, 0.035, paints,
            "Foam rides on the high places; it drinks four parts in ten itself.") with { UsualTool = Tool.Sponge, LossPerFillMl = 0.5, FillCoversCm2 = 250, Mark = detail },
        Cover(Technique.Stipple, new(20, 40, 60), new(0.4, 0.4, 0.35), new(0.45, 0.4, 0.25), new(0.5, 0.4, 0.15), 0.8, 0.08, [.. paints, M.Wash],
            "Dots from an upright brush, which does not get to the bottom of joints.") with { Mark = new(0.8, MarkShape.Spot) },
        Cover(Technique.Patch, new(40, 70, 110), new(0.4, 0.4, 0.4), new(0.4, 0.4, 0.38), new(0.4, 0.4, 0.35), 0.9, 0.12, paints,
            "Areas of a second colour, about four tenths of a face.") with { Mark = new(8, MarkShape.Spot) },

        // Washes, filters and glazes
        Wash(Technique.AllOverWash, Laydown.Wash, new(40, 70, 110), new(0.9, 1, 1.1), new(0.55, 1, 2.5), new(0.35, 1, 4), 0.95, 0.03, [M.Wash, Ink, Paint],
            "Runs off edges and gathers in recesses; what they gain the edges lose."),
        new()
        {
            Technique = Technique.PinWash, Laydown = Laydown.Bead, LossPerFillMl = 0.1, FillCoversCm2 = 0,
            Why = "A bead along the joints, a third of it left after clean-up; before that it also stands on the shoulders.",
            Smooth = new(0.05, 0.08, 2), Light = new(0.05, 0.1, 3), Deep = new(0.08, 0.15, 4),
            SetUpMinutes = 4, CleanUpMinutes = 5, MinutesPerCm = 0.05, Suits = [M.Wash, Paint, Ink], Mark = new(0.5, MarkShape.Line),
        },
        Film(Technique.Filter, new(10, 20, 30), even, new(0.9, 1, 1.15), new(0.85, 1, 1.3), 0.02, [M.Filter, M.Wash, Ink, Paint],
            "A wiped brush leaves an even veil, a little more in corners."),
        Film(Technique.Glaze, new(10, 20, 30), even, new(0.9, 1, 1.15), new(0.85, 1, 1.3), 0.02, [Ink, Paint, M.Filter, M.Wash, GlazeMedium],
            "As a filter, with a medium that keeps it from running."),

        // Marks: what the eye finds one by one, and loses with distance
        Cover(Technique.EdgeLine, new(30, 50, 70), new(0.6, 0, 0), new(0.55, 0, 0), new(0.5, 0, 0), 0.9, 0, [.. paints, Pencil],
            "The side of a brush along edges; rough edges break the line.") with { MinutesPerCm = 0.06, Mark = new(0.4, MarkShape.Line) },
        Cover(Technique.PaintedChip, new(20, 40, 60), new(0.25, 0.03, 0), new(0.3, 0.03, 0), new(0.35, 0.02, 0), 0.6, 0.03, [.. paints, Pencil],
            "Where the piece meets the world: edges first, a few on the face.") with { UsualTool = Tool.Sponge, Mark = new(0.8, MarkShape.Spot) },
        Film(Technique.ChippingFluid, new(20, 30, 40), even, lightFilm, deepFilm, 0.03, [M.ChippingFluid],
            "A clear film; what chips later is the coat above."),
        Cover(Technique.Scratch, new(20, 40, 60), new(0.1, 0.04, 0), new(0.1, 0.04, 0), new(0.1, 0.03, 0), 0.9, 0.02, [.. paints, Pencil],
            "Thin lines across edges and faces; nothing scratches a joint.") with { Mark = new(0.3, MarkShape.Line) },
        Cover(Technique.Streak, new(10, 20, 30), new(0.1, 0.18, 0.2), new(0.12, 0.18, 0.25), new(0.12, 0.18, 0.3), 0.9, 0.05, [M.Wash, Paint, Ink, M.Filter],
            "Pulled straight down; joints collect what runs.") with { Mark = new(1, MarkShape.Line) },
        Cover(Technique.Marking, new(30, 50, 70), new(0, 0.03, 0), new(0.02, 0.03, 0), new(0.02, 0.03, 0), 0.9, 0, [.. paints, Pencil],
            "Letters, figures and stripes on the open face.") with { Mark = new(0.6, MarkShape.Line), MinutesPerDetail = 0.6, DetailsPerCm2 = 0.1 },
        Cover(Technique.RunOff, new(5, 10, 20), new(0.06, 0.12, 0.15), new(0.06, 0.12, 0.2), new(0.05, 0.12, 0.25), 0.9, 0, [M.Thinner],
            "Water or thinner draws a little of what still moves straight down.") with { Mark = new(1, MarkShape.Line), MinutesPerDetail = 0.5, DetailsPerCm2 = 0.1 },
        Cover(Technique.Stencil, new(20, 30, 45), new(0.35, 0.35, 0.3), new(0.35, 0.35, 0.2), new(0.35, 0.35, 0.1), 0.6, 0.02, paints,
            "Sprayed through a pad or a cut card: a third of the face, less of the joints it stands off from.") with
            { UsualTool = Tool.Airbrush, LossPerFillMl = 0.7, FillCoversCm2 = 300, SetUpMinutes = 8, CleanUpMinutes = 10, Mark = new(2, MarkShape.Spot) },
        Film(Technique.WetBlend, new(60, 90, 130), even, lightFilm, deepFilm, 0.14, paints,
            "Colours laid side by side and run into each other before they set.") with { Efficiency = 0.9, LossPerFillMl = 0.15, FillCoversCm2 = 150 },
        Cover(Technique.Hit, new(20, 40, 60), new(0.01, 0.01, 0), new(0.01, 0.01, 0), new(0.01, 0.01, 0), 0.9, 0, [.. paints, Pencil],
            "A dent: dark in the hole, light on its lower lip.") with { Mark = new(2, MarkShape.Spot), MinutesPerDetail = 0.7, DetailsPerCm2 = 0.05 },
        Cover(Technique.Speckle, new(10, 20, 40), new(0.25, 0.25, 0.2), new(0.25, 0.3, 0.35), new(0.2, 0.3, 0.4), 0.5, 0.02, [Paint, M.Wash, M.Pigment, Ink],
            "Flicked drops land anywhere; wet ones creep into joints.") with { Mark = new(0.5, MarkShape.Spot) },
        Cover(Technique.Dust, new(20, 40, 60), new(0.25, 0.25, 0.2), new(0.25, 0.3, 0.35), new(0.2, 0.3, 0.4), 0.5, 0.03, [M.Pigment, Paint],
            "Settles from the tip; corners keep what edges lose.") with { Mark = new(10, MarkShape.Spot) },
        Wash(Technique.Pigment, Laydown.Powder, new(20, 40, 80), new(0.3, 0.5, 0.8), new(0.2, 0.6, 2), new(0.15, 0.6, 3.5), 0.6, 0.03, [M.Pigment, M.Medium, Thinner],
            "Dry grains fall off edges and stay in recesses; a medium or thinner fixes them and takes the chalk away.") with
            { LossPerFillMl = 0, FillCoversCm2 = 0, SetUpMinutes = 4, CleanUpMinutes = 6 },

        // Varnish and texture
        Film(Technique.Varnish, new(20, 30, 45), even, lightFilm, deepSpray, 0.015, [M.Varnish],
            "A thin sprayed film; the jet does not reach the bottom of deep joints.") with
            { UsualTool = Tool.Airbrush, Efficiency = 0.6, LossPerFillMl = 0.7, FillCoversCm2 = 300, SetUpMinutes = 8, CleanUpMinutes = 10 },
        Film(Technique.SealTexture, new(60, 90, 130), even, lightFilm, deepFilm, 0.05, [M.Varnish, M.Glue, M.Primer, M.Medium],
            "A thin coat that soaks between grains."),
        Thick(Technique.TexturePaste, 1000, solids, "A millimetre from the spatula."),
        Thick(Technique.Render, 800, solids, "A skim as a plasterer lays it."),
        Thick(Technique.CracklePaste, 1000, [M.CracklePaste], "A thicker film opens wider cracks."),
        Film(Technique.CrackleMedium, new(60, 100, 140), even, lightFilm, deepFilm, 0.06, [M.CrackleMedium], "A full clear coat, brushed once."),
        Cover(Technique.GlueAndScatter, new(600, 900, 1200), new(0.9, 0.95, 1), new(0.85, 0.95, 1), new(0.8, 0.95, 1), 0.8, 0.06, [M.Aggregate, M.Glue],
            "Grains a millimetre high; edges lose some when brushed off.") with { UsualTool = Tool.Spatula, Mark = new(0.5, MarkShape.Spot) },
        Cover(Technique.Rock, new(1000, 2000, 4000), new(0.1, 0.08, 0.05), new(0.1, 0.08, 0.05), new(0.1, 0.08, 0.05), 1, 0, [M.Aggregate],
            "A few stones, about a tenth of the ground.") with { LossPerFillMl = 0, FillCoversCm2 = 0, MinutesPerDetail = 0.8, DetailsPerCm2 = 0.15, UsualTool = Tool.Fingers, Mark = new(8, MarkShape.Spot) },
        Cover(Technique.Tuft, new(0, 0, 0), Split.Even(0.08), Split.Even(0.08), Split.Even(0.08), 1, 0, [M.Tuft],
            "Ready-made; it stands on the paint rather than colouring it.") with { LossPerFillMl = 0, FillCoversCm2 = 0, MinutesPerDetail = 0.8, DetailsPerCm2 = 0.3, UsualTool = Tool.Fingers, Mark = new(5, MarkShape.Spot) },
        Cover(Technique.Decal, new(0, 0, 0), Split.Even(0.05), Split.Even(0.05), Split.Even(0.05), 1, 0, [M.Decal],
            "A printed film; its colours are its own.") with { LossPerFillMl = 0, FillCoversCm2 = 0, MinutesPerDetail = 0.8, DetailsPerCm2 = 0.05, Mark = new(6, MarkShape.Spot) },

        // Work that leaves no colour of its own
        Work(Technique.Mask, 0, 0.05, "Tape along an edge."),
        Work(Technique.Unmask, 0, 0.02, "Pulled off again."),
        new()
        {
            Technique = Technique.CleanUpExcess, Laydown = Laydown.Lift, UsualTool = Tool.Swab, FilmUm = new(2, 4, 8),
            Why = "A swab just damp takes what stands on faces and edges, two thirds of the bead.",
            Smooth = even, Light = even, Deep = even, SetUpMinutes = 4, CleanUpMinutes = 5, MinutesPerCm = 0.07, Suits = [M.Thinner],
        },
        Away(Technique.ChipThrough, Laydown.Chip, new(0.25, 0.05, 0), new(0.3, 0.04, 0), new(0.35, 0.03, 0), new(0, 0, 0), 0.06,
            "A damp stiff brush opens edges first, then a few places on the face.") with { Mark = new(1, MarkShape.Spot) },
        Away(Technique.RubBack, Laydown.Rub, new(1, 0.3, 0), new(1, 0.1, 0), new(1, 0.05, 0), new(10, 20, 40), 0.03,
            "A fine pad rides on what stands highest; a smooth face gets some of it.") with { UsualTool = Tool.Sponge },
        Work(Technique.TrimAndTouchUp, 0.01, 0, "Spots where gates were, in the colour that is there.", paints),
        Film(Technique.Rim, new(60, 90, 130), even, lightFilm, deepFilm, 0.09, paints, "Brushed round the edge of a base."),
        Work(Technique.Assemble, 0.02, 0, "Glued.", [M.Glue]),
        Work(Technique.Weight, 0.02, 0, "Glued underneath.", [M.Glue]),
        Work(Technique.Inspect, 0.005, 0, "Held to the light."),
    ];

    private static TechniqueFigures Film(Technique technique, Span3 film, Split smooth, Split light, Split deep, double minutes, M[] suits, string why) => new()
    {
        Technique = technique,
        Laydown = Laydown.Film,
        Why = why,
        FilmUm = film,
        Efficiency = 0.8,
        LossPerFillMl = 0.1,
        FillCoversCm2 = 300,
        Smooth = smooth,
        Light = light,
        Deep = deep,
        SetUpMinutes = 2,
        CleanUpMinutes = 2,
        MinutesPerCm2 = minutes,
        Suits = suits,
    };

    private static TechniqueFigures Cover(
        Technique technique, Span3 film, Split smooth, Split light, Split deep, double efficiency, double minutes, M[] suits, string why) =>
        Film(technique, film, smooth, light, deep, minutes, suits, why) with { Laydown = Laydown.Cover, Efficiency = efficiency, FillCoversCm2 = 200 };

    private static TechniqueFigures Wash(
        Technique technique, Laydown laydown, Span3 film, Split smooth, Split light, Split deep, double efficiency, double minutes, M[] suits, string why) =>
        Film(technique, film, smooth, light, deep, minutes, suits, why) with { Laydown = laydown, Efficiency = efficiency, FillCoversCm2 = 200 };

    private static TechniqueFigures Thick(Technique technique, double filmUm, M[] suits, string why) =>
        Film(technique, new(filmUm / 2, filmUm, filmUm * 2), even, lightFilm, deepFilm, 0.06, suits, why) with
        { UsualTool = Tool.Spatula, Efficiency = 0.95, LossPerFillMl = 2, FillCoversCm2 = 400, SetUpMinutes = 4, CleanUpMinutes = 4 };

    private static TechniqueFigures Away(Technique technique, Laydown laydown, Split smooth, Split light, Split deep, Span3 film, double minutes, string why) =>
        Film(technique, film, smooth, light, deep, minutes, [], why) with { Laydown = laydown, LossPerFillMl = 0, FillCoversCm2 = 0 };

    private static TechniqueFigures Work(Technique technique, double minutesPerCm2, double minutesPerCm, string why, M[]? suits = null) => new()
    {
        Technique = technique,
        Laydown = Laydown.None,
        Why = why,
        Smooth = even,
        Light = even,
        Deep = even,
        SetUpMinutes = 1,
        CleanUpMinutes = 0,
        MinutesPerCm2 = minutesPerCm2,
        MinutesPerCm = minutesPerCm,
        Suits = suits ?? [],
    };

    private static TechniqueFigures[,] ByTool()
    {
        var tools = Enum.GetValues<Tool>();
        var table = new TechniqueFigures[usual.Length, tools.Length];
        foreach (var figures in usual)
            foreach (var tool in tools)
                table[(int)figures.Technique, (int)tool] = With(figures, tool);
        return table;
    }

    /// <summary>Films laid with another tool than the usual one take that tool's film, transfer and pace.</summary>
    private static TechniqueFigures With(TechniqueFigures figures, Tool tool)
    {
        if (tool == figures.UsualTool)
            return figures;
        if (figures.Laydown == Laydown.Cover && figures.Technique is Technique.Patch or Technique.DirectionalLight or Technique.Stencil)
            return Patches(figures, tool);
        if (figures.Laydown != Laydown.Film)
            return figures;
        return tool switch
        {
            Tool.Airbrush => figures with
            {
                FilmUm = new(20, 30, 45),
                Deep = deepSpray,
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
                Deep = deepSpray,
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
                Deep = deepFilm,
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

    /// <summary>What covers in places takes the film, transfer and pace of its tool as well, and keeps its own shares.</summary>
    private static TechniqueFigures Patches(TechniqueFigures figures, Tool tool) => tool switch
    {
        Tool.Airbrush => figures with { FilmUm = new(20, 30, 45), Efficiency = 0.6, LossPerFillMl = 0.7, FillCoversCm2 = 300, SetUpMinutes = 8, CleanUpMinutes = 10, MinutesPerCm2 = 0.02 },
        Tool.SprayCan => figures with { FilmUm = new(25, 40, 60), Efficiency = 0.5, LossPerFillMl = 0, FillCoversCm2 = 0, SetUpMinutes = 3, CleanUpMinutes = 1, MinutesPerCm2 = 0.01 },
        Tool.Sponge => figures with { FilmUm = new(25, 40, 60), Efficiency = 0.6, LossPerFillMl = 0.5, FillCoversCm2 = 250, SetUpMinutes = 2, CleanUpMinutes = 1, MinutesPerCm2 = 0.035 },
        Tool.Brush => figures with { FilmUm = new(40, 70, 110), Efficiency = 0.9, LossPerFillMl = 0.1, FillCoversCm2 = 200, SetUpMinutes = 2, CleanUpMinutes = 2, MinutesPerCm2 = 0.12 },
        _ => figures,
    };
}
