using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class AcceptedFindingMapping : IEntityTypeConfiguration<AcceptedFindingRow>
{
    public void Configure(EntityTypeBuilder<AcceptedFindingRow> row)
    {
        row.ToTable("accepted_findings", t =>
        {
            t.HasCheckConstraint("ck_accepted_findings_reason", "length(btrim(reason)) > 0");
            t.HasCheckConstraint("ck_accepted_findings_taken_back", "taken_back_at >= accepted_at");
        });
        row.Property(a => a.Rule).HasMaxLength(60);
        row.Property(a => a.Facts).HasMaxLength(64);
        row.Property(a => a.Why).HasMaxLength(2000);
        row.Property(a => a.Reason).HasMaxLength(500);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(a => a.ZoneId).OnDelete(DeleteBehavior.Cascade);

        // One acceptance of the same facts at a time.
        row.HasIndex(a => new { a.ZoneId, a.Rule, a.LayerId, a.Facts }).IsUnique().HasFilter("taken_back_at is null");
    }
}
