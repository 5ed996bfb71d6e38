namespace Lowfell.Script.Tests;

/// <summary>Starting and stopping, as a person does it and as things go wrong.</summary>
public sealed class StartTests(Begun begun)
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_starts_refuses_a_second_start_stops_and_starts_again_with_what_was_stored()
    {
        await using var place = new Place();
        var first = await place.Start();
        Assert.Equal(201, (await place.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" })).Status);

        // The role that serves is not the one that owns, and neither may do more than it has to.
        Assert.Equal("lowfell_serve", await place.Ask<string>("select usename::text from pg_stat_activity where datname = 'lowfell' and usename <> 'lowfell' order by 1 desc limit 1"));
        Assert.Equal("lowfell_owner", await place.Ask<string>("select pg_get_userbyid(relowner)::text from pg_class where relname = 'work_events'"));
        Assert.False(await place.Ask<bool>("select bool_or(rolsuper or rolcreatedb or rolcreaterole) from pg_roles where rolname in ('lowfell_serve', 'lowfell_owner')"));
        var second = await place.Run("start");
        Assert.Equal(1, second.Code);
        Assert.Contains("running", second.Text);
        Assert.True(await place.Answers());

        var ended = await place.Run("stop");
        Assert.Contains("stopped", ended.Text);
        await first.WaitForExitAsync(Stop);
        Assert.Contains("no Lowfell is running", (await place.Run("stop")).Text);
        var log = new FileInfo(Path.Combine(place.Data, "postgres.log")).Length;

        await place.Start();
        Assert.Contains((await place.Get("/api/workshops")).AsArray(), w => w!["name"]!.GetValue<string>() == "Attic bench");
        Assert.True(new FileInfo(Path.Combine(place.Data, "postgres.log")).Length > log, "the log of the first run is kept");
    }

    [Fact]
    public async Task Of_two_first_starts_at_once_one_serves_and_the_other_says_why_not()
    {
        await using var place = new Place();
        await using var rival = new Place(place.Data);
        var (one, other) = (place.Launch(Lowfell, "start"), rival.Launch(Lowfell, "start"));
        await Place.Until(async () => await place.Answers() || await rival.Answers());
        await Place.Until(() => Task.FromResult(one.HasExited || other.HasExited));
        var loser = one.HasExited ? one : other;
        Assert.Equal(1, loser.ExitCode);
        var winner = one.HasExited ? rival : place;
        Assert.True(await winner.Answers());
        Assert.Single((await winner.Get("/api/workshops")).AsArray());
        Assert.Contains("stopped", (await winner.Run("stop")).Text);
    }

    private static string Lowfell => Path.Combine(Place.Needed("LOWFELL_TEST_ROOT"), "lowfell");

    [Fact]
    public async Task Stop_ends_nothing_but_what_it_started()
    {
        await using var place = new Place();
        Directory.CreateDirectory(place.Data);
        var bystander = place.Launch("sleep", "600");
        await File.WriteAllTextAsync(Path.Combine(place.Data, "lowfell.run"), $"pid={bystander.Id}\nbegan=1\nweb={place.Web}\ndb={place.Port}\n", Stop);
        Assert.Contains("no Lowfell is running", (await place.Run("stop")).Text);
        Assert.False(bystander.HasExited);
    }

    [Fact]
    public async Task A_script_that_was_killed_leaves_nothing_in_the_way()
    {
        await using var place = await begun.Copy();
        var first = await place.Start();
        Assert.Equal(201, (await place.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" })).Status);
        first.Kill();
        await first.WaitForExitAsync(Stop);
        await Place.Until(() => Task.FromResult(!place.Processes("Lowfell.Server").Any() && !place.Processes("postgres").Any()));
        await place.Start();
        Assert.Equal(2, (await place.Get("/api/workshops")).AsArray().Count);
    }

    [Fact]
    public async Task A_full_disk_is_said_to_be_full_and_loses_nothing()
    {
        await using var place = new Place();
        Directory.CreateDirectory(place.Data);
        string[] apart = Environment.UserName == "root" ? ["unshare", "-m"] : ["unshare", "-c", "-m", "--keep-caps"];
        var script = await place.Start([.. apart, "bash", "-c", $"mount -t tmpfs -o size=320m,mode=755 tmpfs {place.Data} && exec \"$@\"", "-"]);
        var workshop = (await place.Get("/api/workshops"))[0]!["id"]!.GetValue<Guid>();

        // From here the folder is seen as the script sees it.
        var inside = $"/proc/{script.Id}/root{place.Data}";
        await using (var filler = File.Create(Path.Combine(inside, "filler")))
            await Assert.ThrowsAsync<IOException>(async () =>
            {
                while (true)
                    await filler.WriteAsync(new byte[1_000_000], Stop);
            });
        var rows = string.Concat(Enumerable.Range(0, 15_000).Select(n => $"Filler {n},paint,#40{n % 100:00}50,{new string('n', 200)}\n"));
        var (status, problem, answer) = await place.Send(HttpMethod.Post, $"/api/shelf/{workshop}/csv", new { store = true, text = "name,kind,colour,notes\n" + rows });
        Assert.Contains(status, new[] { 507, 503 });
        Assert.Contains(problem["code"]!.GetValue<string>(), new[] { "disk-full", "database-away" });
        Assert.NotNull(answer!.Headers.RetryAfter);

        File.Delete(Path.Combine(inside, "filler"));
        await Place.Until(async () => (await place.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" })).Status == 201);
        Assert.DoesNotContain((await place.Get($"/api/shelf/{workshop}/materials")).AsArray(), m => m!["name"]!.GetValue<string>().StartsWith("Filler", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_start_on_a_full_disk_says_so()
    {
        await using var place = new Place();
        Directory.CreateDirectory(place.Data);
        string[] apart = Environment.UserName == "root" ? ["unshare", "-m"] : ["unshare", "-c", "-m", "--keep-caps"];
        var ended = await Place.Wait(place.Launch([.. apart, "bash", "-c", $"mount -t tmpfs -o size=8m tmpfs {place.Data} && exec \"$@\"", "-", Lowfell, "start"]));
        Assert.Equal(1, ended.Code);
        Assert.Contains("is full", ended.Text);
    }
}
