using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class PotMapping : IEntityTypeConfiguration<PotRow>
{
    public void Configure(EntityTypeBuilder<PotRow> row)
    {
        row.ToTable("pots", t =>
        {
            t.HasCheckConstraint("ck_pots_life", "life_began_at <= good_until");
            t.HasCheckConstraint("ck_pots_filled", "filled_ml >= 0 and filling >= 0");
        });
        row.Property(p => p.Id).ValueGeneratedNever();
        row.Property(p => p.Label).HasMaxLength(80);
        row.Property(p => p.RecipeKey).HasMaxLength(600);
        row.Property(p => p.Note).HasMaxLength(500);
        row.HasIndex(p => new { p.WorkshopId, p.Label }).IsUnique();
        row.HasIndex(p => new { p.WorkshopId, p.MadeAt });
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(p => p.Contents).WithOne().HasForeignKey(c => c.PotId).OnDelete(DeleteBehavior.Restrict);
        row.HasRowVersion(p => p.Version);

        // Newest and last event have foreign keys in the migration, deferred: a pot and its first event come together.
    }
}

internal sealed class PotContentMapping : IEntityTypeConfiguration<PotContentRow>
{
    public void Configure(EntityTypeBuilder<PotContentRow> row)
    {
        row.ToTable("pot_contents", t => t.HasCheckConstraint("ck_pot_contents_ml", "ml >= 0"));
        row.HasKey(c => new { c.PotId, c.MaterialId });
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(c => c.MaterialId).OnDelete(DeleteBehavior.Restrict);
    }
}
