using System.Text.Json.Nodes;
using static Lowfell.Benchmarks.Measured;

namespace Lowfell.Benchmarks;

/// <summary>What a browser has to do.</summary>
internal static class PageFigures
{
    public static async Task Run(HttpClient http, string page)
    {
        var set = JsonNode.Parse(await http.GetStringAsync("/api/workshops"))![0]!["sets"]![0]!["id"]!.GetValue<string>();
        var zone = JsonNode.Parse(await http.GetStringAsync($"/api/plan/sets/{set}"))!["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
        FirstView.Run(page, $"/plan/{set}/{zone}", Report);
        LongTasks.Run(page, $"/plan/{set}/{zone}", Report);
        Frames.Run(page, $"/plan/{set}/{zone}", leastFrames: 40, Yardstick);
        foreach (var materials in new[] { 400, 5_000 })
            await LongShelf.Run(http, page, materials, Report);
    }
}
