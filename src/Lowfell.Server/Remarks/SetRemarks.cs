using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Remarks;

/// <summary>Everything the rules say of a set, gathered by what to do about it.</summary>
internal static class SetRemarks
{
    public static RemarksReading Of(SetGraph graph)
    {
        // What is said of a design that has not changed is the same every time.
        var items = graph.Designs.AsParallel().AsOrdered().Select(d => OfDesign(graph, d)).ToList().SelectMany(x => x).ToList();
        var groups = items.GroupBy(i => (i.Rule, i.Title)).Select(g => Group([.. g])).OrderBy(g => g.Severity).ThenByDescending(g => g.Items.Count(i => i.Accepted is null)).ToList();
        int Count(Severity severity) => items.Count(i => i.Item.Severity == severity && i.Item.Accepted is null);
        return new RemarksReading(graph.Set.Id, Count(Severity.Stop), Count(Severity.Caution), Count(Severity.Hint), items.Count(i => i.Item.Accepted is not null), groups);
    }

    /// <summary>More layers than this take longer than anybody should wait for an answer.</summary>
    private const int MostLayersAtOnce = 1500;

    /// <summary>Whether so much of a set has yet to be gone through that it is a job.</summary>
    public static bool IsLong(SetGraph graph) =>
        graph.Designs.Where(d => !graph.Knows(d, nameof(SetRemarks))).Sum(d => d.Zones.Sum(z => graph.Layers(z).Count)) > MostLayersAtOnce;

    internal sealed record Said(string Rule, string Title, IReadOnlyList<Remedy> Remedies, IReadOnlyList<School> Schools, RemarkItem Item);

    /// <summary>Everything to be said of one design.</summary>
    public static List<Said> OfDesign(SetGraph graph, DesignRow design, CancellationToken stop = default) => graph.Once(design, nameof(SetRemarks), () => design.Zones.SelectMany(z =>
    {
        stop.ThrowIfCancellationRequested();
        return Of(graph, design, z);
    }).ToList());

    private static List<Said> Of(SetGraph graph, DesignRow design, ZoneRow zone)
    {
        var view = new StackView(graph.Context(zone, design), graph.Layers(zone));
        var remarks = new ZoneRemarks(graph, zone, view);
        return OrderCheck.Run(view).Where(f => !f.IsCare).Select(f => (Finding: f, Word: remarks.Word(f))).Select(x => Say(x.Finding, x.Word)).ToList();

        Said Say(Finding f, FindingDto word) => new(f.Rule, f.Title, f.Remedies, word.Schools, new RemarkItem(
            zone.Id, zone.Name, design.Id, design.Name, SetGraph.PieceCount(design), zone.TreatmentId, f.Severity,
            f.Layers.Select(i => new RemarkLayer(view.Layers[i].Id, i + 1, $"{EnumWords.Of(view.Layers[i].Technique)}, {view.Layers[i].MaterialName}")).ToList(),
            f.Why, word.Facts, f.Remedies.Select(r => r.Id).ToList(), word.Accepted));
    }

    private static RemarkGroup Group(IReadOnlyList<Said> said)
    {
        var facts = OrderCheck.Rules.First(r => r.Id == said[0].Rule).Facts;
        var open = said.Where(s => s.Item.Accepted is null).ToList();
        var remedies = open.SelectMany(s => s.Remedies).GroupBy(r => r.Id)
            .Select(g => new GroupRemedy(g.Key, g.Select(r => r.Text).Distinct().Count() == 1 ? g.First().Text : General(g.First().Text), g.Count()))
            .OrderByDescending(r => r.Helps).ToList();
        return new RemarkGroup(facts.Id, said[0].Title, facts.What, said.Min(s => s.Item.Severity), said.SelectMany(s => s.Schools).Distinct().ToList(), remedies,
            said.Select(s => s.Item).OrderBy(i => i.Accepted is not null).ThenBy(i => i.Severity).ToList());
    }

    /// <summary>What differs from zone to zone says nothing of the set; one example stands for all.</summary>
    private static string General(string example) => $"{example}, and the like elsewhere";
}
