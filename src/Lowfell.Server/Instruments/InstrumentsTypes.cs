namespace Lowfell.Server.Instruments;

/// <summary>One reading: the air (Celsius, and relative humidity 0..1, both), or a weight in grams. At is the instrument's clock, now where it is left out.</summary>
public sealed record ReadingIn(DateTimeOffset? At = null, double? TemperatureC = null, double? RelativeHumidity = null, double? Grams = null);

/// <summary>What an instrument has to say, the oldest first.</summary>
public sealed record ReadingsIn(IReadOnlyList<ReadingIn?>? Readings);

/// <summary>How many readings were believed and how many not, and why the last of those was not.</summary>
public sealed record ReadingsTold(Guid WorkshopId, int Taken, int Refused, string Why);

/// <summary>The air as it counts now: Celsius, relative humidity 0..1; By is the instrument that measured it, empty where it is as typed.</summary>
public sealed record Air(double TemperatureC, double RelativeHumidity, string By, DateTimeOffset? At);

/// <summary>What lies on the scale, grams; at rest when it no longer moves.</summary>
public sealed record OnScale(double Grams, bool AtRest, string By, DateTimeOffset At);

/// <summary>An instrument that fell silent or sends nonsense, in words.</summary>
public sealed record InstrumentTrouble(Guid DeviceId, string Name, string Says, DateTimeOffset At);

/// <summary>The instruments of a workshop as they are now; without any, the air as it was typed and nothing else.</summary>
public sealed record InstrumentsReading(Guid WorkshopId, DateTimeOffset Now, Air Air, OnScale? Scale, IReadOnlyList<InstrumentTrouble> Troubles);

/// <summary>One material of a mix that is poured onto the scale; grams of it that were poured so far.</summary>
public sealed record PouredIn(Guid? MaterialId, double? Parts, double? Grams);

/// <summary>What is poured, and how much of the mix is wanted, ml.</summary>
public sealed record PourIn(IReadOnlyList<PouredIn?>? Parts, double? Ml);

/// <summary>What was poured of one material: ml and drops of its own bottle, by its density; usual where nothing is known of it.</summary>
public sealed record PouredPart(Guid MaterialId, double Ml, double Drops, bool UsualDensity);

/// <summary>What to pour next: so many more drops of a material, none when it is as near as drops bring it. Off is how far the farthest part is from its share, 0.03 is 3 %.</summary>
public sealed record PourSays(Guid? NextId, int Drops, double Off, IReadOnlyList<PouredPart> Poured);
