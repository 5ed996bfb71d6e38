using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Reading;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Calc;

/// <summary>Reads a stack written out in full into what the core checks; sensible defaults for what is left out.</summary>
internal sealed partial class OrderReader(Faults faults)
{
    private const int MostNeighbours = 12, MostShelf = 300, MostPots = 50;

    private T? Word<T>(string? text, string field) where T : struct, Enum => LooseWords.Read<T>(text, field, faults);

    public StackView? Read(OrderIn ask)
    {
        var substrate = Word<Substrate>(ask.Substrate, "substrate") ?? Substrate.PrintedPlastic;
        var layers = Layers(ask.Layers, "layers");
        faults.Require((ask.Neighbours?.Count ?? 0) <= MostNeighbours, "neighbours", $"At most {MostNeighbours} neighbours.");
        faults.Require((ask.Shelf?.Count ?? 0) <= MostShelf, "shelf", $"At most {MostShelf} materials.");
        faults.Require((ask.Pots?.Count ?? 0) <= MostPots, "pots", $"At most {MostPots} pots.");
        faults.Require(ask.Laid is null or >= 0 && (ask.Laid ?? 0) <= layers.Count, "laid", "Give how many of the layers are on the piece already.");
        Range(ask.MinutesSinceLast, "minutesSinceLast", 0, 10_000_000);
        if (faults.Any)
            return null;
        var handling = Word<Handling>(ask.Zone?.Handling, "zone.handling") ?? Word<Handling>(ask.Set?.Handling, "set.handling") ?? Handling.Careful;
        var context = new StackContext(Zone(ask.Zone, substrate, handling, "zone", layers), Set(ask.Set, handling), Rules(ask.HouseRules), ClimateOf(ask.Climate),
            [.. (ask.Shelf ?? []).Select((m, i) => MaterialOf(m, null, $"shelf[{i}]")).OfType<Material>(), .. PlainMaterials.Shelf])
        {
            Pieces = Whole(ask.Set?.Pieces, "set.pieces", 1, 10_000) ?? 1,
            Progress = new Progress(ask.Laid ?? 0, ask.MinutesSinceLast ?? 0),

            // Gates are looked for only where it is said that the piece is painted on its frame.
            LooksForGates = ask.HouseRules?.Keys.Any(k => LooseWords.Plain(k).Replace(" ", "") == "paintonframe") == true,
        };
        context = context with { Neighbours = (ask.Neighbours ?? []).Select((n, i) => Neighbour(n, i, substrate, handling, context)).OfType<Neighbour>().ToList(), Pots = Pots(ask.Pots, layers) };
        context = context with { Piece = Piece(context, layers, (ask.Neighbours ?? []).Select(n => n?.FinishedFirst ?? false).ToList()) };
        return faults.Any ? null : new StackView(context, layers);
    }

    private SetTerms Set(OrderSetIn? set, Handling handling) => new(
        Whole(set?.Scale, "set.scale", 1, 1000) ?? 56, Range(set?.Metres, "set.metres", 0.1, 100) ?? 0.9, Word<Sheen>(set?.Sheen, "set.sheen") ?? Sheen.Matt, handling);

    private Climate ClimateOf(OrderClimateIn? climate) => new(
        Range(climate?.TemperatureC, "climate.temperatureC", -10, 45) ?? 20, Range(climate?.RelativeHumidity, "climate.relativeHumidity", 0, 1) ?? 0.5, climate?.AirMoves ?? false);

    private HouseRules Rules(IReadOnlyDictionary<string, string?>? answers)
    {
        var rules = new HouseRules();
        foreach (var (name, answer) in answers ?? new Dictionary<string, string?>())
        {
            var key = LooseWords.Plain(name).Replace(" ", "");
            var question = Schools.All.FirstOrDefault(q => string.Equals(q.School.ToString(), key, StringComparison.OrdinalIgnoreCase));
            var word = answer is null ? null : question?.Answers.FirstOrDefault(a => LooseWords.Plain(a.Word) == LooseWords.Plain(answer))?.Word;
            if (question is null)
                faults.Add($"houseRules.{name}", $"No such question. There are: {string.Join(", ", Schools.All.Select(q => JsonNamingPolicy.CamelCase.ConvertName(q.School.ToString())))}.");
            else if (word is null)
                faults.Add($"houseRules.{name}", $"Answer with one of: {string.Join(", ", question.Answers.Select(a => a.Word))}.");
            else
                rules = Schools.With(rules, question.School, word)!;
        }

        return rules;
    }

