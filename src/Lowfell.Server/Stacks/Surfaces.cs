using Lowfell.Core.Layers;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Stacks;

/// <summary>What a surface is made of as it is drawn, mm on the model.</summary>
public sealed record SurfaceDto(SurfaceKind Kind, double LengthMm, double HeightMm, double? RivetMm, bool Across);

/// <summary>Surfaces of zones, with the usual sizes wherever none were measured.</summary>
internal static class Surfaces
{
    public static ZoneSurface Of(ZoneRow z, int scale) => ZoneSurface.Of(z.Surface, scale, (double?)z.SurfaceLengthMm, (double?)z.SurfaceHeightMm, (double?)z.RivetMm, z.Across);

    public static SurfaceDto Word(ZoneRow z, int scale)
    {
        var s = Of(z, scale);
        return new SurfaceDto(s.Kind, s.LengthMm, s.HeightMm, s.RivetMm, s.Across);
    }
}
