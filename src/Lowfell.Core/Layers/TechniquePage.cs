using System.Text;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Layers;

/// <summary>The page about techniques, written from the table itself.</summary>
public static class TechniquePage
{
    /// <summary>Markdown: every technique with its usual tool, and with each other tool that changes a figure.</summary>
    public static string Write()
    {
        var page = new StringBuilder("""
            # Techniques

            The figures that predictions, amounts and minutes begin with: rules of thumb, for a usual hand. What a workshop learns of its own
            takes their place; the label wins. Written by `./lowfell schema` from `src/Lowfell.Core/Layers`.

            - *Film*: wet, low – usual – high, µm a coat. *Raised, field, recess* on smooth, light and deep relief: film against that of the
              field for what lies as a film or runs, the share covered for what is dragged or dabbed.
            - *Lands*: the share of what is taken up that lands. *Lost*: ml that stay in the tool each time it is filled, and the cm² a filling covers.
            - *Minutes*: for a cm², for a cm along edges or joints, for a detail; to set up and to clean up.

            | Technique | Tool | Film | Smooth | Light | Deep | Lands | Lost | Minutes | Set up, clean up | Mark |
            |---|---|---|---|---|---|---|---|---|---|---|

            """);
        foreach (var technique in Enum.GetValues<Technique>())
            foreach (var (figures, tool) in Rows(technique))
                page.Append(Row(figures, tool));
        page.Append("\n## Why\n\n| Technique | Why |\n|---|---|\n");
        foreach (var technique in Enum.GetValues<Technique>())
            page.Append(Invariant($"| {EnumWords.Of(technique)} | {TechniqueTable.For(technique).Why} |\n"));
        return page.ToString().ReplaceLineEndings("\n");
    }

    private static IEnumerable<(TechniqueFigures Figures, Tool Tool)> Rows(Technique technique)
    {
        var usual = TechniqueTable.For(technique);
        yield return (usual, usual.UsualTool);
        foreach (var tool in Enum.GetValues<Tool>())
            if (TechniqueTable.For(technique, tool) is var other && tool != usual.UsualTool && other != usual)
                yield return (other, tool);
    }

    private static string Row(TechniqueFigures f, Tool tool)
    {
        var film = f.FilmUm == default ? "—" : Invariant($"{f.FilmUm.Low:0.##} – {f.FilmUm.Usual:0.##} – {f.FilmUm.High:0.##}");
        var lost = f.LossPerFillMl == 0 && f.FillCoversCm2 == 0 ? "—" : Invariant($"{f.LossPerFillMl:0.###} ml, {f.FillCoversCm2:0.#} cm²");
        var minutes = new[] { (f.MinutesPerCm2, "cm²"), (f.MinutesPerCm, "cm"), (f.MinutesPerDetail, "detail") }.Where(m => m.Item1 > 0).Select(m => Invariant($"{m.Item1:0.####} a {m.Item2}"))
            .Concat(f.DetailsPerCm2 > 0 ? [Invariant($"{f.DetailsPerCm2:0.####} details a cm²")] : []);
        var mark = f.Mark is { } m ? Invariant($"{(m.Mm > 0 ? Invariant($"{m.Mm:0.##} mm ") : "")}{EnumWords.Of(m.Shape)}") : "—";
        return Invariant($"| {EnumWords.Of(f.Technique)} | {EnumWords.Of(tool)} | {film} | {Say(f.Smooth)} | {Say(f.Light)} | {Say(f.Deep)} | {f.Efficiency:0.###} | {lost} | {string.Join(", ", minutes)} | {f.SetUpMinutes:0.#}, {f.CleanUpMinutes:0.#} | {mark} |\n");
    }

    private static string Say(Split s) => Invariant($"{s.Raised:0.###}, {s.Field:0.###}, {s.Recess:0.###}");
}
