using System.Collections.Concurrent;

namespace Lowfell.Server.Http;

/// <summary>Something beside the serving that does not go as it should: what, why, and since when.</summary>
public sealed record SideTrouble(string What, string Says, DateTimeOffset Since);

/// <summary>What goes wrong beside the serving, as long as it does: said in the page and in <c>/health</c>.</summary>
public sealed class SideTroubles(TimeProvider clock)
{
    private readonly ConcurrentDictionary<string, SideTrouble> now = new();

    public IReadOnlyList<SideTrouble> Now => now.Values.OrderBy(t => t.What, StringComparer.Ordinal).ToList();

    /// <summary>Says what is wrong with something; empty when it is well again.</summary>
    public void Say(string what, string says)
    {
        if (says.Length == 0)
            now.TryRemove(what, out _);
        else
            now.AddOrUpdate(what, _ => new(what, says, clock.GetUtcNow()), (_, was) => was with { Says = says });
    }
}

/// <summary>
/// Something that runs beside the serving for as long as it lasts. Whatever goes wrong in it, it says so, waits and begins again: it never
/// ends, and never takes the server with it.
/// </summary>
internal abstract class SideService(SideTroubles troubles, TimeProvider clock, ILogger log) : BackgroundService
{
    private static readonly TimeSpan longest = TimeSpan.FromMinutes(5);

    /// <summary>What it is, as a painter would call it: "The copies".</summary>
    protected abstract string What { get; }

    /// <summary>How long it waits before it begins again after trouble: twice as long every time, up to five minutes.</summary>
    protected virtual TimeSpan Pause => TimeSpan.FromSeconds(2);

    /// <summary>Runs until it is stopped, or until something goes wrong. Says <see cref="Well"/> whenever it got somewhere.</summary>
    protected abstract Task Run(CancellationToken stop);

    private int failures;

    protected TimeProvider Clock => clock;

    /// <summary>It goes on, and something is wrong all the same.</summary>
    protected void Troubled(string says) => troubles.Say(What, says);

    /// <summary>It goes as it should.</summary>
    protected void Well()
    {
        failures = 0;
        troubles.Say(What, "");
    }

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The server does not wait for it to begin.
        await Task.Yield();
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await Run(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception wrong)
            {
                failures++;
                log.LogWarning("{What}: {Kind} {Why}", What, wrong.GetType().Name, wrong.Message);
                troubles.Say(What, wrong.Message.Split('\n')[0]);
            }

            try
            {
                var pause = TimeSpan.FromTicks(Math.Min(longest.Ticks, Pause.Ticks << Math.Min(failures, 8)));
                await Task.Delay(pause, clock, stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }
}
