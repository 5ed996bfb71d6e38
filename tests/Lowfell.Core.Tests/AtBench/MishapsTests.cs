using Lowfell.Core.Bench;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Tests.AtBench;

/// <summary>What goes wrong: here first, then in general.</summary>
public sealed class MishapsTests
{
    private static readonly DateTimeOffset evening = new(2026, 11, 20, 20, 0, 0, TimeSpan.Zero);

    private static ToldMishap Told(string what, string savedBy = "", int day = 0, Technique at = Technique.Sponge, double? minutes = null) => new(at, what, savedBy, minutes, evening.AddDays(day));

    [Fact]
    public void What_happened_here_comes_first_the_most_often_first_by_what_saved_it_last()
    {
        var known = Mishaps.For(Technique.Sponge, [Told("A sleeve in it", "a damp cloth", 0, minutes: 6), Told("a sleeve in it ", "", 3), Told("Too wet", "kitchen paper", 2), Told("ran", at: Technique.Streak)]);
        Assert.Equal(new KnownMishap("A sleeve in it", "a damp cloth", 6, 2), known[0]);
        Assert.Equal(("Too wet", 1), (known[1].What, known[1].Times));
        Assert.All(known.Skip(2), k => Assert.Equal(0, k.Times));
        Assert.DoesNotContain(known, k => k.What == "ran");
    }

    /// <summary>A hand with paint on it does not read a long list; what happened here is not pushed out of it by what happens in general.</summary>
    [Fact]
    public void No_more_than_six_are_named() =>
        Assert.Equal(["thing 19", "thing 18", "thing 17", "thing 16", "thing 15", "thing 14"], Mishaps.For(Technique.Sponge, Enumerable.Range(0, 20).Select(n => Told($"thing {n}", day: n))).Select(k => k.What));

    [Fact]
    public void Every_technique_that_is_known_to_go_wrong_has_something_that_saves_it()
    {
        foreach (var technique in Enum.GetValues<Technique>())
            Assert.All(Mishaps.For(technique, []), k => Assert.True(k.What.Length > 0 && k.SavedBy.Length > 0 && k.Minutes > 0));
        Assert.NotEmpty(Mishaps.For(Technique.AllOverWash, []));
    }
}
