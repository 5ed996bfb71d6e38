using System.Text.Json.Nodes;

namespace Lowfell.Server.Commands;

/// <summary>The view of other devices as a command: open and shut the door, take in, send away.</summary>
internal static class DevicesCommand
{
    public const string Usage = """
        usage: ./lowfell devices                       who is in, and whether the door is open
               ./lowfell devices open ADDRESS[:PORT]   let other devices in, encrypted, at an address of this machine
               ./lowfell devices shut                  let no other device in
               ./lowfell devices pair work|look|measure  a key to take one device in with, once, within five minutes
               ./lowfell devices send-away NAME        from now on it gets nothing
        [--workshop NAME] of which workshop, the first where it is left out
        """;

    public static async Task<int> Run(string at, IReadOnlyList<string> arguments)
    {
        if (arguments is ["help", ..])
        {
            Console.WriteLine(Usage);
            return 0;
        }

        using var talk = new Talk(at);
        var words = new Words(arguments);
        var (workshop, why) = await talk.Workshop(words.Named("workshop"));
        if (why.Length == 0)
            why = await Do(talk, $"/api/devices/{workshop}", words.Plain);
        if (why.Length > 0)
            Console.Error.WriteLine(why);
        return why.Length > 0 ? 1 : 0;
    }

    private static async Task<string> Do(Talk talk, string path, IReadOnlyList<string> plain)
    {
        switch (plain)
        {
            case []:
            case ["list"]:
                return await List(talk, path);
            case ["open", var where]:
                var (address, port) = where.LastIndexOf(':') is > 0 and var colon && int.TryParse(where[(colon + 1)..], out var number) ? (where[..colon], (int?)number) : (where, null);
                var (opened, hinders) = await talk.Ask(HttpMethod.Put, $"{path}/door", new { address, port });
                if (opened is not null)
                    Console.WriteLine($"Devices in the same network reach the bench at https://{opened["openAt"]}");
                return hinders;
            case ["shut"]:
                return (await talk.Ask(HttpMethod.Delete, $"{path}/door")).Why;
            case ["pair", var role]:
                var (key, refused) = await talk.Ask(HttpMethod.Post, $"{path}/keys", new { role });
                if (key is not null)
                    Show(key);
                return refused;
            case ["send-away", var name]:
                return await SendAway(talk, path, name);
            default:
                return Usage;
        }
    }

    private static async Task<string> List(Talk talk, string path)
    {
        var (devices, why) = await talk.Ask(HttpMethod.Get, path);
        if (devices is null)
            return why;
        Console.WriteLine(devices["openAt"]!.GetValue<string>() is { Length: > 0 } open ? $"The door is open: https://{open}" : $"The door is shut. Addresses of this machine: {string.Join(", ", devices["addresses"]!.AsArray())}");
        foreach (var device in devices["devices"]!.AsArray())
            Console.WriteLine($"{device!["name"]}  {device["role"]}  {(device["sentAwayAt"] is null ? $"heard of {device["seenAt"]}" : "sent away")}");
        return "";
    }

    private static async Task<string> SendAway(Talk talk, string path, string name)
    {
        var (devices, why) = await talk.Ask(HttpMethod.Get, path);
        if (devices is null)
            return why;
        var found = devices["devices"]!.AsArray().Where(d => d!["sentAwayAt"] is null && d["name"]!.GetValue<string>() == name).ToList();
        if (found.Count == 0)
            return $"No device of the name {name} is in.";
        foreach (var device in found)
            if ((await talk.Ask(HttpMethod.Delete, $"{path}/{device!["id"]}")).Why is { Length: > 0 } refused)
                return refused;
        return "";
    }

    /// <summary>Two rows of the square in one line of letters, dark on light in any terminal.</summary>
    private static void Show(JsonNode key)
    {
        var rows = key["modules"]!.AsArray().Select(r => r!.GetValue<string>()).ToList();
        if (rows.Count % 2 == 1)
            rows.Add(new string('0', rows[0].Length));
        for (var y = 0; y < rows.Count; y += 2)
            Console.WriteLine($"\u001b[30;107m{string.Concat(rows[y].Zip(rows[y + 1], (up, down) => (up, down) switch { ('1', '1') => '█', ('1', _) => '▀', (_, '1') => '▄', _ => ' ' }))}\u001b[0m");
        Console.WriteLine($"{key["key"]}  good once, until {key["goodUntil"]}");
        if (key["address"]!.GetValue<string>() is { Length: > 0 } address)
            Console.WriteLine(address);
    }
}
