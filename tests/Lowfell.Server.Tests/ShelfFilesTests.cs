using System.Text;
using System.Text.Json.Nodes;
using Lowfell.Core.Materials;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>The shelf out to files and in from them: all of a file or nothing, every fault by line, column and remedy.</summary>
public sealed class ShelfFilesTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> Shelf(string file) => $"/api/shelf/{await server.WorkshopId()}/{file}";

    private async Task<Guid> NewBench(string name)
    {
        var (_, bench) = await server.Send(HttpMethod.Post, "/api/workshops", new { name });
        return bench["id"]!.GetValue<Guid>();
    }

    private async Task<int> Count(Guid bench)
    {
        await using var db = server.Db();
        return await db.Materials.CountAsync(m => m.WorkshopId == bench, Stop);
    }

    private async Task<JsonNode> Bring(Guid bench, string text, bool store = true, string file = "csv")
    {
        var (status, read) = await server.Send(HttpMethod.Post, $"/api/shelf/{bench}/{file}", new { text, store });
        Assert.Equal(200, status);
        return read;
    }

    [Fact]
    public async Task The_shelf_goes_out_and_comes_back_the_same()
    {
        var csv = await server.Http.GetStringAsync(await Shelf("materials.csv"), Stop);
        var bench = await NewBench("Second bench");
        var read = await Bring(bench, csv);
        Assert.True(read["stored"]!.GetValue<bool>(), read["faults"]!.ToJsonString());
        await using var db = server.Db();
        var home = await server.WorkshopId();
        var was = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == home).ToListAsync(Stop);
        var now = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == bench && m.Maker != "" || m.WorkshopId == bench && was.Select(w => w.Name).Contains(m.Name)).ToListAsync(Stop);
        foreach (var a in was)
        {
            var b = now.Single(m => m.Name == a.Name && m.Maker == a.Maker);
            Assert.Equal((a.Kind, a.Carrier, a.Colour, a.OverBlack, a.OverWhite, a.CoatsToHide, a.Sheen, a.Lustre, a.StockMl, a.PackMl, a.Price, a.Hazards, a.Notes),
                (b.Kind, b.Carrier, b.Colour, b.OverBlack, b.OverWhite, b.CoatsToHide, b.Sheen, b.Lustre, b.StockMl, b.PackMl, b.Price, b.Hazards, b.Notes));
            Assert.Equal((a.TouchMinutes, a.RecoatMinutes, a.CureMinutes), (b.TouchMinutes, b.RecoatMinutes, b.CureMinutes));
            Assert.Equal(a.Thinners, b.Thinners);
        }
    }

    /// <summary>What a file of the shelf does not carry, and why.</summary>
    private static readonly Dictionary<string, string> left = new()
    {
        ["Id"] = "another workshop's material is another",
        ["WorkshopId"] = "where it is brought in",
        ["Version"] = "the store counts it",
        ["PutAwayAt"] = "what is off the shelf is not on it",
        ["HidingFactor"] = "what this workshop's eyes taught",
        ["TintFactor"] = "what this workshop's eyes taught",
        ["Looks"] = "what this workshop's eyes taught",
        ["CoverageCm2PerMl"] = "nothing fills it any more",
        ["WindowMinutes"] = "nothing fills it any more",
    };

    /// <summary>Whatever a material can be: every field of it goes out and comes back, by its own list of fields, so that a new one is not forgotten.</summary>
    [Fact]
    public async Task Every_field_of_a_material_goes_out_and_comes_back()
    {
        var (from, to, random) = (await NewBench("Fields out"), await NewBench("Fields in"), new Random(7));
        T One<T>() where T : struct, Enum => Enum.GetValues<T>()[random.Next(Enum.GetValues<T>().Length)];
        decimal Number(double most, int decimals) => Math.Round((decimal)(random.NextDouble() * most) + 0.01m, decimals);
        await using var db = server.Db();
        for (var i = 0; i < 60; i++)
        {
            var card = i % 3 == 0;
            var touch = Number(90, 2);
            db.Add(new Lowfell.Store.Rows.MaterialRow
            {
                WorkshopId = from,
                Name = $"Field {i}, \"quoted\"; {i}",
                Maker = i % 2 == 0 ? "" : "Tarnside",
                Code = $"T-{i}",
                Kind = MaterialKind.Paint,
                Carrier = One<Carrier>(),
                Colour = i % 3 == 1 ? null : $"#{random.Next(0x1000000):x6}",
                OverBlack = card || i % 3 == 1 ? "#503820" : null,
                OverWhite = card || i % 3 == 1 ? "#9a7a50" : null,
                CoatsToHide = i % 2 == 0 ? null : Number(5, 2) + 1,
                Sheen = One<Sheen>(),
                Lustre = One<Lustre>(),
                SolidsFraction = Number(0.9, 3),
                MostThinnerShare = i % 2 == 0 ? null : Number(0.9, 3),
                Thinners = i % 5 == 0 ? [] : [.. Enum.GetValues<ThinnerFamily>().Where(_ => random.Next(2) == 0).DefaultIfEmpty(ThinnerFamily.Water)],
                TouchMinutes = touch,
                RecoatMinutes = touch + 10,
                CureMinutes = touch + 100,
                HeatSafe = random.Next(2) == 0,
                StockMl = Number(80, 2),
                PackMl = Number(80, 2),
                Price = i % 4 == 0 ? null : Number(9, 2),
                DropMl = i % 2 == 1 ? null : Number(0.05, 4),
                DensityGPerMl = i % 2 == 1 ? null : Number(1, 3) + 0.5m,
                Hazards = i % 2 == 0 ? "" : "Flammable;\nkeep it shut.",
                Notes = $"=note, \"{i}\"",
            });
        }

        await db.SaveChangesAsync(Stop);

        // What a new bench begins with stands on the other already.
        await db.Materials.Where(m => m.WorkshopId == from && !m.Name.StartsWith("Field ")).ExecuteUpdateAsync(s => s.SetProperty(m => m.PutAwayAt, DateTimeOffset.UtcNow), Stop);
        var read = await Bring(to, await server.Http.GetStringAsync($"/api/shelf/{from}/materials.csv", Stop));
        Assert.True(read["stored"]!.GetValue<bool>(), read["faults"]!.ToJsonString());
        var was = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == from && m.Name.StartsWith("Field ")).ToListAsync(Stop);
        var now = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == to && m.Name.StartsWith("Field ")).ToDictionaryAsync(m => m.Name, Stop);
        var fields = typeof(Lowfell.Store.Rows.MaterialRow).GetProperties().Where(p => !left.ContainsKey(p.Name)).ToList();
        Assert.True(fields.Count > 20, $"{fields.Count}");
        foreach (var a in was)
            Assert.All(fields, f => Assert.Equal(f.GetValue(a), f.GetValue(now[a.Name])));

        // Every field has been something else than what it is by itself.
        Assert.All(fields, f => Assert.True(was.Select(m => f.GetValue(m) is System.Collections.IEnumerable and not string and var list ? string.Join(',', list.Cast<object>()) : f.GetValue(m)?.ToString()).Distinct().Count() > 1 || f.Name == "Kind", f.Name));
    }

    [Fact]
    public async Task Ten_thousand_lines_with_fifty_faults_are_told_line_by_line_and_nothing_is_stored()
    {
        var bench = await NewBench("Big bench");
        var before = await Count(bench);
        string File(bool bad)
        {
            var text = new StringBuilder("name,maker,kind,carrier,colour,stock_ml\n");
            for (var i = 0; i < 10_000; i++)
                text.Append(System.Globalization.CultureInfo.InvariantCulture, $"Paint {i},Tarnside,paint,water acrylic,{(bad && i % 200 == 7 ? "#zz" : "#8a6a50")},{i % 30}\n");
            return text.ToString();
        }

        var read = await Bring(bench, File(bad: true));
        Assert.False(read["stored"]!.GetValue<bool>());
        var faults = read["faults"]!.AsArray();
        Assert.Equal((10_000, 50), (read["rows"]!.GetValue<int>(), faults.Count));
        Assert.Equal(Enumerable.Range(0, 50).Select(n => n * 200 + 9), faults.Select(f => f!["line"]!.GetValue<int>()));
        Assert.All(faults, f => Assert.Equal("colour", f!.Text("field")));
        Assert.Equal(before, await Count(bench));
        Assert.True((await Bring(bench, File(bad: false)))["stored"]!.GetValue<bool>());
        Assert.Equal(before + 10_000, await Count(bench));
    }

    [Theory]
    [InlineData("", 1, "")]
    [InlineData("colour\n#112233", 1, "")]
    [InlineData("name,kind,smell\nPeat,paint,earthy", 1, "smell")]
    [InlineData("name,kind,colour\nPeat,pudding,#112233", 2, "kind")]
    [InlineData("name,kind,colour,stock_ml\nPeat,paint,#112233,lots", 2, "stock_ml")]
    [InlineData("name,kind,colour,stock_ml\nPeat,paint,#112233,-4", 2, "stock_ml")]
    [InlineData("name,kind,colour\nPeat,paint,#112233\nPeat,paint,#112234", 3, "name")]
    [InlineData("name,kind,colour\nPeat,paint,#112233,one,too,many", 2, "")]
    [InlineData("name,kind,colour\n,paint,#112233", 2, "name")]
    [InlineData("name,kind,over_black,over_white\nPeat,paint,#c0c0c0,#808080", 2, "over_black")]
    [InlineData("name,kind,thinners\nPeat,varnish,water; soup", 2, "thinners")]
    [InlineData("name,kind,colour\nP\uFFFDat,paint,#112233", 1, "")]
    [InlineData("name,kind,colour\n\"Peat,paint,#112233\nReed,paint,#112234", 2, "name")]
    public async Task A_bad_file_does_no_harm(string text, int line, string field)
    {
        var bench = await NewBench($"Bench {Guid.NewGuid():n}");
        var before = await Count(bench);
        var read = await Bring(bench, text);
        Assert.False(read["stored"]!.GetValue<bool>());
        var faults = read["faults"]!.AsArray();
        Assert.Contains(faults, f => f!["line"]!.GetValue<int>() == line && f!.Text("field") == field);
        Assert.All(faults, f => Assert.NotEmpty(f!.Text("message")));
        Assert.Equal(before, await Count(bench));
    }

    [Fact]
    public async Task Formulas_go_out_as_plain_text_and_come_back_as_they_were()
    {
        var bench = await NewBench("Formula bench");
        Assert.True((await Bring(bench, "name;kind;colour;notes;stock_ml\n=1+1;paint;#112233;@sum(a1);2,5"))["stored"]!.GetValue<bool>());
        var csv = await server.Http.GetStringAsync($"/api/shelf/{bench}/materials.csv", Stop);
        Assert.DoesNotContain("\n=1+1", csv, StringComparison.Ordinal);
        var other = await NewBench("Formula bench two");
        Assert.True((await Bring(other, string.Join("\r\n", csv.Split("\r\n").Where((l, i) => i == 0 || l.Contains("1+1", StringComparison.Ordinal)))))["stored"]!.GetValue<bool>());
        await using var db = server.Db();
        var row = await db.Materials.SingleAsync(m => m.WorkshopId == other && m.Name == "=1+1", Stop);
        Assert.Equal(("@sum(a1)", 2.5m), (row.Notes, row.StockMl));
    }

    [Fact]
    public async Task A_palette_goes_out_and_comes_in()
    {
        var text = await server.Http.GetStringAsync(await Shelf("palette.gpl"), Stop);
        var palette = GplPalette.Read(text);
        Assert.Contains(palette.Colours, c => c.Name == "Peat Seven" && c.Colour.ToString() == "#4a3527");
        var bench = await NewBench("Palette bench");
        Assert.False((await Bring(bench, text, store: false, file: "palette"))["stored"]!.GetValue<bool>());
        Assert.True((await Bring(bench, text, file: "palette"))["stored"]!.GetValue<bool>());
        var again = GplPalette.Read(await server.Http.GetStringAsync($"/api/shelf/{bench}/palette.gpl", Stop));
        Assert.Superset(palette.Colours.Select(c => c.Colour).ToHashSet(), again.Colours.Select(c => c.Colour).ToHashSet());
        Assert.NotEmpty((await Bring(bench, "GIMP Palette\n300 0 0", file: "palette"))["faults"]!.AsArray());
    }
}
