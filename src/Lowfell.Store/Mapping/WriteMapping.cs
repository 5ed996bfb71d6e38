using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class ReceiptMapping : IEntityTypeConfiguration<WriteReceiptRow>
{
    public void Configure(EntityTypeBuilder<WriteReceiptRow> row)
    {
        row.ToTable("write_receipts", t => t.HasCheckConstraint("ck_write_receipts_hash", "octet_length(body_hash) = 32"));
        row.Property(r => r.Id).ValueGeneratedNever();
        row.Property(r => r.Told).HasMaxLength(LongestTold);
        row.HasIndex(r => r.At);
    }

    /// <summary>A receipt says what to read again, not what was read.</summary>
    private const int LongestTold = 2000;
}

internal sealed class SpentWriteMapping : IEntityTypeConfiguration<SpentWriteRow>
{
    public void Configure(EntityTypeBuilder<SpentWriteRow> row)
    {
        row.ToTable("spent_writes");
        row.Property(r => r.Id).ValueGeneratedNever();
        row.Property(r => r.At).HasDefaultValueSql("now()");
        row.HasIndex(r => r.At);
    }
}

internal sealed class SliceVersionMapping : IEntityTypeConfiguration<SliceVersionRow>
{
    public void Configure(EntityTypeBuilder<SliceVersionRow> row)
    {
        row.ToTable("slice_versions");
        row.HasKey(v => new { v.WorkshopId, v.Slice });
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(v => v.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class JobMapping : IEntityTypeConfiguration<JobRow>
{
    public void Configure(EntityTypeBuilder<JobRow> row)
    {
        row.ToTable("jobs", t => t.HasCheckConstraint("ck_jobs_steps", "steps >= 0 and all_steps >= steps"));
        row.Property(j => j.Kind).HasMaxLength(40);
        row.Property(j => j.At).HasMaxLength(100);

        // However many ask, a thing is worked out by one. (Worded so that a restored database words it the same.)
        row.HasIndex(j => new { j.Kind, j.SubjectId }).IsUnique().HasFilter("ended_at is null").HasDatabaseName("ux_jobs_live");
        row.HasIndex(j => new { j.Kind, j.SubjectId, j.At });
        row.HasIndex(j => new { j.State, j.AskedAt });
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(j => j.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<BlobRow>().WithMany().HasForeignKey(j => j.BlobId).OnDelete(DeleteBehavior.SetNull);
    }
}

internal sealed class BlobMapping : IEntityTypeConfiguration<BlobRow>
{
    public void Configure(EntityTypeBuilder<BlobRow> row)
    {
        row.ToTable("blobs", t => t.HasCheckConstraint("ck_blobs_size", "octet_length(bytes) <= 33554432"));
        row.Property(b => b.Type).HasMaxLength(100);
        row.HasIndex(b => b.At);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(b => b.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}
