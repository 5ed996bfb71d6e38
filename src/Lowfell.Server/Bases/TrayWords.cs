using System.Text.Json;
using System.Text.Json.Serialization;
using Lowfell.Core.Bases;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Bases;

/// <summary>A wish for the bases of a design that was read.</summary>
internal sealed record Tray(SetGraph Graph, DesignRow Design, BaseWishDto Asked, BaseWish Wish);

/// <summary>Reads what bases are wanted, and what a hand did to one.</summary>
internal static class TrayWords
{
    private const int MostFlats = 8, MostTextures = 6, MostElements = 60, MostColumns = 12;
    private const decimal MostOfAKind = 12;

    private static readonly JsonSerializerOptions json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(new WordsPolicy(), allowIntegerValues: false) } };

    public static string Write(TrayBody body) => JsonSerializer.Serialize(body, json);

    /// <summary>What is kept; null where it is nothing that a tray has: it may have come in a file.</summary>
    public static TrayBody? Body(BasePlanRow? row)
    {
        try
        {
            return row is not null && JsonSerializer.Deserialize<TrayBody>(row.Body, json) is { Wish.Textures: not null, Hand: not null } body && body.Hand.Values.All(h => h is not null && h.All(e => e is not null)) ? body : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>A wish; null with every fault named.</summary>
    public static Tray? Read(SetGraph graph, DesignRow design, BaseWishDto? wish, Faults faults)
    {
        if (wish?.Shape is null || wish.Textures is not { Count: > 0 })
        {
            faults.Require(wish?.Shape is not null, "wish.shape", "Say what shape the bases have.");
            faults.Require(wish?.Textures is { Count: > 0 }, "wish.textures", "Say what the top is made of; one texture at least.");
            return null;
        }

        faults.Range(wish.Seed, "wish.seed", 1, 1_000_000);
        faults.Range(wish.Shape.WidthMm, "wish.shape.widthMm", (decimal)BaseShape.LeastMm, (decimal)BaseShape.MostMm);
        faults.Range(wish.Shape.HeightMm, "wish.shape.heightMm", (decimal)BaseShape.LeastMm, (decimal)BaseShape.MostMm);
        faults.Range(wish.MarginMm, "wish.marginMm", 0, 20);
        faults.Range(wish.Spread, "wish.spread", 0, 1);
        faults.Range(wish.Columns, "wish.columns", 1, MostColumns);
        foreach (var (count, name) in new[] { (wish.Rocks, "rocks"), (wish.Tufts, "tufts"), (wish.Reeds, "reeds"), (wish.Planks, "planks"), (wish.Cork, "cork") })
            faults.Range(count, $"wish.{name}", 0, MostOfAKind);
        faults.Require(wish.Textures.Count <= MostTextures && wish.Textures.All(t => t is not null), "wish.textures", $"From one to {MostTextures} textures.");
        var flats = (wish.Flats ?? []).OfType<FlatDto>().ToList();
        faults.Require(flats.Count <= MostFlats, "wish.flats", $"At most {MostFlats} flats.");
        if (faults.Any)
            return null;
        var (textures, zones) = (wish.Textures.OfType<TextureDto>().ToList(), design.Zones.Select(z => z.Id).ToHashSet());
        for (var i = 0; i < textures.Count; i++)
        {
            faults.Range(textures[i].Share, $"wish.textures[{i}].share", 0, 1);
            faults.Require(textures[i].ZoneId is not { } zone || zones.Contains(zone), $"wish.textures[{i}].zoneId", "Choose a zone of this design.");
        }

        faults.Require(textures.SkipLast(1).Sum(t => t.Share) < 1, "wish.textures", "Nothing is left for the ground: give the others less than all of it.");
        faults.Require(textures.Count(t => t.Place == TexturePlace.Path) <= 1 && textures.Count(t => t.Place == TexturePlace.Puddle) <= 1, "wish.textures", "One path and one puddle are the most.");
        var shape = new BaseShape(wish.Shape.Outline, (double)wish.Shape.WidthMm, (double)wish.Shape.HeightMm);
        for (var i = 0; i < flats.Count; i++)
        {
            faults.Range(flats[i].WidthMm, $"wish.flats[{i}].widthMm", 0.5m, 300);
            faults.Range(flats[i].HeightMm, $"wish.flats[{i}].heightMm", 0.5m, 300);
            faults.Require(shape.Has((double)flats[i].X, (double)flats[i].Y), $"wish.flats[{i}]", $"Flat {i + 1} does not stand on the base. Bring it nearer to the middle.");
        }

        if (faults.Any)
            return null;
        var margin = wish.MarginMm is { } said ? (double)said : shape.Outline == Outline.Tile ? 0 : BaseWish.MarginFor(graph.Set.Handling);
        faults.Require(margin < shape.ReachMm / 2, "wish.marginMm", "The rim takes more than half of the base. Make it narrower.");
        return faults.Any ? null : new Tray(graph, design, wish, new BaseWish(
            shape, margin, flats.Select(f => new Flat(f.Kind, (double)f.X, (double)f.Y, (double)f.WidthMm, (double)f.HeightMm, (double)f.Turn)).ToList(),
            textures.Select(t => new Texture(t.Place, (double)t.Share)).ToList(), (double)wish.Rocks, (double)wish.Tufts, (double)wish.Reeds, (double)wish.Planks, (double)wish.Cork, (double)wish.Spread, wish.Columns));
    }

    /// <summary>What a hand put on a base; null with every fault named.</summary>
    public static IReadOnlyList<ElementDto>? Read(IReadOnlyList<ElementDto?> elements, BaseShape shape, Faults faults)
    {
        faults.Require(elements.Count <= MostElements, "elements", $"At most {MostElements} things on one base.");
        faults.Require(elements.All(e => e is not null), "elements", "Something is missing here.");
        if (faults.Any)
            return null;
        var most = (decimal)BaseShape.MostMm;
        for (var i = 0; i < elements.Count; i++)
        {
            var e = elements[i]!;
            faults.Range(e.RadiusMm, $"elements[{i}].radiusMm", 0.1m, most / 2);
            faults.Range(e.LengthMm, $"elements[{i}].lengthMm", 0, most);
            faults.Range(e.X, $"elements[{i}].x", -most, most);
            faults.Range(e.Y, $"elements[{i}].y", -most, most);
            faults.Range(e.Turn, $"elements[{i}].turn", -360, 360);
        }

        return faults.Any ? null : elements.Select(e => e! with { X = Math.Round(e!.X, 2), Y = Math.Round(e.Y, 2), RadiusMm = Math.Round(e.RadiusMm, 2), LengthMm = Math.Round(e.LengthMm, 2), Turn = Math.Round(e.Turn) }).ToList();
    }

    public static Element ToCore(ElementDto e) => new(e.Kind, (double)e.X, (double)e.Y, (double)e.RadiusMm, (double)e.LengthMm, (double)e.Turn, e.Half);

    public static ElementDto ToDto(Element e) => new(e.Kind, (decimal)e.X, (decimal)e.Y, (decimal)e.RadiusMm, (decimal)Math.Round(e.LengthMm, 2), (decimal)e.Turn, e.Half);
}