    private Zone Zone(OrderZoneIn? zone, Substrate substrate, Handling handling, string at, IReadOnlyList<Layer> layers)
    {
        var area = Range(zone?.AreaCm2, $"{at}.areaCm2", 0.01, 100_000) ?? 100;
        var relief = Word<Relief>(zone?.Relief, $"{at}.relief") ?? Relief.Light;
        var thirsty = substrate is Substrate.Board or Substrate.Plaster;
        return new Zone
        {
            Name = zone?.Name is { Length: > 0 and <= 120 } name ? name : "this zone",
            AreaCm2 = area,
            Substrate = substrate,
            Relief = relief,
            Orientation = Orientation(zone?.Orientation, $"{at}.orientation"),
            Shares = Core.Layers.Zone.UsualShares(relief),
            EdgeMm = Range(zone?.EdgeMm, $"{at}.edgeMm", 0, 1_000_000) ?? (thirsty ? 0 : Math.Sqrt(area * 100) * 4),
            JointMm = Range(zone?.JointMm, $"{at}.jointMm", 0, 1_000_000) ?? area * (relief switch { Relief.Smooth => 1, Relief.Light => 3, _ => 8 }),
            SmallestDetailMm = Range(zone?.SmallestDetailMm, $"{at}.smallestDetailMm", 0.01, 1000) ?? 1,
            Handling = handling,
            TargetSheen = Word<Sheen>(zone?.TargetSheen, $"{at}.targetSheen"),

            // Where nothing is said of edges, all that can be asked of board is that something seals it.
            CutEdge = zone?.CutEdge ?? (thirsty && zone?.EdgeMm is null),
            BeforeAssembly = zone?.BeforeAssembly ?? false,
            AtRim = zone?.AtRim ?? layers.Any(l => l.Technique == Technique.Rim),
        };
    }

    private Orientation Orientation(JsonElement? given, string field)
    {
        switch (given)
        {
            case null or { ValueKind: JsonValueKind.Null or JsonValueKind.Undefined }:
                return Core.Layers.Orientation.Sideways;
            case { ValueKind: JsonValueKind.String } text:
                switch (LooseWords.Plain(text.GetString()!))
                {
                    case "up" or "upward": return new(1, 0, 0);
                    case "side" or "sides" or "sideways" or "vertical": return new(0, 1, 0);
                    case "down" or "downward": return new(0, 0, 1);
                }

                break;
            case { ValueKind: JsonValueKind.Object } shares:
                double Share(string name) => shares.TryGetProperty(name, out var v) && v.ValueKind == JsonValueKind.Number ? v.GetDouble() : 0;
                var (up, side, down) = (Share("up"), Share("side"), Share("down"));
                if (up >= 0 && side >= 0 && down >= 0 && Math.Abs(up + side + down - 1) < 0.01)
                    return new(up, side, down);
                break;
        }

        faults.Add(field, "Write up, side or down, or shares of the three that add to 1.");
        return Core.Layers.Orientation.Sideways;
    }

    private Neighbour? Neighbour(OrderNeighbourIn? neighbour, int i, Substrate substrate, Handling handling, StackContext around)
    {
        var layers = Layers(neighbour?.Layers, $"neighbours[{i}].layers");
        if (faults.Any)
            return null;
        var zone = Zone(neighbour?.Zone, substrate, handling, $"neighbours[{i}].zone", layers);
        var context = around with { Zone = zone };
        return new Neighbour(neighbour?.Name is { Length: > 0 and <= 120 } name ? name : $"neighbour {i + 1}", zone, layers, new Lazy<Seen>(() =>
        {
            var run = new StackView(context, layers).Predictions;
            return run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
        }));
    }

