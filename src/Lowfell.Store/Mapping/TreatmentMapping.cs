using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class TreatmentMapping : IEntityTypeConfiguration<TreatmentRow>
{
    public void Configure(EntityTypeBuilder<TreatmentRow> row)
    {
        // That the newest revision is one there is stands in the migration, deferred: a treatment and its first revision come together.
        row.ToTable("treatments");
        row.Property(t => t.Name).HasMaxLength(120);
        row.HasRowVersion(t => t.Version);
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(t => t.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<TreatmentRow>().WithMany().HasForeignKey(t => t.CameFromId).OnDelete(DeleteBehavior.Restrict);
        row.Ignore(t => t.Layers);
        row.Ignore(t => t.Surfaces);
    }
}

internal sealed class TreatmentRevisionMapping : IEntityTypeConfiguration<TreatmentRevisionRow>
{
    public void Configure(EntityTypeBuilder<TreatmentRevisionRow> row)
    {
        row.ToTable("treatment_revisions", t => t.HasCheckConstraint("ck_treatment_revisions_number", "number > 0"));
        row.HasKey(r => new { r.TreatmentId, r.Number });
        row.Property(r => r.Actor).HasMaxLength(60);
        row.HasOne<TreatmentRow>().WithMany().HasForeignKey(r => r.TreatmentId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(r => r.Layers).WithOne().HasForeignKey(l => new { l.TreatmentId, l.Revision }).OnDelete(DeleteBehavior.Restrict);

        // That the revision whose surfaces it has is one there is stands in the migration: the first refers to itself.
    }
}

internal sealed class SurfaceMapping : IEntityTypeConfiguration<SurfaceRow>
{
    public void Configure(EntityTypeBuilder<SurfaceRow> row)
    {
        row.ToTable("surfaces");
        row.Property(s => s.Id).ValueGeneratedNever();
        row.HasAlternateKey(s => new { s.TreatmentId, s.Id });
        row.HasOne<TreatmentRow>().WithMany().HasForeignKey(s => s.TreatmentId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class RevisionSurfaceMapping : IEntityTypeConfiguration<RevisionSurfaceRow>
{
    public void Configure(EntityTypeBuilder<RevisionSurfaceRow> row)
    {
        row.ToTable("revision_surfaces", t =>
        {
            t.HasCheckConstraint("ck_revision_surfaces_position", "position >= 0 and position < 120");
            t.HasCheckConstraint("ck_revision_surfaces_on", "on_id is null or on_id <> surface_id");
        });
        row.HasKey(s => new { s.TreatmentId, s.Revision, s.Position });
        row.HasIndex(s => new { s.TreatmentId, s.Revision, s.SurfaceId }).IsUnique();
        row.Property(s => s.Name).HasMaxLength(120);
        row.HasOne<TreatmentRevisionRow>().WithMany().HasForeignKey(s => new { s.TreatmentId, s.Revision }).OnDelete(DeleteBehavior.Restrict);

        // A revision has surfaces of its own treatment only, and a detail stands on one of them.
        row.HasOne<SurfaceRow>().WithMany().HasForeignKey(s => new { s.TreatmentId, s.SurfaceId }).HasPrincipalKey(s => new { s.TreatmentId, s.Id }).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<SurfaceRow>().WithMany().HasForeignKey(s => new { s.TreatmentId, s.OnId }).HasPrincipalKey(s => new { s.TreatmentId, s.Id }).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class VersionNameMapping : IEntityTypeConfiguration<VersionNameRow>
{
    public void Configure(EntityTypeBuilder<VersionNameRow> row)
    {
        row.ToTable("version_names");
        row.HasKey(n => new { n.TreatmentId, n.Number });
        row.Property(n => n.Name).HasMaxLength(120);
        row.HasOne<TreatmentRevisionRow>().WithMany().HasForeignKey(n => new { n.TreatmentId, n.Number }).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class RevisionLayerMapping : IEntityTypeConfiguration<RevisionLayerRow>
{
    public void Configure(EntityTypeBuilder<RevisionLayerRow> row)
    {
        row.ToTable("revision_layers", t => t.HasCheckConstraint("ck_revision_layers_position", "position >= 0 and position < 400"));
        row.HasKey(l => new { l.TreatmentId, l.Revision, l.Position });
        row.HasIndex(l => new { l.TreatmentId, l.Revision, l.LayerId }).IsUnique();
        row.HasIndex(l => l.LayerId);

        // A revision has layers of its own treatment only.
        row.HasOne<LayerRow>().WithMany().HasForeignKey(l => new { l.TreatmentId, l.LayerId }).HasPrincipalKey(l => new { l.TreatmentId, l.Id }).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class LayerMapping : IEntityTypeConfiguration<LayerRow>
{
    public void Configure(EntityTypeBuilder<LayerRow> row)
    {
        row.ToTable("layers", t =>
        {
            t.HasCheckConstraint("ck_layers_paint", "material_id is null or mix_id is null");
            t.HasCheckConstraint("ck_layers_dilution", "(thinner_id is null) = (paint_parts is null) and (thinner_id is null) = (thinner_parts is null)");
            t.HasCheckConstraint("ck_layers_parts", "paint_parts > 0 and thinner_parts > 0");
            t.HasCheckConstraint("ck_layers_wait", "wait_minutes between 0 and 43200");
            FiguresMapping.Check(t, "layers");
        });
        row.Property(l => l.Id).ValueGeneratedNever();
        row.Property(l => l.Note).HasMaxLength(500);
        row.HasIndex(l => l.StepId);
        row.HasMany(l => l.Over).WithOne().HasForeignKey(o => new { o.TreatmentId, o.LayerId }).HasPrincipalKey(l => new { l.TreatmentId, l.Id }).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<TreatmentRow>().WithMany().HasForeignKey(l => l.TreatmentId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(l => l.MaterialId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(l => l.ThinnerId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne(l => l.Mix).WithMany().HasForeignKey(l => l.MixId).OnDelete(DeleteBehavior.Restrict);
    }
}

/// <summary>What figures of a layer may be, wherever they stand.</summary>
internal static class FiguresMapping
{
    public static void Check<T>(TableBuilder<T> table, string of) where T : class, ILayerFigures
    {
        table.HasCheckConstraint($"ck_{of}_coats", "coats between 1 and 20");
        table.HasCheckConstraint($"ck_{of}_strength", "strength between 0 and 3");
        table.HasCheckConstraint($"ck_{of}_mark", "mark_mm > 0 and mark_mm <= 200");
        table.HasCheckConstraint($"ck_{of}_variation", "variation_mm between 0.3 and 200 and variation_marks between 0.2 and 5 and variation_spread between 0 and 1");
        table.HasCheckConstraint($"ck_{of}_variation_seed", "variation_seed is not null or (variation_habit is null and variation_mm is null and variation_marks is null and variation_spread is null and variation_dealt is null)");
        table.HasCheckConstraint($"ck_{of}_details", "details > 0 and details <= 1000");
    }
}

internal sealed class LayerSurfaceMapping : IEntityTypeConfiguration<LayerSurfaceRow>
{
    public void Configure(EntityTypeBuilder<LayerSurfaceRow> row)
    {
        row.ToTable("layer_surfaces", t =>
        {
            t.HasCheckConstraint("ck_layer_surfaces_differs", "differs between 0 and 255");
            FiguresMapping.Check(t, "layer_surfaces");
        });
        row.HasKey(l => new { l.LayerId, l.SurfaceId });
        row.HasIndex(l => new { l.LayerId, l.LineId }).IsUnique();
        row.HasIndex(l => l.LineId);
        row.HasOne<SurfaceRow>().WithMany().HasForeignKey(l => new { l.TreatmentId, l.SurfaceId }).HasPrincipalKey(s => new { s.TreatmentId, s.Id }).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class MixMapping : IEntityTypeConfiguration<MixRow>
{
    public void Configure(EntityTypeBuilder<MixRow> row)
    {
        row.ToTable("mixes");
        row.Property(m => m.Name).HasMaxLength(400);
        row.Property(m => m.RecipeKey).HasMaxLength(600);
        row.HasIndex(m => new { m.WorkshopId, m.RecipeKey }).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(m => m.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(m => m.Components).WithOne().HasForeignKey(c => c.MixId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class MixComponentMapping : IEntityTypeConfiguration<MixComponentRow>
{
    public void Configure(EntityTypeBuilder<MixComponentRow> row)
    {
        row.ToTable("mix_components", t => t.HasCheckConstraint("ck_mix_components_parts", "parts > 0"));
        row.HasKey(c => new { c.MixId, c.MaterialId });
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(c => c.MaterialId).OnDelete(DeleteBehavior.Restrict);
    }
}
