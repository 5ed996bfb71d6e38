using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class PhotoMapping : IEntityTypeConfiguration<PhotoRow>
{
    public void Configure(EntityTypeBuilder<PhotoRow> row)
    {
        row.ToTable("photos", t =>
        {
            t.HasCheckConstraint("ck_photos_size", "width > 0 and height > 0");
            t.HasCheckConstraint("ck_photos_freed", "(freed_at is null) = (blob_id is not null) and (freed_at is null) = (small_id is not null) and (freed_at is null or put_away_at is not null)");
        });
        row.Property(p => p.Id).ValueGeneratedNever();
        row.HasRowVersion(p => p.Version);
        row.Property(p => p.Words).HasMaxLength(500);
        row.Property(p => p.Actor).HasMaxLength(60);
        row.HasIndex(p => new { p.SetId, p.TakenAt });
        row.HasIndex(p => p.EventId);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<SetRow>().WithMany().HasForeignKey(p => p.SetId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(p => p.EventId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(p => p.PieceId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(p => p.ZoneId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<BlobRow>().WithMany().HasForeignKey(p => p.BlobId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<BlobRow>().WithMany().HasForeignKey(p => p.SmallId).OnDelete(DeleteBehavior.Restrict);
    }
}
