namespace Lowfell.Server.Sets;

/// <summary>Names for what is there a second time.</summary>
internal static class Names
{
    private const int Longest = 120;

    /// <summary>The name itself, or the first of "name 2", "name 3" … that is free.</summary>
    public static string Free(string name, IReadOnlySet<string> taken)
    {
        name = name.Trim();
        for (var n = 2; taken.Contains(name); n++)
        {
            var tail = $" {n}";
            var stem = name.LastIndexOf(' ') is > 0 and var at && int.TryParse(name[(at + 1)..], out _) ? name[..at] : name;
            name = stem[..Math.Min(stem.Length, Longest - tail.Length)] + tail;
        }

        return name;
    }
}
