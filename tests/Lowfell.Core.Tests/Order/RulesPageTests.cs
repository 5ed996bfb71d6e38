using System.Text;
using Lowfell.Core.Order;

namespace Lowfell.Core.Tests.Order;

public class RulesPageTests
{
    /// <summary>The page lists exactly the rules there are. When it is stale, the message holds what it should say.</summary>
    [Fact]
    public void The_page_of_rules_is_fresh()
    {
        var expected = new StringBuilder("# Order rules\n\nWhat Lowfell looks for in a stack of layers. Every remedy is tried on the stack before it is offered.\n\n| Rule | What it looks for | Can be a stop |\n|---|---|---|\n");
        foreach (var rule in OrderCheck.Rules)
            expected.Append(System.Globalization.CultureInfo.InvariantCulture, $"| {rule.Id} | {rule.Summary} | {(rule.CanStop ? "yes" : "no")} |\n");
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Lowfell.slnx")))
            folder = folder.Parent;
        Assert.Equal(expected.ToString(), File.ReadAllText(Path.Combine(folder!.FullName, "docs", "order-rules.md")));
    }
}
