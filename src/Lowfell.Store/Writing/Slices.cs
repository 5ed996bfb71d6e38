using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Which slice of a workshop each table belongs to, and how a write tells that a slice has moved on.</summary>
public static class Slices
{
    /// <summary>The channel on which changes are told between servers.</summary>
    public const string Channel = "lowfell_changes";

    private static readonly Dictionary<Type, Slice[]> ofRow = new()
    {
        [typeof(WorkshopRow)] = [Slice.Plan],
        [typeof(SetRow)] = [Slice.Plan],
        [typeof(DesignRow)] = [Slice.Plan],
        [typeof(ZoneRow)] = [Slice.Plan],
        [typeof(ZoneTouchRow)] = [Slice.Plan],
        [typeof(PieceRow)] = [Slice.Plan],
        [typeof(TreatmentRow)] = [Slice.Plan],
        [typeof(TreatmentRevisionRow)] = [Slice.Plan],
        [typeof(RevisionLayerRow)] = [Slice.Plan],
        [typeof(LayerRow)] = [Slice.Plan],
        [typeof(LayerSurfaceRow)] = [Slice.Plan],
        [typeof(SurfaceRow)] = [Slice.Plan],
        [typeof(RevisionSurfaceRow)] = [Slice.Plan],
        [typeof(VersionNameRow)] = [Slice.Plan],
        [typeof(TimetableRow)] = [Slice.Sessions],
        [typeof(CalendarAddressRow)] = [Slice.Sessions],
        [typeof(LeftOutRow)] = [Slice.Plan],
        [typeof(RecipeRow)] = [Slice.Shelf],
        [typeof(RecipePartRow)] = [Slice.Shelf],
        [typeof(MixRow)] = [Slice.Plan],
        [typeof(MixComponentRow)] = [Slice.Plan],
        [typeof(AcceptedFindingRow)] = [Slice.Plan],
        [typeof(MaterialRow)] = [Slice.Shelf, Slice.Stock],
        [typeof(CalibrationRow)] = [Slice.Shelf],
        [typeof(StockMoveRow)] = [Slice.Stock],
        [typeof(PotRow)] = [Slice.Work],
        [typeof(PotContentRow)] = [Slice.Work],
        [typeof(WorkEventRow)] = [Slice.Work],
        [typeof(WorkAmountRow)] = [Slice.Work],
        [typeof(WorkPieceRow)] = [Slice.Work],
        [typeof(PieceLayerRow)] = [Slice.Work],
        [typeof(TakenTimeRow)] = [Slice.Work],
        [typeof(PhotoRow)] = [Slice.Work],
        [typeof(TrialRow)] = [Slice.Plan],
        [typeof(TrialLookRow)] = [Slice.Plan],
        [typeof(MarksDoneRow)] = [Slice.Work],
        [typeof(BasePlanRow)] = [Slice.Plan],
        [typeof(DoorRow)] = [Slice.Devices],
        [typeof(PairedDeviceRow)] = [Slice.Devices],
    };

    /// <summary>The slices a table belongs to.</summary>
    public static IEnumerable<Slice> OfTable(LowfellDb db, string table) =>
        db.Model.GetEntityTypes().Where(t => t.GetTableName() == table).SelectMany(t => ofRow.GetValueOrDefault(t.ClrType) ?? []);

    /// <summary>The slices that what is about to be saved belongs to.</summary>
    public static IEnumerable<Slice> About(LowfellDb db) =>
        db.ChangeTracker.Entries().Where(e => e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted).SelectMany(e => ofRow.GetValueOrDefault(e.Metadata.ClrType) ?? []);

    /// <summary>
    /// Moves slices on and tells everyone who listens. The last thing a write does, in one order, so that writes of a workshop wait for
    /// each other no longer than it takes to commit.
    /// </summary>
    /// <param name="db">The store, within the write's transaction.</param>
    /// <param name="workshop">Whose slices.</param>
    /// <param name="slices">Those that the write changed.</param>
    /// <param name="notice">Words the notice from the new versions.</param>
    /// <param name="stop">Gives up.</param>
    public static async Task MoveOn(LowfellDb db, Guid workshop, IReadOnlyCollection<Slice> slices, Func<IReadOnlyDictionary<Slice, long>, string> notice, CancellationToken stop)
    {
        var words = slices.Select(p => Core.Words.EnumWords.Of(p)).Order(StringComparer.Ordinal).ToArray();
        var moved = await db.Database.SqlQuery<Moved>($"""
            insert into slice_versions as v (workshop_id, slice, version) select {workshop}, p, 1 from unnest({words}) p order by p
            on conflict (workshop_id, slice) do update set version = v.version + 1 returning slice, version
            """).ToListAsync(stop);
        var text = notice(moved.ToDictionary(m => Core.Words.EnumWords.Read<Slice>(m.Slice)!.Value, m => m.Version));
        await db.Database.ExecuteSqlAsync($"select pg_notify({Channel}, {text})", stop);
    }

    private sealed record Moved(string Slice, long Version);
}
