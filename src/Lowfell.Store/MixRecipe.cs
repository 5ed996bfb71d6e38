using System.Globalization;

namespace Lowfell.Store;

/// <summary>Recognises the same recipe: parts reduced, components in a fixed order.</summary>
public static class MixRecipe
{
    /// <summary>A key that two recipes share exactly when they give the same mix.</summary>
    public static string Key(IEnumerable<(Guid Material, int Parts)> components)
    {
        var list = components.ToList();
        var divisor = Math.Max(1, list.Aggregate(0, (d, c) => Gcd(d, c.Parts)));
        return string.Join('+', list.OrderBy(c => c.Material).Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Material:n}*{c.Parts / divisor}")));
    }

    private static int Gcd(int a, int b) => b == 0 ? a : Gcd(b, a % b);
}
