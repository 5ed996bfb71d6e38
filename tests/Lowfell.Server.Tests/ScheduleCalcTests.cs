using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Timetables for scripts.</summary>
public sealed class ScheduleCalcTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private const string Asked = """
        {"hours":[[0,150],[2880,3030]],"spraying":[[0,90]],"painters":1,
         "setups":[{"id":"airbrush","minutes":8,"cleanMinutes":10,"spray":true},{"id":"brush","minutes":2,"cleanMinutes":2}],
         "operations":[{"id":"w1-base","minutes":20,"setup":"airbrush"},
                       {"id":"w1-wash","minutes":15,"setup":"brush","after":[{"operation":"w1-base","minWait":60,"maxWait":null}]},
                       {"id":"w1-clean","minutes":10,"hotAirMinutes":0,"wetMinutes":30,"after":[{"operation":"w1-wash","minWait":15,"maxWait":60}]}],
         "notWetTogether":[["w1-base","w1-clean"]],"dryingPlaces":null,"due":20000,"goal":"soonest","budgetMilliseconds":200,"seed":7}
        """;

    private Task<(int Status, JsonNode Body)> Ask(string json) => server.Send(HttpMethod.Post, "/api/calc/schedule", JsonNode.Parse(json)!);

    [Fact]
    public async Task Work_gets_a_timetable_with_its_bound_and_what_binds_it()
    {
        var (status, said) = await Ask(Asked);
        Assert.Equal(200, status);
        Assert.True(said["feasible"]!.GetValue<bool>());
        var at = said["placements"]!.AsArray().ToDictionary(p => p!["operation"]!.ToString(), p => p!);
        Assert.Equal((8, 28), (at["w1-base"]["start"]!.GetValue<int>(), at["w1-base"]["end"]!.GetValue<int>()));
        Assert.InRange(at["w1-clean"]["start"]!.GetValue<int>() - at["w1-wash"]["end"]!.GetValue<int>(), 15, 60);
        Assert.Equal((0, 1, 0), (said["lastStretch"]!.GetValue<int>(), said["sessionsUsed"]!.GetValue<int>(), said["late"]!.GetValue<int>()));
        Assert.True(said["bound"]!["finish"]!.GetValue<int>() <= said["finish"]!.GetValue<int>());
        Assert.Equal("w1-clean", said["binding"]!["operations"]!.AsArray()[^1]!.ToString());
        Assert.Empty(said["clash"]!.AsArray());
    }

    [Fact]
    public async Task What_cannot_be_done_names_the_smallest_clash()
    {
        var (status, said) = await Ask(Asked.Replace("\"maxWait\":60", "\"maxWait\":10", StringComparison.Ordinal));
        Assert.Equal(200, status);
        Assert.False(said["feasible"]!.GetValue<bool>());
        Assert.Empty(said["placements"]!.AsArray());
        Assert.Equal(["wait", "window"], said["clash"]!.AsArray().Select(c => c!["fact"]!.ToString()).Order());
        Assert.All(said["clash"]!.AsArray(), c => Assert.Equal(["w1-wash", "w1-clean"], c!["operations"]!.AsArray().Select(o => o!.ToString())));
    }

    [Theory]
    [InlineData("\"operation\":\"w1-base\"", "\"operation\":\"w9\"", "operations[1].after[0].operation")]
    [InlineData("[2880,3030]", "[2880,2800]", "hours[1]")]
    [InlineData("\"minutes\":15", "\"minutes\":-1", "operations[1].minutes")]
    [InlineData("\"setup\":\"brush\"", "\"setup\":\"comb\"", "operations[1].setup")]
    [InlineData("\"setup\":\"airbrush\"", "\"setup\":\"airbrush\",\"after\":[{\"operation\":\"w1-clean\"}]", "operations[0].after")]
    [InlineData("[\"w1-base\",\"w1-clean\"]", "[\"w1-base\"]", "notWetTogether[0]")]
    [InlineData("\"painters\":1", "\"painters\":0", "painters")]
    public async Task What_is_wrong_is_named_by_its_field(string right, string wrong, string field)
    {
        var (status, problem) = await Ask(Asked.Replace(right, wrong, StringComparison.Ordinal));
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
    }
}
