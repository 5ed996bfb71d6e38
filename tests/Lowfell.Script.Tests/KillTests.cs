using System.Diagnostics;

namespace Lowfell.Script.Tests;

/// <summary>Backends, server and postmaster are killed under eight writers and four tablets at the bench: nothing is lost, nothing is there twice, sums are exact.</summary>
public sealed class KillTests(Begun begun)
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_is_killed_every_write_counts_once()
    {
        await using var place = await begun.Copy();
        var script = await place.Start();
        var writers = new Writers(place);
        await writers.Prepare();
        var tablets = new Tablets(place, eventsEach: 200);
        await tablets.Prepare();
        var work = writers.Work();
        var told = tablets.Work();
        async Task More(int writes)
        {
            var from = writers.Done.Count;
            await Place.Until(() => Task.FromResult(writers.Done.Count >= from + writes || work.IsFaulted), () => $"{writers.Done.Count} writes");
            if (work.IsFaulted)
                await work;
        }

        // One of the database's own processes: PostgreSQL then ends all of them and recovers.
        await More(60);
        Kill(await place.Ask<int>("select pid from pg_stat_activity where usename = 'lowfell_serve' and pid <> pg_backend_pid() order by backend_start limit 1"));
        await More(60);

        // The server: the script ends with it, and is started again.
        Kill(place.Processes("Lowfell.Server").First());
        await script.WaitForExitAsync(Stop);
        script = await place.Start();
        await More(60);

        // The postmaster itself.
        Kill(int.Parse((await File.ReadAllLinesAsync(Path.Combine(place.Data, "cluster", "postmaster.pid"), Stop))[0], System.Globalization.CultureInfo.InvariantCulture));
        await script.WaitForExitAsync(Stop);
        await place.Start();
        await More(60);
        writers.Enough();
        await work;
        await told;
        await tablets.Exact();
        Assert.True(writers.LostAnswers > 20, "answers were lost on the way");
        await Exact(place, writers);

        // Redelivered, every one of them is told what it was told, and nothing changes.
        var before = await Sums(place);
        foreach (var sent in writers.Done.Where((s, n) => s.Status < 300 && n % 3 == 0))
        {
            var (status, answer, _) = await place.Send(sent.Method, sent.Path, sent.Body, sent.Key);
            Assert.True(sent.Status == status, answer.ToJsonString());
        }

        Assert.Equal(before, await Sums(place));
    }

    private static async Task Exact(Place place, Writers writers)
    {
        Assert.Equal(0L, await place.Ask<long>("select count(*) from materials m where stock_ml <> coalesce((select sum(ml) from stock_moves s where s.material_id = m.id), 0) or stock_ml < 0"));
        Assert.Equal(0L, await place.Ask<long>("""
            select count(*) from (select e.pot_id, a.material_id, sum(a.ml) as ml from work_events e join work_amounts a on a.event_id = e.id group by 1, 2) s
            full join pot_contents c on (c.pot_id, c.material_id) = (s.pot_id, s.material_id) where s.ml is distinct from c.ml
            """));
        var stored = writers.Done.Where(s => s.Status < 300).ToList();
        int Count(string end) => stored.Count(s => s.Path.EndsWith(end, StringComparison.Ordinal));
        Assert.Equal(Count("/moves"), await place.Ask<long>("select count(*) from stock_moves where reason = 'kept'"));
        Assert.Equal(Count("/materials"), await place.Ask<long>("select count(*) from materials where name like 'Thing %'"));
        Assert.Equal(5 * Count("/csv"), await place.Ask<long>("select count(*) from materials where name like 'Row %'"));
        Assert.Equal(Count("/stack"), await place.Ask<long>("select count(*) from treatment_revisions where number > 1"));
        Assert.Equal(stored.Count(s => s.Path.Contains("/pots/", StringComparison.Ordinal)), await place.Ask<long>("select count(*) from work_events where device = 'script'"));
        Assert.True(Count("/moves") > 5 && Count("/stack") > 5 && Count("/top-up") > 0, "all kinds were written");
    }

    private static Task<string> Sums(Place place) => place.Ask<string>("""
        select concat_ws(' ', (select count(*) from stock_moves), (select sum(stock_ml) from materials), (select count(*) from materials), (select count(*) from work_events), (select sum(ml) from pot_contents),
          (select count(*) from treatment_revisions), (select count(*) from layers), (select count(*) from workshops), (select count(*) from write_receipts))
        """);

    private static void Kill(int process)
    {
        using var victim = Process.GetProcessById(process);
        victim.Kill();
    }
}
