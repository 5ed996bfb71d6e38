using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Http;

/// <summary>Every refusal is a ProblemDetails with a stable <c>code</c> and the fields it speaks of.</summary>
public static class Problems
{
    public static ProblemHttpResult Of(int status, string code, string detail, IReadOnlyList<Fault>? faults = null, object? current = null)
    {
        var extensions = new Dictionary<string, object?> { ["code"] = code, ["errors"] = faults ?? [] };
        if (current is not null)
            extensions["current"] = current;
        return TypedResults.Problem(detail, statusCode: status, title: Title(status), extensions: extensions);
    }

    public static ProblemHttpResult NotFound(string what) =>
        Of(StatusCodes.Status404NotFound, "not-found", $"There is no {what} with this id. It may have been removed in another window.");

    /// <summary>Somebody else changed it first; both versions are told.</summary>
    public static ProblemHttpResult Changed(string what, object current) =>
        Of(StatusCodes.Status409Conflict, "changed-elsewhere", $"This {what} was changed in another window. Nothing was overwritten.", current: current);

    /// <summary>Turns what escapes an endpoint into a problem; only a real defect becomes a 500.</summary>
    public static async Task Handle(HttpContext http)
    {
        var error = http.Features.Get<IExceptionHandlerFeature>()?.Error;
        var problem = error switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } =>
                Of(StatusCodes.Status413PayloadTooLarge, "too-large", "The request is larger than this server takes. Send less at once."),
            BadHttpRequestException { InnerException: JsonException json } => Of(StatusCodes.Status400BadRequest, "malformed-json",
                "The body could not be read as JSON of the expected shape.", [new Fault(FieldPath(json.Path), "Check spelling, commas and the kind of value here.")]),
            BadHttpRequestException bad => Of(bad.StatusCode, "bad-request", "The request could not be read. " + bad.Message),
            DbUpdateConcurrencyException => Of(StatusCodes.Status409Conflict, "changed-elsewhere", "This was changed in another window. Load it again."),
            DbUpdateException { InnerException: PostgresException { SqlState: PostgresErrorCodes.UniqueViolation } unique } =>
                Of(StatusCodes.Status409Conflict, "already-there", "There is one of this name already. Choose another name.", [new Fault("name", $"Taken ({unique.ConstraintName}).")]),
            DbUpdateException { InnerException: PostgresException { SqlState: PostgresErrorCodes.ForeignKeyViolation } } =>
                Of(StatusCodes.Status409Conflict, "in-use", "Something else still needs this, or needs something that is gone. Load the page again."),
            DbUpdateException { InnerException: PostgresException { SqlState: PostgresErrorCodes.CheckViolation } check } =>
                Of(StatusCodes.Status400BadRequest, "refused-by-store", $"The store refused a value ({check.ConstraintName})."),
            OperationCanceledException when http.RequestAborted.IsCancellationRequested => Of(499, "cancelled", "The request was cancelled."),
            _ => Defect(http, error),
        };
        await problem.ExecuteAsync(http);
    }

    private static ProblemHttpResult Defect(HttpContext http, Exception? error)
    {
        http.RequestServices.GetRequiredService<ILoggerFactory>().CreateLogger("Lowfell.Defect").LogError(error, "Defect at {Path}", http.Request.Path);
        return Of(StatusCodes.Status500InternalServerError, "defect", "Something went wrong in Lowfell itself. Nothing was stored; the log has the details.");
    }

    /// <summary>Words for refusals that routing makes without a body.</summary>
    public static Task HandleEmpty(StatusCodeContext empty)
    {
        var http = empty.HttpContext;
        var (code, detail) = http.Response.StatusCode switch
        {
            StatusCodes.Status404NotFound => ("not-found", "There is nothing at this address."),
            StatusCodes.Status405MethodNotAllowed => ("wrong-method", "This address does not take that method."),
            StatusCodes.Status415UnsupportedMediaType => ("not-json", "Send the body as application/json."),
            _ => ("refused", "The request was refused."),
        };
        return Of(http.Response.StatusCode, code, detail).ExecuteAsync(http);
    }

    private static string FieldPath(string? jsonPath) => jsonPath is null or "$" ? "" : jsonPath.TrimStart('$').TrimStart('.');

    private static string Title(int status) => status switch
    {
        400 => "Not accepted",
        403 => "Not allowed from there",
        404 => "Not found",
        409 => "Changed meanwhile",
        413 => "Too large",
        _ => "Not done",
    };
}
