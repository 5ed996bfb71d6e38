using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Materials;

namespace Lowfell.Store.Rows;

/// <summary>A product on the shelf.</summary>
public sealed class MaterialRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }
    public string Maker { get; set; } = "";
    public string Code { get; set; } = "";
    public MaterialKind Kind { get; set; }
    public Carrier Carrier { get; set; }

    /// <summary>Masstone, or one film over white for transparent kinds; null for clear ones.</summary>
    public string? Colour { get; set; }

    public string? OverBlack { get; set; }
    public string? OverWhite { get; set; }
    public decimal? CoatsToHide { get; set; }
    public Sheen Sheen { get; set; }
    public decimal SolidsFraction { get; set; } = 0.4m;
    public ThinnerFamily[] Thinners { get; set; } = [];
    public decimal? CoverageCm2PerMl { get; set; }
    public decimal TouchMinutes { get; set; }
    public decimal RecoatMinutes { get; set; }
    public decimal CureMinutes { get; set; }
    public decimal? WindowMinutes { get; set; }

    /// <summary>What looking has taught this workshop of its strength; see <see cref="CalibrationRow"/>.</summary>
    public decimal HidingFactor { get; set; } = 1;

    public decimal TintFactor { get; set; } = 1;

    /// <summary>How many looks count in it.</summary>
    public int Looks { get; set; }

    public Lustre Lustre { get; set; }

    /// <summary>The most thinner its label allows, as a share of the mix; null takes the usual of its kind.</summary>
    public decimal? MostThinnerShare { get; set; }

    /// <summary>One drop of its bottle; null when it has not been counted.</summary>
    public decimal? DropMl { get; set; }

    public decimal? DensityGPerMl { get; set; }
    public bool HeatSafe { get; set; }
    public decimal StockMl { get; set; }
    public decimal PackMl { get; set; }

    /// <summary>What a pack costs, in the workshop's currency; null when it is not known.</summary>
    public decimal? Price { get; set; }

    public string Hazards { get; set; } = "";
    public string Notes { get; set; } = "";

    /// <summary>Since when it is off the shelf; what was done with it still tells its name.</summary>
    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }

    /// <summary>What is known of its colour.</summary>
    public ColourEvidence Evidence() => new(Read(Colour), Read(OverBlack), Read(OverWhite), (double?)CoatsToHide);

    /// <summary>How much stronger than entered.</summary>
    public Strength Strength() => new((double)HidingFactor, (double)TintFactor);

    /// <summary>The material as the core sees it. Its optics are worked out at the first question and kept with it: keep the result.</summary>
    public Material ToCore()
    {
        var (evidence, kind, sheen, strength) = (Evidence(), Kind, Sheen, Strength());
        return new Material
        {
            Id = Id,
            Name = Name,
            Kind = Kind,
            Carrier = Carrier,
            Resolve = () => evidence.Resolve(kind, sheen) is var found ? found with { Optics = strength.Of(found.Optics) } : default,
            OpticsSource = evidence.Source(kind),
            Entered = (evidence.OverWhite ?? evidence.Colour)?.ToLab(),
            Looks = Looks,
            Sheen = Sheen,
            Lustre = Lustre,
            HeatSafe = HeatSafe,
            MostThinnerShare = (double?)MostThinnerShare,
            SolidsFraction = (double)SolidsFraction,
            Thinners = Thinners,
            DropMl = DropMl,
            DensityGPerMl = DensityGPerMl,
            DryTimes = new DryTimes((double)TouchMinutes, (double)RecoatMinutes, (double)CureMinutes),
        };
    }

    /// <summary>Whether another state of this row is the same to the core: stock, price and notes do not matter to it.</summary>
    public bool IsSameToCore(MaterialRow other) =>
        (Name, Kind, Carrier, Colour, OverBlack, OverWhite, CoatsToHide) == (other.Name, other.Kind, other.Carrier, other.Colour, other.OverBlack, other.OverWhite, other.CoatsToHide)
        && (Sheen, SolidsFraction, TouchMinutes, RecoatMinutes, CureMinutes, HidingFactor, TintFactor) == (other.Sheen, other.SolidsFraction, other.TouchMinutes, other.RecoatMinutes, other.CureMinutes, other.HidingFactor, other.TintFactor)
        && (Lustre, MostThinnerShare, DropMl, DensityGPerMl, HeatSafe, Looks) == (other.Lustre, other.MostThinnerShare, other.DropMl, other.DensityGPerMl, other.HeatSafe, other.Looks)
        && Thinners.SequenceEqual(other.Thinners);

    private static SrgbColour? Read(string? text) => text is null ? null : SrgbColour.Parse(text);
}
