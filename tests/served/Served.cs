using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Lowfell.Tests;

/// <summary>The real server on a loopback port before one database, in the process of the tests: what it has to learn to run, it learns once for all of them.</summary>
public static class Served
{
    /// <summary>What every server of these tests is given: those before one database share it.</summary>
    private static readonly string secret = Path.Combine(Directory.CreateTempSubdirectory("lowfell-secret-").FullName, "own");

    /// <summary>Starts one before a database of that name, at a free port where none is named.</summary>
    public static WebApplicationFactory<Program> Start(string database, int port = 0, Action<IServiceCollection>? with = null, params (string Key, string Value)[] settings)
    {
        var server = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
        {
            b.UseSetting("Lowfell:Database", TestDatabase.As(TestDatabase.Serve, database))
                .UseSetting("Lowfell:Owner", TestDatabase.As(TestDatabase.Owner, database))
                .UseSetting("urls", $"http://127.0.0.1:{port}")
                .UseSetting("Lowfell:Secret", secret)
                .ConfigureServices(s => with?.Invoke(s));
            foreach (var (key, value) in settings)
                b.UseSetting(key, value);
        });
        server.UseKestrel(port);
        server.StartServer();
        return server;
    }
}
