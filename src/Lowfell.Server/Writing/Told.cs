using Lowfell.Store;

namespace Lowfell.Server.Writing;

/// <summary>What an answer is told from: the store as it is after the write, and what else is needed to read it.</summary>
public sealed record Telling(LowfellDb Db, SetGraphs Graphs, CancellationToken Stop);

/// <summary>How the answer of a route is told from what its write came to.</summary>
internal sealed record Writing(Type Told, int Status, Func<object, Telling, Task<object?>> Answer);

/// <summary>Maps routes that write.</summary>
public static class WriteRoutes
{
    /// <summary>
    /// This route writes: once for every <c>Idempotency-Key</c>, in one transaction, tried again when the database asks to. The handler
    /// returns an <see cref="Outcome{T}"/>, from which the answer is told; asked again with the same key, it is told again.
    /// </summary>
    public static RouteHandlerBuilder Writes<TTold, TAnswer>(this RouteHandlerBuilder route, Func<TTold, Telling, Task<TAnswer>> answer, int status = StatusCodes.Status200OK) where TTold : class =>
        Writes(route, typeof(TTold), status, async (told, telling) => await answer((TTold)told, telling)).Produces<TAnswer>(status);

    /// <summary>The same for a write that is answered with what it told.</summary>
    public static RouteHandlerBuilder Writes<TTold>(this RouteHandlerBuilder route, int status = StatusCodes.Status200OK) where TTold : class =>
        Writes(route, typeof(TTold), status, (told, _) => Task.FromResult<object?>(told)).Produces<TTold>(status);

    /// <summary>The same for a write that has nothing to tell.</summary>
    public static RouteHandlerBuilder WritesSilently(this RouteHandlerBuilder route) =>
        Writes(route, typeof(Nothing), StatusCodes.Status204NoContent, (_, _) => Task.FromResult<object?>(null)).Produces(StatusCodes.Status204NoContent);

    private static RouteHandlerBuilder Writes(RouteHandlerBuilder route, Type told, int status, Func<object, Telling, Task<object?>> answer) => route
        .AddEndpointFilter<WriteFilter>().WithMetadata(new Writing(told, status, answer))
        .ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).ProducesProblem(503);
}
