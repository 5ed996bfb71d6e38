using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Sessions;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Timetables;

/// <summary>Which operation: a layer of a zone from a piece on, or what is got ready for it.</summary>
internal readonly record struct KeyOf(Guid Zone, Guid Line, Guid FirstPiece, bool Beforehand);

/// <summary>How a plan is laid out, besides what has to be done.</summary>
/// <param name="AtOnce">No more pieces together; null as many as windows and hours allow.</param>
/// <param name="Careful">Waits as long as slow drying asks, windows as short as they may be.</param>
/// <param name="Goal">What comes first once nothing is late.</param>
internal sealed record Manner(int? AtOnce = null, bool Careful = false, Goal Goal = Goal.Soonest);

/// <summary>An operation as a plan keeps it.</summary>
internal sealed record KeptOperation(Guid Zone, Guid Line, IReadOnlyList<Guid> Pieces, DateTimeOffset Start, DateTimeOffset End, int Painter, bool Pinned, bool Beforehand = false);

/// <summary>A stretch at the bench as a plan keeps it: the same session keeps its id, wherever it is moved to.</summary>
internal sealed record KeptSession(Guid Id, DateTimeOffset Start, DateTimeOffset End);

/// <summary>A timetable as it is stored.</summary>
internal sealed record KeptPlan(IReadOnlyList<KeptOperation> Operations, IReadOnlyList<KeptSession> Sessions, int? AtOnce, bool Careful = false, Goal Goal = Goal.Soonest)
{
    private static readonly JsonSerializerOptions json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };
    private ILookup<(Guid, Guid, bool), KeptOperation>? byLayer;

    public Manner Manner => new(AtOnce, Careful, Goal);

    private ILookup<(Guid, Guid, bool), KeptOperation> ByLayer => byLayer ??= Operations.ToLookup(o => (o.Zone, o.Line, o.Beforehand));

    public static KeptPlan Read(string text) => JsonSerializer.Deserialize<KeptPlan>(text, json)!;

    public string Write() => JsonSerializer.Serialize(new { Operations, Sessions, AtOnce, Careful, Goal }, json);

    /// <summary>The kept operation that has most of these pieces; null where it knows none.</summary>
    public KeptOperation? Find(Doing at) =>
        ByLayer[(at.Place.Zone.Id, at.Layer.Id, at.Beforehand)].Select(o => (o, Same: o.Pieces.Count(p => at.Pieces.Any(x => x.Id == p)))).Where(x => x.Same > 0).OrderByDescending(x => x.Same).Select(x => x.o).FirstOrDefault();

    /// <summary>Pieces that a layer is laid on together.</summary>
    public IReadOnlyList<IReadOnlyList<Guid>> Together(Guid zone, Guid line) => ByLayer[(zone, line, false)].OrderBy(o => o.Start).Select(o => o.Pieces).ToList();
}

/// <summary>
/// What a timetable was made from, fact by fact: what has changed since is what differs. A fact is named in words, and after a stroke by
/// the id of what it is about: names may be given twice.
/// </summary>
internal sealed record PlanInputs(IReadOnlyDictionary<string, string> Facts)
{
    /// <summary>Facts as they were told before: layers by their rows, which are others where a treatment was parted or brought together.</summary>
    private IReadOnlyDictionary<string, string> Before { get; init; } = new Dictionary<string, string>();

    private static readonly JsonSerializerOptions json = new(JsonSerializerDefaults.Web);

    public static PlanInputs Read(string text) => new(JsonSerializer.Deserialize<Dictionary<string, string>>(text, json)!);

    public string Write() => JsonSerializer.Serialize(Facts, json);

