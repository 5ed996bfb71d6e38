using Lowfell.Core.Order;

namespace Lowfell.Core.Tests.Order;

public class RulesPageTests
{
    /// <summary>The page lists exactly the rules there are; <c>./lowfell schema</c> writes it anew.</summary>
    [Fact]
    public void The_page_of_rules_is_fresh()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Lowfell.slnx")))
            folder = folder.Parent;
        Assert.Equal(RulesPage.Write(), File.ReadAllText(Path.Combine(folder!.FullName, "docs", "order-rules.md")));
    }
}