    /// <summary>The piece that the zone and its neighbours are taken to be all of.</summary>
    private static PieceAround Piece(StackContext context, IReadOnlyList<Layer> layers, List<bool> finished)
    {
        var ids = context.Neighbours.Select(_ => Guid.NewGuid()).ToList();
        PieceZone Of(Guid id, Zone zone, IReadOnlyList<Layer> its) => new(id, zone, id, id, its);
        var here = Guid.NewGuid();
        return new PieceAround(
        [
            Of(here, context.Zone, layers) with { Touching = ids.ToHashSet() },
            .. context.Neighbours.Select((n, i) => Of(ids[i], n.Zone, n.Layers) with { Touching = new HashSet<Guid> { here }, StandsFinished = finished[i] }),
        ], 0);
    }

    private List<PotUse> Pots(IReadOnlyList<OrderPotIn?>? pots, List<Layer> layers)
    {
        var uses = new List<PotUse>();
        for (var i = 0; i < (pots?.Count ?? 0); i++)
        {
            var (pot, at) = (pots![i], $"pots[{i}]");
            if (pot?.Layer is not (>= 0 and var index) || index >= layers.Count)
            {
                faults.Add($"{at}.layer", "Give the layer it is for, counted from 0 at the bottom.");
                continue;
            }

            var paint = PaintOf(pot.Material, pot.Mix, layers[index].Technique, at);
            uses.Add(new PotUse(layers[index].Id, pot.Label is { Length: > 0 and <= 120 } label ? label : $"pot {i + 1}", paint, DilutionOf(pot.Dilution, paint, $"{at}.dilution"),
                (pot.Pieces ?? []).Take(1000).Select(p => p ?? "").ToList()));
        }

        return uses;
    }

    private List<Layer> Layers(IReadOnlyList<OrderLayerIn?>? layers, string at)
    {
        faults.Require(layers is not null, at, "Give the layers, bottom first.");
        faults.Require((layers?.Count ?? 0) <= LayerWords.MostLayers, at, $"At most {LayerWords.MostLayers} layers.");
        var read = new List<Layer>();
        for (var i = 0; i < Math.Min(layers?.Count ?? 0, LayerWords.MostLayers); i++)
            if (layers![i] is { } layer)
                read.Add(LayerOf(layer, $"{at}[{i}]", read));
            else
                faults.Add($"{at}[{i}]", "A layer is missing here.");
        return read;
    }

    private Layer LayerOf(OrderLayerIn l, string at, List<Layer> below)
    {
        var technique = Word<Technique>(l.Technique, $"{at}.technique");
        faults.Require(l.Technique is not null, $"{at}.technique", "Name the technique.");
        var paint = technique == Technique.CleanUpExcess && l.Material is null && l.Mix is null ? CleanUp(below) : PaintOf(l.Material, l.Mix, technique, at);
        var tool = Word<Tool>(l.Tool, $"{at}.tool") ?? UsualTool(technique, paint);
        return new Layer
        {
            Id = Guid.NewGuid(),
            Technique = technique ?? Technique.Inspect,
            Paint = paint,
            Dilution = DilutionOf(l.Dilution, paint, $"{at}.dilution") is { } dilution ? ThinnedWith(dilution, l.Thinner, $"{at}.thinner") : null,
            Coats = Whole(l.Coats, $"{at}.coats", 1, LayerWords.MostCoats) ?? 1,
            Region = Word<Region>(l.Region, $"{at}.region") ?? Region.All,
            Strength = Range(l.Strength, $"{at}.strength", 0, (double)LayerWords.MostStrength) ?? 1,
            Tool = tool,
            Drying = Word<DryingMode>(l.Drying, $"{at}.drying") ?? DryingMode.Air,
            WaitMinutes = Range(l.WaitMinutes, $"{at}.waitMinutes", 0, 100_000) ?? Range(l.WaitHours, $"{at}.waitHours", 0, 2000) * 60,
            MarkMm = Range(l.MarkMm, $"{at}.markMm", (double)LayerWords.LeastMarkMm, (double)LayerWords.MostMarkMm),
            Varied = l.Varied == true ? new Varied(1) : null,
            DownTo = Whole(l.DownTo, $"{at}.downTo", 1, Math.Max(1, below.Count)) is { } down && down <= below.Count ? below[down - 1].Id : null,
            Details = Whole(l.Details, $"{at}.details", 1, LayerWords.MostDetails),
            Fades = l.Fades == true,
            Preparation = Word<Preparation>(l.Preparation, $"{at}.preparation") ?? Preparation.None,
        };
    }

