using System.Diagnostics;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Sessions in a calendar, read by a library that had no part in writing it.</summary>
public sealed class CalendarTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    /// <summary>Reads a calendar with ical.js: every event with its id, number, wall times, zone, and instant.</summary>
    private static async Task<List<JsonNode>> Events(string text)
    {
        const string Program = """
            import ICAL from "ical.js";
            let text = "";
            for await (const part of process.stdin) text += part;
            const calendar = new ICAL.Component(ICAL.parse(text));
            for (const zone of calendar.getAllSubcomponents("vtimezone")) ICAL.TimezoneService.register(zone);
            const at = (t) => ({ wall: t.toString(), zone: t.zone.tzid, instant: t.toJSDate().toISOString() });
            console.log(JSON.stringify(calendar.getAllSubcomponents("vevent").map((e) => new ICAL.Event(e)).map((e) =>
              ({ uid: e.uid, sequence: e.sequence, start: at(e.startDate), end: at(e.endDate), summary: e.summary, description: e.description }))));
            """;
        var info = new ProcessStartInfo("node") { RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true, WorkingDirectory = Path.Combine(Environment.GetEnvironmentVariable("LOWFELL_TEST_ROOT")!, "src", "lowfell-web") };
        info.Environment["TZ"] = "UTC";
        foreach (var argument in new[] { "--input-type=module", "--eval", Program })
            info.ArgumentList.Add(argument);
        using var node = Process.Start(info)!;
        await node.StandardInput.WriteAsync(text);
        node.StandardInput.Close();
        var (read, wrong) = (await node.StandardOutput.ReadToEndAsync(), await node.StandardError.ReadToEndAsync());
        Assert.True(read.Length > 0, wrong);
        return JsonNode.Parse(read)!.AsArray().Select(e => e!).ToList();
    }

    [Fact]
    public async Task The_calendar_reads_with_the_right_hours_across_a_change_of_clocks_and_a_moved_session_replaces_itself()
    {
        var painter = new Painter(server, 0, "calendar");
        await painter.Begin();
        var path = $"/api/sessions/{painter.Workshop}";
        Assert.Empty(await Events(await server.Http.GetStringAsync(path + "/calendar.ics", TestContext.Current.CancellationToken)));
        var row = (await server.Get("/api/workshops"))[0]!;
        await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = row["version"], hours = "Sun 10:00-13:00", painters = new[] { "EW" } });
        var kept = await painter.Do(HttpMethod.Post, path, new { number = 0, from = "anew" });
        var events = await Events(await server.Http.GetStringAsync(path + "/calendar.ics", TestContext.Current.CancellationToken));
        var sessions = kept["sessions"]!.AsArray();
        Assert.Equal(sessions.Count, events.Count);
        Assert.Equal(events.Count, events.Select(e => e["uid"]!.ToString()).Distinct().Count());
        Assert.All(events.Zip(sessions), x =>
        {
            var (e, s) = (x.First, x.Second!);
            Assert.Equal("Europe/London", e["start"]!["zone"]!.ToString());
            Assert.Equal(s["start"]!.GetValue<DateTimeOffset>().DateTime.ToString("s"), e["start"]!["wall"]!.ToString());
            Assert.Equal(s["start"]!.GetValue<DateTimeOffset>().UtcDateTime, DateTime.Parse(e["start"]!["instant"]!.ToString(), null, System.Globalization.DateTimeStyles.AdjustToUniversal));
            Assert.Equal(s["end"]!.GetValue<DateTimeOffset>().UtcDateTime, DateTime.Parse(e["end"]!["instant"]!.ToString(), null, System.Globalization.DateTimeStyles.AdjustToUniversal));
            Assert.Contains("to do", e["summary"]!.ToString());
        });

        // On both sides of a change of clocks.
        Assert.Equal(2, sessions.Select(s => s!["start"]!.GetValue<DateTimeOffset>().Offset).Distinct().Count());

        // An hour later: the same sessions at another time, with a higher number.
        row = (await server.Get("/api/workshops"))[0]!;
        await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = row["version"], hours = "Sun 11:00-14:00" });

        // Nobody is told before it is taken over.
        static List<string> Times(IEnumerable<JsonNode> of) => of.Select(e => $"{e["uid"]} {e["start"]!["instant"]} {e["sequence"]}").ToList();
        Assert.Equal(Times(events), Times(await Events(await server.Http.GetStringAsync(path + "/calendar.ics", TestContext.Current.CancellationToken))));
        await painter.Do(HttpMethod.Post, path, new { number = 1, from = "closest" });
        var moved = await Events(await server.Http.GetStringAsync(path + "/calendar.ics", TestContext.Current.CancellationToken));
        var known = events.ToDictionary(e => e["uid"]!.ToString());
        Assert.True(moved.Count(e => known.ContainsKey(e["uid"]!.ToString())) >= 0.9 * Math.Min(moved.Count, events.Count));
        Assert.All(moved, e => Assert.Equal(2, e["sequence"]!.GetValue<int>()));
        Assert.Equal(moved.Select(e => e["uid"]!.ToString()), (await Events(await server.Http.GetStringAsync(path + "/calendar.ics", TestContext.Current.CancellationToken))).Select(e => e["uid"]!.ToString()));

        var csv = (await server.Http.GetStringAsync(path + "/plan.csv", TestContext.Current.CancellationToken)).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(1 + (await server.Get(path))["sessions"]!.AsArray().Sum(s => s!["operations"]!.AsArray().Count), csv.Length);
    }

    [Fact]
    public async Task A_secret_address_works_until_it_is_revoked_or_another_is_made()
    {
        var painter = new Painter(server, 0, "subscriber");
        await painter.Begin();
        var path = $"/api/sessions/{painter.Workshop}/address";
        async Task<int> Status(string address) => (int)(await server.Http.GetAsync(address, TestContext.Current.CancellationToken)).StatusCode;
        Assert.False((await server.Get(path))["exists"]!.GetValue<bool>());
        var first = (await painter.Do(HttpMethod.Post, path, null))["path"]!.ToString();
        Assert.Equal(200, await Status(first));
        Assert.True((await server.Get(path))["exists"]!.GetValue<bool>());
        Assert.Null((await server.Get(path))["path"]);
        var second = (await painter.Do(HttpMethod.Post, path, null))["path"]!.ToString();
        Assert.Equal((404, 200), (await Status(first), await Status(second)));
        await painter.Do(HttpMethod.Delete, path, null);
        Assert.Equal(404, await Status(second));
        Assert.Equal(404, await Status("/api/calendar/nothing"));
    }
}
