using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class BenchDeviceMapping : IEntityTypeConfiguration<BenchDeviceRow>
{
    public void Configure(EntityTypeBuilder<BenchDeviceRow> row)
    {
        row.ToTable("bench_devices", t => t.HasCheckConstraint("ck_bench_devices_last_number", "last_number >= 0"));
        row.HasKey(d => new { d.WorkshopId, d.Device });
        row.Property(d => d.Device).HasMaxLength(60);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(d => d.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class PieceLayerMapping : IEntityTypeConfiguration<PieceLayerRow>
{
    public void Configure(EntityTypeBuilder<PieceLayerRow> row)
    {
        row.ToTable("piece_layers", t => t.HasCheckConstraint("ck_piece_layers_done", "coats >= 0 and (coats > 0) = (done_at is not null) and (done_at is null) = (done_by_id is null) and (coats > 0 or state not in ('partly', 'done'))"));
        row.HasKey(p => new { p.ZoneId, p.LineId, p.PieceId });
        row.Property(p => p.Why).HasMaxLength(500);
        row.HasIndex(p => p.PieceId);

        // What lies in some of its coats only is little among all that was ever laid.
        row.HasIndex(p => p.ZoneId).HasFilter("coats > 0 and state <> 'done' and state <> 'skipped'");
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(p => p.ZoneId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(p => p.PieceId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PotRow>().WithMany().HasForeignKey(p => p.PotId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<LayerRow>().WithMany().HasForeignKey(p => p.LayerId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(p => p.DoneById).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class TakenTimeMapping : IEntityTypeConfiguration<TakenTimeRow>
{
    public void Configure(EntityTypeBuilder<TakenTimeRow> row)
    {
        row.ToTable("taken_times", t => t.HasCheckConstraint("ck_taken_times_minutes", "minutes >= 0 and pieces > 0"));
        row.HasKey(t => t.EventId);
        row.Property(t => t.Minutes).HasPrecision(9, 2);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(t => t.EventId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class BenchRefusalMapping : IEntityTypeConfiguration<BenchRefusalRow>
{
    public void Configure(EntityTypeBuilder<BenchRefusalRow> row)
    {
        row.ToTable("bench_refusals", t =>
        {
            t.HasCheckConstraint("ck_bench_refusals_settled_at", "(settled is null) = (settled_at is null) and (became_id is not null) = (coalesce(settled, 'let go') <> 'let go')");
            t.HasCheckConstraint("ck_bench_refusals_told", "length(told) <= 1000000");
        });
        row.HasKey(r => r.EventId);
        row.Property(r => r.Device).HasMaxLength(60);
        row.Property(r => r.Why).HasMaxLength(500);
        row.Property(r => r.Actor).HasMaxLength(60);
        row.Property(r => r.SettledBy).HasMaxLength(60);
        row.HasIndex(r => new { r.WorkshopId, r.Device, r.Number }).IsUnique();
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(r => r.BecameId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}
