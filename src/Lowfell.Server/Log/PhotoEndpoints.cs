using Lowfell.Server.Http;
using Lowfell.Server.Photos;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>Photographs of a set: taken in, listed, shown and put away.</summary>
internal static class PhotoEndpoints
{
    private const int LongestWords = 500, MostPhotos = 20_000, MostAPage = 500;

    public static void MapPhotos(this RouteGroupBuilder log)
    {
        log.MapGet("/photos", List).WithName("photos").WithSummary("Photographs of a set, or of one piece, the newest first.").ProducesProblem(404);
        log.MapPost("/photos", Add).WithName("addPhoto").WithSummary("Keeps a photograph: its pixels, and nothing of camera or place.").Writes<PhotoTold, PhotoDto>(Tell, StatusCodes.Status201Created).WithMetadata(new LargeBody()).For(DeviceRole.Work);
        log.MapPut("/photos/{photoId:guid}", Change).WithName("changePhoto").WithSummary("What is said of a photograph, and whether it is put away.").Writes<PhotoTold, PhotoDto>(Tell);
        log.MapGet("/photos/{photoId:guid}.jpg", (Guid setId, Guid photoId, LowfellDb db, HttpResponse to, CancellationToken stop) => Show(setId, photoId, false, db, to, stop)).WithName("photo").Produces(200, contentType: Pictures.Type).ProducesProblem(404);
        log.MapGet("/photos/{photoId:guid}/small.jpg", (Guid setId, Guid photoId, LowfellDb db, HttpResponse to, CancellationToken stop) => Show(setId, photoId, true, db, to, stop)).WithName("smallPhoto").Produces(200, contentType: Pictures.Type).ProducesProblem(404);
    }

    /// <summary>Photographs of a workshop that are put away and still have their pictures: how many, and how much room they take.</summary>
    public static void MapPutAwayPhotos(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/workshops/{workshopId:guid}/put-away-photos").WithTags("Log");
        group.MapGet("/", PutAway).WithName("putAwayPhotos").WithSummary("How many photographs are put away, and how much room their pictures take.").ProducesProblem(404);
        group.MapPost("/let-go", LetGo).WithName("letPhotosGo").WithSummary("Lets the pictures of photographs go that are put away: for good. What was written about them stays.").Writes<PhotosLetGo>();
    }

    public sealed record PutAwayPhotos(int Count, long Bytes);

    public sealed record PhotosLetGo(Guid WorkshopId, int Count);

    private static async Task<Results<Ok<PutAwayPhotos>, ProblemHttpResult>> PutAway(Guid workshopId, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var of = db.Photos.Where(p => p.WorkshopId == workshopId && p.PutAwayAt != null && p.FreedAt == null);
        var bytes = await of.Select(p => (long)db.Blobs.Where(b => b.Id == p.BlobId || b.Id == p.SmallId).Sum(b => b.Bytes.Length)).SumAsync(stop);
        return TypedResults.Ok(new PutAwayPhotos(await of.CountAsync(stop), bytes));
    }

    private static async Task<Outcome<PhotosLetGo>> LetGo(Guid workshopId, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var photos = await write.Db.Photos.Where(p => p.WorkshopId == workshopId && p.PutAwayAt != null && p.FreedAt == null).ToListAsync(write.Stop);
        var blobs = photos.SelectMany(p => new[] { p.BlobId, p.SmallId }).OfType<Guid>().ToList();
        foreach (var photo in photos)
            (photo.BlobId, photo.SmallId, photo.FreedAt) = (null, null, write.Now);
        write.Says($"Let the pictures of {photos.Count} photographs go");
        await write.Save();
        await write.Db.Blobs.Where(b => blobs.Contains(b.Id)).ExecuteDeleteAsync(write.Stop);
        return new PhotosLetGo(workshopId, photos.Count);
    }

    public sealed record PhotoTold(Guid SetId, Guid PhotoId);

    private static async Task<PhotoDto> Tell(PhotoTold told, Telling telling) =>
        (await Words(telling.Db.Photos.Where(p => p.Id == told.PhotoId), telling.Db, telling.Stop)).Single();

