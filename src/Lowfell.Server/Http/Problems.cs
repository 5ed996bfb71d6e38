using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;

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

    /// <summary>Something of this name is there already.</summary>
    public static ProblemHttpResult Taken(string field, string says) => Of(StatusCodes.Status409Conflict, "already-there", says, [new Fault(field, $"{says} Choose another name.")]);

    /// <summary>Somebody else changed it first; both versions are told.</summary>
    public static ProblemHttpResult Changed(string what, object current) =>
        Of(StatusCodes.Status409Conflict, "changed-elsewhere", $"This {what} was changed in another window. Nothing was overwritten.", current: current);

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

    private static string Title(int status) => status switch
    {
        400 => "Not accepted",
        403 => "Not allowed from there",
        404 => "Not found",
        409 => "Changed meanwhile",
        413 => "Too large",
        429 => "Not so fast",
        503 => "Not now",
        507 => "No room left",
        _ => "Not done",
    };
}
