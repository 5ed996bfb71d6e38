using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class TrialMapping : IEntityTypeConfiguration<TrialRow>
{
    public void Configure(EntityTypeBuilder<TrialRow> row)
    {
        row.ToTable("trials", t => t.HasCheckConstraint("ck_trials_tile", "tile_width_mm between 15 and 300 and tile_height_mm between 15 and 300"));
        row.Property(t => t.Id).ValueGeneratedNever();
        row.HasRowVersion(t => t.Version);
        row.Property(t => t.Name).HasMaxLength(120);
        row.Property(t => t.Body).HasColumnType("jsonb");
        row.Property(t => t.Chosen).HasMaxLength(20);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(t => t.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<DesignRow>().WithMany().HasForeignKey(t => t.DesignId).OnDelete(DeleteBehavior.SetNull);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(t => t.ZoneId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class TrialLookMapping : IEntityTypeConfiguration<TrialLookRow>
{
    public void Configure(EntityTypeBuilder<TrialLookRow> row)
    {
        row.ToTable("trial_looks", t => t.HasCheckConstraint("ck_trial_looks_observed", "observed ~ '^#[0-9a-f]{6}$'"));
        row.HasKey(l => new { l.TrialId, l.Cell, l.Position });
        row.Property(l => l.Cell).HasMaxLength(20);
        row.Property(l => l.Observed).HasMaxLength(7);
        row.HasOne<TrialRow>().WithMany().HasForeignKey(l => l.TrialId).OnDelete(DeleteBehavior.Cascade);
    }
}
