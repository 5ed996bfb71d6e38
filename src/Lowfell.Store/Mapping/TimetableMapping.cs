using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class TimetableMapping : IEntityTypeConfiguration<TimetableRow>
{
    public void Configure(EntityTypeBuilder<TimetableRow> row)
    {
        row.ToTable("timetables", t => t.HasCheckConstraint("ck_timetables_number", "number > 0"));
        row.Property(t => t.Why).HasMaxLength(300);
        row.Property(t => t.Plan).HasColumnType("jsonb");
        row.Property(t => t.Inputs).HasColumnType("jsonb");
        row.HasIndex(t => new { t.WorkshopId, t.Number }).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(t => t.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class LeftOutMapping : IEntityTypeConfiguration<LeftOutRow>
{
    public void Configure(EntityTypeBuilder<LeftOutRow> row)
    {
        row.ToTable("left_out_layers");
        row.HasKey(l => new { l.TreatmentId, l.LineId });
        row.HasOne<TreatmentRow>().WithMany().HasForeignKey(l => l.TreatmentId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<LayerRow>().WithMany().HasForeignKey(l => l.LayerId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class CalendarAddressMapping : IEntityTypeConfiguration<CalendarAddressRow>
{
    public void Configure(EntityTypeBuilder<CalendarAddressRow> row)
    {
        row.ToTable("calendar_addresses");
        row.HasIndex(a => a.SecretHash).IsUnique();
        row.HasIndex(a => a.WorkshopId).IsUnique().HasFilter("revoked_at is null");
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(a => a.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}
