using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Changes;

/// <summary>
/// Hears from the database what any server has written, and passes it on to the pages that are open here. Whoever listens is given
/// versions, not contents: a notice that was lost is made up for by the next one, or by the first after coming back.
/// </summary>
internal sealed class ChangeFeed(IDbContextFactory<LowfellDb> factory, SideTroubles troubles, TimeProvider clock, IHostApplicationLifetime host, ILogger<ChangeFeed> log) : SideService(troubles, clock, log)
{
    protected override string What => "News between windows";

    /// <summary>Silence this long and a page is told once more how things stand: so both ends notice a line that is dead.</summary>
    private static readonly TimeSpan quiet = TimeSpan.FromSeconds(20);

    /// <summary>More than this waiting and the oldest go: versions only grow, so the newest says it all.</summary>
    private const int MostWaiting = 64;

    private readonly ConcurrentDictionary<Channel<ChangeNotice?>, (Guid Workshop, Guid? Device)> listeners = new();

    /// <summary>How many pages listen, of other devices among them, and of one of these.</summary>
    public (int All, int Devices, int Mine) Listening(Guid? device)
    {
        var all = listeners.Values.ToList();
        return (all.Count, all.Count(l => l.Device is not null), all.Count(l => device is not null && l.Device == device));
    }

    /// <summary>The versions of a workshop as they are now, and then each change as it is stored, until the page leaves or the server stops.</summary>
    public async IAsyncEnumerable<ChangeNotice> Of(Guid workshop, Guid? device, [EnumeratorCancellation] CancellationToken leaves)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(leaves, host.ApplicationStopping);
        var heard = Channel.CreateBounded<ChangeNotice?>(new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest });
        listeners[heard] = (workshop, device);
        try
        {
            yield return await Now(workshop, either.Token);
            while (!either.IsCancellationRequested)
                yield return await Next(heard.Reader, either.Token) ?? await Now(workshop, either.Token);
        }
        finally
        {
            listeners.TryRemove(heard, out _);
        }
    }

    /// <summary>The next notice; null when it is time to look how things stand.</summary>
    private async Task<ChangeNotice?> Next(ChannelReader<ChangeNotice?> heard, CancellationToken stop)
    {
        using var wait = CancellationTokenSource.CreateLinkedTokenSource(stop);
        using var timer = Clock.CreateTimer(_ => wait.Cancel(), null, quiet, Timeout.InfiniteTimeSpan);
        try
        {
            return await heard.ReadAsync(wait.Token);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            return null;
        }
    }

    private async Task<ChangeNotice> Now(Guid workshop, CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        return new ChangeNotice(workshop, await db.SliceVersions.AsNoTracking().Where(v => v.WorkshopId == workshop).ToDictionaryAsync(v => v.Slice, v => v.Version, stop), Guid.Empty);
    }

    protected override async Task Run(CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);

        // A line of its own that says now and then that it is alive: a dead one must not look like a quiet one.
        var settings = new NpgsqlConnectionStringBuilder(db.Database.GetConnectionString()) { Pooling = false, KeepAlive = 15 };
        await using var line = new NpgsqlConnection(settings.ConnectionString);
        line.Notification += (_, told) => Pass(ChangeNotice.Read(told.Payload));
        await line.OpenAsync(stop);
        await using (var listen = new NpgsqlCommand($"listen {Slices.Channel}", line))
            await listen.ExecuteNonQueryAsync(stop);
        Well();

        // What was written while nobody listened is made up for.
        foreach (var (heard, _) in listeners)
            heard.Writer.TryWrite(null);
        while (true)
            await line.WaitAsync(stop);
    }

    private void Pass(ChangeNotice? notice)
    {
        if (notice is null)
            return;
        foreach (var (heard, of) in listeners)
            if (of.Workshop == notice.WorkshopId)
                heard.Writer.TryWrite(notice);
    }
}
