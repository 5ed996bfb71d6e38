using Lowfell.Core.Order;

namespace Lowfell.Core.Tests.Order;

public class SoundStackTests
{
    public static TheoryData<string> Names() => new(SoundStacks.All().Select(s => s.Name));

    [Theory, MemberData(nameof(Names))]
    public void Sound_work_is_left_alone(string name)
    {
        var (_, context, layers) = SoundStacks.All().Single(s => s.Name == name);
        var said = OrderCheck.Run(context, layers).Where(f => f.Severity != Severity.Hint && !f.IsCare);
        Assert.Empty(said.Select(f => $"{f.Severity} {f.Rule}: {f.Why}"));
    }

    [Fact]
    public void There_are_thirty() => Assert.InRange(SoundStacks.All().Count(), 30, 60);
}
