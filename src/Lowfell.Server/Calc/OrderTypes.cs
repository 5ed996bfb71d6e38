using System.Text.Json;
using System.Text.Json.Serialization;
using Lowfell.Core.Order;

namespace Lowfell.Server.Calc;

/// <summary>
/// A material written out. Everything but the kind may be left out: carrier, colour, sheen and dry times then are the usual ones of
/// its kind. Colours are #rrggbb; <c>colour</c> is the masstone, or one film over white for transparent kinds.
/// </summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderMaterialIn(
    string? Name, string? Kind, string? Carrier, string? Colour, string? OverBlack, string? OverWhite, double? CoatsToHide, string? Sheen, string? Lustre,
    IReadOnlyList<string?>? Thinners, double? TouchMinutes, double? RecoatMinutes, double? CureMinutes, double? MostThinnerShare);

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderPartIn(OrderMaterialIn? Material, double? Parts);

/// <summary>
/// One layer. Give <c>material</c> or <c>mix</c>, or neither for work without material; <c>dilution</c> is "2:1" or {"paint":2,"thinner":1,"with":"water"},
/// paint first; <c>thinner</c> says what it is thinned with where that is not its own. Waits are those after the layer; left out, it waits as long as it takes. <c>downTo</c> is the number, from 1, of the lowest layer that one which takes away may take. <c>varied</c> says that a plan lays it differently on every piece.
/// </summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderLayerIn(
    string? Technique, OrderMaterialIn? Material, IReadOnlyList<OrderPartIn?>? Mix, JsonElement? Dilution, int? Coats, string? Region, double? Strength, string? Tool,
    string? Drying, double? WaitHours, double? WaitMinutes, double? MarkMm, bool? Varied, string? Note, OrderMaterialIn? Thinner = null,
    int? DownTo = null, int? Details = null, bool? Fades = null, string? Preparation = null);

/// <summary>A zone: lengths mm, area cm2; <c>orientation</c> is "up", "side", "down" or {"up":0.5,"side":0.5,"down":0}.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderZoneIn(
    string? Name, double? AreaCm2, string? Relief, JsonElement? Orientation, string? Handling, double? EdgeMm, double? JointMm, double? SmallestDetailMm, string? TargetSheen,
    bool? CutEdge, bool? BeforeAssembly, bool? AtRim);

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderSetIn(int? Scale, string? Sheen, double? Metres, int? Pieces, string? Handling = null);

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderClimateIn(double? TemperatureC, double? RelativeHumidity, bool? AirMoves = null);

/// <summary>A touching zone, with whether it is finished before the zone in question is painted.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderNeighbourIn(string? Name, OrderZoneIn? Zone, IReadOnlyList<OrderLayerIn?>? Layers, bool? FinishedFirst);

/// <summary>A pot that one layer (counted from 0 at the bottom) is laid from on some pieces.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderPotIn(int? Layer, string? Label, OrderMaterialIn? Material, IReadOnlyList<OrderPartIn?>? Mix, JsonElement? Dilution, IReadOnlyList<string?>? Pieces);

/// <summary>
/// A stack to check, layers bottom first. House rules go by school, in their words; spaces, hyphens and capitals count alike in every word.
/// <c>laid</c> layers are on the piece already, the last of them <c>minutesSinceLast</c> ago. Remedies draw on <c>shelf</c> and on plain materials.
/// </summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OrderIn(
    string? Substrate, OrderZoneIn? Zone, OrderSetIn? Set, OrderClimateIn? Climate, IReadOnlyDictionary<string, string?>? HouseRules, IReadOnlyList<OrderLayerIn?>? Layers,
    IReadOnlyList<OrderNeighbourIn?>? Neighbours, IReadOnlyList<OrderPotIn?>? Pots, IReadOnlyList<OrderMaterialIn?>? Shelf, int? Laid, double? MinutesSinceLast);

public sealed record OrderRemedyOut(string Id, string Text);

/// <summary>A finding; layers count from 0 at the bottom, the first is the one it hangs on.</summary>
public sealed record OrderFindingOut(string Rule, Severity Severity, IReadOnlyList<int> Layers, string Title, string Why, IReadOnlyList<OrderRemedyOut> Remedies);

public sealed record OrderOut(IReadOnlyList<OrderFindingOut> Findings);
