using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class WorkEventMapping : IEntityTypeConfiguration<WorkEventRow>
{
    public void Configure(EntityTypeBuilder<WorkEventRow> row)
    {
        row.ToTable("work_events", t =>
        {
            t.HasCheckConstraint("ck_work_events_given", "(zone_id is not null or kind not in ('given', 'carried over', 'begun', 'skipped', 'wiped', 'hot air', 'touched dry', 'accepted')) and (zone_id is null or kind in ('given', 'carried over', 'begun', 'paused', 'skipped', 'wiped', 'mishap', 'hot air', 'touched dry', 'noted', 'accepted')) and (kind <> 'carried over' or twin_id is not null) and (zone_id is null) = (line_id is null)");
            t.HasCheckConstraint("ck_work_events_minutes", "estimate_minutes >= 0 and said_minutes >= 0");
            t.HasCheckConstraint("ck_work_events_coats", "coats is null or (coats between 1 and 99 and kind in ('given', 'carried over'))");
            t.HasCheckConstraint("ck_work_events_clock", "clock = 'guessed'");
            t.HasCheckConstraint("ck_work_events_device_number", "device_number > 0");
            t.HasCheckConstraint("ck_work_events_undoes", "(kind = 'taken back') = (undoes_id is not null)");
            t.HasCheckConstraint("ck_work_events_other", "other_pot_id is null or other_pot_id <> pot_id");
        });
        row.Property(e => e.Id).ValueGeneratedNever();
        row.Property(e => e.Sequence).UseIdentityAlwaysColumn();
        row.HasIndex(e => e.Sequence).IsUnique();
        row.Property(e => e.Actor).HasMaxLength(60);
        row.Property(e => e.Device).HasMaxLength(60);
        row.Property(e => e.Clock).HasMaxLength(20);
        row.Property(e => e.Note).HasMaxLength(500);
        row.Property(e => e.SavedBy).HasMaxLength(500);
        row.Property(e => e.EstimateMinutes).HasPrecision(9, 2);
        row.Property(e => e.SaidMinutes).HasPrecision(9, 2);
        row.HasIndex(e => new { e.WorkshopId, e.Device, e.DeviceNumber }).IsUnique();
        row.HasIndex(e => new { e.WorkshopId, e.Device, e.At });
        row.HasIndex(e => new { e.PotId, e.Sequence });
        row.HasIndex(e => e.UndoesId).IsUnique();
        row.HasIndex(e => e.ZoneId);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(e => e.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PotRow>().WithMany().HasForeignKey(e => e.PotId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PotRow>().WithMany().HasForeignKey(e => e.OtherPotId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(e => e.UndoesId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(e => e.BeforeId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(e => e.ZoneId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<LayerRow>().WithMany().HasForeignKey(e => e.LayerId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(e => e.Also).WithOne().HasForeignKey(a => a.EventId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(e => e.Amounts).WithOne().HasForeignKey(a => a.EventId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(e => e.Pieces).WithOne().HasForeignKey(p => p.EventId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class WorkAmountMapping : IEntityTypeConfiguration<WorkAmountRow>
{
    public void Configure(EntityTypeBuilder<WorkAmountRow> row)
    {
        row.ToTable("work_amounts", t =>
        {
            t.HasCheckConstraint("ck_work_amounts_ml", "ml <> 0");
            t.HasCheckConstraint("ck_work_amounts_drops", "drops > 0");
        });
        row.HasKey(a => new { a.EventId, a.MaterialId });
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(a => a.MaterialId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class WorkAlsoMapping : IEntityTypeConfiguration<WorkAlsoRow>
{
    public void Configure(EntityTypeBuilder<WorkAlsoRow> row)
    {
        row.ToTable("work_also");
        row.HasKey(a => new { a.EventId, a.ZoneId });
        row.HasIndex(a => a.ZoneId);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(a => a.ZoneId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class WorkPieceMapping : IEntityTypeConfiguration<WorkPieceRow>
{
    public void Configure(EntityTypeBuilder<WorkPieceRow> row)
    {
        row.ToTable("work_pieces");
        row.HasKey(p => new { p.EventId, p.PieceId });
        row.HasIndex(p => p.PieceId);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(p => p.PieceId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class DoneLayerMapping : IEntityTypeConfiguration<DoneLayerRow>
{
    public void Configure(EntityTypeBuilder<DoneLayerRow> row)
    {
        row.ToTable("done_layers", t => t.HasCheckConstraint("ck_done_layers_times", "times > 0"));
        row.Property(d => d.Id).UseIdentityAlwaysColumn();
        row.HasIndex(d => new { d.ZoneId, d.LineId, d.PieceId, d.PotId, d.Filling }).IsUnique().AreNullsDistinct(false);
        row.HasIndex(d => d.PieceId);
        row.HasIndex(d => d.PotId);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(d => d.ZoneId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(d => d.PieceId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PotRow>().WithMany().HasForeignKey(d => d.PotId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(d => d.EventId).OnDelete(DeleteBehavior.Restrict);
    }
}
