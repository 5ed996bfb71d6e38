using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;
using Lowfell.Core.Treatments;
using Lowfell.Core.Words;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Pieces;

/// <summary>Words the cores of one zone.</summary>
internal sealed class CoresReader(Place place, IReadOnlyList<PieceLayerRow> rows, IReadOnlyDictionary<Guid, LayerRow> layers, IReadOnlyDictionary<Guid, MixRow> mixes)
{
    private readonly StackView view = place.View;
    private readonly Dictionary<Guid, int> order = place.Layers.Select((l, i) => (l.Id, i)).ToDictionary(x => x.Id, x => x.i);
    private readonly Dictionary<Guid, Guid> inForce = place.Graph.Rows(place.Zone).ToDictionary(l => l.LineId, l => l.Layer.Id);
    private readonly ILookup<(Guid Line, Guid Pot, Guid Piece), PotGiven> given = place.Graph.Given[place.Zone.Id].Where(g => g.PotId is not null)
        .SelectMany(g => g.Pieces.Select(p => (Key: (g.LineId, g.PotId!.Value, p), g))).ToLookup(x => x.Key, x => x.g);

    public CoresReading Read()
    {
        var pieces = SetGraph.PiecesOf(place.Design).ToList();
        var of = rows.ToLookup(r => r.PieceId);
        var cores = pieces.Select(p => Core(p, of[p.Id].ToList())).ToList();
        var differences = Cores.Differences(view, cores).ToLookup(d => d.Piece);
        var extra = cores.SelectMany(c => c.Layers).Select(l => l.Layer).Where(l => !order.ContainsKey(l.Id)).DistinctBy(l => l.Id).ToList();
        var lines = place.Layers.Select((l, i) => new CoreLine(l.Id, i + 1, EnumWords.Of(l.Technique), Paint(l), view.Predictions[i].Average.Colour.ToString()))
            .Concat(extra.Select(l => new CoreLine(l.Id, null, EnumWords.Of(l.Technique), Paint(l), view.Predictions.SeenBelow(0).Field.Colour.ToString()))).ToList();
        var byPiece = cores.ToDictionary(c => c.Piece);
        var pots = cores.SelectMany(c => c.Layers).Where(l => l.Pot is not null).GroupBy(l => l.Layer.Id).ToDictionary(g => g.Key, g => g.GroupBy(l => l.Pot!).OrderByDescending(p => p.Count()).Select(p => p.Key).ToList());
        var names = lines.ToDictionary(l => l.LayerId, l => l.Number is { } n ? $"layer {n}, {l.Technique}" : l.Technique);
        return new CoresReading(
            place.Graph.Workshop.Id, place.Graph.Set.Id, place.Design.Id, place.Zone.Id, place.Design.Name, place.Zone.Name, lines,
            pieces.Select((p, i) => new CorePiece(p.Id, p.Label, Cells(cores[i], of[p.Id].ToDictionary(r => r.LineId), lines), differences[p.Id].Select(d => Word(d, byPiece[d.Piece], pots, names)).ToList())).ToList());
    }

    /// <summary>The zone as it was really done on a piece.</summary>
    public DoneZone DoneOn(PieceRow piece) => new(place, view, Core(piece, rows.Where(r => r.PieceId == piece.Id).ToList()));

    /// <summary>What was done on a piece, in words that are the same where it was done the same.</summary>
    public string Signature(PieceRow piece) => string.Join('|', DoneOn(piece).Core.Layers.Select(l => $"{l.Layer.Id} {l.Pot} {l.IsOlder}"));

    private static string Paint(Layer layer) => string.Join(" + ", layer.Paint.Select(p => p.Material.Name));

