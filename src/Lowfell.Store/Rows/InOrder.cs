namespace Lowfell.Store.Rows;

/// <summary>Ids of version 7 (RFC 9562) that rise with every call: rows that are put in together are put in in the order they were made, and numbered in it.</summary>
public static class InOrder
{
    private static long last;

    public static Guid NewId()
    {
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        long was, next;
        do
        {
            was = Interlocked.Read(ref last);
            next = Math.Max(now, was + 1);
        }
        while (Interlocked.CompareExchange(ref last, next, was) != was);
        return Guid.CreateVersion7(DateTimeOffset.FromUnixTimeMilliseconds(next));
    }
}
