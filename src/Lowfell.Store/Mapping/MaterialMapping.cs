using Lowfell.Core.Materials;
using Lowfell.Core.Words;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class MaterialMapping : IEntityTypeConfiguration<MaterialRow>
{
    public void Configure(EntityTypeBuilder<MaterialRow> row)
    {
        var families = string.Join(", ", EnumWords.All<ThinnerFamily>().Select(w => $"'{w}'"));
        row.ToTable("materials", t =>
        {
            foreach (var column in new[] { "colour", "over_black", "over_white" })
                t.HasCheckConstraint($"ck_materials_{column}", $"{column} ~ '^#[0-9a-f]{{6}}$'");
            t.HasCheckConstraint("ck_materials_card", "(over_black is null) = (over_white is null)");
            t.HasCheckConstraint("ck_materials_coats_to_hide", "coats_to_hide between 0.25 and 12");
            t.HasCheckConstraint("ck_materials_solids", "solids_fraction between 0 and 1");
            t.HasCheckConstraint("ck_materials_thinner_share", "most_thinner_share >= 0 and most_thinner_share < 1");
            t.HasCheckConstraint("ck_materials_dry", "touch_minutes >= 0 and recoat_minutes >= touch_minutes and cure_minutes >= recoat_minutes");
            t.HasCheckConstraint("ck_materials_strength", "hiding_factor between 0.5 and 2 and tint_factor between 0.5 and 2");
            t.HasCheckConstraint("ck_materials_drop", "drop_ml between 0.005 and 0.5");
            t.HasCheckConstraint("ck_materials_density", "density_g_per_ml between 0.3 and 8");
            t.HasCheckConstraint("ck_materials_stock", "stock_ml >= 0 and pack_ml >= 0 and price >= 0");
            t.HasCheckConstraint("ck_materials_thinners", $"thinners <@ array[{families}]::text[]");
        });
        row.Property(m => m.HidingFactor).HasPrecision(16, 12).HasDefaultValue(1m);
        row.Property(m => m.TintFactor).HasPrecision(16, 12).HasDefaultValue(1m);
        row.Property(m => m.Name).HasMaxLength(120);
        row.Property(m => m.Maker).HasMaxLength(120);
        row.Property(m => m.Code).HasMaxLength(40);
        row.Property(m => m.Colour).HasMaxLength(7);
        row.Property(m => m.OverBlack).HasMaxLength(7);
        row.Property(m => m.OverWhite).HasMaxLength(7);
        row.Property(m => m.Hazards).HasMaxLength(500);
        row.Property(m => m.Notes).HasMaxLength(1000);
        row.Property(m => m.Thinners).HasColumnType("text[]").HasConversion(
            v => v.Select(f => EnumWords.Of(f)).ToArray(),
            v => v.Select(w => EnumWords.Read<ThinnerFamily>(w)!.Value).ToArray(),
            new ValueComparer<ThinnerFamily[]>(
                (a, b) => a!.SequenceEqual(b!),
                v => v.Aggregate(0, HashCode.Combine),
                v => v.ToArray()));
        row.HasIndex(m => new { m.WorkshopId, m.Maker, m.Name }).IsUnique().HasFilter("put_away_at is null");
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(m => m.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasRowVersion(m => m.Version);
    }
}
