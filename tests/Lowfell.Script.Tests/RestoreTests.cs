using System.Security.Cryptography;
using System.Text;

namespace Lowfell.Script.Tests;

/// <summary>A data folder with the demo in it and something of its own, at rest, with a backup of it.</summary>
public sealed class Kept(Begun begun) : IAsyncLifetime
{
    public Place Place { get; private set; } = null!;
    public string Backup => Place.Data + ".backup";

    public async ValueTask InitializeAsync()
    {
        Place = await begun.Copy();
        await Place.Start();
        Assert.Equal(201, (await Place.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" })).Status);
        Assert.Contains("everything is in", (await Place.Run("backup", Backup)).Text);
        foreach (var (name, sql) in otherwise)
            await Make(name, sql);
        Assert.Equal(0, (await Place.Run("stop")).Code);
    }

    /// <summary>Where what only a crafted backup could do would leave its mark.</summary>
    public string Proof => Place.Data + ".proof";

    private readonly (string Name, Func<Kept, string[]> Sql)[] otherwise =
    [
        ("newer", _ => ["insert into \"__EFMigrationsHistory\" values ('29990101000000_Later', '10.0.0')"]),
        ("crafted", kept =>
        [
            $"create function act() returns trigger language plpgsql as $$ begin execute 'copy (select 1) to program ''touch {kept.Proof}'''; return null; end $$",
            "create trigger act after insert on workshops for each row execute function act()",
            "alter table workshops enable always trigger act",
        ]),
        ("other", _ => ["create schema other", "create view other.look as select 1 as one"]),
    ];

    /// <summary>A backup as this version writes it, of a database that something was done to first.</summary>
    public string Made(string name) => $"{Place.Data}.{name}";

    private async Task Make(string name, Func<Kept, string[]> sql)
    {
        await Place.Ask<object>("create database made");
        var archive = Made(name) + ".archive";
        string[] As(string program, params string[] more) =>
            ["env", $"PGPASSWORD={File.ReadAllText(Path.Combine(Place.Data, "database-password")).Trim()}", $"{Place.Programs}/{program}", "-h", "127.0.0.1", "-p", $"{Place.Port}", "-U", "lowfell", "--no-owner", "--no-acl", .. more];
        await Place.Command(As("pg_dump", "-Fc", "-f", archive, "lowfell"));
        await Place.Command(As("pg_restore", "-d", "made", archive));
        foreach (var statement in sql(this))
            await Place.Ask<object>(statement, "made");
        await Place.Command(As("pg_dump", "-Fc", "-f", archive, "made"));
        await Place.Ask<object>("drop database made");
        var bytes = await File.ReadAllBytesAsync(archive);
        File.Delete(archive);
        var (_, migration) = FirstLine(await File.ReadAllBytesAsync(Backup));
        await File.WriteAllBytesAsync(Made(name), [.. Encoding.ASCII.GetBytes($"lowfell-backup 1 {migration} {Convert.ToHexStringLower(SHA256.HashData(bytes))}\n"), .. bytes]);
    }

    /// <summary>Where a backup's own line ends, and the migration that it names.</summary>
    public static (int End, string Migration) FirstLine(byte[] bytes)
    {
        var end = Array.IndexOf(bytes, (byte)'\n') + 1;
        return (end, Encoding.ASCII.GetString(bytes[..end]).Split(' ')[2]);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var file in otherwise.Select(o => Made(o.Name)).Append(Backup))
            File.Delete(file);
        await Place.DisposeAsync();
    }
}

/// <summary>Nine backups, each ending as promised: what is good comes back, what is not is refused before anything is touched.</summary>
public sealed class RestoreTests(Kept kept) : IClassFixture<Kept>
{
    private const string Ours = "Attic bench, Fen Row bench";
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>The workshops in the data of a place at rest, by a backup of it.</summary>
    private static async Task<string> Workshops(Place place)
    {
        var file = Path.Combine(place.Data, $"look-{Guid.NewGuid():n}");
        Assert.Contains("everything is in", (await place.Run("backup", file)).Text);
        var bytes = await File.ReadAllBytesAsync(file, Stop);
        var archive = file + ".archive";
        await File.WriteAllBytesAsync(archive, bytes[(Array.IndexOf(bytes, (byte)'\n') + 1)..], Stop);
        var sql = await place.Command($"{Place.Programs}/pg_restore", "-a", "-t", "workshops", "-f", "-", archive);
        return string.Join(", ", sql.Split('\n').Where(l => l.Contains(" bench\t", StringComparison.Ordinal)).Select(l => l.Split('\t').Single(c => c.EndsWith(" bench", StringComparison.Ordinal))).Order(StringComparer.Ordinal));
    }