    /// <summary>A can is for what comes in one; a water-based primer is brushed.</summary>
    private static Tool UsualTool(Technique? technique, IReadOnlyList<MixPart> paint)
    {
        var usual = TechniqueTable.For(technique ?? Technique.Inspect).UsualTool;
        return usual == Tool.SprayCan && paint.Count > 0 && paint.All(p => p.Material.Carrier.IsWaterBorne()) ? Tool.Brush : usual;
    }

    private static List<MixPart> CleanUp(List<Layer> below)
    {
        var wash = below.LastOrDefault(l => l.Technique == Technique.PinWash)?.Main;
        return [new MixPart(PlainMaterials.Thinner(wash is { Thinners.Count: > 0 } ? wash.Thinners[0] : ThinnerFamily.Water), Parts.One)];
    }

    private List<MixPart> PaintOf(OrderMaterialIn? material, IReadOnlyList<OrderPartIn?>? mix, Technique? technique, string at)
    {
        if (mix is null)
            return MaterialOf(material, technique, $"{at}.material") is { } only ? [new MixPart(only, Parts.One)] : [];
        faults.Require(mix.Count is > 0 and <= LayerWords.MostComponents, $"{at}.mix", $"From 1 to {LayerWords.MostComponents} components.");
        var parts = new List<MixPart>();
        for (var i = 0; i < Math.Min(mix.Count, LayerWords.MostComponents); i++)
            if (MaterialOf(mix[i]?.Material, technique, $"{at}.mix[{i}].material") is { } m && LayerWords.Parts(Hundredths(mix[i]?.Parts ?? 1), $"{at}.mix[{i}].parts", faults) is { } p)
                parts.Add(new MixPart(m, p));
        return parts;
    }

    private Material? MaterialOf(OrderMaterialIn? m, Technique? technique, string at)
    {
        var usual = technique is { } t ? PlainMaterials.KindFor(t) : null;
        if (m is null && usual is null)
            return null;
        var kind = Word<MaterialKind>(m?.Kind, $"{at}.kind") ?? usual ?? MaterialKind.Paint;
        var carrier = Word<Carrier>(m?.Carrier, $"{at}.carrier") ?? PlainMaterials.CarrierFor(kind);
        var sheen = Word<Sheen>(m?.Sheen, $"{at}.sheen") ?? Sheen.Matt;
        var evidence = new ColourEvidence(faults.Colour(m?.Colour, $"{at}.colour", needed: false) ?? PlainMaterials.UsualColour(kind), faults.Colour(m?.OverBlack, $"{at}.overBlack", needed: false), faults.Colour(m?.OverWhite, $"{at}.overWhite", needed: false),
            Range(m?.CoatsToHide, $"{at}.coatsToHide", 0.25, 12));
        if (evidence is { OverBlack: { } black, OverWhite: { } white } && ContrastCard.Refusal(black, white) is { } refusal)
        {
            faults.Add($"{at}.overBlack", refusal);
            return null;
        }

        var name = m?.Name is { Length: > 0 and <= 120 } given ? given : UsualName(kind, carrier, sheen, m?.Colour);
        var made = PlainMaterials.Make(name, kind, carrier, evidence, sheen);
        var touch = Range(m?.TouchMinutes, $"{at}.touchMinutes", 0, 100_000);
        var recoat = Range(m?.RecoatMinutes, $"{at}.recoatMinutes", 0, 100_000);
        var cure = Range(m?.CureMinutes, $"{at}.cureMinutes", 0, 100_000);
        return made with
        {
            DryTimes = made.DryTimes.With(touch, recoat, cure),
            Thinners = m?.Thinners?.Select((f, i) => Word<ThinnerFamily>(f, $"{at}.thinners[{i}]")).OfType<ThinnerFamily>().ToList() ?? made.Thinners,
            Lustre = Word<Lustre>(m?.Lustre, $"{at}.lustre") ?? LustreOf(name, kind),
            MostThinnerShare = Range(m?.MostThinnerShare, $"{at}.mostThinnerShare", 0, 0.99),
        };
    }

