using System.Diagnostics;

namespace Lowfell.Script.Tests;

/// <summary>Two servers before one database, and one of them is killed: whoever is at the other notices nothing, whoever was at it goes on there.</summary>
public sealed class TwoServersTests(Begun begun)
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;
    private static readonly TimeSpan goesOnWithin = TimeSpan.FromSeconds(3);

    [Fact]
    public async Task One_of_two_servers_is_killed_and_the_devices_go_on_by_themselves()
    {
        await using var first = await begun.Copy();
        await first.Start();
        await using var second = new Place { Database = await first.Serving(), Demo = false };
        var script = await second.Start();
        var tablets = new Tablets(first, second, atOnce: 6, eventsEach: 150);
        await tablets.Prepare();
        var work = tablets.Work();
        await Place.Until(() => Task.FromResult(tablets.Answered.Count > 60 || work.IsFaulted), () => $"{tablets.Answered.Count} answers");
        Assert.Contains(tablets.Answered, a => a.At == second);
        using (var victim = Process.GetProcessById(second.Processes("Lowfell.Server").First()))
            victim.Kill();
        var killed = DateTimeOffset.UtcNow;
        await script.WaitForExitAsync(Stop);
        await work;

        // Those at the other server hardly wait; those that were at the killed one find the other.
        for (var n = 0; n < Tablets.Count; n++)
        {
            var after = tablets.Answered.Where(a => a.Tablet == n && a.When > killed).ToList();
            Assert.True(after.Count > 0 && after[0].When - killed < goesOnWithin, $"tablet {n} got its next answer after {(after.Count == 0 ? "never" : after[0].When - killed)}");
            Assert.True(after.Skip(1).All(a => a.At == first), $"tablet {n} is at the server that is left");
        }

        await tablets.Exact();
        Assert.Equal(0L, await first.Ask<long>("select count(*) from pg_locks l join pg_stat_activity a using (pid) where a.usename = 'lowfell_serve' and a.state = 'idle in transaction'"));
    }

    [Fact]
    public async Task A_server_with_few_rights_starts_on_data_that_the_owner_brought_up_to_it()
    {
        await using var home = await begun.Copy();
        await home.Start();

        // A database of one's own: made by the owner, brought up by the command, served by the role that may do nothing else.
        await home.Ask<object>("create database workshop owner lowfell_owner");
        var serving = (await home.Serving()).Replace("Database=lowfell", "Database=workshop", StringComparison.Ordinal);
        await using var away = new Place { Database = serving, Demo = false };
        var early = await away.Run("start");
        Assert.True(early.Code != 0 && early.Text.Contains("./lowfell migrate", StringComparison.Ordinal), early.Text);
        var owner = serving.Replace("lowfell_serve", "lowfell_owner", StringComparison.Ordinal).Replace(Secret(serving), (await File.ReadAllTextAsync(Path.Combine(home.Data, "lowfell_owner-password"), Stop)).Trim(), StringComparison.Ordinal);
        var told = await away.Command("env", $"LOWFELL_OWNER_DATABASE={owner}", Path.Combine(Place.Needed("LOWFELL_TEST_ROOT"), "lowfell"), "migrate");
        Assert.Contains("at this version", told);
        await away.Start();
        Assert.Empty((await away.Get("/api/workshops")).AsArray());
        var metrics = await away.Http.GetStringAsync("/metrics", Stop);
        Assert.Contains("http_server_request_duration", metrics);
        Assert.DoesNotContain("Password", metrics);
    }

    private static string Secret(string connection) => connection.Split(';').Single(p => p.StartsWith("Password=", StringComparison.Ordinal))["Password=".Length..];
}
