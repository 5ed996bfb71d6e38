using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Commands;

/// <summary>Speaks to a Lowfell that runs, as its page does.</summary>
internal sealed class Talk(string at) : IDisposable
{
    private readonly HttpClient http = new() { BaseAddress = new Uri(at), Timeout = TimeSpan.FromSeconds(30) };

    public string At => at;

    /// <summary>An answer, or why there is none.</summary>
    public async Task<(JsonNode? Answer, string Why)> Ask(HttpMethod method, string path, object? body = null, string? secret = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (method != HttpMethod.Get)
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        if (secret is not null)
            request.Headers.Authorization = new("Bearer", secret);
        if (body is not null)
            request.Content = JsonContent.Create(body);
        try
        {
            using var answer = await http.SendAsync(request);
            var text = await answer.Content.ReadAsStringAsync();
            var said = text.Length == 0 ? new JsonObject() : JsonNode.Parse(text);
            return answer.IsSuccessStatusCode ? (said, "") : (null, said?["errors"]?.AsArray().FirstOrDefault()?["message"]?.GetValue<string>() ?? said?["detail"]?.GetValue<string>() ?? $"The server answered {(int)answer.StatusCode}.");
        }
        catch (Exception away) when (away is HttpRequestException or TaskCanceledException or System.Text.Json.JsonException)
        {
            return (null, $"Nobody answers at {at}. Start Lowfell first: ./lowfell start");
        }
    }

    /// <summary>The workshop that is meant: the one of a name, or the first there is.</summary>
    public async Task<(Guid Id, string Why)> Workshop(string? name)
    {
        var (all, why) = await Ask(HttpMethod.Get, "/api/workshops");
        if (all is null)
            return (default, why);
        var found = all.AsArray().FirstOrDefault(w => w!["putAwayAt"] is null && (name is null || w["name"]!.GetValue<string>() == name));
        return found is null ? (default, name is null ? "There is no workshop yet." : $"There is no workshop {name}.") : (found["id"]!.GetValue<Guid>(), "");
    }

    public void Dispose() => http.Dispose();
}

/// <summary>Words behind a command: what stands alone, and what was said with a name before it.</summary>
internal sealed class Words
{
    private readonly Dictionary<string, string> named = [];

    public Words(IReadOnlyList<string> arguments)
    {
        var plain = new List<string>();
        for (var i = 0; i < arguments.Count; i++)
            if (arguments[i].StartsWith("--", StringComparison.Ordinal) && i + 1 < arguments.Count)
                named[arguments[i][2..]] = arguments[++i];
            else
                plain.Add(arguments[i]);
        Plain = plain;
    }

    public IReadOnlyList<string> Plain { get; }

    public string? Named(string name) => named.GetValueOrDefault(name);

    public double Number(string name, double otherwise) => double.TryParse(Named(name), System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out var number) ? number : otherwise;
}
