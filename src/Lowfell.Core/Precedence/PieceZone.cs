using Lowfell.Core.Layers;

namespace Lowfell.Core.Precedence;

/// <summary>A zone of a piece with what goes on it, as the order of the whole piece looks at it.</summary>
/// <param name="Id">Of the zone.</param>
/// <param name="Zone">Its measures and name.</param>
/// <param name="Treatment">The treatment that it takes a surface of.</param>
/// <param name="Surface">That surface: zones that take the same one have the same layers.</param>
/// <param name="Layers">Its layers, bottom first, each by its line.</param>
public sealed record PieceZone(Guid Id, Zone Zone, Guid Treatment, Guid Surface, IReadOnlyList<Layer> Layers)
{
    /// <summary>The step of a line of the treatment and its place in the one order; a line that is not known yet is a step of its own.</summary>
    public IReadOnlyDictionary<Guid, (Guid Step, int At)> Steps { get; init; } = new Dictionary<Guid, (Guid, int)>();

    /// <summary>Zones that touch it, by id.</summary>
    public IReadOnlySet<Guid> Touching { get; init; } = new HashSet<Guid>();

    /// <summary>Whether a line is on a piece already, by the index of the piece.</summary>
    public Func<Guid, int, bool> IsDone { get; init; } = (_, _) => false;

    /// <summary>Of how many pieces that can be asked.</summary>
    public int DoneOf { get; init; }

    /// <summary>It is known to stand finished before anything else is begun.</summary>
    public bool StandsFinished { get; init; }

    /// <summary>Its highest layer that leaves something; -1 where nothing does.</summary>
    public int Finish
    {
        get
        {
            for (var i = Layers.Count - 1; i >= 0; i--)
                if (Layers[i].LeavesFilm)
                    return i;
            return -1;
        }
    }
}

/// <summary>One layer of a piece: a step of a treatment on every zone of the piece that it goes over.</summary>
/// <param name="Treatment">Whose step it is.</param>
/// <param name="Step">Its id.</param>
/// <param name="On">The zones and the place of the layer in the stack of each, by their indices.</param>
public sealed record PieceStep(Guid Treatment, Guid Step, IReadOnlyList<(int Zone, int Layer)> On);
