namespace Lowfell.Server.Tests;

public sealed class CalcTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Theory]
    [InlineData(1, "#275c59", 35.587, -18.352, -3.681)]
    [InlineData(3, "#45724c", 43.857, -23.836, 15.908)]
    public async Task Mix_has_the_stated_shape_and_colour(int yellow, string colour, double l, double a, double b)
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/mix",
            new { components = new[] { new { colour = "#1f3f8f", parts = 1 }, new { colour = "#f2c500", parts = yellow } } });
        Assert.Equal(200, status);
        Assert.Equal(colour, body.Text("colour"));
        var lab = body["lab"]!.AsArray().Select(v => v!.GetValue<double>()).ToArray();
        Assert.Equal(l, lab[0], 0.002);
        Assert.Equal(a, lab[1], 0.002);
        Assert.Equal(b, lab[2], 0.002);
    }

    [Theory]
    [InlineData(1, "#9e9f98")]
    [InlineData(3, "#c5c1b8")]
    public async Task Film_agrees(int coats, string colour)
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/film", new { paint = "#d8cfc0", hiding = 0.5, coats, ground = "#3c4a2e" });
        Assert.Equal(200, status);
        Assert.Equal(colour, body.Text("colour"));
    }

    [Theory]
    [InlineData("""{"components":[{"colour":"#12","parts":1}]}""", "components[0].colour")]
    [InlineData("""{"components":[{"colour":"#123456","parts":0}]}""", "components[0].parts")]
    [InlineData("""{"components":[{"colour":"#123456","parts":-2}]}""", "components[0].parts")]
    [InlineData("""{"components":[]}""", "components")]
    [InlineData("""{"components":[null]}""", "components[0].colour")]
    [InlineData("{}", "components")]
    public async Task Mix_names_the_field_that_is_wrong(string json, string field)
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/mix", json);
        Assert.Equal(400, status);
        Assert.Equal("invalid", body.Text("code"));
        Assert.Contains(field, body.Fields());
    }

    [Theory]
    [InlineData("""{"paint":"#d8cfc0","hiding":-1,"coats":1,"ground":"#3c4a2e"}""", "hiding")]
    [InlineData("""{"paint":"#d8cfc0","hiding":1,"coats":-1,"ground":"#3c4a2e"}""", "coats")]
    [InlineData("""{"paint":"d8cfc0","hiding":1,"coats":1,"ground":"#3c4a2e"}""", "paint")]
    [InlineData("""{"paint":"#d8cfc0","hiding":1,"coats":1}""", "ground")]
    public async Task Film_names_the_field_that_is_wrong(string json, string field)
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/film", json);
        Assert.Equal(400, status);
        Assert.Equal([field], body.Fields());
    }

    [Theory]
    [InlineData("{\"components\":[{\"colour\":\"#123456\",", "malformed-json")]
    [InlineData("{\"components\":\"none\"}", "malformed-json")]
    [InlineData("{\"components\":[{\"colour\":\"#123456\",\"parts\":\"1\"}]}", "malformed-json")]
    [InlineData("", "no-body")]
    [InlineData("null", "no-body")]
    public async Task Malformed_bodies_are_refused_with_a_code(string json, string code)
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/mix", json);
        Assert.Equal(400, status);
        Assert.Equal(code, body.Text("code"));
    }

    [Fact]
    public async Task Twenty_megabytes_are_too_many()
    {
        var (status, body) = await server.Send(HttpMethod.Post, "/api/calc/mix", "{\"components\":\"" + new string('x', 20_000_000) + "\"}");
        Assert.Equal(413, status);
        Assert.Equal("too-large", body.Text("code"));
    }

    [Fact]
    public async Task Hundreds_of_coats_are_the_masstone()
    {
        var (_, body) = await server.Send(HttpMethod.Post, "/api/calc/film", new { paint = "#6b4f2a", hiding = 5, coats = 200, ground = "#ffffff" });
        Assert.Equal("#6b4f2a", body.Text("colour"));
        Assert.Equal(3, body["lab"]!.AsArray().Count);
        Assert.Equal(35.761, body["lab"]![0]!.GetValue<double>(), 0.02);
    }

    [Fact]
    public async Task Dilutions_are_read_asked_about_or_refused_with_what_to_write()
    {
        var (status, read) = await server.Send(HttpMethod.Post, "/api/calc/dilution", new { text = "5 drops + 2 drops" });
        Assert.Equal(200, status);
        Assert.Equal("""["5","2"]""", read["parts"]!.ToJsonString());
        Assert.Equal(0.714286, read["shareOfMix"]![0]!.GetValue<double>());
        Assert.False(read["ambiguous"]!.GetValue<bool>());
        (_, read) = await server.Send(HttpMethod.Post, "/api/calc/dilution", new { text = "30%" });
        Assert.True(read["ambiguous"]!.GetValue<bool>());
        Assert.Null(read["parts"]);
        Assert.Equal(2, read["readings"]!.AsArray().Count);
        (status, var problem) = await server.Send(HttpMethod.Post, "/api/calc/dilution", new { text = "until it looks right" });
        Assert.Equal((400, "text"), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task A_bare_percentage_is_asked_once()
    {
        var path = $"/api/workshops/{await server.WorkshopId()}";
        Assert.True((await server.Send(HttpMethod.Post, path + "/dilution", new { text = "40 %" })).Body["ambiguous"]!.GetValue<bool>());
        var (status, house) = await server.Send(HttpMethod.Put, path + "/house-rules/bare-percent", new { meaning = "added" }, Guid.NewGuid());
        Assert.Equal((200, "added"), (status, house.Text("barePercent")));
        var read = (await server.Send(HttpMethod.Post, path + "/dilution", new { text = "40 %" })).Body;
        Assert.Equal("""["5","2"]""", read["parts"]!.ToJsonString());
        await server.Send(HttpMethod.Put, path + "/house-rules/bare-percent", new { meaning = (string?)null });
        Assert.True((await server.Send(HttpMethod.Post, path + "/dilution", new { text = "40 %" })).Body["ambiguous"]!.GetValue<bool>());
    }
}
