using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Devices;

/// <summary>The listener's settings, as the web server reads them: one endpoint beside those it began with, or none.</summary>
internal sealed class DoorSettings : ConfigurationProvider, IConfigurationSource
{
    private const string Key = "Kestrel:Endpoints:Door:Url";

    public IConfigurationProvider Build(IConfigurationBuilder builder) => this;

    /// <summary>Has the web server listen at an address, or no longer.</summary>
    public void Listen(string? url)
    {
        if (url is null)
            Data.Remove(Key);
        else
            Data[Key] = url;
        OnReload();
    }
}

/// <summary>
/// Opens and shuts the encrypted listener for other devices, as the database has it: so it is open again after a start, and with any
/// number of servers, on that which has the address.
/// </summary>
internal sealed class Door(IDbContextFactory<LowfellDb> factory, DoorSettings settings, Certificates certificates, SideTroubles troubles, IHostApplicationLifetime host, TimeProvider clock, ILogger<Door> log) : SideService(troubles, clock, log)
{
    protected override string What => "The door for other devices";

    private static readonly TimeSpan every = TimeSpan.FromSeconds(10);
    private readonly SemaphoreSlim turn = new(1);
    private IPEndPoint? open;

    /// <summary>What the web server was asked for, whether it came about or not.</summary>
    private bool asked;

    /// <summary>Why it is shut though it should be open; empty when it is as it should be.</summary>
    public string Trouble { get; private set; } = "";

    /// <summary>Where other devices come in at this server; null while they may not.</summary>
    public IPEndPoint? Open => open;

    /// <summary>The addresses of this machine that another device may reach it at.</summary>
    public static IReadOnlyList<IPAddress> Addresses() => NetworkInterface.GetAllNetworkInterfaces().Where(n => n.OperationalStatus == OperationalStatus.Up)
        .SelectMany(n => n.GetIPProperties().UnicastAddresses).Select(a => a.Address)
        .Where(a => a.AddressFamily == AddressFamily.InterNetwork && !IPAddress.IsLoopback(a)).Distinct().OrderBy(a => a.ToString(), StringComparer.Ordinal).ToList();

    /// <summary>Why nobody can listen at an address; empty when somebody can.</summary>
    public static string Hinders(IPEndPoint at)
    {
        try
        {
            using var probe = new TcpListener(at);
            probe.Start();
            probe.Stop();
            return "";
        }
        catch (SocketException taken) when (taken.SocketErrorCode == SocketError.AddressAlreadyInUse)
        {
            return $"Port {at.Port} of {at.Address} is taken by another program. Choose another port.";
        }
        catch (SocketException) when (Addresses() is { Count: > 0 } own)
        {
            return $"{at.Address} is no address of this machine. Its addresses are {string.Join(", ", own)}.";
        }
        catch (SocketException)
        {
            return $"{at.Address} is no address of this machine, and it has no other: connect it to a network first.";
        }
    }

    /// <summary>Opens or shuts it as the database says now.</summary>
    public async Task Look(CancellationToken stop)
    {
        await turn.WaitAsync(stop);
        try
        {
            await using var db = await factory.CreateDbContextAsync(stop);
            var row = await db.Doors.AsNoTracking().FirstOrDefaultAsync(stop);
            var wanted = row is null ? null : new IPEndPoint(IPAddress.Parse(row.Address), row.Port);
            if (Equals(wanted, open))
            {
                if (wanted is not null)
                    await Certified(wanted, stop);
                return;
            }

            if (asked)
                settings.Listen(null);
            (open, asked) = (null, false);
            if (wanted is null)
            {
                Trouble = "";
                return;
            }

            Trouble = await Until(() => Hinders(wanted).Length == 0, stop) ? "" : Hinders(wanted);
            if (Trouble.Length > 0)
                return;
            if (!await Certified(wanted, stop))
                return;
            asked = true;
            settings.Listen($"https://{wanted}");
            Trouble = await Until(() => Hinders(wanted).Length > 0, stop) ? "" : $"Nobody listens at {wanted} yet.";
            open = Trouble.Length == 0 ? wanted : null;
        }
        finally
        {
            turn.Release();
        }
    }

    /// <summary>Has a certificate for an address, made in time before the one there is ends; what hinders that is said.</summary>
    private async Task<bool> Certified(IPEndPoint at, CancellationToken stop)
    {
        try
        {
            await certificates.For(at.Address, stop);
            return true;
        }
        catch (SealedShut)
        {
            Trouble = (await certificates.State(stop)).Trouble;
            return false;
        }
    }

    private async Task Begun(CancellationToken stop)
    {
        var begun = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        using var told = host.ApplicationStarted.Register(begun.SetResult);
        await begun.Task.WaitAsync(stop);
    }

    /// <summary>The web server opens and shuts in its own time: it first lets go of those that are still in.</summary>
    private async Task<bool> Until(Func<bool> condition, CancellationToken stop)
    {
        for (var tries = 0; tries < 200; tries++)
        {
            if (condition())
                return true;
            await Task.Delay(TimeSpan.FromMilliseconds(50), Clock, stop);
        }

        return false;
    }

    protected override async Task Run(CancellationToken stop)
    {
        // A door that is opened before the web server has begun would take the place of its own address.
        await Begun(stop);
        using var timer = new PeriodicTimer(every, Clock);
        do
        {
            await Look(stop);
            if (Trouble.Length > 0)
                Troubled(Trouble);
            else
                Well();
        }
        while (await timer.WaitForNextTickAsync(stop));
    }
}
