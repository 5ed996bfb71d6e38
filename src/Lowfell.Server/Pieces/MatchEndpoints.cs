using System.Globalization;
using System.Text.RegularExpressions;
using Lowfell.Core.Materials;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pieces;

/// <summary>Make two more: new pieces as the old ones were really done.</summary>
internal static partial class MatchEndpoints
{
    private const int MostPieces = 100, LongestName = 120, MostDesigns = 500;

    public static void MapMatch(this RouteGroupBuilder group)
    {
        group.MapPost("/match/look", Look).WithName("lookAtMatch").WithSummary("What more pieces like some would be: in what those were done otherwise than planned, what they take, and what could stand in for what is not there.").ProducesProblem(400).ProducesProblem(404);
        group.MapPost("/match", Make).WithName("makeMatch").WithSummary("Makes them: a design of its own whose treatments are what was really done.").Writes<Matched>();
    }

    private sealed record Asked(SetGraph Graph, DesignRow Design, PieceRow Like, IReadOnlyList<DoneZone> Zones, MatchReader Reader, int Count, string Name);

    private static async Task<Results<Ok<MatchReading>, ProblemHttpResult>> Look(Guid setId, MatchIn entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        return await Read(graph, entry, db, faults, stop) is { } asked ? TypedResults.Ok(asked.Reader.Read(asked.Name)) : faults.ToProblem();
    }

    private static async Task<Asked?> Read(SetGraph graph, MatchIn entry, LowfellDb db, Faults faults, CancellationToken stop)
    {
        var wanted = (entry.PieceIds ?? []).Distinct().ToList();
        var design = graph.Designs.FirstOrDefault(d => d.Pieces.Any(p => wanted.Contains(p.Id)));
        var pieces = design is null ? [] : SetGraph.PiecesOf(design).Where(p => wanted.Contains(p.Id)).ToList();
        faults.Require(wanted.Count > 0 && pieces.Count == wanted.Count, "pieceIds", "Choose whole pieces of one design.");
        faults.Require(entry.Count is not null, "count", "Say how many more.");
        faults.Range(entry.Count, "count", 1, MostPieces);
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", LongestName);
        var swaps = new Dictionary<Guid, Material>();
        foreach (var (swap, i) in (entry.Swaps ?? []).Take(50).Select((s, i) => (s, i)))
            if (swap?.MaterialId is { } from && swap.ById is { } by && graph.Materials.ContainsKey(from) && graph.Materials.TryGetValue(by, out var material))
                swaps[from] = material;
            else
                faults.Add($"swaps[{i}]", "Name a material and one from the shelf in its place.");
        if (faults.Any)
            return null;
        var zones = new List<(Guid Zone, CoresReader Reader)>();
        foreach (var zone in design!.Zones)
            zones.Add((zone.Id, await CoresEndpoints.Reader(graph.Find(zone.Id)!, db, stop)));

        // Those that most of the chosen ones are like stand for all of them.
        var like = pieces.GroupBy(p => string.Join('\n', zones.Select(z => z.Reader.Signature(p)))).OrderByDescending(g => g.Count()).First().First();
        var done = zones.Select(z => z.Reader.DoneOn(like)).ToList();
        var name = (entry.Name ?? $"{design.Name}, as {like.Label}").Trim();
        return new Asked(graph, design, like, done, new MatchReader(graph, design, like, done, entry.Count!.Value, (entry.Dropped ?? []).OfType<string>().ToHashSet(), swaps), entry.Count.Value, name.Length <= LongestName ? name : name[..LongestName]);
    }

