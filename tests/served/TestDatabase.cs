using Npgsql;

namespace Lowfell.Tests;

/// <summary>Databases in the throw-away cluster, with the two roles that a Lowfell has: who owns the tables, and who serves.</summary>
public static class TestDatabase
{
    public const string Owner = "lowfell_owner", Serve = "lowfell_serve";
    private const string Password = "only for tests";
    private static readonly string root = Environment.GetEnvironmentVariable("LOWFELL_TEST_DATABASE")
        ?? throw new InvalidOperationException("Run these tests with ./lowfell test, which starts a throw-away PostgreSQL.");
    private static readonly Lazy<Task> roles = new(MakeRoles);

    /// <summary>A database as one of its roles reaches it.</summary>
    public static string As(string role, string database) =>
        new NpgsqlConnectionStringBuilder(root) { Username = role, Password = Password, Database = database, IncludeErrorDetail = true, MaxPoolSize = 20 }.ConnectionString;

    /// <summary>A new database, with nothing in it or as a copy of another.</summary>
    public static async Task Create(string name, string? template = null)
    {
        await roles.Value;
        await Execute(root, $"create database {name} {(template is null ? "" : $"template {template}")} owner {Owner}");
    }

    public static async Task<bool> Exists(string name)
    {
        await using var db = new NpgsqlConnection(root);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand("select exists (select from pg_database where datname = $1)", db) { Parameters = { new() { Value = name } } };
        return (bool)(await command.ExecuteScalarAsync())!;
    }

    public static async Task Execute(string connection, string sql)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand(sql, db);
        await command.ExecuteNonQueryAsync();
    }

    /// <summary>What is idle of a database that nobody needs any more would be in the way of those that come after.</summary>
    public static async Task LetGo(string name)
    {
        foreach (var connection in new[] { As(Owner, name), As(Serve, name), Server.Http.Pool.Of(As(Serve, name)) })
        {
            await using var line = new NpgsqlConnection(connection);
            NpgsqlConnection.ClearPool(line);
        }
    }

    /// <summary>Takes away a database that is done with.</summary>
    public static async Task Drop(string name)
    {
        await LetGo(name);
        await Execute(root, $"drop database if exists {name} with (force)");
    }

    private static async Task MakeRoles()
    {
        foreach (var role in new[] { Owner, Serve })
            await Execute(root, $"do $$ begin create role {role} login password '{Password}'; exception when duplicate_object or unique_violation then alter role {role} password '{Password}'; end $$");
    }
}
