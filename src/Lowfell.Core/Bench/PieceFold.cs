namespace Lowfell.Core.Bench;

/// <summary>
/// What events come to, layer by layer and piece by piece. Events count in the order in which they happened, not in that in which they were
/// heard of: one that comes late is put where it belongs.
/// </summary>
public static class PieceFold
{
    /// <summary>Every layer that anything happened to.</summary>
    /// <param name="events">In any order, those taken back left out.</param>
    public static IReadOnlyDictionary<PieceKey, PieceLayer> Of(IEnumerable<BenchEvent> events)
    {
        var ordered = events.ToList();
        ordered.Sort(BenchEvent.Order);
        var layers = new Dictionary<PieceKey, PieceLayer>();
        foreach (var e in ordered)
            foreach (var target in e.Targets)
                foreach (var piece in e.Pieces)
                {
                    var key = new PieceKey(target.Zone, target.Line, piece);
                    layers[key] = After(layers.GetValueOrDefault(key) ?? new PieceLayer(key), e, target.Coats);
                }

        return layers;
    }

    /// <summary>One step: how it is after an event.</summary>
    /// <param name="was">Before it.</param>
    /// <param name="e">The event.</param>
    /// <param name="whole">How many coats make the layer whole there.</param>
    private static PieceLayer After(PieceLayer was, BenchEvent e, int whole) => e.Kind switch
    {
        // What is there already is not begun again by a second begin: that is another coat, and the first stays.
        DoneKind.Begun when was.State != PieceState.Done => was with { State = PieceState.Begun, BegunAt = e.At, At = e.At },
        DoneKind.Paused when was.State == PieceState.Begun => was with { State = PieceState.Paused, At = e.At },
        DoneKind.Given => was with
        {
            Coats = Laid(was, e, whole),
            State = Laid(was, e, whole) >= whole ? PieceState.Done : PieceState.Partly,
            DoneAt = e.At,
            DoneBy = e.Id,
            Layer = e.Layer,
            Pot = e.Pot,
            Filling = e.Filling,
            HotAir = false,
            Why = "",
            Accepted = false,
            At = e.At,
        },
        DoneKind.Skipped when was.State != PieceState.Done => was with { State = PieceState.Skipped, Why = e.Note, At = e.At },
        DoneKind.Wiped => new PieceLayer(was.Key) { Wipes = was.Wipes + 1, Mishaps = was.Mishaps, At = e.At },
        DoneKind.Mishap => was with { Mishaps = was.Mishaps + 1, At = e.At },
        DoneKind.HotAir when was.Coats > 0 => was with { HotAir = true, At = e.At },
        DoneKind.Accepted => was with { Accepted = true, Why = e.Note, At = e.At },
        _ => was with { At = e.At },
    };

    /// <summary>How many coats are there once something was laid. Told to be done, it is whole, however often that is told; each coat told by itself is one more.</summary>
    private static int Laid(PieceLayer was, BenchEvent e, int whole) =>
        e.Coats is { } coats ? was.Coats + coats : Math.Max(was.Coats, whole);
}
