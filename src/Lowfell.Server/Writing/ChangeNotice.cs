using System.Text.Json;
using Lowfell.Core.Words;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Writing;

/// <summary>Tells other servers and pages what has moved on, and who did it.</summary>
public sealed record ChangeNotice(Guid WorkshopId, IReadOnlyList<Slice> Slices, string Device)
{
    private static readonly JsonSerializerOptions options = new(JsonSerializerDefaults.Web);

    private sealed record Wire(Guid WorkshopId, string[] Slices, string Device);

    public string ToJson() => JsonSerializer.Serialize(new Wire(WorkshopId, Slices.Select(s => EnumWords.Of(s)).ToArray(), Device), options);

    /// <summary>Reads a notice; null when it is none.</summary>
    public static ChangeNotice? Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<Wire>(json, options) is { Slices: not null, Device: not null } w
                ? new ChangeNotice(w.WorkshopId, w.Slices.Select(s => EnumWords.Read<Slice>(s)).OfType<Slice>().ToList(), w.Device) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
