using Lowfell.Store;
using Lowfell.Store.Demo;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql;

namespace Lowfell.Server.Http;

/// <summary>
/// Brings the database up to this version before anything is served: the owner's role migrates and gives the serving role its rights;
/// everything after that is done by the role that serves.
/// </summary>
internal static class Readiness
{
    /// <summary>Prepares the database; what stands in the way as a sentence, or null when all is well.</summary>
    /// <param name="app">The application.</param>
    /// <param name="begin">What a demo that was just loaded begins with.</param>
    public static async Task<string?> Prepare(WebApplication app, Func<IServiceProvider, Task> begin)
    {
        try
        {
            await using var turn = await Turn(app);
            return await Migrate(app) ?? await Demo(app, begin);
        }
        catch (PostgresException full) when (FaultTable.IsFull(full))
        {
            return "The disk that holds the data is full. Nothing was changed. Make room and start again.";
        }
        catch (PostgresException refused) when (refused.SqlState == PostgresErrorCodes.InsufficientPrivilege)
        {
            return "The data is older than this version, and the role that serves may not bring it up to it. Do that once as the owner: LOWFELL_OWNER_DATABASE=… ./lowfell migrate. Nothing was changed.";
        }
        catch (NpgsqlException away) when (away is not PostgresException || away.IsTransient)
        {
            return $"The database does not answer: {away.Message}. Nothing was changed.";
        }
    }

    /// <summary>Brings the database up to this version and gives the serving role its rights, and nothing else; what was done, or what stands in the way.</summary>
    public static async Task<(string Says, bool Well)> MigrateNow(WebApplication app)
    {
        try
        {
            await using var turn = await Turn(app);
            return await Migrate(app) is { } trouble ? (trouble, false) : ("The database is at this version.", true);
        }
        catch (NpgsqlException away)
        {
            return ($"The database refused: {away.Message}", false);
        }
    }

    /// <summary>
    /// One server at a time brings a database up, gives rights and loads the demo; another that starts meanwhile waits here and then finds it done.
    /// </summary>
    private static async Task<NpgsqlConnection?> Turn(WebApplication app)
    {
        var line = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(Owner(app)) { Pooling = false, CommandTimeout = LongestTurnSeconds }.ConnectionString);
        try
        {
            await line.OpenAsync();
            await using var wait = new NpgsqlCommand("select pg_advisory_lock(hashtextextended('lowfell begins', 0))", line);
            await wait.ExecuteNonQueryAsync();
            return line;
        }
        catch (PostgresException none) when (none.SqlState == PostgresErrorCodes.InvalidCatalogName)
        {
            // There is no database to take turns in: whoever makes it says the rest.
            await line.DisposeAsync();
            return null;
        }
    }

    private const int LongestTurnSeconds = 600;

    private static string Owner(WebApplication app) => app.Configuration["Lowfell:Owner"] ?? app.Configuration["Lowfell:Database"] ?? "Host=127.0.0.1;Database=lowfell";

    /// <summary>The migrations of this version, oldest first.</summary>
    public static IEnumerable<string> Migrations()
    {
        using var db = new LowfellDb(LowfellDb.Options("Host=127.0.0.1"));
        return db.Database.GetMigrations().ToList();
    }

    /// <summary>Brings an empty database to a migration: what a backup of that time must look like.</summary>
    public static async Task MigrateTo(WebApplication app, string migration)
    {
        await using var db = Owned(app);
        await db.GetService<IMigrator>().MigrateAsync(migration);
    }

    /// <summary>With the services of the application, so that the model is built once for both roles.</summary>
    private static LowfellDb Owned(WebApplication app)
    {
        var options = new DbContextOptionsBuilder<LowfellDb>().UseApplicationServiceProvider(app.Services);
        return new LowfellDb(LowfellDb.Configure((DbContextOptionsBuilder<LowfellDb>)options, Owner(app)).Options);
    }

    private static async Task<string?> Migrate(WebApplication app)
    {
        var serving = app.Configuration["Lowfell:Database"];
        await using var db = Owned(app);
        var known = db.Database.GetMigrations().ToHashSet();
        if (await db.Database.CanConnectAsync() && (await db.Database.GetAppliedMigrationsAsync()).Any(m => !known.Contains(m)))
            return "This data was made by a newer Lowfell than this one. Start it with that one, or restore a backup of this one; nothing was changed.";
        if ((await db.Database.GetPendingMigrationsAsync()).Any())
            await db.Database.MigrateAsync();
        if (new NpgsqlConnectionStringBuilder(serving).Username is { } role)
            await ServingRole.Grant(db, role, CancellationToken.None);
        return null;
    }

    private static async Task<string?> Demo(WebApplication app, Func<IServiceProvider, Task> begin)
    {
        if (!app.Configuration.GetValue("Lowfell:Demo", true))
            return null;
        await using var scope = app.Services.CreateAsyncScope();
        if (await DemoSet.LoadIfNew(scope.ServiceProvider.GetRequiredService<LowfellDb>(), scope.ServiceProvider.GetRequiredService<TimeProvider>().GetUtcNow()))
            await begin(scope.ServiceProvider);
        return null;
    }
}
