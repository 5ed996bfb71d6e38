using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Stacks;

/// <summary>Findings of one zone, with those the painter lives with told apart.</summary>
internal sealed class ZoneRemarks(SetGraph graph, ZoneRow zone, StackView view)
{
    /// <summary>Everything to be said at the zone, remedies tried; cautions stand at their layers instead.</summary>
    public IReadOnlyList<FindingDto> Findings => OrderCheck.Run(view).Where(f => !f.IsCare).Select(Word).OrderBy(f => f.Accepted is not null).ToList();

    /// <summary>Those of some findings that still want something done.</summary>
    public IReadOnlyList<Finding> Open(IEnumerable<Finding> findings) => findings.Where(f => !f.IsCare && Accepted(f) is null).ToList();

    /// <summary>The acceptance of a finding; null when there is none, or the facts have changed since.</summary>
    public AcceptedFindingRow? Accepted(Finding finding)
    {
        var (rule, layer) = OrderCheck.Key(view, finding);
        AcceptedFindingRow? found = null;
        foreach (var row in graph.Accepted[zone.Id])
            if (row.Rule == rule && row.LayerId == layer && row.Facts == OrderCheck.FactsOf(view, finding))
                found = row;
        return found;
    }

    /// <summary>A finding as it travels.</summary>
    public FindingDto Word(Finding f) => new(
        f.Rule, f.Severity, f.Layers.Select(i => view.Layers[i].Id).ToList(), f.Title, f.Why,
        f.Remedies.Select(r => new RemedyDto(r.Id, r.Text, r.Edits.Select(Word).ToList())).ToList(),
        OrderCheck.SchoolsOf(view, f), OrderCheck.FactsOf(view, f),
        Accepted(f) is { } a ? new AcceptedDto(a.Id, a.Reason, a.AcceptedAt) : null);

    private static EditDto Word(StackEdit edit) => edit switch
    {
        StackEdit.Insert insert => new(EditKind.Insert, insert.At, null, LayerWords.ToDto(insert.Layer)),
        StackEdit.Remove remove => new(EditKind.Remove, remove.At, null, null),
        StackEdit.Move move => new(EditKind.Move, move.From, move.To, null),
        StackEdit.Replace replace => new(EditKind.Replace, replace.At, null, LayerWords.ToDto(replace.Layer)),
        _ => throw new InvalidOperationException($"Unknown edit {edit.GetType().Name}."),
    };
}
