using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>The order in which things came to be, which nothing that is added or renamed later changes: plans over pieces follow it.</summary>
public static class InTime
{
    /// <summary>Pieces that get a design's layers, in the order they were made; those made at once by their label, W2 before W10.</summary>
    public static IReadOnlyList<PieceRow> Pieces(DesignRow design) => SetGraph.PiecesOf(design).OrderBy(p => MadeAtMs(p.Id)).ToList();

    /// <summary>The how-many-eth zone of a set with its treatment this is, from 0.</summary>
    public static int Turn(SetGraph graph, ZoneRow zone) =>
        graph.Places.Where(p => p.Zone.TreatmentId == zone.TreatmentId).OrderBy(p => MadeAtMs(p.Zone.Id)).ThenBy(p => p.Name, StringComparer.Ordinal).Select(p => p.Zone.Id).ToList().IndexOf(zone.Id);

    /// <summary>Ids of version 7 carry the millisecond they were made in (RFC 9562).</summary>
    private static long MadeAtMs(Guid id)
    {
        Span<byte> bytes = stackalloc byte[16];
        id.TryWriteBytes(bytes, bigEndian: true, out _);
        long ms = 0;
        foreach (var b in bytes[..6])
            ms = ms << 8 | b;
        return ms;
    }
}
