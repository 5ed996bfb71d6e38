using System.Text.Json;
using Lowfell.Core.Words;

namespace Lowfell.Server.Http;

/// <summary>Terms travel as their words: "glaze medium".</summary>
public sealed class WordsPolicy : JsonNamingPolicy
{
    public override string ConvertName(string name) => EnumWords.FromName(name);
}
