using System.Globalization;

namespace Lowfell.Core.Tests;

/// <summary>Rows of the published tables and worked cases beside the tests.</summary>
internal static class ReferenceTable
{
    public static IEnumerable<string[]> Rows(string name) =>
        File.ReadLines(Path.Combine(AppContext.BaseDirectory, "reference", name)).Skip(1).Select(l => l.Split(','));

    public static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);
}