    private static async Task<Results<Ok<PhotosPage>, ProblemHttpResult>> List(Guid setId, LowfellDb db, CancellationToken stop, Guid? pieceId = null, DateTimeOffset? before = null, int most = 200)
    {
        var faults = new Faults();
        faults.Range(most, "most", 1, MostAPage);
        if (faults.Any)
            return faults.ToProblem();
        if (!await db.Sets.AnyAsync(s => s.Id == setId, stop))
            return Problems.NotFound("set");
        var until = before?.ToUniversalTime();
        var of = db.Photos.Where(p => p.SetId == setId && p.PutAwayAt == null && (until == null || p.TakenAt < until)
            && (pieceId == null || p.PieceId == pieceId || (p.EventId != null && db.WorkEvents.Any(e => e.Id == p.EventId && e.Pieces.Any(x => x.PieceId == pieceId)))));
        var photos = await Words(of.OrderByDescending(p => p.TakenAt).Take(most), db, stop);
        return TypedResults.Ok(new PhotosPage(photos, photos.Count == most ? photos[^1].TakenAt : null));
    }

    /// <summary>Photographs as they travel, the newest first.</summary>
    public static async Task<IReadOnlyList<PhotoDto>> Words(IQueryable<PhotoRow> of, LowfellDb db, CancellationToken stop) => await (
        from p in of.AsNoTracking()
        join piece in db.Pieces on p.PieceId equals piece.Id into pieces
        from piece in pieces.DefaultIfEmpty()
        join zone in db.Zones on p.ZoneId equals zone.Id into zones
        from zone in zones.DefaultIfEmpty()
        orderby p.TakenAt descending, p.Id
        select new PhotoDto(p.Id, p.EventId, p.PieceId, piece == null ? "" : piece.Label, p.ZoneId, zone == null ? "" : zone.Name, p.Words, p.TakenAt, p.Actor, p.Width, p.Height, p.PutAwayAt != null, p.Version)).ToListAsync(stop);

    private static async Task<Outcome<PhotoTold>> Add(Guid setId, KeepPhotoIn entry, Write write)
    {
        var db = write.Db;
        if (await db.Sets.Where(s => s.Id == setId).Select(s => (Guid?)s.WorkshopId).FirstOrDefaultAsync(write.Stop) is not { } workshop)
            return Problems.NotFound("set");
        write.In(workshop);
        var faults = new Faults();
        faults.Id(entry.Id, "id");
        faults.Text(entry.Words, "words", LongestWords, needed: false);
        faults.Require(entry.TakenAt is null || (entry.TakenAt.Value - write.Now).Duration() < TimeSpan.FromDays(365 * 30), "takenAt", "Give the instant it was taken, set to this century.");
        var file = Bytes(entry.Data, faults);
        faults.Require(entry.PieceId is not { } piece || await db.Pieces.AnyAsync(p => p.Id == piece && db.Designs.Any(d => d.Id == p.DesignId && d.SetId == setId), write.Stop), "pieceId", "This piece is not of this set.");
        faults.Require(entry.ZoneId is not { } zone || await db.Zones.AnyAsync(z => z.Id == zone && db.Designs.Any(d => d.Id == z.DesignId && d.SetId == setId), write.Stop), "zoneId", "This zone is not of this set.");
        if (faults.Any)
            return faults.ToProblem();
        if (await db.Photos.FindAsync([entry.Id!.Value], write.Stop) is { } there)
            return there.SetId == setId ? new PhotoTold(setId, there.Id) : Problems.NotFound("photograph");
        if (await db.Photos.CountAsync(p => p.SetId == setId, write.Stop) >= MostPhotos)
            return Problems.Of(StatusCodes.Status409Conflict, "too-many", $"{MostPhotos} photographs are the most a set keeps; nothing was stored.");
        var (picture, why) = await Pictures.Read(file!, write.Stop);
        if (picture is null)
            return Faults.One("data", why);

        // What it was taken at may have been refused, or be on its way still: the photo is there all the same.
        var at = entry.EventId is { } id && await db.WorkEvents.AnyAsync(e => e.Id == id && e.WorkshopId == workshop, write.Stop) ? entry.EventId : null;
        BlobRow Blob(byte[] bytes) => new() { WorkshopId = workshop, Type = Pictures.Type, Bytes = bytes, At = write.Now };
        var (full, small) = (Blob(picture.Full), Blob(picture.Small));
        db.AddRange(full, small);
        db.Add(new PhotoRow
        {
            Id = entry.Id.Value,
            WorkshopId = workshop,
            SetId = setId,
            EventId = at,
            PieceId = entry.PieceId,
            ZoneId = entry.ZoneId,
            Words = entry.Words?.Trim() ?? "",
            TakenAt = (entry.TakenAt ?? write.ToldAt).ToUniversalTime(),
            Actor = write.Actor.Name,
            Width = picture.Width,
            Height = picture.Height,
            BlobId = full.Id,
            SmallId = small.Id,
        });
        await write.Save();
        return new PhotoTold(setId, entry.Id.Value);
    }

