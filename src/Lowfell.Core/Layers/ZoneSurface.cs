namespace Lowfell.Core.Layers;

/// <summary>
/// What a zone's surface is made of, in mm on the model: blocks of a course, boards, slates as far as they show, ribs and links from one
/// to the next, panels, grains, cells of a crackle, wires of a mesh.
/// </summary>
/// <param name="Kind">The kind.</param>
/// <param name="LengthMm">Length of a block, slate or panel; from one to the next for ribs, links and wires; width of a board, size of a grain or cell.</param>
/// <param name="HeightMm">Height of a block, slate or panel.</param>
/// <param name="RivetMm">From rivet to rivet along the joints; null has none.</param>
/// <param name="Across">Boards and ribs run up and down rather than along.</param>
public sealed record ZoneSurface(SurfaceKind Kind, double LengthMm, double HeightMm, double? RivetMm = null, bool Across = false)
{
    /// <summary>Sizes on the real thing, mm: rules of thumb for stonework, planking, roofing and plate.</summary>
    private static readonly Dictionary<SurfaceKind, (double Length, double Height)> real = new()
    {
        [SurfaceKind.Courses] = (400, 200),
        [SurfaceKind.Boards] = (200, 0),
        [SurfaceKind.Slates] = (250, 200),
        [SurfaceKind.Ribs] = (80, 0),
        [SurfaceKind.Panels] = (1200, 800),
        [SurfaceKind.Links] = (150, 0),
        [SurfaceKind.Grain] = (30, 0),
        [SurfaceKind.Crackle] = (200, 0),
        [SurfaceKind.Mesh] = (60, 0),
    };

    /// <summary>Kinds that have a height of their own besides their length.</summary>
    public static bool HasHeight(SurfaceKind kind) => kind is SurfaceKind.Courses or SurfaceKind.Slates or SurfaceKind.Panels;

    /// <summary>A surface of a kind with its usual sizes at 1:<paramref name="scale"/>, wherever none were measured.</summary>
    public static ZoneSurface Of(SurfaceKind kind, int scale, double? lengthMm = null, double? heightMm = null, double? rivetMm = null, bool across = false)
    {
        var (length, height) = real.GetValueOrDefault(kind);
        return new(kind, lengthMm ?? Rounded(length / scale), HasHeight(kind) ? heightMm ?? Rounded(height / scale) : 0, kind == SurfaceKind.Panels ? rivetMm : null, across);
    }

    /// <summary>How long the joints of so much of it are, mm: a guess from area and sizes, its outline left out.</summary>
    public double JointMm(double areaCm2)
    {
        var mm2 = areaCm2 * 100;
        return Kind switch
        {
            SurfaceKind.Courses or SurfaceKind.Slates or SurfaceKind.Panels => mm2 * (1 / LengthMm + 1 / HeightMm),
            SurfaceKind.Boards or SurfaceKind.Ribs or SurfaceKind.Links => mm2 / LengthMm,

            // Cells of one size share every crack with a neighbour; wires cross.
            SurfaceKind.Crackle or SurfaceKind.Mesh => 2 * mm2 / LengthMm,
            _ => 0,
        };
    }

    /// <summary>How long the edges are that a brush catches, mm: those of its parts, and its outline as that of a square.</summary>
    public double EdgeMm(double areaCm2)
    {
        var mm2 = areaCm2 * 100;
        return 4 * Math.Sqrt(mm2) + Kind switch
        {
            SurfaceKind.Slates => mm2 / HeightMm,
            SurfaceKind.Panels => mm2 * (1 / LengthMm + 1 / HeightMm),
            SurfaceKind.Boards or SurfaceKind.Ribs or SurfaceKind.Links => mm2 / LengthMm,
            _ => 0,
        };
    }

    /// <summary>The same thing at another scale.</summary>
    public ZoneSurface At(double factor) => this with { LengthMm = LengthMm * factor, HeightMm = HeightMm * factor, RivetMm = RivetMm * factor };

    private static double Rounded(double mm) => Math.Round(mm, mm < 1 ? 2 : 1);
}