    private static async Task Refused(Place place, string file, string why)
    {
        var ended = await place.Run("restore", file);
        Assert.Equal(1, ended.Code);
        Assert.Contains(why, ended.Text);
        Assert.Equal(Ours, await Workshops(place));
    }

    private async Task<(Place Place, byte[] Bytes, string File)> Begin()
    {
        var place = await kept.Place.Copy();
        return (place, await File.ReadAllBytesAsync(kept.Backup, Stop), Path.Combine(place.Data, "given.backup"));
    }

    /// <summary>Its first line is not believed where what is in it says otherwise.</summary>
    [Theory]
    [InlineData("29990101000000_Later", "newer Lowfell")]
    [InlineData("20261123195621_First", "what is in it is not")]
    public async Task One_whose_first_line_names_another_migration_is_refused(string named, string why)
    {
        var (place, bytes, file) = await Begin();
        await using var ended = place;
        var (end, migration) = Kept.FirstLine(bytes);
        await File.WriteAllBytesAsync(file, [.. Encoding.ASCII.GetBytes(Encoding.ASCII.GetString(bytes[..end]).Replace(migration, named, StringComparison.Ordinal)), .. bytes[end..]], Stop);
        await Refused(place, file, why);
    }

    /// <summary>Who was sent away stays away, and who was in is sent away: a backup brings back work, and no access.</summary>
    [Fact]
    public async Task Access_is_never_restored()
    {
        await using var place = await kept.Place.Copy();
        await place.Start();
        var workshop = (await place.Get("/api/workshops"))[0]!["id"];
        async Task<string> Pair(string name)
        {
            var key = (await place.Send(HttpMethod.Post, $"/api/devices/{workshop}/keys", new { role = "measure" })).Body["key"];
            var secret = new string(name[0], 40);
            Assert.Equal(200, (await place.Send(HttpMethod.Post, "/api/pairing", new { key, name, secret })).Status);
            return secret;
        }

        async Task<int> Says(string secret)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "/api/instruments/readings") { Content = System.Net.Http.Json.JsonContent.Create(new { readings = new[] { new { temperatureC = 20, relativeHumidity = 0.5 } } }) };
            request.Headers.Authorization = new("Bearer", secret);
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
            using var answer = await place.Http.SendAsync(request, Stop);
            return (int)answer.StatusCode;
        }

        var (one, two) = (await Pair("a thermometer"), await Pair("b thermometer"));
        Assert.Equal(200, (await place.Send(HttpMethod.Put, $"/api/devices/{workshop}/door", new { address = "127.0.0.1", port = Lowfell.Tests.Ports.Free() })).Status);
        var calendar = (await place.Send(HttpMethod.Post, $"/api/sessions/{workshop}/address", new { })).Body["path"]!.GetValue<string>();
        var fingerprint = (await place.Get($"/api/devices/{workshop}"))["authority"]!["fingerprint"]!.GetValue<string>();
        var file = Path.Combine(place.Data, "with-access.backup");
        Assert.Equal(0, (await place.Run("backup", file)).Code);
        Assert.Equal((200, 200), (await Says(one), await Says(two)));
        await place.Run("stop");
        Assert.Contains("access is not restored", (await place.Run("restore", file)).Text);
        await place.Start();
        async Task Nobody()
        {
            Assert.Equal((401, 401), (await Says(one), await Says(two)));
            var devices = await place.Get($"/api/devices/{workshop}");
            Assert.Equal("", devices["openAt"]!.GetValue<string>());
            Assert.All(devices["devices"]!.AsArray(), d => Assert.NotNull(d!["sentAwayAt"]));
            Assert.NotNull(devices["restoredAt"]);
            Assert.NotEqual(fingerprint, devices["authority"]!["fingerprint"]!.GetValue<string>());
            Assert.Equal(System.Net.HttpStatusCode.NotFound, (await place.Http.GetAsync(calendar, Stop)).StatusCode);
        }

        await Nobody();