    private static async Task<Outcome<Matched>> Make(Guid setId, MatchIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfSet(write.Db, setId, write.Stop) is not { } graph)
            return Problems.NotFound("set");
        write.In(graph.Workshop.Id);
        var faults = new Faults();
        if (await Read(graph, entry, write.Db, faults, write.Stop) is not { } asked)
            return faults.ToProblem();
        if (graph.Designs.Any(d => d.Name == asked.Name))
            return Problems.Taken("name", $"There is a design {asked.Name} in this set already.");
        if (graph.Designs.Count >= MostDesigns)
            return Faults.One("name", $"At most {MostDesigns} designs in a set.");
        var design = new DesignRow { SetId = setId, Name = asked.Name, Silhouette = asked.Design.Silhouette, Substrate = asked.Design.Substrate, Position = graph.Designs.Count };
        write.Db.Add(design);
        var (twins, treatments) = (new Dictionary<Guid, Guid>(), new Dictionary<string, Guid>());
        foreach (var (zone, stack) in asked.Reader.Stacks())
        {
            // Zones that were treated alike, and done alike, stay so.
            var key = zone.Place.Zone.SurfaceId + string.Join('\n', stack.Select(l => l.ToString()));
            if (!treatments.TryGetValue(key, out var treatment))
                treatments[key] = treatment = await new StackWriter(write, graph.Materials).Begin(graph.Treatments[zone.Place.Zone.TreatmentId], $"{graph.Treatments[zone.Place.Zone.TreatmentId].Name}, as {asked.Like.Label}", stack);
            var row = await write.Db.Zones.AsNoTracking().FirstAsync(z => z.Id == zone.Place.Zone.Id, write.Stop);
            var values = write.Db.Entry(row).CurrentValues.Clone();
            var id = Guid.CreateVersion7();
            (values[nameof(ZoneRow.Id)], values[nameof(ZoneRow.DesignId)], values[nameof(ZoneRow.TreatmentId)], values[nameof(ZoneRow.SurfaceId)]) = (id, design.Id, treatment, treatment);
            write.Db.Add((ZoneRow)values.ToObject());
            twins[zone.Place.Zone.Id] = id;
        }

        foreach (var touch in await write.Db.ZoneTouches.AsNoTracking().Where(t => twins.Keys.Contains(t.FirstZoneId) && twins.Keys.Contains(t.SecondZoneId)).ToListAsync(write.Stop))
        {
            var (a, b) = (twins[touch.FirstZoneId], twins[touch.SecondZoneId]);
            write.Db.Add(a.CompareTo(b) < 0 ? new ZoneTouchRow { FirstZoneId = a, SecondZoneId = b } : new ZoneTouchRow { FirstZoneId = b, SecondZoneId = a });
        }

        var labels = Labels(graph, asked.Like.Label, asked.Count);
        foreach (var label in labels)
        {
            var piece = new PieceRow { DesignId = design.Id, Label = label, RimNumber = Number().Match(label).Value };
            write.Db.Add(piece);
            foreach (var part in asked.Design.Pieces.Where(p => p.ParentId == asked.Like.Id))
                write.Db.Add(new PieceRow { DesignId = design.Id, ParentId = piece.Id, Label = part.Label.StartsWith(asked.Like.Label, StringComparison.Ordinal) ? label + part.Label[asked.Like.Label.Length..] : $"{label} {part.Label}" });
        }

        write.Says($"Made {asked.Count} more as {asked.Like.Label} was done: {asked.Name}");
        await write.Save();
        return new Matched(setId, design.Id, asked.Name, labels);
    }

    [GeneratedRegex(@"\d+$")]
    private static partial Regex Number();

    /// <summary>Labels that count on from the highest of their kind in the set.</summary>
    private static List<string> Labels(SetGraph graph, string like, int count)
    {
        var stem = Number().Replace(like, "");
        var highest = graph.Designs.SelectMany(d => d.Pieces).Where(p => Number().Replace(p.Label, "") == stem).Select(p => int.TryParse(Number().Match(p.Label).Value, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : 0).DefaultIfEmpty(0).Max();
        return Enumerable.Range(highest + 1, count).Select(n => FormattableString.Invariant($"{stem}{n}")).ToList();
    }
}
