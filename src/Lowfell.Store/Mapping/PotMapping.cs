using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class PotMapping : IEntityTypeConfiguration<PotRow>
{
    public void Configure(EntityTypeBuilder<PotRow> row)
    {
        row.ToTable("pots", t => t.HasCheckConstraint("ck_pots_life", "life_began_at <= good_until"));
        row.Property(p => p.Id).ValueGeneratedNever();
        row.Property(p => p.Label).HasMaxLength(80);
        row.Property(p => p.RecipeKey).HasMaxLength(600);
        row.Property(p => p.Note).HasMaxLength(500);
        row.HasIndex(p => new { p.WorkshopId, p.Label }).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.WorkshopId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(p => p.Contents).WithOne().HasForeignKey(c => c.PotId).OnDelete(DeleteBehavior.Cascade);
        row.HasMany(p => p.Events).WithOne().HasForeignKey(e => e.PotId).OnDelete(DeleteBehavior.Cascade);
        row.HasRowVersion(p => p.Version);
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

internal sealed class PotEventMapping : IEntityTypeConfiguration<PotEventRow>
{
    public void Configure(EntityTypeBuilder<PotEventRow> row)
    {
        row.ToTable("pot_events", t =>
        {
            t.HasCheckConstraint("ck_pot_events_given", "(kind = 'given') = (zone_id is not null)");
            t.HasCheckConstraint("ck_pot_events_undoes", "(kind = 'taken back') = (undoes_id is not null)");
            t.HasCheckConstraint("ck_pot_events_other", "other_pot_id is null or other_pot_id <> pot_id");
        });
        row.Property(e => e.Id).ValueGeneratedNever();
        row.Property(e => e.Note).HasMaxLength(500);
        row.HasIndex(e => new { e.PotId, e.At });
        row.HasIndex(e => e.UndoesId).IsUnique();
        row.HasIndex(e => e.ZoneId);
        row.HasOne<PotRow>().WithMany().HasForeignKey(e => e.OtherPotId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<PotEventRow>().WithMany().HasForeignKey(e => e.UndoesId).OnDelete(DeleteBehavior.Restrict);
        row.HasOne<ZoneRow>().WithMany().HasForeignKey(e => e.ZoneId).OnDelete(DeleteBehavior.Restrict);
        row.HasMany(e => e.Amounts).WithOne().HasForeignKey(a => a.EventId).OnDelete(DeleteBehavior.Cascade);
        row.HasMany(e => e.Pieces).WithOne().HasForeignKey(p => p.EventId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class PotEventAmountMapping : IEntityTypeConfiguration<PotEventAmountRow>
{
    public void Configure(EntityTypeBuilder<PotEventAmountRow> row)
    {
        row.ToTable("pot_event_amounts", t =>
        {
            t.HasCheckConstraint("ck_pot_event_amounts_ml", "ml <> 0");
            t.HasCheckConstraint("ck_pot_event_amounts_drops", "drops > 0");
        });
        row.HasKey(a => new { a.EventId, a.MaterialId });
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(a => a.MaterialId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class PotEventPieceMapping : IEntityTypeConfiguration<PotEventPieceRow>
{
    public void Configure(EntityTypeBuilder<PotEventPieceRow> row)
    {
        row.ToTable("pot_event_pieces");
        row.HasKey(p => new { p.EventId, p.PieceId });
        row.HasIndex(p => p.PieceId);
        row.HasOne<PieceRow>().WithMany().HasForeignKey(p => p.PieceId).OnDelete(DeleteBehavior.Restrict);
    }
}
