using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class AuthorityMapping : IEntityTypeConfiguration<AuthorityRow>
{
    public void Configure(EntityTypeBuilder<AuthorityRow> row)
    {
        row.ToTable("authorities", t => t.HasCheckConstraint("ck_authorities_one", "id = 1"));
        row.Property(a => a.Id).ValueGeneratedNever();
    }
}

internal sealed class DoorMapping : IEntityTypeConfiguration<DoorRow>
{
    public void Configure(EntityTypeBuilder<DoorRow> row)
    {
        row.ToTable("doors", t => t.HasCheckConstraint("ck_doors_one", "id = 1 and port between 1 and 65535"));
        row.Property(d => d.Id).ValueGeneratedNever();
        row.Property(d => d.Address).HasMaxLength(60);
    }
}

internal sealed class PairingKeyMapping : IEntityTypeConfiguration<PairingKeyRow>
{
    public void Configure(EntityTypeBuilder<PairingKeyRow> row)
    {
        row.ToTable("pairing_keys", t => t.HasCheckConstraint("ck_pairing_keys_good_until", "good_until > made_at and length(key_hash) = 32"));
        row.Property(k => k.Id).ValueGeneratedNever();
        row.HasIndex(k => k.KeyHash).IsUnique();
        row.HasIndex(k => k.DeviceId).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(k => k.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<PairedDeviceRow>().WithMany().HasForeignKey(k => k.DeviceId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class PairedDeviceMapping : IEntityTypeConfiguration<PairedDeviceRow>
{
    public void Configure(EntityTypeBuilder<PairedDeviceRow> row)
    {
        row.ToTable("paired_devices", t => t.HasCheckConstraint("ck_paired_devices_token_hash", "length(token_hash) = 32"));
        row.Property(d => d.Id).ValueGeneratedNever();
        row.Property(d => d.Name).HasMaxLength(60);
        row.Property(d => d.Trouble).HasMaxLength(200);
        row.HasIndex(d => d.TokenHash).IsUnique();
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(d => d.WorkshopId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class ReadingMapping : IEntityTypeConfiguration<ReadingRow>
{
    public void Configure(EntityTypeBuilder<ReadingRow> row)
    {
        row.ToTable("readings", t => t.HasCheckConstraint(
            "ck_readings_one_thing",
            "(grams is null) = (temperature_c is not null) and (temperature_c is null) = (relative_humidity is null) and relative_humidity between 0 and 1 and temperature_c between -10 and 45 and abs(coalesce(grams, 0)) <= 5000"));
        row.HasIndex(r => new { r.WorkshopId, r.At });
        row.HasIndex(r => new { r.DeviceId, r.At });
        row.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.WorkshopId).OnDelete(DeleteBehavior.Cascade);
        row.HasOne<PairedDeviceRow>().WithMany().HasForeignKey(r => r.DeviceId).OnDelete(DeleteBehavior.Cascade);
    }
}
