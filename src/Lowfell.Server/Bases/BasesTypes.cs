using Lowfell.Core.Bases;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Bases;

/// <summary>The top of a base, true size in mm.</summary>
public sealed record BaseShapeDto(Outline Outline, decimal WidthMm, decimal HeightMm);

/// <summary>What stands on a base later: its middle, size across and turn (degrees); as round as it is long and wide.</summary>
public sealed record FlatDto(FlatKind Kind, decimal X, decimal Y, decimal WidthMm, decimal HeightMm, decimal Turn = 0);

/// <summary>A texture, its share of the top (0..1), and the zone it is; the last of a list is the ground and has what is left.</summary>
public sealed record TextureDto(TexturePlace Place, decimal Share, Guid? ZoneId);

/// <summary>What is wanted on every base: counts are means. Without a margin it goes by the handling. Columns are bases in a row of the tray.</summary>
public sealed record BaseWishDto(
    int Seed, BaseShapeDto? Shape, decimal? MarginMm, IReadOnlyList<FlatDto?>? Flats, IReadOnlyList<TextureDto?>? Textures, decimal Rocks, decimal Tufts, decimal Reeds, decimal Planks, decimal Spread, int Columns, decimal Cork = 0);

/// <summary>Something on a base: its middle (from the middle of the base), radius and length in mm, turn in degrees. A half lies to the side of its turn.</summary>
public sealed record ElementDto(ElementKind Kind, decimal X, decimal Y, decimal RadiusMm, decimal LengthMm = 0, decimal Turn = 0, bool Half = false);

/// <summary>What is broken: on which elements, by how much, and where the last of them would fit.</summary>
public sealed record BrokenRule(BaseFault Fault, IReadOnlyList<int> Elements, double ByMm, string Words, double? ToX, double? ToY);

/// <summary>One base: what lies on it, and where each texture is, as a path in mm to be filled by the even-odd rule, the first one on top. Difference is that to the neighbour it is most like.</summary>
public sealed record BaseReading(Guid PieceId, string Label, IReadOnlyList<ElementDto> Elements, IReadOnlyList<string> Textures, IReadOnlyList<BrokenRule> Broken, double? Difference, bool ByHand);

/// <summary>A texture over the tray: its zone with the colours predicted near by and from the table, its area on a base as drawn and as the zone has it, cm².</summary>
public sealed record TextureReading(Guid? ZoneId, string Zone, SurfaceDto Surface, PositionsDto Shares, SeenAtPositions Near, SeenAtPositions FromTable, double DrawnCm2, double? ZoneCm2, double Ml, double Minutes);

/// <summary>How many there are over the tray, by size; the layer that sets them, where there is one, and how many that is planned to set.</summary>
public sealed record BaseCount(ElementKind Kind, int Small, int Middling, int Large, int All, string? Layer, int? Planned, string Colour);

/// <summary>A zone that a texture can be.</summary>
public sealed record BaseZone(Guid ZoneId, string Name);

/// <summary>The bases of a design, laid out. Rim is the colour of what runs round them. All colours, amounts and minutes are estimates.</summary>
public sealed record TrayReading(
    Guid SetId, Guid WorkshopId, Guid DesignId, string Design, uint? Version, BaseWishDto Wish, double MarginMm, double TableMetres, string Rim, IReadOnlyList<BaseZone> Zones, IReadOnlyList<TextureReading> Textures, IReadOnlyList<BaseCount> Counts,
    double? LeastDifference, double WantedDifference, IReadOnlyList<BaseReading> Bases);

public sealed record BasesEntry(Guid DesignId, string Name, int Pieces, bool Planned);

public sealed record BasesReading(Guid SetId, Guid WorkshopId, IReadOnlyList<BasesEntry> Designs);

/// <summary>Bases to look at.</summary>
public sealed record TrayDraft(BaseWishDto? Wish);

/// <summary>Bases to keep; without a version for the first time.</summary>
public sealed record TrayIn(uint? Version, BaseWishDto? Wish);

/// <summary>One base as a hand has it; without elements it is as it was drawn again.</summary>
public sealed record HandIn(uint? Version, Guid? PieceId, IReadOnlyList<ElementDto?>? Elements);

public sealed record TrayTold(Guid SetId, Guid DesignId);

/// <summary>What is kept: the wish, and the bases that a hand changed.</summary>
internal sealed record TrayBody(BaseWishDto Wish, IReadOnlyDictionary<Guid, IReadOnlyList<ElementDto>> Hand);
