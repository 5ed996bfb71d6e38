namespace Lowfell.Core.Mixing.Reading;

/// <summary>What a bare percentage means in this house.</summary>
public enum PercentMeaning
{
    /// <summary>Thinner's share of the whole mix: 40 % is 60 : 40.</summary>
    OfTheMix,

    /// <summary>Thinner added to 100 of paint: 40 % is 100 : 40.</summary>
    Added,
}

/// <summary>One way to read what was written: paint to thinner in the smallest whole parts, and in words.</summary>
/// <param name="Paint">Parts of paint, above 0.</param>
/// <param name="Thinner">Parts of thinner, 0 for neat.</param>
/// <param name="Says">The reading, echoed.</param>
public sealed record RatioReading(Parts Paint, Parts Thinner, string Says)
{
    /// <summary>Where what is thinned was written as several components, their parts; they add to <see cref="Paint"/>. Else empty.</summary>
    public IReadOnlyList<Parts> Components { get; init; } = [];

    /// <summary>Paint's share of the mix, 0..1.</summary>
    public double PaintShare => Paint.ShareOf(Paint + Thinner);
}

/// <summary>What was made of a text: one reading, several to choose from, or none with what to write instead.</summary>
/// <param name="Readings">Possible readings; one when the text is plain.</param>
/// <param name="Question">What to ask when there are several; empty otherwise.</param>
/// <param name="Fault">Why it could not be read and what to write; empty otherwise.</param>
/// <param name="Range">For a named consistency, how far its usual ratios reach from thick to thin; null otherwise.</param>
public sealed record DilutionReading(IReadOnlyList<RatioReading> Readings, string Question, string Fault, (RatioReading Thickest, RatioReading Thinnest)? Range = null)
{
    public bool IsAmbiguous => Readings.Count > 1;

    /// <summary>The reading, when there is just one.</summary>
    public RatioReading? Only => Readings.Count == 1 ? Readings[0] : null;
}
