namespace Lowfell.Core.Layers;

/// <summary>
/// Where a layer lies: the share of each position that its region takes in. A region is a place (the lower third, the upward faces), a
/// position (the raised, the recesses), or a place at one position (the edges). Colour, amounts and minutes all ask here.
/// </summary>
public static class Regions
{
    /// <summary>A line along an edge is so wide, and so much is left free along the rim of a handled base, since what lies nearer chips off, mm.</summary>
    public const double EdgeWidthMm = 2, RimMarginMm = 2;

    /// <summary>A ring around what stands on the ground; the edges that lead; one sunk line in three.</summary>
    private const double FeetShare = 0.15, LeadingShare = 0.4, LineShare = 0.3;

    /// <summary>Spots take in a tenth of a zone; some face always looks up a little.</summary>
    private const double SpotsShare = 0.1, LeastUpward = 0.05, LeastWithinRim = 0.05;

    /// <summary>1 at the positions a region takes in, 0 at the others.</summary>
    public static Split Within(Region region) => region switch
    {
        Region.Raised or Region.Edges or Region.LeadingEdges => new(1, 0, 0),
        Region.Recess or Region.RecessedLine => new(0, 0, 1),
        _ => Split.Even(1),
    };

    /// <summary>Of the positions a region takes in, the share that lies where it is: a third for the lower third.</summary>
    public static double PlaceShare(Region region, Zone zone) => region switch
    {
        Region.Upward => Math.Max(zone.Orientation.Up, LeastUpward),
        Region.LowerThird => 1.0 / 3,
        Region.Edges => zone.AreaCm2 * zone.Shares.Raised is > 0 and var raised ? Math.Min(1, zone.EdgeMm * EdgeWidthMm / (raised * 100)) : 0,
        Region.WithinRim => zone.AreaCm2 > 0 ? Math.Clamp(1 - zone.EdgeMm * RimMarginMm / (zone.AreaCm2 * 100), LeastWithinRim, 1) : 1,
        Region.Spots => SpotsShare,
        Region.AroundFeet => FeetShare,
        Region.LeadingEdges => PlaceShare(Region.Edges, zone) * LeadingShare,
        Region.OneInFour => 0.25,
        Region.RecessedLine => LineShare,
        _ => 1,
    };

    /// <summary>Share of the zone's area that a region takes in.</summary>
    public static double Share(Region region, Zone zone) => PlaceShare(region, zone) * zone.Shares.Dot(Within(region));

    /// <summary>Share of the zone's joints and edges along which a region runs.</summary>
    public static double LengthShare(Region region, Zone zone) => region switch
    {
        Region.Edges => 1,
        Region.LeadingEdges => LeadingShare,
        _ => PlaceShare(region, zone),
    };

    /// <summary>Two layers touch each other somewhere.</summary>
    public static bool Meet(Region a, Region b) => (Within(a) * Within(b)).Largest() > 0;

    /// <summary>All that lies in the second region lies in the first as well.</summary>
    public static bool Covers(Region whole, Region part) => whole == Region.All || whole == part
        || (whole == Region.Raised && part is Region.Edges or Region.LeadingEdges)
        || (whole == Region.Edges && part == Region.LeadingEdges) || (whole == Region.Recess && part == Region.RecessedLine);
}
