using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class DesignMapping : IEntityTypeConfiguration<DesignRow>
{
    public void Configure(EntityTypeBuilder<DesignRow> row)
    {
        row.ToTable("designs");
        row.Property(d => d.Name).HasMaxLength(120);
        row.HasIndex(d => new { d.SetId, d.Name }).IsUnique().HasFilter("put_away_at is null");
        row.HasRowVersion(d => d.Version);
        row.HasMany(d => d.Zones).WithOne().HasForeignKey(z => z.DesignId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(d => d.Pieces).WithOne().HasForeignKey(p => p.DesignId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class ZoneMapping : IEntityTypeConfiguration<ZoneRow>
{
    public void Configure(EntityTypeBuilder<ZoneRow> row)
    {
        row.ToTable("zones", t =>
        {
            t.HasCheckConstraint("ck_zones_area", "area_cm2 > 0 and area_cm2 <= 100000");
            t.HasCheckConstraint("ck_zones_orientation", "up_share >= 0 and side_share >= 0 and down_share >= 0 and abs(up_share + side_share + down_share - 1) < 0.001");
            t.HasCheckConstraint("ck_zones_shares", "raised_share >= 0 and field_share >= 0 and recess_share >= 0 and abs(raised_share + field_share + recess_share - 1) < 0.001");
            t.HasCheckConstraint("ck_zones_target", "(target_colour is null) = (target_position is null) and target_colour ~ '^#[0-9a-f]{6}$'");
            t.HasCheckConstraint("ck_zones_lengths", "edge_mm >= 0 and joint_mm >= 0 and smallest_detail_mm > 0");
            t.HasCheckConstraint("ck_zones_surface_sizes", "surface_length_mm > 0 and surface_height_mm > 0 and rivet_mm > 0");
            t.HasCheckConstraint("ck_zones_number", "number between 1 and 100000");
            t.HasCheckConstraint("ck_zones_face_width", "face_width_mm > 0 and face_width_mm <= 10000");
        });
        row.Property(z => z.Name).HasMaxLength(120);
        row.Property(z => z.TargetColour).HasMaxLength(7);
        row.HasIndex(z => new { z.DesignId, z.Name }).IsUnique().HasFilter("put_away_at is null");
        row.HasOne(z => z.Treatment).WithMany().HasForeignKey(z => z.TreatmentId).OnDelete(DeleteBehavior.Restrict);

        // A zone takes a surface of its own treatment.
        row.HasOne<SurfaceRow>().WithMany().HasForeignKey(z => new { z.TreatmentId, z.SurfaceId }).HasPrincipalKey(s => new { s.TreatmentId, s.Id }).OnDelete(DeleteBehavior.Restrict);
        row.HasRowVersion(z => z.Version);
    }
}

internal sealed class ZoneTouchMapping : IEntityTypeConfiguration<ZoneTouchRow>
{
    public void Configure(EntityTypeBuilder<ZoneTouchRow> row)
    {
        row.ToTable("zone_touches", t => t.HasCheckConstraint("ck_zone_touches_once", "first_zone_id < second_zone_id"));
        row.HasKey(t => new { t.FirstZoneId, t.SecondZoneId });
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(t => t.FirstZoneId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(t => t.SecondZoneId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class PieceMapping : IEntityTypeConfiguration<PieceRow>
{
    public void Configure(EntityTypeBuilder<PieceRow> row)
    {
        // Turns are given by a trigger: the next one, and of a design that has had thousands the lowest that is free.
        row.ToTable("pieces", t =>
        {
            t.HasCheckConstraint("ck_pieces_parent", "parent_id is null or parent_id <> id");
            t.HasCheckConstraint("ck_pieces_number", "number between 1 and 2000");
        });
        row.Property(p => p.Label).HasMaxLength(40);
        row.Property(p => p.RimNumber).HasMaxLength(20);
        row.HasIndex(p => new { p.DesignId, p.Label }).IsUnique().HasFilter("put_away_at is null");
        row.HasOne<PieceRow>().WithMany().HasForeignKey(p => p.ParentId).OnDelete(DeleteBehavior.Restrict);
        row.HasRowVersion(p => p.Version);
    }
}
