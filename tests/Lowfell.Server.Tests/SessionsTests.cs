using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>The timetable of a workshop.</summary>
public sealed class SessionsTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static DateTimeOffset At(JsonNode? n) => n!.GetValue<DateTimeOffset>();

    private static long Minute() => DateTimeOffset.UtcNow.Ticks / TimeSpan.TicksPerMinute;

    [Fact]
    public async Task The_demo_has_a_timetable_in_its_hours_with_the_chain_that_binds_it()
    {
        var workshop = await server.WorkshopId();

        // While a session is on, every minute leaves less of it: both are asked for within one.
        JsonNode plan, again;
        long minute;
        do
        {
            minute = Minute();
            plan = await server.Get($"/api/sessions/{workshop}");
            again = await server.Get($"/api/sessions/{workshop}");
        }
        while (Minute() != minute);
        Assert.Equal("Europe/London", plan["timeZone"]!.ToString());
        Assert.False(plan["hoursGuessed"]!.GetValue<bool>());
        var sessions = plan["sessions"]!.AsArray().Select(s => s!).ToList();
        Assert.True(sessions.Count >= plan["fewestSessions"]!.GetValue<int>());
        Assert.True(At(plan["soonestFinish"]) <= At(plan["finish"]));
        Assert.Equal(At(plan["finish"]), sessions.SelectMany(s => s["operations"]!.AsArray()).Max(o => At(o!["end"])));
        Assert.NotEqual("", plan["binding"]!.ToString());
        foreach (var session in sessions)
        {
            Assert.Contains(At(session["start"]).DayOfWeek, new[] { DayOfWeek.Monday, DayOfWeek.Tuesday, DayOfWeek.Wednesday, DayOfWeek.Thursday, DayOfWeek.Friday, DayOfWeek.Saturday });
            Assert.All(session["operations"]!.AsArray(), o => Assert.True(At(o!["start"]) >= At(session["start"]) && At(o["end"]) <= At(session["end"])));
        }

        // Asked again, it is the same plan.
        static List<string> Order(JsonNode of) => of["sessions"]!.AsArray().SelectMany(s => s!["operations"]!.AsArray()).Select(o => $"{o!["id"]} {o["end"]!.GetValue<DateTimeOffset>() - o["start"]!.GetValue<DateTimeOffset>()}").ToList();
        Assert.Equal(Order(plan), Order(again));

        // Every piece gets what it has not got, once.
        var set = (await server.Get($"/api/workshops/{workshop}/sets"))[0]!;
        var todo = set["layersAll"]!.GetValue<int>() - set["layersDone"]!.GetValue<int>();
        Assert.Equal(todo, sessions.SelectMany(s => s["operations"]!.AsArray()).Sum(o => o!["pieces"]!.AsArray().Count));
        var chain = sessions.SelectMany(s => s["operations"]!.AsArray()).Where(o => o!["binds"] is not null).OrderBy(o => o!["binds"]!.GetValue<int>()).ToList();
        Assert.Equal(Enumerable.Range(0, chain.Count), chain.Select(o => o!["binds"]!.GetValue<int>()));
        Assert.Equal(At(plan["finish"]), At(chain[^1]!["end"]));
    }

    [Fact]
    public async Task Other_hours_make_another_timetable_and_wrong_ones_are_named()
    {
        var painter = new Painter(server, 0, "hours");
        await painter.Begin();
        var row = (await server.Get("/api/workshops"))[0]!;
        var (status, problem) = await painter.Send(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = row["version"], hours = "someday" });
        Assert.Equal((400, "hours"), (status, problem.Fields().Single()));
        await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = row["version"], hours = "every day 9-12, every day 14-20" });
        var more = await server.Get($"/api/sessions/{painter.Workshop}");
        Assert.Equal("Mon Tue Wed Thu Fri Sat Sun 09:00-12:00, Mon Tue Wed Thu Fri Sat Sun 14:00-20:00", more["hours"]!.ToString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.True(At(more["finish"]) < At((await server.Get($"/api/sessions/{painter.Workshop}"))["finish"]));
        Assert.Equal(404, (await server.Send(HttpMethod.Get, $"/api/sessions/{Guid.NewGuid()}", null)).Status);
    }
}
