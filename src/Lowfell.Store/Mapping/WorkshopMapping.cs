using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal static class RowVersion
{
    /// <summary>PostgreSQL's own row version guards every edit.</summary>
    public static void HasRowVersion<T>(this EntityTypeBuilder<T> row, System.Linq.Expressions.Expression<Func<T, uint>> version) where T : class =>
        row.Property(version).HasColumnName("xmin").HasColumnType("xid").IsRowVersion();
}

internal sealed class WorkshopMapping : IEntityTypeConfiguration<WorkshopRow>
{
    public void Configure(EntityTypeBuilder<WorkshopRow> row)
    {
        row.ToTable("workshops", t =>
        {
            t.HasCheckConstraint("ck_workshops_temperature", "temperature_c between -10 and 45");
            t.HasCheckConstraint("ck_workshops_humidity", "relative_humidity between 0 and 1");
            t.HasCheckConstraint("ck_workshops_table_metres", "table_metres between 0.1 and 10");
            t.HasCheckConstraint("ck_workshops_drying_places", "drying_places between 1 and 500");
            t.HasCheckConstraint("ck_workshops_painters", "cardinality(painters) <= 4");
        });
        row.Property(w => w.Name).HasMaxLength(120);
        row.Property(w => w.Currency).HasMaxLength(8).HasDefaultValue("");
        row.Property(w => w.TableMetres).HasDefaultValue(0.9m);
        row.Property(w => w.Handling).HasDefaultValue(Handling.Careful);
        row.Property(w => w.TargetSheen).HasDefaultValue(Sheen.Matt);
        row.Property(w => w.TimeZone).HasMaxLength(60).HasDefaultValue("UTC");
        row.Property(w => w.Hours).HasMaxLength(400).HasDefaultValue("");
        row.Property(w => w.Paces).HasColumnType("jsonb").HasDefaultValueSql("'{}'");
        row.Property(w => w.Painters).HasDefaultValueSql("'{}'");
        row.ComplexProperty(w => w.HouseRules);
        row.HasRowVersion(w => w.Version);
        row.HasMany(w => w.Sets).WithOne().HasForeignKey(s => s.WorkshopId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class SetMapping : IEntityTypeConfiguration<SetRow>
{
    public void Configure(EntityTypeBuilder<SetRow> row)
    {
        row.ToTable("sets", t =>
        {
            t.HasCheckConstraint("ck_sets_scale", "scale between 1 and 1000");
            t.HasCheckConstraint("ck_sets_table_metres", "table_metres between 0.1 and 10");
            t.HasCheckConstraint("ck_sets_reserve", "reserve_ml between 0 and 100");
        });
        row.Property(s => s.Name).HasMaxLength(120);
        row.HasIndex(s => new { s.WorkshopId, s.Name }).IsUnique().HasFilter("put_away_at is null");
        row.HasRowVersion(s => s.Version);
        row.HasMany(s => s.Designs).WithOne().HasForeignKey(d => d.SetId).OnDelete(DeleteBehavior.Restrict);
    }
}
