using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Nodes;
using Lowfell.Server.Http;
using Lowfell.Server.Photos;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Files;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Files;

/// <summary>A whole set as one file, and back: the record is the painter's.</summary>
public static class FileEndpoints
{
    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/sets/{setId:guid}/file", Out).WithTags("Files").WithName("setFile").WithSummary("Everything about a set in one zip: set.json and its photographs.").Produces(200, contentType: "application/zip").ProducesProblem(404);
        app.MapPost("/api/workshops/{workshopId:guid}/sets/file", In).WithTags("Files").WithName("importSetFile").WithSummary("Takes such a zip in as a new set; the body is the file itself.").AddEndpointFilter(InTurn).Writes<SetTakenIn>().WithMetadata(new LargeBody(SetArchive.MostBytes));
    }

    /// <summary>The set that a file became, and by which name.</summary>
    public sealed record SetTakenIn(Guid SetId, string Name, int Photographs);

    private static async Task<IResult> Out(Guid setId, LowfellDb db, CancellationToken stop)
    {
        if (await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, stop) is not { } set)
            return Problems.NotFound("set");
        var (document, pictures) = await new SetExport(db, setId, stop).Make();

        // On the disk, not in memory: photographs may be many. It is gone once it was sent.
        var made = new FileStream(Path.Combine(Path.GetTempPath(), $"lowfell-{Guid.NewGuid():n}.zip"), FileMode.CreateNew, FileAccess.ReadWrite, FileShare.None, 65_536, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        using (var zip = new ZipArchive(made, ZipArchiveMode.Create, leaveOpen: true))
        {
            await Write(zip, SetArchive.Document, JsonSerializer.SerializeToUtf8Bytes(document, SetArchive.Json), stop);
            foreach (var (name, blob) in pictures)
                await Write(zip, name, await db.Blobs.Where(b => b.Id == blob).Select(b => b.Bytes).SingleAsync(stop), stop);
        }

        made.Position = 0;
        return TypedResults.File(made, "application/zip", string.Concat(set.Name.Select(c => char.IsLetterOrDigit(c) || c is ' ' or '-' ? c : '_')) + ".zip");
    }

    /// <summary>An entry that says nothing of when it was made: the same set makes the same file.</summary>
    private static async Task Write(ZipArchive zip, string name, byte[] bytes, CancellationToken stop)
    {
        var entry = zip.CreateEntry(name, name == SetArchive.Document ? CompressionLevel.Optimal : CompressionLevel.NoCompression);
        entry.LastWriteTime = new DateTimeOffset(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);
        await using var to = await entry.OpenAsync(stop);
        await to.WriteAsync(bytes, stop);
    }

    private const long LargeBytes = 1_000_000;

    private static async ValueTask<object?> InTurn(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var http = invocation.HttpContext;
        var line = http.RequestServices.GetRequiredService<OneAtATime>();
        var large = http.Request.ContentLength is null or > LargeBytes;
        http.Response.OnCompleted(() =>
        {
            _ = Task.Run(() => line.GiveBack(large));
            return Task.CompletedTask;
        });
        return await line.Do(async () => await next(invocation), http.RequestAborted);
    }

    private static async Task<Outcome<SetTakenIn>> In(Guid workshopId, HttpRequest request, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        try
        {
            request.Body.Position = 0;
            var (document, pictures) = await SetArchive.Read(request.Body, write.Stop);
            var (set, photos) = await new SetImport(write.Db, workshopId, write.Stop).Take(document);
            if (photos.Count != pictures.Count)
                throw new NotASet($"The file tells of {photos.Count} photographs and has {pictures.Count}.");
            for (var i = 0; i < photos.Count; i++)
                await Keep(photos[i].Photo, photos[i].Row, pictures[i], set, workshopId, write);
            await write.Save();
            await SetArchive.Fold(write.Db, set, workshopId, write.Stop);
            await write.Save();
            await SetArchive.Look(write.Db, set, write.Stop);
            await write.Save();
            foreach (var slice in new[] { Slice.Plan, Slice.Shelf, Slice.Work })
                write.Touch(slice);
            var name = await write.Db.Sets.Where(s => s.Id == set).Select(s => s.Name).SingleAsync(write.Stop);
            write.Says($"Took in the set {name} from a file");
            return new SetTakenIn(set, name, photos.Count);
        }
        catch (NotASet why)
        {
            return Problems.Of(StatusCodes.Status400BadRequest, "not-a-set", why.Message + " Nothing was stored.", [new Fault("file", why.Message)]);
        }
    }

    private static async Task Keep(Guid id, JsonObject row, byte[] file, Guid set, Guid workshop, Write write)
    {
        var (picture, why) = await Pictures.Read(file, write.Stop);
        if (picture is null)
            throw new NotASet($"A photograph is none: {why}");

        // One that is kept as this keeps them stays as it is, to the last byte.
        var bare = Pictures.IsBare(file) && (row["width"]!.GetValue<int>(), row["height"]!.GetValue<int>()) == (picture.Width, picture.Height);
        BlobRow Blob(byte[] bytes) => new() { WorkshopId = workshop, Type = Pictures.Type, Bytes = bytes, At = write.Now };
        var (full, small) = (Blob(bare ? file : picture.Full), Blob(picture.Small));
        Guid? At(string column) => row[column]?.GetValue<Guid>();
        write.Db.AddRange(full, small);
        write.Db.Add(new PhotoRow
        {
            Id = id,
            WorkshopId = workshop,
            SetId = set,
            EventId = At("event_id"),
            PieceId = At("piece_id"),
            ZoneId = At("zone_id"),
            Words = row["words"]!.GetValue<string>(),
            TakenAt = row["taken_at"]!.GetValue<DateTimeOffset>().ToUniversalTime(),
            Actor = row["actor"]!.GetValue<string>(),
            Width = picture.Width,
            Height = picture.Height,
            BlobId = full.Id,
            SmallId = small.Id,
            PutAwayAt = row["put_away_at"]?.GetValue<DateTimeOffset>().ToUniversalTime(),
        });
    }
}
