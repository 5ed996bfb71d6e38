using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Lowfell.Mutants;

/// <summary>A copy of the checkout with faults in it, each behind a switch; compiled once.</summary>
public sealed partial class Tree(string from, string at)
{
    private static readonly string[] left = ["bin", "obj", "node_modules", ".git", "benchmarks", "Lowfell.Mutants"], lanes = ["Core", "Server"];

    public string At => at;

    /// <summary>The files of the checkout that faults are looked for in, with their text: not those that only the script's own tests come by.</summary>
    public IEnumerable<(string File, string Text)> Sources(string project) =>
        Directory.GetFiles(Path.Combine(from, "src", project), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Split('/').Any(p => p is "bin" or "obj" or "Migrations" or "Commands"))
            .Order(StringComparer.Ordinal)
            .Select(f => (Path.GetRelativePath(from, f), File.ReadAllText(f)));

    public void Copy()
    {
        Copy(new DirectoryInfo(from), at);
        var into = Path.Combine(AppContext.BaseDirectory, "into");
        File.Copy(Path.Combine(into, "Mutants.cs"), Path.Combine(at, "src/Lowfell.Core/Mutants.cs"), overwrite: true);
        foreach (var lane in lanes)
            File.Copy(Path.Combine(into, "TracedTests.cs"), Path.Combine(at, $"tests/Lowfell.{lane}.Tests/TracedTests.cs"), overwrite: true);
    }

    private static void Copy(DirectoryInfo folder, string to)
    {
        Directory.CreateDirectory(to);
        foreach (var file in folder.GetFiles().Where(f => f.LinkTarget is null))
            file.CopyTo(Path.Combine(to, file.Name), overwrite: true);
        foreach (var inner in folder.GetDirectories().Where(d => d.LinkTarget is null && !left.Contains(d.Name)))
            Copy(inner, Path.Combine(to, inner.Name));
    }

    /// <summary>Writes the faults into the copy and compiles it; what cannot stand where it is (a constant that has to be one, a filter that changes the type) is left out.</summary>
    public async Task<List<Chosen>> Compile(List<Chosen> faults)
    {
        while (true)
        {
            var lines = Write(faults);
            var wrong = await Build();
            if (wrong.Count == 0)
                return faults;
            var fit = faults.Where(f => !wrong.Exists(w => w.File == f.Place.File && w.Line >= lines[f.Number].First && w.Line <= lines[f.Number].Last)).ToList();
            if (fit.Count == faults.Count)
                throw new InvalidOperationException($"The copy does not compile: {string.Join(", ", wrong.Take(5))}");
            foreach (var file in faults.Select(f => f.Place.File).Distinct())
                File.Copy(Path.Combine(from, file), Path.Combine(at, file), overwrite: true);
            faults = fit;
        }
    }

    /// <summary>On which lines of the copy each of them lies then.</summary>
    private Dictionary<int, (int First, int Last)> Write(IReadOnlyList<Chosen> faults)
    {
        var lines = new Dictionary<int, (int, int)>();
        foreach (var file in faults.GroupBy(f => f.Place.File))
        {
            var (text, copy, upTo, line) = (File.ReadAllText(Path.Combine(from, file.Key)), new StringBuilder(), 0, 1);
            void Add(string part)
            {
                copy.Append(part);
                line += part.Count(c => c == '\n');
            }

            foreach (var (number, _, place) in file.OrderBy(f => f.Place.Start))
            {
                Add(text[upTo..place.Start]);
                var first = line;
                Add(place.Instead(number));
                lines[number] = (first, line);
                upTo = place.Start + place.Length;
            }

            Add(text[upTo..]);
            File.WriteAllText(Path.Combine(at, file.Key), copy.ToString());
        }

        return lines;
    }

    /// <summary>Compiles tests and all they rest on; what could not be compiled, file and line as they stand in the copy.</summary>
    private async Task<List<(string File, int Line)>> Build()
    {
        List<(string, int)> wrong = [];
        foreach (var lane in lanes)
        {
            var (code, said) = await Run.To(at, TimeSpan.FromMinutes(20), [], "dotnet", "build", $"tests/Lowfell.{lane}.Tests", "-c", "Release", "-v", "q", "--nologo", "-p:RunAnalyzers=false", "-p:TreatWarningsAsErrors=false", "-p:EnforceCodeStyleInBuild=false", "-p:GenerateDocumentationFile=false");
            var here = Wrong().Matches(said).Select(m => (Path.GetRelativePath(at, m.Groups[1].Value), int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture))).ToList();
            if (code != 0 && here.Count == 0)
                throw new InvalidOperationException($"The copy does not build: {said[^Math.Min(said.Length, 2000)..]}");
            wrong.AddRange(here);
        }

        return wrong.Distinct().ToList();
    }

    [GeneratedRegex(@"^\s*(/[^(\n]*\.cs)\((\d+),\d+\): error", RegexOptions.Multiline)]
    private static partial Regex Wrong();
}
