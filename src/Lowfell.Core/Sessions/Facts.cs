namespace Lowfell.Core.Sessions;

/// <summary>The work as flat arrays, for a board that is filled many thousand times.</summary>
internal sealed class Facts
{
    public const int Never = int.MaxValue / 4;

    public Facts(Work work)
    {
        Work = work;
        Count = work.Operations.Count;
        Painters = work.Painters;
        (Begin, End) = (work.Hours.Select(h => h.Start).ToArray(), work.Hours.Select(h => h.End).ToArray());
        Length = work.Operations.Select(o => o.Length).ToArray();
        Hot = work.Operations.Select(o => o.HotAirMinutes).ToArray();
        NotBefore = work.Operations.Select(o => o.NotBefore).ToArray();
        NotAfter = work.Operations.Select(o => o.NotAfter ?? Never).ToArray();
        Wet = work.Operations.Select(o => o.WetMinutes).ToArray();
        SetUp = work.Operations.Select(o => o.SetUp).ToArray();
        (Ready, Clean) = (work.SetUps.Select(s => s.Minutes).ToArray(), work.SetUps.Select(s => s.CleanMinutes).ToArray());
        Sprays = SetUp.Select(s => s >= 0 && work.SetUps[s].Spray).ToArray();
        HasSprayHours = work.Spraying is not null;
        SprayBegin = (work.Spraying ?? work.Hours).Select(h => h.Start).ToArray();
        SprayEnd = (work.Spraying ?? work.Hours).Select(h => h.End).ToArray();
        Before = work.Operations.Select(o => o.After.Select(a => new Link(a.Operation, a.MinWait, a.MaxWait ?? Never)).ToArray()).ToArray();
        var later = new List<Link>[Count];
        for (var i = 0; i < Count; i++)
            foreach (var link in Before[i])
                (later[link.To] ??= []).Add(new Link(i, link.Min, link.Max));
        Later = later.Select(l => l?.ToArray() ?? []).ToArray();
        var apart = new List<int>[Count];
        foreach (var (a, b) in work.NotWetTogether)
        {
            (apart[a] ??= []).Add(b);
            (apart[b] ??= []).Add(a);
        }

        Apart = apart.Select(l => l?.Distinct().ToArray() ?? []).ToArray();
        Due = new int[Count];
        Array.Fill(Due, Never);
        foreach (var deadline in work.Deadlines)
            foreach (var o in deadline.Operations)
                Due[o] = deadline.Minute;
        Places = work.DryingPlaces ?? Never;
        Minutes = Length.Sum(l => (long)l);
        Units = new Units(this);
    }

    /// <summary>An edge to another operation: waits from the end of the earlier to the start of the later.</summary>
    public readonly record struct Link(int To, int Min, int Max);

    public Work Work { get; }
    public int Count { get; }
    public int Painters { get; }
    public int[] Begin { get; }
    public int[] End { get; }
    public int[] Length { get; }
    public int[] Hot { get; }
    public int[] NotBefore { get; }
    public int[] NotAfter { get; }
    public int[] Wet { get; }
    public int[] SetUp { get; }
    public int[] Ready { get; }
    public int[] Clean { get; }
    public bool[] Sprays { get; }
    /// <summary>Spraying has hours of its own.</summary>
    public bool HasSprayHours { get; }

    public int[] SprayBegin { get; }
    public int[] SprayEnd { get; }
    public Link[][] Before { get; }
    public Link[][] Later { get; }
    public int[][] Apart { get; }
    public int Places { get; }
    public Units Units { get; }

    /// <summary>Deadline of each operation.</summary>
    public int[] Due { get; }

    /// <summary>All of the work.</summary>
    public long Minutes { get; }

    /// <summary>Minutes between two set-ups in one stretch; -1 stands for none before, and for the end after.</summary>
    public int Change(int from, int to)
    {
        if (from == to)
            return 0;
        return (from >= 0 ? Clean[from] : 0) + (to >= 0 ? Ready[to] : 0);
    }

    /// <summary>The first stretch that ends after a minute.</summary>
    public int StretchAfter(int minute) => After(End, minute);

    /// <summary>The first start from a minute on at which so much can be sprayed in one go.</summary>
    public int SprayFrom(int minute, int length)
    {
        if (!HasSprayHours)
            return minute;
        for (var i = After(SprayEnd, minute); i < SprayBegin.Length; i++)
            if (Math.Max(minute, SprayBegin[i]) + length <= SprayEnd[i])
                return Math.Max(minute, SprayBegin[i]);
        return Never;
    }

    /// <summary>The last start up to a minute at which it can; below 0 when there is none.</summary>
    public int SprayUpTo(int minute, int length)
    {
        if (!HasSprayHours)
            return minute;
        for (var i = Math.Min(After(SprayEnd, minute), SprayBegin.Length - 1); i >= 0; i--)
            if (Math.Min(minute, SprayEnd[i] - length) is var at && at >= SprayBegin[i])
                return at;
        return -1;
    }

    private static int After(int[] ends, int minute)
    {
        int low = 0, high = ends.Length;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (ends[middle] > minute)
                high = middle;
            else
                low = middle + 1;
        }

        return low;
    }
}
