using System.IO.Compression;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Lowfell.Core.Bench;
using Lowfell.Core.Order;
using Lowfell.Server.Photos;
using Lowfell.Store;
using Lowfell.Store.Files;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Files;

/// <summary>The zip of a set: what may be in it, and what has to be looked at before it is believed.</summary>
internal static partial class SetArchive
{
    public const string Document = "set.json";
    public const long MostBytes = 250_000_000;
    private const int MostPictures = 20_000, MostDocument = 64_000_000;

    /// <summary>The rows of a set are much alike, and pack to a twentieth or so; nothing that a painter did packs to less than a two-hundredth.</summary>
    private const int Tightest = 200, SmallBytes = 100_000;

    public static readonly JsonSerializerOptions Json = new() { WriteIndented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>The document, and the photographs in its order.</summary>
    public static async Task<(JsonObject Document, IReadOnlyList<byte[]> Pictures)> Read(Stream body, CancellationToken stop)
    {
        try
        {
            await using var zip = await ZipArchive.CreateAsync(body, ZipArchiveMode.Read, leaveOpen: true, entryNameEncoding: null, stop);
            if (zip.Entries.Count > MostPictures + 1)
                throw new NotASet($"The file has {zip.Entries.Count} things in it; {MostPictures + 1} is the most.");
            if (zip.Entries.FirstOrDefault(e => e.FullName != Document && !PictureName().IsMatch(e.FullName)) is { } stranger)
                throw new NotASet($"“{(stranger.FullName.Length > 60 ? stranger.FullName[..60] : stranger.FullName)}” is nothing that the file of a set has.");
            if (zip.Entries.Select(e => e.FullName).Distinct().Count() < zip.Entries.Count)
                throw new NotASet("Something is in the file twice.");
            var document = zip.GetEntry(Document) ?? throw new NotASet($"There is no {Document} in it.");
            if (document.Length > MostDocument || document.Length > Tightest * document.CompressedLength + SmallBytes)
                throw new NotASet($"{Document} unpacks to far more than a set is.");
            await using (var once = await document.OpenAsync(stop))
                await SetScan.Read(once, MostDocument, stop);
            var parsed = JsonNode.Parse(await Bytes(document, MostDocument, stop), documentOptions: new JsonDocumentOptions { MaxDepth = 8, AllowDuplicateProperties = false }) as JsonObject ?? throw new NotASet($"{Document} has to be an object.");
            var (pictures, all) = (new List<byte[]>(), 0L);
            for (var n = 1; n < zip.Entries.Count; n++)
            {
                var entry = zip.GetEntry(FormattableString.Invariant($"photos/{n}.jpg")) ?? throw new NotASet("Photographs are to be counted from 1, without a gap.");
                pictures.Add(await Bytes(entry, Pictures.MostMegabytes * 1_000_000, stop));
                if ((all += pictures[^1].Length) > MostBytes)
                    throw new NotASet("The photographs are too large together.");
            }

            return (parsed, pictures);
        }
        catch (Exception broken) when (broken is InvalidDataException or JsonException or EndOfStreamException or NotSupportedException or ArgumentException)
        {
            throw new NotASet($"The file cannot be read: {broken.Message.Split('\n')[0]}");
        }
    }

    [GeneratedRegex(@"^photos/[1-9][0-9]{0,5}\.jpg\z")]
    private static partial Regex PictureName();

    /// <summary>What an entry really holds, however small it says it is.</summary>
    private static async Task<byte[]> Bytes(ZipArchiveEntry entry, int most, CancellationToken stop)
    {
        await using var from = await entry.OpenAsync(stop);
        var (to, buffer) = (new MemoryStream(), new byte[65_536]);
        for (int read; (read = await from.ReadAsync(buffer, stop)) > 0;)
        {
            if (to.Length + read > most)
                throw new NotASet($"{entry.FullName} is larger than {most / 1_000_000} MB.");
            to.Write(buffer, 0, read);
        }

        return to.ToArray();
    }

    /// <summary>What the stream of a set that was taken in comes to on its pieces.</summary>
    public static async Task Fold(LowfellDb db, Guid set, Guid workshop, CancellationToken stop)
    {
        var events = db.WorkEvents.Where(e => e.WorkshopId == workshop && e.ZoneId != null && db.Zones.Any(z => z.Id == e.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && d.SetId == set)));
        var keys = await events.SelectMany(e => e.Pieces.Select(p => new { Zone = e.ZoneId!.Value, Line = e.LineId!.Value, Piece = p.PieceId }))
            .Union(events.SelectMany(e => e.Also.SelectMany(a => e.Pieces.Select(p => new { Zone = a.ZoneId, Line = a.LineId, Piece = p.PieceId })))).ToListAsync(stop);
        await PieceBook.Hold(db, workshop, stop);
        await PieceBook.Refold(db, keys.Select(k => new PieceKey(k.Zone, k.Line, k.Piece)).ToList(), stop);
        foreach (var device in await events.GroupBy(e => e.Device).Select(g => new { g.Key, From = g.Min(e => e.At) }).ToListAsync(stop))
            await PieceBook.Retime(db, workshop, device.Key, device.From, stop);
    }

    /// <summary>A remark that was lived with elsewhere, and says the same here, is lived with here.</summary>
    private static void LiveOn(StackView view, IReadOnlyList<Finding> said, IEnumerable<AcceptedFindingRow> lived, LowfellDb db)
    {
        var taken = new HashSet<(string, Guid, string)>();
        foreach (var row in lived)
            if (said.FirstOrDefault(f => f.Why == row.Why && OrderCheck.Key(view, f) == (row.Rule, row.LayerId)) is { } same && OrderCheck.FactsOf(view, same) is var facts && taken.Add((row.Rule, row.LayerId, facts)))
                db.Entry(row).Property(r => r.Facts).CurrentValue = facts;
    }

    /// <summary>Whether it was the database that failed, in words of the layers above it: nothing that the file is to blame for.</summary>
    private static bool IsTheDatabases(Exception? error) => error is not null && (error is Npgsql.NpgsqlException || IsTheDatabases(error.InnerException));

    /// <summary>
    /// Looks at a set that was taken in as the views will: whatever the database let through and the rules of the job cannot read, is found here
    /// and not by whoever opens it.
    /// </summary>
    public static async Task Look(LowfellDb db, Guid set, CancellationToken stop)
    {
        db.ChangeTracker.Clear();
        try
        {
            var plan = await SetPlan.Load(db, set, null, stop) ?? throw new NotASet("There is no set in it.");
            var graph = new SetGraph(plan, await ShelfMaterials.Load(db, plan.Workshop.Id, null, stop), new Dictionary<Guid, double>(), await SetProgress.Load(db, set, null, stop));
            var lived = (await db.AcceptedFindings.Where(a => a.TakenBackAt == null && db.Zones.Any(z => z.Id == a.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && d.SetId == set))).OrderByDescending(a => a.AcceptedAt).ToListAsync(stop)).ToLookup(a => a.ZoneId);
            foreach (var place in graph.Places)
            {
                var view = place.View;
                LiveOn(view, OrderCheck.Glance(view), lived[place.Zone.Id], db);
                _ = view.Predictions.RangeBelow(view.Count);
            }
        }
        catch (Exception odd) when (odd is (FormatException or ArgumentException or InvalidOperationException or KeyNotFoundException or OverflowException or NullReferenceException or IndexOutOfRangeException) && !IsTheDatabases(odd))
        {
            throw new NotASet($"What it tells cannot be: {odd.Message.Split('\n')[0]}");
        }
    }
}
