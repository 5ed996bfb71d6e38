using Lowfell.Store.Rows;

namespace Lowfell.Server.Devices;

/// <summary>A device that was taken in, or an instrument; SentAwayAt is set once it was sent away.</summary>
public sealed record DeviceEntry(Guid Id, string Name, DeviceRole Role, DateTimeOffset PairedAt, DateTimeOffset? SeenAt, DateTimeOffset? SentAwayAt);

/// <summary>
/// Other devices. Addresses are those of this machine that the door can be opened at; OpenAt is where it is open, empty while it is shut, and
/// Trouble why it is not open though it should be. RestoredAt is when a backup was restored that shut the door and sent everybody away.
/// </summary>
public sealed record DevicesReading(Guid WorkshopId, IReadOnlyList<string> Addresses, int UsualPort, string OpenAt, string Trouble, AuthorityReading Authority, DateTimeOffset? RestoredAt, IReadOnlyList<DeviceEntry> Devices);

/// <summary>The workshop's own authority: Fingerprint is the SHA-256 of its certificate, empty where that cannot be read; Trouble why devices may not get in by it.</summary>
public sealed record AuthorityReading(string Fingerprint, DateTimeOffset MadeAt, DateTimeOffset? GoodUntil, string Trouble);

public sealed record AuthorityTold(Guid WorkshopId, DateTimeOffset MadeAt);

/// <summary>Where the door is to be opened.</summary>
public sealed record DoorIn(string? Address, int? Port);

public sealed record DoorTold(Guid WorkshopId, string OpenAt);

/// <summary>What the device that is to be taken in may do.</summary>
public sealed record PairingKeyIn(DeviceRole? Role);

/// <summary>
/// A key that one device can be taken in with, once, until GoodUntil. Address is what the device opens, with the key behind the hash, empty
/// while the door is shut; Modules is the same as a square of dark (1) and light (0).
/// </summary>
public sealed record PairingKey(Guid WorkshopId, string Key, DeviceRole Role, DateTimeOffset GoodUntil, string Address, IReadOnlyList<string> Modules);

public sealed record KeyTold(Guid WorkshopId, Guid Id, DeviceRole Role, DateTimeOffset GoodUntil, string At);

/// <summary>A device asks to be taken in: the key it was shown, a name, and the secret it has made up and will show from then on.</summary>
public sealed record PairIn(string? Key, string? Name, string? Secret);

/// <summary>It is taken in.</summary>
public sealed record Paired(Guid DeviceId, Guid WorkshopId, DeviceRole Role);

public sealed record SentAway(Guid WorkshopId, Guid DeviceId);