    public static PlanInputs Of(WorkshopRow workshop, BenchHoursOf hours, IReadOnlyList<SetGraph> sets)
    {
        var before = new Dictionary<string, string>();
        var facts = new Dictionary<string, string>
        {
            ["the hours"] = $"{hours.Hours} {workshop.TimeZone}",
            ["the painters"] = $"{hours.Painters}",
            ["the air at the bench"] = FormattableString.Invariant($"{workshop.TemperatureC:0.#} {workshop.RelativeHumidity:0.##} {workshop.AirMoves}"),
            ["the places to dry"] = $"{workshop.DryingPlaces}",
            ["the pace of the hands"] = workshop.Paces,
            ["the house rules"] = JsonSerializer.Serialize(workshop.HouseRules),
        };
        foreach (var graph in sets)
        {
            facts[$"the due date of {graph.Set.Name}|{graph.Set.Id}"] = $"{graph.Set.DueDate:yyyy-MM-dd} {graph.Set.Rank}";
            foreach (var place in graph.Places)
            {
                var layers = $"the layers of {place.Name}|{place.Zone.Id}";
                facts[layers] = Told(place.Layers);
                before[layers] = Hashed(graph.Rows(place.Zone).SelectMany(r => r.Layer.Id.ToByteArray()));
                facts[$"the measures of {place.Name}|{place.Zone.Id}"] = $"{JsonSerializer.Serialize(place.Context.Zone with { Name = "" })} {string.Join(' ', graph.Touching[place.Zone.Id].Order())}";
                foreach (var paint in place.Layers.Select(l => l.Main).OfType<Material>())
                    facts[$"how {paint.Name} dries|{paint.Id}"] = $"{paint.Carrier} {JsonSerializer.Serialize(paint.DryTimes)}";
                facts[$"the pieces of {place.Design.Name}|{place.Design.Id}"] = string.Join(' ', SetGraph.PiecesOf(place.Design).Select(p => p.Id.ToString("n")[^8..]));
            }

            foreach (var need in Short(graph))
                facts[$"too little {need} on the shelf"] = "";
        }

        return new PlanInputs(facts) { Before = before };
    }

    /// <summary>Layers as they lie on a zone: their lines and everything that is laid there.</summary>
    private static string Told(IReadOnlyList<Layer> layers) => "=" + Hashed(Encoding.UTF8.GetBytes(string.Join('\n', layers.Select(l =>
        FormattableString.Invariant($"{l with { Paint = [], Dilution = null }} {string.Join('+', l.Paint.Select(p => $"{p.Material.Id} {p.Parts}"))} {l.Dilution?.Thinner.Id} {l.Dilution?.PaintParts} {l.Dilution?.ThinnerParts}")))));

    private static string Hashed(IEnumerable<byte> told) => Convert.ToHexStringLower(SHA256.HashData(told.ToArray()).AsSpan(0, 8));

    /// <summary>Materials of which the plan takes more than there is.</summary>
    private static IEnumerable<string> Short(SetGraph graph) => graph.Plans()
        .SelectMany(p => p.Layers.SelectMany(l => Core.Estimates.Quantities.ForLayer(l, p.Zone, Math.Max(0, p.Pieces - graph.OverCount(p.ZoneId, l.Id)))))
        .GroupBy(n => n.Material.Id).Where(g => g.Sum(n => n.Ml) > graph.StockMl.GetValueOrDefault(g.Key)).Select(g => g.First().Material.Name);

    /// <summary>What differs, in the painter's words.</summary>
    public IReadOnlyList<string> Since(PlanInputs then) =>
        Facts.Where(f => !then.Facts.TryGetValue(f.Key, out var was) || (was != f.Value && was != Before.GetValueOrDefault(f.Key))).Select(f => Words(f.Key))
            .Concat(then.Facts.Keys.Where(k => !Facts.ContainsKey(k)).Select(k => k.StartsWith("too little ", StringComparison.Ordinal) ? "the shelf" : Words(k))).Distinct().ToList();

    private static string Words(string key) => key.Split('|')[0];
}

/// <summary>Hours and hands.</summary>
internal sealed record BenchHoursOf(string Hours, int Painters);
