using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class JournalStepMapping : IEntityTypeConfiguration<JournalStepRow>
{
    public void Configure(EntityTypeBuilder<JournalStepRow> row)
    {
        // What each step changed is kept by triggers, in a table that only they write to.
        row.ToTable("journal_steps");
        row.Property(s => s.Id).ValueGeneratedNever();
        row.Property(s => s.Sequence).UseIdentityAlwaysColumn();
        row.Property(s => s.Actor).HasMaxLength(60);
        row.Property(s => s.Device).HasMaxLength(60);
        row.Property(s => s.Words).HasMaxLength(LongestWords);
        row.HasIndex(s => new { s.WorkshopId, s.Sequence }).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(s => s.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }

    public const int LongestWords = 300;
}
