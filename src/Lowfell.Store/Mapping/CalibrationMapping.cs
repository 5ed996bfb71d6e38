using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class CalibrationMapping : IEntityTypeConfiguration<CalibrationRow>
{
    public void Configure(EntityTypeBuilder<CalibrationRow> row)
    {
        row.ToTable("calibrations", t =>
        {
            foreach (var column in new[] { "observed", "predicted_before", "predicted_after" })
                t.HasCheckConstraint($"ck_calibrations_{column}", $"{column} ~ '^#[0-9a-f]{{6}}$'");
            t.HasCheckConstraint("ck_calibrations_steps", "hiding_step between 0.25 and 4 and tint_step between 0.25 and 4");
        });
        row.Property(c => c.Place).HasMaxLength(300);
        row.Property(c => c.Observed).HasMaxLength(7);
        row.Property(c => c.PredictedBefore).HasMaxLength(7);
        row.Property(c => c.PredictedAfter).HasMaxLength(7);
        row.Property(c => c.HidingStep).HasPrecision(16, 12);
        row.Property(c => c.TintStep).HasPrecision(16, 12);
        row.HasIndex(c => new { c.MaterialId, c.At });
        row.HasOne<TrialRow>().WithMany().HasForeignKey(c => c.TrialId).OnDelete(DeleteBehavior.SetNull);
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(c => c.MaterialId).OnDelete(DeleteBehavior.Cascade);
    }
}