    private PieceCore Core(PieceRow piece, IReadOnlyList<PieceLayerRow> mine) => new(
        piece.Id, mine.Where(r => r.Coats > 0 && (r.LayerId is not null || order.ContainsKey(r.LineId))).OrderBy(r => r.DoneAt).ThenBy(r => order.GetValueOrDefault(r.LineId, int.MaxValue)).Select(r => Laid(r, piece.Id)).ToList())
    {
        Accepted = mine.Where(r => r.Accepted).Select(r => r.LineId).ToHashSet(),
        Skipped = mine.Where(r => r.State == PieceState.Skipped).Select(r => r.LineId).ToHashSet(),
    };

    private readonly Dictionary<(Guid? Layer, Guid Line, int Coats, PotGiven? Pot), Layer> laid = [];

    /// <summary>A layer as it was really laid: by the version it was done by, in as many coats as there are, with what was in its pot. Of pieces that are alike it is the same one.</summary>
    private Layer By(PieceLayerRow row, PotGiven? pot)
    {
        if (laid.TryGetValue((row.LayerId, row.LineId, row.Coats, pot), out var known))
            return known;
        var by = Version(row) ?? place.Layers[order[row.LineId]];
        if (by.Coats != row.Coats && (row.LayerId is not null || row.State != PieceState.Done))
            by = by with { Coats = row.Coats };
        if (pot is { Amounts.Count: > 0 } && place.Graph.Contents(pot.Amounts).AsPaint() is { Paint.Count: > 0 } inIt)
            by = by with { Paint = inIt.Paint, Dilution = inIt.Dilution };
        return laid[(row.LayerId, row.LineId, row.Coats, pot)] = by;
    }

    private readonly Dictionary<Guid, Guid> lines = place.Graph.Rows(place.Zone).GroupBy(r => r.Layer.StepId).ToDictionary(g => g.Key, g => g.First().LineId);

    /// <summary>What a layer may take goes by the line that its step has here; one that is gone from the plan keeps its name.</summary>
    private Layer Deep(Layer layer) => layer.DownTo is { } step ? layer with { DownTo = lines.GetValueOrDefault(step, step) } : layer;

    /// <summary>A layer by the version it was done by; null where that is not known.</summary>
    private Layer? Version(PieceLayerRow row) =>
        row.LayerId is { } id && layers.TryGetValue(id, out var stored) && StoredLayer.ToStep(stored, place.Graph.Materials, mixes).Laid(row.LineId) is { } done ? Deep(done) : null;

    /// <summary>It was done by a version that says otherwise than the plan does now: another row may say the same, as after a treatment was parted.</summary>
    private bool IsOlder(PieceLayerRow row) => row.LayerId is { } version && inForce.TryGetValue(row.LineId, out var now) && now != version
        && Version(row) is { } then && !Step.Alike(then, place.Layers[order[row.LineId]]);

    private CoreLayer Laid(PieceLayerRow row, Guid piece)
    {
        PotGiven? pot = row.PotId is { } from ? given[(row.LineId, from, piece)].OrderByDescending(g => g.Sequence).FirstOrDefault() : null;
        var by = By(row, pot);
        return new CoreLayer(by, row.DoneAt!.Value)
        {
            Pot = row.PotId is null ? null : row.Filling is { } n and > 1 ? $"{pot?.Label}, filling {n}" : pot?.Label,
            IsOlder = IsOlder(row),
        };
    }

    private readonly List<(List<Layer> Layers, StackRun Run)> predicted = [];

    /// <summary>Colours of a core; of pieces that are alike they are worked out once.</summary>
    private StackRun Predicted(List<Layer> of)
    {
        foreach (var (known, run) in predicted)
            if (known.Count == of.Count && known.Zip(of).All(x => ReferenceEquals(x.First, x.Second)))
                return run;
        predicted.Add((of, view.Predict(of)));
        return predicted[^1].Run;
    }

