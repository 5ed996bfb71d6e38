using Npgsql;

namespace Lowfell.Server.Http;

/// <summary>How many lines to the database a server has: fewer than PostgreSQL gives, so that many at once wait in line and are not turned away.</summary>
internal static class Pool
{
    /// <summary>PostgreSQL gives a hundred to all servers together; two of these, what listens, and the tools of a backup fit in there.</summary>
    private const int Most = 40, WaitSeconds = 30;

    public static string Of(string connection)
    {
        var settings = new NpgsqlConnectionStringBuilder(connection);
        if (!settings.ContainsKey("Maximum Pool Size"))
            settings.MaxPoolSize = Most;
        if (!settings.ContainsKey("Timeout"))
            settings.Timeout = WaitSeconds;
        return settings.ConnectionString;
    }
}
