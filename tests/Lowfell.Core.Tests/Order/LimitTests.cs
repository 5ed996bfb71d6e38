using Lowfell.Core.Order;

namespace Lowfell.Core.Tests.Order;

/// <summary>Every limit of every rule: it is quiet just on one side, and speaks just on the other.</summary>
public class LimitTests
{
    public static TheoryData<int, string> Cases() => new(LimitCases.All().Select((c, at) => (at, c.ToString())));

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_rule_speaks_on_one_side_of_its_limit_and_is_quiet_on_the_other(int at, string of)
    {
        var limit = LimitCases.All().ElementAt(at);
        Assert.Equal(of, limit.ToString());
        bool Speaks(double figure) => limit.At(figure) is var laid && OrderCheck.Run(laid.Context, laid.Stack).Any(f => f.Rule == limit.Rule && limit.Says(f));
        Assert.Equal((limit.Below, !limit.Below), (Speaks(limit.Under), Speaks(limit.Over)));
    }

    /// <summary>The page says the figures that are tested here, and no rule has another.</summary>
    [Fact]
    public void Every_limit_that_a_rule_states_is_tested()
    {
        var stated = OrderCheck.Rules.SelectMany(r => r.Facts.Limits.Select(l => (r.Facts.Id, l.Of, l.Value))).Order().ToList();
        var tested = LimitCases.All().Select(c => (c.Rule, c.Of, c.Rule == "coats-to-hide" && c.Counted ? c.Value - 1 : c.Value)).Distinct().Order().ToList();
        Assert.Equal(tested, stated);
        Assert.All(OrderCheck.Rules.SelectMany(r => r.Facts.Limits), l => Assert.Contains($"| {l.Of} | {l.Value.ToString("0.###", System.Globalization.CultureInfo.InvariantCulture)}", RulesPage.Write(), StringComparison.Ordinal));
    }
}
