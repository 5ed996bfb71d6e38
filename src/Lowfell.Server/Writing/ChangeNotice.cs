using System.Text.Json;
using Lowfell.Core.Words;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Writing;

/// <summary>Tells servers and pages what has moved on, to which version, and by which write.</summary>
/// <param name="WorkshopId">Whose slices.</param>
/// <param name="Versions">The slices that moved on, at the versions they have now.</param>
/// <param name="Write">The <c>Idempotency-Key</c> of the write: whoever sent it knows already.</param>
public sealed record ChangeNotice(Guid WorkshopId, IReadOnlyDictionary<Slice, long> Versions, Guid Write)
{
    private static readonly JsonSerializerOptions options = new(JsonSerializerDefaults.Web);

    private sealed record Wire(Guid WorkshopId, Dictionary<string, long> Versions, Guid Write);

    public string ToJson() => JsonSerializer.Serialize(new Wire(WorkshopId, Versions.ToDictionary(v => EnumWords.Of(v.Key), v => v.Value), Write), options);

    /// <summary>Reads a notice; null when it is none.</summary>
    public static ChangeNotice? Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<Wire>(json, options) is { Versions: not null } w && w.Versions.Keys.All(k => EnumWords.Read<Slice>(k) is not null)
                ? new ChangeNotice(w.WorkshopId, w.Versions.ToDictionary(v => EnumWords.Read<Slice>(v.Key)!.Value, v => v.Value), w.Write) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
