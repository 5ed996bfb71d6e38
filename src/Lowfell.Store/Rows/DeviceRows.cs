namespace Lowfell.Store.Rows;

/// <summary>What another device may do here.</summary>
public enum DeviceRole
{
    /// <summary>See the bench.</summary>
    Look,

    /// <summary>See the bench, tell what happens there, and take photographs.</summary>
    Work,

    /// <summary>An instrument: it sends readings and sees nothing.</summary>
    Measure,
}

/// <summary>The workshop's own authority, by whose certificates other devices know it. One row.</summary>
public sealed class AuthorityRow
{
    public short Id { get; init; } = 1;

    /// <summary>Its certificate (DER), and its key (PKCS #8) sealed by a secret that is not in the database.</summary>
    public required byte[] Certificate { get; set; }
    public required byte[] SealedKey { get; set; }
    public DateTimeOffset MadeAt { get; set; }
}

/// <summary>Where other devices come in, encrypted; there is no row while nobody may. One row.</summary>
public sealed class DoorRow
{
    public short Id { get; init; } = 1;
    public required string Address { get; set; }
    public int Port { get; set; }
    public DateTimeOffset OpenedAt { get; set; }
}

/// <summary>What a device shows once to be taken in.</summary>
public sealed class PairingKeyRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }

    /// <summary>SHA-256 of the key; the key itself stands in the receipt of the write that made it, and is worthless after five minutes.</summary>
    public required byte[] KeyHash { get; init; }
    public DeviceRole Role { get; init; }
    public DateTimeOffset MadeAt { get; init; }
    public DateTimeOffset GoodUntil { get; init; }

    /// <summary>The device that used it up.</summary>
    public Guid? DeviceId { get; set; }
}

/// <summary>A device that was taken in, until it is sent away.</summary>
public sealed class PairedDeviceRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; init; }
    public DeviceRole Role { get; init; }

    /// <summary>SHA-256 of what the device shows with every request.</summary>
    public required byte[] TokenHash { get; init; }
    public DateTimeOffset PairedAt { get; init; }
    public DateTimeOffset? SeenAt { get; set; }
    public DateTimeOffset? SentAwayAt { get; set; }

    /// <summary>Why a reading of an instrument was not believed, and when that was last.</summary>
    public string Trouble { get; set; } = "";
    public DateTimeOffset? TroubleAt { get; set; }
}

/// <summary>What an instrument said: the air, or a weight.</summary>
public sealed class ReadingRow
{
    public long Id { get; init; }
    public Guid WorkshopId { get; init; }
    public Guid DeviceId { get; init; }
    public DateTimeOffset At { get; init; }
    public double? TemperatureC { get; init; }
    public double? RelativeHumidity { get; init; }
    public double? Grams { get; init; }
}
