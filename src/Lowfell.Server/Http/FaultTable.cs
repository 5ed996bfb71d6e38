using System.Text.Json;
using System.Text.RegularExpressions;
using Lowfell.Server.Writing;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;

namespace Lowfell.Server.Http;

/// <summary>
/// Everything that can go wrong beyond an endpoint's own refusals, in one table: what the caller did (4xx), what passes by itself (503,
/// 507, with what is known of the write), and what is our own defect (500, logged once with its trace).
/// </summary>
internal static partial class FaultTable
{
    private const int SoonSeconds = 2, LaterSeconds = 30;

    public static async Task Handle(HttpContext http)
    {
        var error = Unwrapped(http.Features.Get<IExceptionHandlerFeature>()?.Error);
        var problem = error switch
        {
            OperationCanceledException when http.RequestAborted.IsCancellationRequested => Problems.Of(499, "cancelled", "The request was cancelled."),
            BadHttpRequestException bad => Unreadable(bad),
            DbUpdateConcurrencyException => Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "This was changed in another window. Load it again."),
            PostgresException refused => OfDatabase(http, refused),
            NpgsqlException { InnerException: TimeoutException } or TimeoutException => Passing(http, "too-slow", "The database took too long to answer."),
            NpgsqlException => Passing(http, "database-away", "The database is away."),
            IOException full when IsFull(full.Message) => Full(http),
            OutOfMemoryException => Passing(http, "busy", "This needs more memory than the server takes."),
            // Nobody asked for it to be cancelled or torn down: the server is going down, or the driver gave up.
            OperationCanceledException or ObjectDisposedException => Passing(http, "interrupted", "This was cut short."),
            _ => Defect(http, error),
        };
        await problem.ExecuteAsync(http);
    }

    private static Exception? Unwrapped(Exception? error) => error switch
    {
        RetryLimitExceededException { InnerException: { } inner } => Unwrapped(inner),
        DbUpdateConcurrencyException => error,
        DbUpdateException { InnerException: { } inner } => Unwrapped(inner),
        AggregateException { InnerException: { } inner } => Unwrapped(inner),
        InvalidOperationException { InnerException: { } inner and (NpgsqlException or DbUpdateException) } => Unwrapped(inner),
        _ => error,
    };

    private static ProblemHttpResult OfDatabase(HttpContext http, PostgresException refused) => refused.SqlState switch
    {
        PostgresErrorCodes.UniqueViolation => Problems.Taken(refused.ConstraintName?.Contains("label", StringComparison.Ordinal) == true ? "label" : "name", "There is one of this name already."),
        PostgresErrorCodes.ForeignKeyViolation or PostgresErrorCodes.RestrictViolation =>
            Problems.Of(StatusCodes.Status409Conflict, "in-use", "Something else still needs this, or needs something that is gone. Load the page again."),
        PostgresErrorCodes.CheckViolation => Problems.Of(StatusCodes.Status400BadRequest, "refused-by-store", "The store refused a value that cannot be. Nothing was stored.", [new Fault(Column(refused), "This value is not possible here.")]),
        PostgresErrorCodes.NumericValueOutOfRange => Problems.Of(StatusCodes.Status400BadRequest, "invalid", "A number is larger than can be stored.", [new Fault(Column(refused), "Give a smaller number.")]),
        PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter =>
            Problems.Of(StatusCodes.Status400BadRequest, "invalid", "A text holds a character that cannot be stored.", [new Fault(Column(refused), "Take out the control characters.")]),
        "LF409" => Problems.Of(StatusCodes.Status409Conflict, "touched-since", $"{refused.MessageText} {refused.Hint}"),
        _ when IsFull(refused) => Full(http),
        PostgresErrorCodes.SerializationFailure or PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.LockNotAvailable or PostgresErrorCodes.TooManyConnections =>
            Passing(http, "busy", "Too much is being written at once."),
        PostgresErrorCodes.QueryCanceled => Passing(http, "too-slow", "The database took too long to answer."),
        PostgresErrorCodes.AdminShutdown or PostgresErrorCodes.CrashShutdown or PostgresErrorCodes.CannotConnectNow or PostgresErrorCodes.OutOfMemory => Passing(http, "database-away", "The database is away."),
        // Whatever it is that a session ends of, the next one may not.
        _ when refused.InvariantSeverity is "FATAL" or "PANIC" || refused.SqlState.StartsWith("08", StringComparison.Ordinal) => Passing(http, "database-away", "The database is away."),
        _ => Defect(http, refused),
    };

    /// <summary>Whether it is for want of room: PostgreSQL says so in several ways, and of its own small files as an error of its inside.</summary>
    public static bool IsFull(PostgresException refused) =>
        refused.SqlState == PostgresErrorCodes.DiskFull || IsFull(refused.MessageText) || (refused.SqlState == PostgresErrorCodes.InternalError && refused.MessageText.StartsWith("could not write", StringComparison.Ordinal));

    private static bool IsFull(string message) => message.Contains("No space left", StringComparison.OrdinalIgnoreCase) || message.Contains("not enough space", StringComparison.OrdinalIgnoreCase);

    private static string Column(PostgresException refused) => refused.ColumnName ?? refused.ConstraintName?.Replace($"ck_{refused.TableName}_", "", StringComparison.Ordinal) ?? "";

    private static ProblemHttpResult Passing(HttpContext http, string code, string says)
    {
        http.Response.Headers.RetryAfter = $"{SoonSeconds}";
        Note(http, code);
        return Problems.Of(StatusCodes.Status503ServiceUnavailable, code, $"{says} {Known(http)}Try again in a moment.");
    }

    private static ProblemHttpResult Full(HttpContext http)
    {
        http.Response.Headers.RetryAfter = $"{LaterSeconds}";
        Note(http, "disk-full");
        return Problems.Of(StatusCodes.Status507InsufficientStorage, "disk-full", $"The disk that holds the data is full. {Known(http)}Make room, then try again.");
    }

    /// <summary>What is known of a write that was under way.</summary>
    private static string Known(HttpContext http) => WriteProgress.Of(http).State switch
    {
        WriteState.NotStored => "Nothing was stored. ",
        WriteState.Unknown => "What was sent may have been stored: ask again with the same Idempotency-Key, and it counts once. ",
        WriteState.Stored => "What was sent is stored; only the answer is missing: ask again with the same Idempotency-Key. ",
        _ => "",
    };

    private static void Note(HttpContext http, string code) => Log(http, "Lowfell.Passing").LogWarning("{Code} at {Method} {Route}", code, http.Request.Method, Logs.RouteOf(http));

    private static ProblemHttpResult Defect(HttpContext http, Exception? error)
    {
        Log(http, "Lowfell.Defect").LogError(error, "Defect at {Method} {Route}", http.Request.Method, Logs.RouteOf(http));
        return Problems.Of(StatusCodes.Status500InternalServerError, "defect", $"Something went wrong in Lowfell itself. {Known(http)}The log has the details.");
    }

    private static ILogger Log(HttpContext http, string name) => http.RequestServices.GetRequiredService<ILoggerFactory>().CreateLogger(name);

    private static ProblemHttpResult Unreadable(BadHttpRequestException bad)
    {
        if (bad.StatusCode == StatusCodes.Status413PayloadTooLarge)
            return Problems.Of(StatusCodes.Status413PayloadTooLarge, "too-large", "The request is larger than this server takes. Send less at once.");
        if (bad.StatusCode == StatusCodes.Status415UnsupportedMediaType)
            return Problems.Of(StatusCodes.Status415UnsupportedMediaType, "not-json", "Send the body as application/json.");
        if (bad.InnerException is JsonException json)
        {
            var unknown = UnknownMember().Match(json.Message);
            return unknown.Success
                ? Problems.Of(StatusCodes.Status400BadRequest, "unknown-field", "The body has a field that means nothing here.", [new Fault(FieldPath(json.Path), $"There is no field '{unknown.Groups[1].Value}' here. Check its spelling, or take it out.")])
                : Problems.Of(StatusCodes.Status400BadRequest, "malformed-json", "The body could not be read as JSON of the expected shape.", [new Fault(FieldPath(json.Path), "Check spelling, commas and the kind of value here.")]);
        }

        if (bad.Message.Contains("body", StringComparison.OrdinalIgnoreCase))
            return Problems.Of(StatusCodes.Status400BadRequest, "no-body", "The request has no body. Send what is to be done as JSON.");
        var field = Parameter().Match(bad.Message) is { Success: true } m ? m.Groups[1].Value : "";
        return Problems.Of(StatusCodes.Status400BadRequest, "bad-request", field.Length > 0 ? $"'{field}' is missing, or is not the kind of value it should be." : "The request could not be read.", field.Length > 0 ? [new Fault(field, "Give a value of the right kind.")] : null);
    }

    [GeneratedRegex("The JSON property '([^']*)' could not be mapped")]
    private static partial Regex UnknownMember();

    [GeneratedRegex("parameter \"(?:[^\" ]+ )?([A-Za-z]+)\"")]
    private static partial Regex Parameter();

    private static string FieldPath(string? jsonPath) => jsonPath is null or "$" ? "" : jsonPath.TrimStart('$').TrimStart('.');
}
