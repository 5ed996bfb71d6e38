using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;

namespace Lowfell.Core.Tests;

/// <summary>Pages say what the code goes by: every rule with its limits, how things dry and keep, the figures of techniques. <c>./lowfell schema</c> writes them anew.</summary>
public class PagesTests
{
    public static TheoryData<string> Names => ["order-rules.md", "drying.md", "pots.md", "techniques.md"];

    [Theory]
    [MemberData(nameof(Names))]
    public void A_page_is_fresh(string name)
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Lowfell.slnx")))
            folder = folder.Parent;
        var says = name switch
        {
            "order-rules.md" => RulesPage.Write(),
            "drying.md" => DryingPage.Write(),
            "pots.md" => PotPage.Write(),
            _ => TechniquePage.Write(),
        };
        Assert.Equal(says, File.ReadAllText(Path.Combine(folder!.FullName, "docs", name)));
    }
}
