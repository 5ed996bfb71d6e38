using Lowfell.Server.Http;

namespace Lowfell.Server.Writing;

/// <summary>
/// Who is at work, and on which device. Told by the page with every write; the bench has one painter until it is given more. Of another device
/// it is known which one it is: whatever its headers say, it tells as itself.
/// </summary>
/// <param name="Name">The painter.</param>
/// <param name="Device">A name the browser made up for itself and keeps.</param>
public sealed record Actor(string Name, string Device)
{
    public const string NameHeader = "Lowfell-Painter", DeviceHeader = "Lowfell-Device";
    private const int Longest = 60;
    private const string PairedPrefix = "paired ";

    /// <summary>What a paired device is called in what it tells: nobody else can be called so.</summary>
    public static string NameOfPaired(Guid id) => PairedPrefix + id.ToString("n");

    /// <summary>The actor of a request.</summary>
    public static Actor Of(HttpRequest request) => request.HttpContext.DeviceOf() is { } device ? new(device.Name, NameOfPaired(device.Id)) : new(Header(request, NameHeader, "painter"), Header(request, DeviceHeader, "script"));

    private static string Header(HttpRequest request, string name, string otherwise)
    {
        var text = string.Concat(request.Headers[name].ToString().Where(c => !char.IsControl(c))).Trim();
        return text.Length == 0 || text.StartsWith(PairedPrefix, StringComparison.Ordinal) ? otherwise : text[..Math.Min(text.Length, Longest)];
    }
}
