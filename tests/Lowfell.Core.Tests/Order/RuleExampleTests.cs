using Lowfell.Core.Layers;
using Lowfell.Core.Order;

namespace Lowfell.Core.Tests.Order;

/// <summary>Every rule: a stack in which it speaks, the nearest harmless one, and remedies that work.</summary>
public class RuleExampleTests
{
    public static TheoryData<int, string> Examples()
    {
        var data = new TheoryData<int, string>();
        foreach (var (example, i) in RuleExamples.All().Select((e, i) => (e, i)))
            data.Add(i, example.Rule);
        return data;
    }

    private static RuleExample Example(int i) => RuleExamples.All().ElementAt(i);

    private static IReadOnlyList<Finding> Of(string rule, StackContext context, IReadOnlyList<Layer> stack) =>
        OrderCheck.Run(context, stack).Where(f => f.Rule == rule && !f.IsCare).ToList();

    [Fact]
    public void Every_rule_has_an_example() =>
        Assert.Equal(OrderCheck.Rules.Select(r => r.Id).Order(), RuleExamples.All().Select(e => e.Rule).Distinct().Order());

    [Theory, MemberData(nameof(Examples))]
    public void It_speaks(int i, string rule)
    {
        var example = Example(i);
        var finding = Assert.Single(Of(rule, example.Context, example.Fires).Take(1));
        Assert.NotEmpty(finding.Why);
        Assert.All(finding.Layers, l => Assert.InRange(l, 0, example.Fires.Length - 1));
    }

    [Theory, MemberData(nameof(Examples))]
    public void The_nearest_harmless_stack_is_left_alone(int i, string rule) =>
        Assert.Empty(Of(rule, Example(i).HarmlessContext ?? Example(i).Context, Example(i).Harmless));

    [Theory, MemberData(nameof(Examples))]
    public void Each_remedy_takes_it_away_and_brings_no_stop(int i, string rule)
    {
        var example = Example(i);
        var before = new StackView(example.Context, example.Fires);
        foreach (var finding in Of(rule, example.Context, example.Fires))
        {
            // Pots are made: what helps is on the bench and not in the plan.
            Assert.True(finding.Remedies.Count > 0 || rule == "mixed-pots", $"{rule} offers nothing: {finding.Why}");
            foreach (var remedy in finding.Remedies)
                RemedyProperties.Holds(before, finding, remedy);
        }
    }
}
