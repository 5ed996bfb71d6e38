using Lowfell.Core.Bases;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bases;

/// <summary>The twenty-four mud-and-salt bases of the demo: a drift of crust, open mud, and reeds that stand together.</summary>
internal static class DemoBases
{
    public static async Task Begin(IServiceProvider services)
    {
        var (db, now) = (services.GetRequiredService<LowfellDb>(), services.GetRequiredService<TimeProvider>().GetUtcNow());
        var design = await db.Designs.Include(d => d.Zones).Where(d => d.Silhouette == Silhouette.Base).FirstAsync();
        var set = await db.Sets.FirstAsync(s => s.Id == design.SetId);
        Guid Zone(string name) => design.Zones.Single(z => z.Name == name).Id;
        var wish = new BaseWishDto(
            7, new BaseShapeDto(Outline.Round, 32, 32), null,
            [new FlatDto(FlatKind.Foot, -3.4m, 0, 8, 3.6m, 80), new FlatDto(FlatKind.Foot, 3.4m, 0, 8, 3.6m, 100)],
            [new TextureDto(TexturePlace.ByReeds, 0.112m, Zone("Reed bed")), new TextureDto(TexturePlace.Anywhere, 0.547m, Zone("Salt crust")), new TextureDto(TexturePlace.Anywhere, 0.341m, Zone("Fen mud"))],
            1.3m, 0.8m, 2.2m, 0, 0.6m, 6);
        db.Add(new BasePlanRow { WorkshopId = set.WorkshopId, DesignId = design.Id, CreatedAt = now.AddDays(-10), Body = TrayWords.Write(new TrayBody(wish, new Dictionary<Guid, IReadOnlyList<ElementDto>>())) });
        await db.SaveChangesAsync();
    }
}
