using System.Runtime.InteropServices;
using System.Security.Cryptography;
using Lowfell.Core.Instruments;

namespace Lowfell.Server.Commands;

/// <summary>Instruments that are none: they play seeded readings, through the same endpoint as real ones.</summary>
internal static class InstrumentCommand
{
    public const string Usage = """
        usage: ./lowfell instrument climate [--seed 1] [--cooling 20,1.5,0.55] [--every 10]
                 a room sensor: a seeded day, or a room that cools from so many °C by so much an hour at a humidity
               ./lowfell instrument scale [--seed 1] [--pot 12] [--pour 2.4,1.2]
                 a scale: a pot of so many grams, and then so many grams of each part, drop by drop
        Both take themselves in on this machine and go away at Ctrl-C. [--at URL --key KEY] where they are taken in by a key elsewhere
        """;

    private const double EverySeconds = 10, WeighsASecond = 5, SendsASecond = 1;

    public static async Task<int> Run(string here, IReadOnlyList<string> arguments)
    {
        var words = new Words(arguments);
        if (words.Plain is not [("climate" or "scale") and var kind])
        {
            Console.Error.WriteLine(Usage);
            return 2;
        }

        using var talk = new Talk(words.Named("at") ?? here);
        var (device, secret, why) = await TakeIn(talk, words, kind == "climate" ? "Stand-in thermometer" : "Stand-in scale");
        if (why.Length > 0)
        {
            Console.Error.WriteLine(why);
            return 1;
        }

        using var end = new CancellationTokenSource();
        void Ends(PosixSignalContext signal)
        {
            signal.Cancel = true;
            end.Cancel();
        }

        using var interrupted = PosixSignalRegistration.Create(PosixSignal.SIGINT, Ends);
        using var terminated = PosixSignalRegistration.Create(PosixSignal.SIGTERM, Ends);
        Console.WriteLine("taken in; Ctrl-C ends it.");
        try
        {
            await (kind == "climate" ? Climate(talk, secret, words, end.Token) : Scale(talk, secret, words, end.Token));
        }
        catch (OperationCanceledException) when (end.IsCancellationRequested)
        {
        }

        if (device is not null)
            await talk.Ask(HttpMethod.Delete, device);
        return 0;
    }

    /// <summary>Where it is sent away again, and its secret; a key of another machine is not ours to take back.</summary>
    private static async Task<(string? Device, string Secret, string Why)> TakeIn(Talk talk, Words words, string name)
    {
        var (key, path) = (words.Named("key"), (string?)null);
        if (key is null)
        {
            var (workshop, none) = await talk.Workshop(words.Named("workshop"));
            if (none.Length > 0)
                return (null, "", none);
            path = $"/api/devices/{workshop}";
            var (made, refused) = await talk.Ask(HttpMethod.Post, $"{path}/keys", new { role = "measure" });
            if (made is null)
                return (null, "", refused);
            key = made["key"]!.GetValue<string>();
        }

        var secret = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
        var (paired, why) = await talk.Ask(HttpMethod.Post, "/api/pairing", new { key, name, secret });
        return (paired is null || path is null ? null : $"{path}/{paired["deviceId"]}", secret, why);
    }

    private static async Task Climate(Talk talk, string secret, Words words, CancellationToken end)
    {
        var (play, since) = (new StandInClimate((int)words.Number("seed", 1)), DateTimeOffset.UtcNow);
        var cooling = words.Named("cooling")?.Split(',').Select(n => double.Parse(n, System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(Math.Max(0.1, words.Number("every", EverySeconds))));
        do
        {
            var now = DateTimeOffset.UtcNow;
            var said = cooling is [var from, var anHour, var humidity] ? play.Cooling(now, since, from, anHour, humidity) : play.At(now);
            await Send(talk, secret, [new { at = said.At, temperatureC = Math.Round(said.TemperatureC, 2), relativeHumidity = Math.Round(said.RelativeHumidity, 3) }]);
        }
        while (await timer.WaitForNextTickAsync(end));
    }

    private static async Task Scale(Talk talk, string secret, Words words, CancellationToken end)
    {
        var pours = (words.Named("pour") ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(n => double.Parse(n, System.Globalization.CultureInfo.InvariantCulture)).ToList();
        var (scale, hand, since) = (new StandInScale((int)words.Number("seed", 1)), new StandInHand(words.Number("pot", 12), pours), DateTimeOffset.UtcNow);
        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(1 / WeighsASecond));
        var waiting = new List<object>();
        while (await timer.WaitForNextTickAsync(end))
        {
            var after = DateTimeOffset.UtcNow - since;
            var said = scale.At(since, after, hand.At(after));
            waiting.Add(new { at = said.At, grams = said.Grams });
            if (waiting.Count < WeighsASecond / SendsASecond)
                continue;
            await Send(talk, secret, waiting);
            waiting.Clear();
        }
    }

    private static async Task Send(Talk talk, string secret, IReadOnlyList<object> readings)
    {
        if ((await talk.Ask(HttpMethod.Post, "/api/instruments/readings", new { readings }, secret)).Why is { Length: > 0 } why)
            Console.Error.WriteLine(why);
    }
}