    /// <summary>"matt varnish", "enamel wash #5a4530", "sand": what somebody would call it who has no pot in hand.</summary>
    private static string UsualName(MaterialKind kind, Carrier carrier, Sheen sheen, string? colour)
    {
        var words = kind == MaterialKind.Varnish ? EnumWords.Of(sheen) : carrier is Carrier.None or Carrier.Dry or Carrier.WaterAcrylic or Carrier.PVA ? "" : EnumWords.Of(carrier);
        return $"{words} {EnumWords.Of(kind)} {colour}".Trim();
    }

    /// <summary>A paint that calls itself a metal is one.</summary>
    private static Lustre LustreOf(string name, MaterialKind kind) =>
        kind is MaterialKind.Paint or MaterialKind.Ink or MaterialKind.Pencil && Metal().IsMatch(name) ? Lustre.Metal : Lustre.Plain;

    [GeneratedRegex(@"\b(metal|metallic|steel|iron|brass|bronze|copper|silver|gold|chrome|aluminium|gunmetal|tin|zinc|lead)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Metal();

    /// <summary>A thinner written out is known by what it carries.</summary>
    private Dilution ThinnedWith(Dilution dilution, OrderMaterialIn? thinner, string at)
    {
        if (thinner is null)
            return dilution;
        var carrier = Word<Carrier>(thinner.Carrier, $"{at}.carrier") ?? Carrier.WaterAcrylic;
        var families = thinner.Thinners?.Select((f, i) => Word<ThinnerFamily>(f, $"{at}.thinners[{i}]")).OfType<ThinnerFamily>().ToList() ?? [.. carrier.UsualThinners()];
        var made = PlainMaterials.Thinner(families.Count > 0 ? families[0] : ThinnerFamily.Water);
        return dilution with { Thinner = made with { Name = thinner.Name is { Length: > 0 and <= 120 } name ? name : made.Name, Carrier = carrier, Thinners = families } };
    }

    /// <summary>Written as anybody would ("2:1", "neat", "thin as milk"), or as parts of paint and thinner.</summary>
    private Dilution? DilutionOf(JsonElement? given, IReadOnlyList<MixPart> paint, string field)
    {
        ThinnerFamily? family = null;
        (Parts Paint, Parts Thinner)? parts = null;
        switch (given)
        {
            case null or { ValueKind: JsonValueKind.Null or JsonValueKind.Undefined }:
                return null;
            case { ValueKind: JsonValueKind.String } text:
                var read = DilutionReader.Read(text.GetString()!);
                if (read.Only is { } only)
                    parts = (only.Paint, only.Thinner);
                else
                    faults.Add(field, read.IsAmbiguous ? read.Question : read.Fault);
                break;
            case { ValueKind: JsonValueKind.Object } o:
                decimal Part(string name) => o.TryGetProperty(name, out var v) && v.ValueKind == JsonValueKind.Number && v.TryGetDouble(out var d) ? Hundredths(d) : -1;
                if (Part("thinner") == 0)
                    return null;
                if (LayerWords.Parts(Part("paint"), $"{field}.paint", faults) is { } p && LayerWords.Parts(Part("thinner"), $"{field}.thinner", faults) is { } t)
                    parts = (p, t);
                if (o.TryGetProperty("with", out var with) && with.ValueKind == JsonValueKind.String)
                    family = Word<ThinnerFamily>(with.GetString(), $"{field}.with");
                break;
            default:
                faults.Add(field, "Write paint : thinner in parts, for example \"2:1\" or {\"paint\":2,\"thinner\":1}.");
                break;
        }

        if (parts is not { } ratio || ratio.Thinner == Parts.Zero)
            return null;
        var main = paint.FirstOrDefault()?.Material;
        return new Dilution(PlainMaterials.Thinner(family ?? (main is { Thinners.Count: > 0 } ? main.Thinners[0] : ThinnerFamily.Water)), ratio.Paint, ratio.Thinner);
    }

    /// <summary>Parts are kept to two decimals; what is far out of bounds stays out of bounds.</summary>
    private static decimal Hundredths(double parts) => (decimal)Math.Round(Math.Clamp(parts, -1, 1e6), 2);

    private double? Range(double? value, string field, double low, double high)
    {
        faults.Range(value, field, low, high);
        return value;
    }

    private int? Whole(int? value, string field, int low, int high)
    {
        Range(value, field, low, high);
        return value;
    }
}
