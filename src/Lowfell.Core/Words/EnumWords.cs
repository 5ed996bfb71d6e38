using System.Text;

namespace Lowfell.Core.Words;

/// <summary>The one way a term of the field is spelt: <c>GlazeMedium</c> is "glaze medium" in code, store, API and interface.</summary>
public static class EnumWords
{
    /// <summary>The words of an enum value.</summary>
    public static string Of<T>(T value) where T : struct, Enum => Spelling<T>.ToWords[value];

    /// <summary>The words of a member name: lower case with spaces; an all-capitals name stays as it is.</summary>
    public static string FromName(string name)
    {
        if (name.All(char.IsUpper))
            return name;
        if (name == "AllOverWash")
            return "all-over wash";
        var words = new StringBuilder(name.Length + 4);
        foreach (var c in name)
        {
            if (char.IsUpper(c) && words.Length > 0)
                words.Append(' ');
            words.Append(char.ToLowerInvariant(c));
        }

        return words.ToString();
    }

    /// <summary>All words of an enum in the order of declaration.</summary>
    public static IEnumerable<string> All<T>() where T : struct, Enum => Enum.GetNames<T>().Select(FromName);

    /// <summary>The value spelt by <paramref name="words"/>, or null.</summary>
    public static T? Read<T>(string words) where T : struct, Enum =>
        Spelling<T>.FromWords.TryGetValue(words, out var value) ? value : null;

    private static class Spelling<T> where T : struct, Enum
    {
        public static readonly Dictionary<T, string> ToWords = Enum.GetValues<T>().ToDictionary(v => v, v => FromName(v.ToString()));
        public static readonly Dictionary<string, T> FromWords = ToWords.ToDictionary(p => p.Value, p => p.Key);
    }
}
