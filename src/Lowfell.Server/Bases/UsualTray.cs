using Lowfell.Core.Bases;
using Lowfell.Core.Layers;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Bases;

/// <summary>What to begin with on a design that has no plan yet: as large as its zones that look up, which are its textures.</summary>
internal static class UsualTray
{
    private const decimal LooksUp = 0.5m;
    private const int Columns = 6;

    public static BaseWishDto Of(SetGraph graph, DesignRow design)
    {
        var up = design.Zones.Where(z => z.UpShare >= LooksUp).OrderBy(z => z.AreaCm2).ToList();
        var all = up.Sum(z => z.AreaCm2);
        bool Sets(ZoneRow z, Technique technique) => graph.Layers(z).Any(l => l.Technique == technique);
        var tufts = up.Any(z => Sets(z, Technique.Tuft));
        var wide = all > 0 ? Math.Round(Math.Clamp((decimal)Math.Sqrt((double)all * 400 / Math.PI), (decimal)BaseShape.LeastMm, (decimal)BaseShape.MostMm), 1) : 32;
        var textures = up.Select(z => new TextureDto(Sets(z, Technique.Tuft) ? TexturePlace.ByReeds : TexturePlace.Anywhere, Math.Round(z.AreaCm2 / all, 3), z.Id)).ToList();
        if (textures.Count == 0)
            textures.Add(new TextureDto(TexturePlace.Anywhere, 1, null));
        return new BaseWishDto(1, new BaseShapeDto(Outline.Round, wide, wide), null, [], textures, 1.5m, tufts ? 2 : 0, tufts ? 2 : 0, 0, 0.5m, Columns);
    }
}
