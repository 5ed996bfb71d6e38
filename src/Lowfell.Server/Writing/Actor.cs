namespace Lowfell.Server.Writing;

/// <summary>Who is at work, and on which device. Told by the page with every write; the bench has one painter until it is given more.</summary>
/// <param name="Name">The painter.</param>
/// <param name="Device">A name the browser made up for itself and keeps.</param>
public sealed record Actor(string Name, string Device)
{
    public const string NameHeader = "Lowfell-Painter", DeviceHeader = "Lowfell-Device";
    private const int Longest = 60;

    /// <summary>The actor of a request.</summary>
    public static Actor Of(HttpRequest request) => new(Header(request, NameHeader, "painter"), Header(request, DeviceHeader, "script"));

    private static string Header(HttpRequest request, string name, string otherwise)
    {
        var text = string.Concat(request.Headers[name].ToString().Where(c => !char.IsControl(c))).Trim();
        return text.Length == 0 ? otherwise : text[..Math.Min(text.Length, Longest)];
    }
}
