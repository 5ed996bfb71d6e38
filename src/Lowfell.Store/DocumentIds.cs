using System.Text.RegularExpressions;

namespace Lowfell.Store;

/// <summary>Ids within what a row keeps as a document, such as how bases are laid out: they have to follow where their rows go.</summary>
public static partial class DocumentIds
{
    /// <summary>The document with other ids, as the ones in it become.</summary>
    public static string Replaced(string body, Func<Guid, Guid> becomes) => Told(body, id => becomes(id).ToString());

    /// <summary>The document with words in place of ids.</summary>
    internal static string Told(string body, Func<Guid, string> words) => Ids().Replace(body, m => $"\"{words(Guid.Parse(m.Groups[1].Value))}\"");

    [GeneratedRegex("\"([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\"")]
    private static partial Regex Ids();
}
