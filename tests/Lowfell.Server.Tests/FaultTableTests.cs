using System.Text.Json.Nodes;
using Lowfell.Server.Http;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>What the database says in its own words, and what is answered for it.</summary>
public sealed class FaultTableTests
{
    [Theory]
    [InlineData("ERROR", "53100", "could not extend file", 507, "disk-full")]
    [InlineData("ERROR", "58030", "could not write to file: No space left on device", 507, "disk-full")]
    [InlineData("FATAL", "XX000", "could not write init file", 507, "disk-full")]
    [InlineData("FATAL", "XX000", "a session that ended of something else", 503, "database-away")]
    [InlineData("PANIC", "58030", "could not fsync file: Input/output error", 503, "database-away")]
    [InlineData("FATAL", "57P03", "the database system is starting up", 503, "database-away")]
    [InlineData("ERROR", "XX000", "something of ours", 500, "defect")]
    [InlineData("ERROR", "42601", "syntax error", 500, "defect")]
    public async Task A_fault_of_the_database_is_answered_as_what_it_is(string severity, string state, string says, int status, string code)
    {
        var services = new ServiceCollection();
        services.AddLogging().AddProblemDetails();
        var http = new DefaultHttpContext { RequestServices = services.BuildServiceProvider() };
        http.Features.Set<IExceptionHandlerFeature>(new ExceptionHandlerFeature { Error = new PostgresException(says, severity, severity, state) });
        http.Response.Body = new MemoryStream();
        await FaultTable.Handle(http);
        http.Response.Body.Position = 0;
        var said = await JsonNode.ParseAsync(http.Response.Body, cancellationToken: TestContext.Current.CancellationToken);
        Assert.Equal((status, code), (http.Response.StatusCode, said!.Text("code")));
    }
}
