using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>What a set keeps back of its colours.</summary>
internal static class Reserves
{
    private const decimal MostMl = 100;

    /// <summary>What a change of it comes to.</summary>
    public sealed record ReserveTold(Guid SetId);

    public static async Task<Outcome<ReserveTold>> Change(Guid setId, ReserveIn entry, Write write)
    {
        if (await write.Db.Sets.FirstOrDefaultAsync(s => s.Id == setId, write.Stop) is not { } row)
            return Problems.NotFound("set");
        write.In(row.WorkshopId);
        var faults = new Faults();
        faults.Require(entry.Ml is not null, "ml", "Give ml, 0 for none.");
        faults.Range(entry.Ml, "ml", 0, MostMl);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("set", Word(row));
        write.Says($"Changed the reserve of {row.Name}");
        row.ReserveMl = entry.Ml!.Value;
        await write.Save();
        return new ReserveTold(setId);
    }

    public static async Task<ReserveDto> Tell(ReserveTold told, Telling telling) => Word(await telling.Db.Sets.AsNoTracking().FirstAsync(s => s.Id == told.SetId, telling.Stop));

    public static ReserveDto Word(SetRow set) => new(set.Id, set.ReserveMl, set.Version);
}
