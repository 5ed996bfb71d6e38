using Lowfell.Store;

namespace Lowfell.Server.Tests;

/// <summary>One question for many who ask: never an answer older than the asking.</summary>
public sealed class TurnsTests
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Many_who_ask_at_once_cost_two_questions()
    {
        var (asked, gate) = (0, new SemaphoreSlim(0));
        var turns = new Turns<int, int>(async _ =>
        {
            var mine = Interlocked.Increment(ref asked);
            await gate.WaitAsync(Stop);
            return mine;
        });
        var first = turns.Ask(7);
        var rest = Enumerable.Range(0, 150).Select(_ => turns.Ask(7)).ToList();
        gate.Release(2);
        Assert.Equal(1, await first);
        Assert.All(await Task.WhenAll(rest), answer => Assert.Equal(2, answer));
        Assert.Equal(2, asked);
        gate.Release();
        Assert.Equal(3, await turns.Ask(7));
    }

    [Fact]
    public async Task Whoever_asks_after_a_change_is_told_of_it_however_busy_the_line_is()
    {
        var now = 0;
        var turns = new Turns<string, int>(async _ =>
        {
            var seen = Volatile.Read(ref now);
            await Task.Yield();
            return seen;
        });
        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => Task.Run(async () =>
        {
            for (var n = 0; n < 500; n++)
            {
                var mine = Interlocked.Increment(ref now);
                Assert.True(await turns.Ask("set") >= mine);
            }
        }, Stop)));
    }

    [Fact]
    public async Task A_question_that_fails_fails_for_those_who_asked_it_and_nobody_after()
    {
        var works = false;
        var turns = new Turns<int, string>(key => works ? Task.FromResult($"{key}") : Task.FromException<string>(new IOException("away")));
        await Assert.ThrowsAsync<IOException>(() => turns.Ask(1));
        works = true;
        Assert.Equal(["1", "2"], await Task.WhenAll(turns.Ask(1), turns.Ask(2)));
    }
}