    private List<CoreCell> Cells(PieceCore core, Dictionary<Guid, PieceLayerRow> mine, List<CoreLine> lines)
    {
        var run = Predicted(core.Layers.Select(l => l.Layer).ToList());
        var turns = core.Layers.Select((l, i) => (l, i)).ToDictionary(x => x.l.Layer.Id, x => x.i);
        return lines.Select(line =>
        {
            var row = mine.GetValueOrDefault(line.LayerId);
            var turn = turns.TryGetValue(line.LayerId, out var t) ? t : (int?)null;
            return new CoreCell(
                line.LayerId, row?.State ?? PieceState.Open, turn + 1, turn is { } at ? run[at].Average.Colour.ToString() : null, turn is { } n ? core.Layers[n].Pot : null, row?.DoneAt, row?.Wipes ?? 0, row?.Mishaps ?? 0, row?.Why ?? "");
        }).ToList();
    }

    /// <param name="d">The difference.</param>
    /// <param name="core">The core that differs.</param>
    /// <param name="pots">Pots that a layer was laid from, the one that most pieces have first.</param>
    /// <param name="names">Layers in words.</param>
    private CoreDifferenceDto Word(CoreDifference d, PieceCore core, Dictionary<Guid, List<string>> pots, Dictionary<Guid, string> names)
    {
        var name = names.GetValueOrDefault(d.Line, "a layer");
        var laid = core.Layers.FirstOrDefault(l => l.Layer.Id == d.Line);
        var usual = pots.GetValueOrDefault(d.Line)?.FirstOrDefault(p => p != laid?.Pot);
        var (words, todo) = d.Fault switch
        {
            CoreFault.Missing when core.Layers.Any(l => order.TryGetValue(l.Layer.Id, out var o) && o > order[d.Line]) => ($"{name} is not on it, and later ones are", "Laid now it would come over what should lie on it: let it be, or take that off first."),
            CoreFault.Missing => ($"{name} is not on it, and it is on most", "It is among what is to do: lay it at the bench, or wait for its session."),
            CoreFault.Extra => ($"{name} is on it, and the treatment has none", "Let it be and accept it, or put it into the treatment."),
            CoreFault.Swapped => ($"{name} lies above what should lie on it", Seen(d) ? "Lay what should be on top once more." : "Nothing: nobody sees it from the table."),
            CoreFault.OtherPot => ($"{name} is from {laid?.Pot}, on most it is from {usual}", Seen(d) ? $"Wipe it off, or go over it from {usual}." : "Nothing: nobody sees it from the table."),
            CoreFault.OtherDilution => ($"{name} is from {laid?.Pot}, thinned otherwise than {usual}", Seen(d) ? $"Go over it from {usual}." : "Nothing: nobody sees it from the table."),
            CoreFault.Coats when laid!.Layer.Coats < place.Layers[order[d.Line]].Coats && core.Layers[^1].Layer.Id == d.Line => ($"{name} has {laid.Layer.Coats} of its {place.Layers[order[d.Line]].Coats} coats", "Lay the rest at the bench before anything goes on it."),
            CoreFault.Coats => ($"{name} is on it in {laid!.Layer.Coats} {(laid.Layer.Coats == 1 ? "coat" : "coats")}, and the plan has {place.Layers[order[d.Line]].Coats}", Seen(d) ? "Let it be and accept it, or go over it where that can still be." : "Nothing: nobody sees it from the table."),
            CoreFault.TooYoung => ($"{name} had {Duration.Words(d.Minutes!.Value.Had)} to dry and wanted {Duration.Words(d.Minutes.Value.Wanted)} at least", "Look for cracks and lifting before anything else goes on."),
            _ => ($"{name} was done by an older version: {StackDifference.Line([laid!.Layer], [place.Layers[order[d.Line]]])}", Seen(d) ? "Lay the new one over it where that can be." : "Nothing: nobody sees it from the table."),
        };
        return new CoreDifferenceDto(d.Line, d.Fault, Math.Round(d.Difference, 1), d.Verdict, char.ToUpperInvariant(words[0]) + words[1..] + ".", todo, d.Accepted);
    }

    private static bool Seen(CoreDifference d) => d.Verdict != Verdict.Lost;
}
