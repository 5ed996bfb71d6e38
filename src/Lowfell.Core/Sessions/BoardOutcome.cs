namespace Lowfell.Core.Sessions;

/// <summary>What a filled board comes to.</summary>
internal sealed partial class Board
{
    /// <summary>Minutes that getting ready and cleaning take in all.</summary>
    public int ChangeMinutes()
    {
        var sum = 0;
        for (var slot = 0; slot < count.Length; slot++)
            if (count[slot] > 0)
                sum += f.End[slot / painters] - f.Begin[slot / painters] - load[slot] - free[slot];
        return sum;
    }

    /// <summary>What it comes to.</summary>
    public Outcome Judge()
    {
        int finish = 0, last = -1, sessions = 0, idle = 0, setUps = 0;
        for (var s = 0; s < stretches; s++)
        {
            var used = false;
            for (var p = 0; p < painters; p++)
            {
                var slot = s * painters + p;
                if (count[slot] == 0)
                    continue;
                used = true;
                idle += IdleIn(slot, s, out var ready);
                setUps += ready;
                finish = Math.Max(finish, EndOf(seq[slot][count[slot] - 1]));
            }

            if (used)
                (sessions, last) = (sessions + 1, s);
        }

        return new Outcome((f.Work.Due is { } due ? Math.Max(0, finish - due) : 0) + PastDeadlines(), last, sessions, finish, idle, setUps);
    }

    private int PastDeadlines()
    {
        var sum = 0;
        foreach (var deadline in f.Work.Deadlines)
            sum += Math.Max(0, EndOf(deadline) - deadline.Minute);
        return sum;
    }

    /// <summary>When the last operation of a deadline ends; 0 where it has none.</summary>
    public int EndOf(Deadline deadline)
    {
        var end = 0;
        foreach (var o in deadline.Operations)
            end = Math.Max(end, EndOf(o));
        return end;
    }

    /// <summary>Idle minutes of one painter in one stretch: first activity to last, set-up and clean-up among them, less what is done.</summary>
    private int IdleIn(int slot, int stretch, out int ready)
    {
        var list = seq[slot];
        int n = count[slot], inHand = -1, done = 0;
        ready = 0;
        int from = Start[list[0]], to = EndOf(list[n - 1]), lastSetUp = -1;
        for (var i = 0; i < n; i++)
        {
            done += f.Length[list[i]];
            var mine = f.SetUp[list[i]];
            if (mine < 0)
                continue;
            if (mine != inHand)
            {
                var change = f.Change(inHand, mine);
                done += change;
                ready++;

                // The first is got ready within the stretch: before everything else, unless there is a pause for it.
                if (inHand < 0 && !Pause(list, 0, i, change))
                    from = Math.Min(from, Start[list[0]] - change);
            }

            (inHand, lastSetUp) = (mine, i);
        }

        if (lastSetUp >= 0)
        {
            done += f.Clean[inHand];
            if (!Pause(list, lastSetUp, n - 1, f.Clean[inHand]))
                to = Math.Max(to, EndOf(list[n - 1]) + f.Clean[inHand]);
        }

        return Math.Max(0, to - from - done);
    }

    private bool Pause(int[] list, int from, int to, int minutes)
    {
        for (var i = from + 1; i <= to; i++)
            if (Start[list[i]] - EndOf(list[i - 1]) >= minutes)
                return true;
        return minutes == 0;
    }
}
