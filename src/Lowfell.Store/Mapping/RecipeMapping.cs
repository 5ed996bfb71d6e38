using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class RecipeMapping : IEntityTypeConfiguration<RecipeRow>
{
    public void Configure(EntityTypeBuilder<RecipeRow> row)
    {
        row.ToTable("recipes");
        row.Property(r => r.Id).ValueGeneratedNever();
        row.Property(r => r.Name).HasMaxLength(120);
        row.Property(r => r.Note).HasMaxLength(500);
        row.HasRowVersion(r => r.Version);
        row.HasIndex(r => new { r.WorkshopId, r.Name }).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasMany(r => r.Parts).WithOne().HasForeignKey(p => p.RecipeId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class RecipePartMapping : IEntityTypeConfiguration<RecipePartRow>
{
    public void Configure(EntityTypeBuilder<RecipePartRow> row)
    {
        row.ToTable("recipe_parts", t => t.HasCheckConstraint("ck_recipe_parts_parts", "parts > 0"));
        row.HasKey(p => new { p.RecipeId, p.Position });
        row.HasIndex(p => new { p.RecipeId, p.MaterialId }).IsUnique();
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(p => p.MaterialId).OnDelete(DeleteBehavior.Restrict);
    }
}
