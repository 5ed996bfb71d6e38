using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>What events come to on their pot, one at a time: the same for a pot kept as it goes and for one worked out anew from its events.</summary>
public static class PotState
{
    private static bool Fills(WorkKind kind) => kind is WorkKind.Made or WorkKind.ToppedUp or WorkKind.Joined or WorkKind.SplitOff;

    /// <summary>Takes the next event of a pot in.</summary>
    /// <param name="pot">The pot.</param>
    /// <param name="next">The event, with its amounts.</param>
    /// <param name="undone">The event that it takes back, when it does.</param>
    public static void Take(PotRow pot, WorkEventRow next, WorkEventRow? undone)
    {
        var ml = next.Amounts.Sum(a => a.Ml);
        var backwards = next.Kind == WorkKind.TakenBack;

        // What goes in, or what went in and is taken out again, makes another mix of it.
        if (ml > 0 != backwards && ml != 0)
            pot.Filling++;
        if (Fills(backwards ? undone!.Kind : next.Kind))
            pot.FilledMl += ml;
        if (ml < 0 && !backwards)
            pot.LastOutEventId = next.Id;
        pot.NewestEventId = backwards ? undone!.BeforeId : next.Id;
    }
}
