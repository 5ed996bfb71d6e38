using System.Diagnostics;
using System.Security.Cryptography;
using System.Text.Json;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Writing;

/// <summary>
/// The one way to write: id and hash of the body, actor, transaction, step, versions, receipt, notice, commit, answer. What the
/// database asks to try again is tried again; a second sending finds the receipt of the first.
/// </summary>
internal sealed class WriteFilter(Write write, LowfellDb db, SetGraphs graphs, IOptions<JsonOptions> json) : IEndpointFilter
{
    public const string KeyHeader = "Idempotency-Key", ToldAtHeader = "Lowfell-Told-At", StepHeader = "Lowfell-Step";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var http = invocation.HttpContext;
        var writing = http.GetEndpoint()!.Metadata.GetRequiredMetadata<Writing>();
        if (!Guid.TryParse(http.Request.Headers[KeyHeader].ToString(), out var id) || id == Guid.Empty)
            return Problems.Of(StatusCodes.Status400BadRequest, "no-key", "A write needs an Idempotency-Key, so that it counts once however often it is sent.", [new Fault(KeyHeader, "Send a UUID of its own with every write.")]);
        if (ToldAt(http.Request) is not { } told)
            return Problems.Of(StatusCodes.Status400BadRequest, "invalid", "The instant could not be read.", [new Fault(ToldAtHeader, "Send an instant such as 2026-11-25T19:30:00Z, or leave it out.")]);
        if (Step(http.Request) is not { } step)
            return Problems.Of(StatusCodes.Status400BadRequest, "invalid", "The step could not be read.", [new Fault(StepHeader, "Send a UUID that names the gesture this write belongs to, or leave it out.")]);
        var hash = await Hash(http.Request);
        var actor = Actor.Of(http.Request);
        var progress = WriteProgress.Of(http);
        var began = Stopwatch.GetTimestamp();
        var retry = new WriteRetry(db);
        var result = await retry.ExecuteAsync(async stop =>
        {
            write.Begin(id, actor, told.At, stop);
            progress.State = WriteState.NotStored;
            await using var transaction = await db.Database.BeginTransactionAsync(stop);
            try
            {
                await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({id.ToString()}, 0))", stop);
                var begun = await Journal.Begin(db, step == Guid.Empty ? id : step, id, actor, stop);
                if (begun.Told is { } toldBefore)
                    return begun.BodyHash.AsSpan().SequenceEqual(hash) ? Again(toldBefore, writing) : Reused();
                if (begun.Spent)
                    return Spent();
                var answer = await next(invocation);
                if (answer is not IOutcome { Told: { } came })
                    return Only(answer);
                await Keep(id, begun.Step, hash, came, stop);
                progress.State = WriteState.Unknown;
                await transaction.CommitAsync(stop);
                progress.State = WriteState.Stored;
                return came;
            }
            catch (Exception unclear) when (WriteRetry.HidesABreak(db, unclear))
            {
                throw WriteRetry.Broke(unclear);
            }
        }, http.RequestAborted);
        Metrics.Wrote(result is IResult ? "refused" : progress.State == WriteState.Stored ? "stored" : "again", Stopwatch.GetElapsedTime(began));
        if (result is IResult refusal)
            return refusal;
        progress.State = WriteState.Stored;
        db.ChangeTracker.Clear();
        var body = await writing.Answer(result, new Telling(db, graphs, http.RequestAborted));
        return body is null ? Results.StatusCode(writing.Status) : Results.Json(body, statusCode: writing.Status);
    }

    /// <summary>Everything that goes with the step: its receipt, the slices it moved on, and the notice of it.</summary>
    private async Task Keep(Guid id, Guid step, byte[] hash, object told, CancellationToken stop)
    {
        await write.Save();
        await Journal.Keep(db, step, write, new WriteReceiptRow { Id = id, BodyHash = hash, Told = JsonSerializer.Serialize(told, told.GetType(), json.Value.SerializerOptions), At = write.Now }, stop);
        if (write.Touched.Count > 0)
            await Slices.MoveOn(db, write.Workshop, write.Touched, versions => new ChangeNotice(write.Workshop, versions, id).ToJson(), stop);
    }

    private object Again(string told, Writing writing) => JsonSerializer.Deserialize(told, writing.Told, json.Value.SerializerOptions)!;

    private static IResult Reused() => Problems.Of(StatusCodes.Status409Conflict, "key-reused", "This Idempotency-Key was used for another write. Send a new one.");

    private static IResult Spent() => Problems.Of(
        StatusCodes.Status409Conflict, "key-spent", $"This was stored more than {Receipts.Kept.TotalDays:0} days ago, and its answer is no longer kept. Look at how things stand; to do it once more, send a new Idempotency-Key.");

    private static IResult Only(object? answer) => (answer as IOutcome)?.Answer ?? throw new InvalidOperationException("A write must return an outcome.");

    private static (DateTimeOffset? At, bool Read)? ToldAt(HttpRequest request)
    {
        var text = request.Headers[ToldAtHeader].ToString();
        if (text.Length == 0)
            return (null, true);
        return DateTimeOffset.TryParse(text, System.Globalization.CultureInfo.InvariantCulture, System.Globalization.DateTimeStyles.AssumeUniversal, out var at) ? (at.ToUniversalTime(), true) : null;
    }

    /// <summary>The gesture a write belongs to; empty where it is one by itself, null where it cannot be read.</summary>
    private static Guid? Step(HttpRequest request)
    {
        var text = request.Headers[StepHeader].ToString();
        return text.Length == 0 ? Guid.Empty : Guid.TryParse(text, out var step) ? step : null;
    }

    private static async Task<byte[]> Hash(HttpRequest request)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(System.Text.Encoding.UTF8.GetBytes($"{request.Method} {request.Path}\n"));
        request.Body.Position = 0;
        var buffer = new byte[16_384];
        int read;
        while ((read = await request.Body.ReadAsync(buffer, request.HttpContext.RequestAborted)) > 0)
            hash.AppendData(buffer, 0, read);
        return hash.GetHashAndReset();
    }

    /// <summary>Keeps the body of a write, so that it can be hashed after it was read.</summary>
    public static Task KeepBody(HttpContext http, RequestDelegate next)
    {
        if (http.GetEndpoint()?.Metadata.GetMetadata<Writing>() is not null)
            http.Request.EnableBuffering(bufferThreshold: 1_000_000);
        return next(http);
    }
}
