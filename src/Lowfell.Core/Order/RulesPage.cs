using System.Globalization;
using System.Text;

namespace Lowfell.Core.Order;

/// <summary>The page about the rules, written from the rules themselves.</summary>
public static class RulesPage
{
    /// <summary>Markdown with every rule and every school.</summary>
    public static string Write()
    {
        var page = new StringBuilder("""
            # Order rules

            What Lowfell looks for in a stack of layers. Every remedy is tried on the stack before it is offered: it takes its remark
            away, brings no new stop or caution, and keeps what each layer is for. A rule with a school follows the house rule of that name. Written by `./lowfell schema` from
            the rules in `src/Lowfell.Core/Order/Rules`.

            | Rule | What it looks for | Why | School | Remedies | Can be a stop |
            |---|---|---|---|---|---|

            """);
        foreach (var rule in OrderCheck.Rules)
        {
            var f = rule.Facts;
            page.Append($"| {f.Id} | {f.What} | {f.Why} | {string.Join("; ", f.Schools.Select(Name))} | {f.Remedies} | {(f.CanStop ? "yes" : "no")} |\n");
        }

        page.Append("\n## Limits\n\nWhere a rule begins to speak, or ceases to, or says more.\n\n| Rule | Of | Limit |\n|---|---|---|\n");
        foreach (var rule in OrderCheck.Rules)
            foreach (var limit in rule.Facts.Limits)
                page.Append(CultureInfo.InvariantCulture, $"| {rule.Facts.Id} | {limit.Of} | {limit.Value:0.###}{(limit.Unit == "1" ? "" : " " + limit.Unit)} |\n");

        page.Append("\n## House rules\n\nThe first answer is the cautious one, which a new workshop starts with.\n\n| School | Question | Answers |\n|---|---|---|\n");
        foreach (var q in Schools.All)
            page.Append($"| {Name(q.School)} | {q.Question} | {q.First.Text} / {q.Second.Text} |\n");
        return page.ToString().ReplaceLineEndings("\n");
    }

    private static string Name(School school) => Words.EnumWords.FromName(school.ToString());
}
