namespace Lowfell.Core.Sessions;

/// <summary>How many batches lie and dry at every minute, as steps.</summary>
internal sealed class DryingPlaces(int places)
{
    private readonly List<(int At, int Count)> steps = [(int.MinValue, 0)];

    public void Add(int from, int to) => Change(from, to, 1);

    public void Remove(int from, int to) => Change(from, to, -1);

    private void Change(int from, int to, int by)
    {
        if (to <= from)
            return;
        int first = Split(from), last = Split(to);
        for (var i = first; i < last; i++)
            steps[i] = steps[i] with { Count = steps[i].Count + by };
        Join(last);
        Join(first);
    }

    private int Split(int at)
    {
        var i = Find(at);
        if (steps[i].At == at)
            return i;
        steps.Insert(i + 1, (at, steps[i].Count));
        return i + 1;
    }

    private void Join(int i)
    {
        if (i > 0 && i < steps.Count && steps[i].Count == steps[i - 1].Count)
            steps.RemoveAt(i);
    }

    private int Find(int at)
    {
        int low = 0, high = steps.Count - 1;
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            if (steps[middle].At <= at)
                low = middle;
            else
                high = middle - 1;
        }

        return low;
    }

    /// <summary>The first minute from one on at which there is room for so long.</summary>
    public int Free(int from, int minutes)
    {
        if (minutes <= 0)
            return from;
        for (var i = Find(from); i < steps.Count && steps[i].At < from + minutes; i++)
            if (steps[i].Count >= places && i + 1 < steps.Count)
                from = steps[i + 1].At;
        return from;
    }
}
