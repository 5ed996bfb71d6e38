using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Workshops;

/// <summary>
/// Copies of everything that are made by themselves: how many there are, when the newest was made, and when making one failed last, if that is
/// newer. On is false where nobody makes any.
/// </summary>
public sealed record Copies(bool On, int Kept, DateTimeOffset? NewestAt, DateTimeOffset? FailedAt);

/// <summary>Tells of the copies that are made of everything once a day; they are made outside, where the database's own tools are.</summary>
public static class CopiesEndpoints
{
    public static void MapCopies(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/copies", Of).WithTags("Workshops").WithName("copies").WithSummary("The copies of everything that are made by themselves, once a day.");

    private static Ok<Copies> Of(IConfiguration settings, TimeProvider clock)
    {
        if (settings["Lowfell:Copies"] is not { Length: > 0 } folder || !Directory.Exists(folder))
            return TypedResults.Ok(new Copies(false, 0, null, null));

        // One that is dated ahead says nothing of when the newest was made.
        var soon = clock.GetUtcNow().AddMinutes(1);
        var copies = new DirectoryInfo(folder).GetFiles("*.backup");
        var made = copies.Select(f => (DateTimeOffset)f.LastWriteTimeUtc).Where(at => at < soon).OrderDescending().ToList();
        var failed = new FileInfo(Path.Combine(folder, "failed"));
        DateTimeOffset? newest = made.Count > 0 ? made[0] : null, wrong = failed.Exists ? failed.LastWriteTimeUtc : null;
        return TypedResults.Ok(new Copies(true, copies.Length, newest, wrong > (newest ?? DateTimeOffset.MinValue) ? wrong : null));
    }
}
