using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class MarksDoneMapping : IEntityTypeConfiguration<MarksDoneRow>
{
    public void Configure(EntityTypeBuilder<MarksDoneRow> row)
    {
        row.ToTable("marks_done", t => t.HasCheckConstraint("ck_marks_done_figures", "marks between 0 and 50 and mean_mm between 0.1 and 200"));
        row.HasKey(m => new { m.ZoneId, m.LineId, m.PieceId });
        row.Property(m => m.Note).HasMaxLength(200);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(m => m.ZoneId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(m => m.PieceId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class BasePlanMapping : IEntityTypeConfiguration<BasePlanRow>
{
    public void Configure(EntityTypeBuilder<BasePlanRow> row)
    {
        row.ToTable("base_plans", t => t.HasCheckConstraint("ck_base_plans_body", "length(body::text) <= 400000"));
        row.Property(b => b.Id).ValueGeneratedNever();
        row.HasRowVersion(b => b.Version);
        row.Property(b => b.Body).HasColumnType("jsonb");
        row.HasIndex(b => b.DesignId).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(b => b.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<DesignRow>().WithMany().HasForeignKey(b => b.DesignId).OnDelete(DeleteBehavior.Cascade);
    }
}