        // What was put aside comes back just so.
        await place.Run("stop");
        var name = (await place.Run("restore", "--list")).Text.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1];
        Assert.Equal(0, (await place.Run("restore", "--back", name)).Code);
        await place.Start();
        await Nobody();
    }

    /// <summary>Backups of today come back with every row of what was done.</summary>
    [Fact]
    public async Task One_from_before_the_seal_comes_back_with_every_row()
    {
        await using var place = await kept.Place.Copy();
        var ended = await place.Run("restore", Path.Combine(Place.Needed("LOWFELL_TEST_ROOT"), "tests/old/before-the-seal.backup"));
        Assert.True(ended.Code == 0, ended.Text);
        await place.Start();
        Assert.Equal(1L, await place.Ask<long>("select count(*) from work_events where note = 'kept before'"));
        Assert.Equal(2L, await place.Ask<long>("select count(*) from photos"));
        Assert.Equal(0L, await place.Ask<long>("select count(*) from paired_devices where sent_away_at is null"));
        var workshop = (await place.Get("/api/workshops"))[0]!["id"];
        Assert.Equal(0, (await place.Send(HttpMethod.Post, $"/api/bench/{workshop}/rebuild", new { })).Body["differed"]!.GetValue<int>());
        Assert.Equal(1, (await place.Get($"/api/bench/{workshop}/unfit"))["waiting"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_good_one_comes_back_and_what_was_there_can_be_brought_back()
    {
        await using var place = await kept.Place.Copy();
        await place.Start();
        Assert.Equal(201, (await place.Send(HttpMethod.Post, "/api/workshops", new { name = "Later bench" })).Status);
        await place.Run("stop");
        var ended = await place.Run("restore", kept.Backup);
        Assert.True(ended.Code == 0, ended.Text);
        Assert.Equal(Ours, await Workshops(place));
        var list = (await place.Run("restore", "--list")).Text;
        Assert.Contains("Harrowmere Sluice", list);
        var name = list.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1];
        Assert.Equal(1, (await place.Run("restore", "--back", "nothing")).Code);
        Assert.Equal(0, (await place.Run("restore", "--back", name)).Code);
        Assert.Contains("Later bench", await Workshops(place));
        await place.Start();
        Assert.Equal(3, (await place.Get("/api/workshops")).AsArray().Count);
    }

    [Fact]
    public async Task An_older_one_is_brought_up_to_this_version()
    {
        await using var place = await kept.Place.Copy();
        var ended = await place.Run("restore", Path.Combine(Place.Needed("LOWFELL_TEST_ROOT"), "tests/old/before-the-stream.backup"));
        Assert.True(ended.Code == 0, ended.Text);
        await place.Start();
        var workshops = (await place.Get("/api/workshops")).AsArray();
        Assert.Contains(workshops.SelectMany(w => w!["sets"]!.AsArray()), s => s!["name"]!.GetValue<string>() == "Causeway");
        Assert.Equal(19L, await place.Ask<long>("select count(*) from work_events"));
    }

    [Fact]
    public async Task A_newer_one_is_refused()
    {
        await using var place = await kept.Place.Copy();
        await Refused(place, kept.Made("newer"), "newer Lowfell");
    }

    [Theory]
    [InlineData("just some text")]
    [InlineData("lowfell-backup 1 20261125000000_X 0000\nPGDMP")]
    [InlineData("")]
    public async Task A_foreign_one_is_refused(string text)
    {
        var (place, _, file) = await Begin();
        await using var ended = place;
        await File.WriteAllTextAsync(file, text, Stop);
        await Refused(place, file, "Nothing was changed");
    }

    [Fact]
    public async Task A_truncated_one_is_refused()
    {
        var (place, bytes, file) = await Begin();
        await using var ended = place;
        await File.WriteAllBytesAsync(file, bytes[..^1000], Stop);
        await Refused(place, file, "cut short");
    }

    [Fact]
    public async Task One_with_a_flipped_bit_is_refused()
    {
        var (place, bytes, file) = await Begin();
        await using var ended = place;
        bytes[bytes.Length / 2] ^= 4;
        await File.WriteAllBytesAsync(file, bytes, Stop);
        await Refused(place, file, "changed since it was made");
    }

    [Fact]
    public async Task A_crafted_one_runs_nothing_and_is_refused()
    {
        await using var place = await kept.Place.Copy();
        await Refused(place, kept.Made("crafted"), "made up");
        Assert.False(File.Exists(kept.Proof));

        // The same with a language and a program of its own in the list of what it holds.
        await Refused(place, kept.Made("other"), "no backup of Lowfell has");
    }

    [Fact]
    public async Task An_interrupted_one_leaves_what_was_there_and_can_be_done_again()
    {
        await using var place = await kept.Place.Copy();
        var script = place.Launch(Path.Combine(Place.Needed("LOWFELL_TEST_ROOT"), "lowfell"), "restore", kept.Backup);
        await Place.Until(async () =>
        {
            try
            {
                return await place.Ask<bool>("select exists (select from pg_database where datname = 'lowfell_restored')", "postgres");
            }
            catch (Npgsql.NpgsqlException)
            {
                return false;
            }
        });
        script.Kill();
        await script.WaitForExitAsync(Stop);
        await Place.Until(() => Task.FromResult(!place.Processes("postgres").Any()));
        Assert.Equal(Ours, await Workshops(place));
        Assert.Equal(0, (await place.Run("restore", kept.Backup)).Code);
        Assert.Equal(Ours, await Workshops(place));
    }

    [Fact]
    public async Task One_of_a_bench_with_nothing_on_it_comes_back_empty()
    {
        await using var empty = new Place { Demo = false };
        await empty.Start();
        Assert.Empty((await empty.Get("/api/workshops")).AsArray());
        var file = empty.Data + "/empty.backup";
        Assert.Equal(0, (await empty.Run("backup", file)).Code);
        await empty.Run("stop");
        await using var place = await kept.Place.Copy();
        Assert.Equal(0, (await place.Run("restore", file)).Code);
        Assert.Equal("", await Workshops(place));
    }

    /// <summary>A copy is made by itself, told of in the page, and is a backup like any other; the next is not made before a day is over.</summary>
    [Fact]
    public async Task A_copy_of_everything_is_made_by_itself_and_comes_back()
    {
        var place = await kept.Place.Copy();
        await place.Start("env", "LOWFELL_COPY_EVERY=0.2", "LOWFELL_COPIES=2");
        await Place.Until(async () => (await place.Get("/api/copies"))["kept"]!.GetValue<int>() == 1);
        var told = await place.Get("/api/copies");
        Assert.True(told["on"]!.GetValue<bool>() && told["failedAt"] is null && told["newestAt"]!.GetValue<DateTimeOffset>() > DateTimeOffset.UtcNow.AddMinutes(-5));
        var copies = Path.Combine(place.Data, "copies");
        var copy = Directory.GetFiles(copies, "*.backup").Single();

        // One from the future is no reason not to make another.
        File.SetLastWriteTimeUtc(copy, DateTime.UtcNow.AddYears(1));
        await Place.Until(async () => Directory.GetFiles(copies, "*.backup").Length == 2 && (await place.Get("/api/copies"))["newestAt"] is not null);
        Assert.True((await place.Get("/api/copies"))["newestAt"]!.GetValue<DateTimeOffset>() < DateTimeOffset.UtcNow.AddMinutes(1));
        File.Delete(copy);
        copy = Directory.GetFiles(copies, "*.backup").Single();

        // Two old ones: a new one is made, and of all three the newest two are kept.
        foreach (var day in new[] { "2026-01-01_0000", "2026-01-02_0000" })
            File.Move(File.Exists(copy) ? copy : Directory.GetFiles(copies, "*.backup").First(), Path.Combine(copies, $"{day}.backup"));
        File.Copy(Path.Combine(copies, "2026-01-02_0000.backup"), Path.Combine(copies, "2026-01-01_0000.backup"), overwrite: true);
        foreach (var old in Directory.GetFiles(copies, "*.backup"))
            File.SetLastWriteTimeUtc(old, DateTime.UtcNow.AddDays(-3));
        await Place.Until(() => Task.FromResult(Directory.GetFiles(copies, "*.backup").Any(f => !Path.GetFileName(f).StartsWith("2026-01-0", StringComparison.Ordinal)) && Directory.GetFiles(copies, "*.backup").Length == 2));
        Assert.Equal(0, (await place.Run("stop")).Code);
        Assert.Contains("restored", (await place.Run("restore", Directory.GetFiles(copies, "*.backup").Order(StringComparer.Ordinal).Last())).Text);
        Assert.Equal(Ours, await Workshops(place));
        await place.DisposeAsync();
    }
}