    private static byte[]? Bytes(string? data, Faults faults)
    {
        faults.Require(!string.IsNullOrEmpty(data), "data", "Send the picture as base64.");
        if (string.IsNullOrEmpty(data))
            return null;
        var bytes = new byte[data.Length / 4 * 3 + 3];
        if (!Convert.TryFromBase64String(data, bytes, out var length))
            faults.Add("data", "This is not base64.");
        else if (length > Pictures.MostMegabytes * 1_000_000)
            faults.Add("data", $"The picture is larger than {Pictures.MostMegabytes} MB. Make it smaller first.");
        return faults.Any ? null : bytes[..length];
    }

    private static async Task<Outcome<PhotoTold>> Change(Guid setId, Guid photoId, PhotoChangeIn entry, Write write)
    {
        if (await write.Db.Photos.FirstOrDefaultAsync(p => p.Id == photoId && p.SetId == setId, write.Stop) is not { } photo)
            return Problems.NotFound("photograph");
        write.In(photo.WorkshopId);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version of the photograph you saw.");
        faults.Text(entry.Words, "words", LongestWords, needed: false);
        faults.Require(entry.PieceId is not { } piece || await write.Db.Pieces.AnyAsync(p => p.Id == piece && write.Db.Designs.Any(d => d.Id == p.DesignId && d.SetId == setId), write.Stop), "pieceId", "This piece is not of this set.");
        if (faults.Any)
            return faults.ToProblem();
        if (photo.Version != entry.Version)
            return Problems.Changed("photograph", (await Words(write.Db.Photos.Where(p => p.Id == photoId), write.Db, write.Stop)).Single());
        if (entry.PutAway == false && photo.FreedAt is not null)
            return Problems.Of(StatusCodes.Status409Conflict, "picture-gone", "The picture of this photograph was let go for good; it cannot be brought back.");
        photo.Words = entry.Words?.Trim() ?? photo.Words;
        photo.PieceId = entry.PieceId ?? photo.PieceId;
        if (entry.PutAway is { } away)
            photo.PutAwayAt = away ? photo.PutAwayAt ?? write.Now : null;
        write.Says(entry.PutAway == true ? "Put a photograph away" : entry.PutAway == false ? "Brought a photograph back" : "Changed what is said of a photograph", removes: entry.PutAway == true);
        await write.Save();
        return new PhotoTold(setId, photoId);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Show(Guid setId, Guid photoId, bool small, LowfellDb db, HttpResponse to, CancellationToken stop)
    {
        var bytes = await (
            from p in db.Photos
            join b in db.Blobs on small ? p.SmallId : p.BlobId equals b.Id
            where p.Id == photoId && p.SetId == setId
            select b.Bytes).FirstOrDefaultAsync(stop);
        if (bytes is null)
            return Problems.NotFound("photograph");

        // Its pixels never change under its id.
        to.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.Bytes(bytes, Pictures.Type);
    }
}
