namespace Lowfell.Store;

/// <summary>
/// One question for however many ask at once. Who asks is given the answer to a question that was put after he asked, never that of
/// one already under way: what he has just written is in it.
/// </summary>
public sealed class Turns<TKey, TAnswer>(Func<TKey, Task<TAnswer>> ask) where TKey : notnull
{
    private sealed class Line
    {
        /// <summary>Those who came while a question was under way; it is put for them next.</summary>
        public TaskCompletionSource<TAnswer>? Waiting { get; set; }
    }

    private readonly Dictionary<TKey, Line> lines = [];

    /// <summary>Asks; the answer is as new as the question.</summary>
    public Task<TAnswer> Ask(TKey key)
    {
        lock (lines)
        {
            if (lines.TryGetValue(key, out var line))
                return (line.Waiting ??= New()).Task;
            var mine = New();
            lines[key] = line = new Line();
            _ = Task.Run(() => Serve(key, line, mine));
            return mine.Task;
        }
    }

    private async Task Serve(TKey key, Line line, TaskCompletionSource<TAnswer> turn)
    {
        for (; ; )
        {
            try
            {
                turn.SetResult(await ask(key));
            }
            catch (Exception e)
            {
                turn.SetException(e);
            }

            lock (lines)
            {
                if (line.Waiting is null)
                {
                    lines.Remove(key);
                    return;
                }

                (turn, line.Waiting) = (line.Waiting, null);
            }
        }
    }

    private static TaskCompletionSource<TAnswer> New() => new(TaskCreationOptions.RunContinuationsAsynchronously);
}
