using System.Text.Json;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Http;

/// <summary>
/// A write that carries an <c>Idempotency-Key</c> (a UUID) is carried out once: sent again, it gets the first answer.
/// Receipt and change are one transaction. Refusals are not remembered, so that they can be mended and sent again.
/// </summary>
public sealed class IdempotencyFilter(LowfellDb db, SetGraphs graphs, IOptions<JsonOptions> json, TimeProvider clock) : IEndpointFilter
{
    private const int LargestReceipt = 2_000_000;

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var http = invocation.HttpContext;
        var header = http.Request.Headers["Idempotency-Key"].ToString();
        if (header.Length == 0)
            return await next(invocation);
        if (!Guid.TryParse(header, out var key))
            return Problems.Of(StatusCodes.Status400BadRequest, "invalid", "The Idempotency-Key header must be a UUID.", [new Fault("Idempotency-Key", "Send a UUID.")]);

        await using var transaction = await db.Database.BeginTransactionAsync(http.RequestAborted);
        await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({key.ToString()}, 0))", http.RequestAborted);
        if (await db.WriteReceipts.AsNoTracking().FirstOrDefaultAsync(r => r.Id == key, http.RequestAborted) is { } receipt)
        {
            return receipt.Path == http.Request.Path
                ? Results.Text(receipt.Body, "application/json", statusCode: receipt.Status)
                : Problems.Of(StatusCodes.Status409Conflict, "key-reused", "This Idempotency-Key was used for another write. Send a new one.");
        }

        var answer = await next(invocation);
        var result = answer;
        while (result is INestedHttpResult nested)
            result = nested.Result;
        if (result is IStatusCodeHttpResult { StatusCode: >= 200 and < 300 } and IValueHttpResult value)
        {
            var body = JsonSerializer.Serialize(value.Value, value.Value?.GetType() ?? typeof(object), json.Value.SerializerOptions);
            if (body.Length <= LargestReceipt)
            {
                db.Add(new WriteReceiptRow { Id = key, Path = http.Request.Path, Status = ((IStatusCodeHttpResult)result).StatusCode!.Value, Body = body, At = clock.GetUtcNow() });
                await db.SaveChangesAsync(http.RequestAborted);
            }

            await transaction.CommitAsync(http.RequestAborted);
            graphs.Forget();
        }

        return answer;
    }
}
