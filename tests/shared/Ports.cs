using System.Net;
using System.Net.Sockets;

namespace Lowfell.Tests;

/// <summary>Ports for servers that tests start.</summary>
internal static class Ports
{
    // Below where the system takes ports for outgoing connections: there a port that is free now may be taken a moment later.
    private const int From = 20_000, Below = 32_000;

    private static readonly HashSet<int> given = [];

    /// <summary>A port of loopback that nobody holds, and that is given out only once in this process.</summary>
    public static int Free()
    {
        lock (given)
            while (true)
            {
                var port = Random.Shared.Next(From, Below);
                if (IsFree(port) && given.Add(port))
                    return port;
            }
    }

    private static bool IsFree(int port)
    {
        using var listener = new TcpListener(IPAddress.Loopback, port);
        try
        {
            listener.Start();
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }
}
