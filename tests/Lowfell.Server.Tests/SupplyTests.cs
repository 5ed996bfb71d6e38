using System.Reflection;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Lowfell.Server.Tests;

/// <summary>What is taken from others: written down, stable, used, and under a licence that lets it be passed on. Looked up on this machine alone.</summary>
public sealed partial class SupplyTests
{
    private static readonly string root = Environment.GetEnvironmentVariable("LOWFELL_TEST_ROOT") ?? throw new InvalidOperationException("Run these tests with ./lowfell test.");

    private static readonly HashSet<string> free = new(StringComparer.OrdinalIgnoreCase) { "MIT", "Apache-2.0", "BSD-2-Clause", "BSD-3-Clause", "ISC", "MS-PL", "PostgreSQL", "Zlib", "0BSD", "OFL-1.1", "BlueOak-1.0.0", "MPL-2.0", "Python-2.0", "CC-BY-4.0", "CC0-1.0", "Unlicense", "MIT-0" };

    /// <summary>Packages whose own file names a page instead of a licence; what is said there was read.</summary>
    private static readonly Dictionary<string, string> named = new(StringComparer.OrdinalIgnoreCase) { ["CsvHelper"] = "MS-PL OR Apache-2.0", ["Ical.Net"] = "MIT" };

    private static IEnumerable<string> Projects => Directory.GetFiles(root, "*.csproj", SearchOption.AllDirectories).Where(p => !p.Contains("/obj/", StringComparison.Ordinal) && !p.Contains("/node_modules/", StringComparison.Ordinal));

    private static Dictionary<string, string> Versions => XDocument.Load(Path.Combine(root, "Directory.Packages.props")).Descendants("PackageVersion").ToDictionary(p => p.Attribute("Include")!.Value, p => p.Attribute("Version")!.Value);

    private static List<string> References(string project) => XDocument.Load(project).Descendants("PackageReference").Select(p => p.Attribute("Include")!.Value).ToList();

    private static bool IsFree(string licence) => licence.Trim('(', ')').Split(" OR ").Any(one => one.Trim('(', ')').Split(" AND ").All(l => free.Contains(l.Trim('(', ')', ' '))));

    [Fact]
    public void Every_package_is_stable_and_somebody_takes_it()
    {
        Assert.DoesNotContain(Versions, v => v.Value.Contains('-', StringComparison.Ordinal));
        Assert.Equal([], Versions.Keys.Except(Projects.SelectMany(References)).Where(p => p != "Microsoft.EntityFrameworkCore.Relational"));
        foreach (var project in Projects)
            Assert.True(File.Exists(Path.Combine(Path.GetDirectoryName(project)!, "packages.lock.json")), project);
    }

    /// <summary>A package of the product is one whose assembly the product's own refers to, or one that only brings what runs beside it.</summary>
    [Fact]
    public void Every_package_of_the_product_is_used()
    {
        string[] beside = ["SkiaSharp.NativeAssets.Linux.NoDependencies", "Microsoft.EntityFrameworkCore.Design"];
        foreach (var name in new[] { "Lowfell.Core", "Lowfell.Store", "Lowfell.Server" })
        {
            var project = Path.Combine(root, "src", name);
            var assets = JsonNode.Parse(File.ReadAllText(Path.Combine(project, "obj", "project.assets.json")))!;
            var compiled = assets["targets"]!.AsObject().First().Value!.AsObject();
            var used = Assembly.Load(name).GetReferencedAssemblies().Select(a => a.Name!).ToHashSet();
            foreach (var package in References(Path.Combine(project, name + ".csproj")).Except(beside))
            {
                var brings = compiled.Single(p => p.Key.StartsWith(package + "/", StringComparison.OrdinalIgnoreCase)).Value!["compile"]?.AsObject().Select(f => Path.GetFileNameWithoutExtension(f.Key)).ToList() ?? [];

                // What a package is only the door to is used through what it brings along.
                var needs = compiled.Single(p => p.Key.StartsWith(package + "/", StringComparison.OrdinalIgnoreCase)).Value!["dependencies"]?.AsObject().Select(d => d.Key) ?? [];
                Assert.True(brings.Concat(needs).Any(used.Contains), $"{name} takes {package} and does not use it");
            }
        }
    }

    [Fact]
    public void Every_package_of_the_product_may_be_passed_on()
    {
        var assets = JsonNode.Parse(File.ReadAllText(Path.Combine(root, "src/Lowfell.Server/obj/project.assets.json")))!;
        var folders = assets["packageFolders"]!.AsObject().Select(f => f.Key).ToList();
        var packages = assets["libraries"]!.AsObject().Where(l => l.Value!["type"]!.GetValue<string>() == "package").ToList();
        Assert.True(packages.Count > 20);
        foreach (var (package, library) in packages)
        {
            var id = package.Split('/')[0];
            var nuspec = folders.Select(f => Path.Combine(f, library!["path"]!.GetValue<string>(), id.ToLowerInvariant() + ".nuspec")).First(File.Exists);
            var about = XDocument.Load(nuspec);
            var licence = about.Descendants().FirstOrDefault(e => e.Name.LocalName == "license" && e.Attribute("type")?.Value == "expression")?.Value;
            var page = about.Descendants().FirstOrDefault(e => e.Name.LocalName == "licenseUrl")?.Value ?? "";
            licence ??= named.GetValueOrDefault(id) ?? (page.Contains("LICENSE", StringComparison.OrdinalIgnoreCase) && about.Descendants().Any(e => e.Name.LocalName == "authors" && e.Value.Contains("Microsoft", StringComparison.Ordinal)) ? "MIT" : null);
            Assert.True(licence is not null && IsFree(licence), $"{package}: {licence ?? page}");
        }
    }

    [Fact]
    public void Every_package_of_the_page_is_stable_used_and_may_be_passed_on()
    {
        var web = Path.Combine(root, "src/lowfell-web");
        var wanted = JsonNode.Parse(File.ReadAllText(Path.Combine(web, "package.json")))!;
        var locked = JsonNode.Parse(File.ReadAllText(Path.Combine(web, "package-lock.json")))!["packages"]!.AsObject();
        foreach (var (path, package) in locked.Where(p => p.Key.Length > 0))
        {
            Assert.True(package!["license"]?.GetValue<string>() is { } licence && IsFree(licence), $"{path}: {package["license"]}");
            Assert.DoesNotContain("resolved", package.AsObject().Select(p => p.Key));
        }

        var code = string.Concat(Directory.GetFiles(Path.Combine(web, "src"), "*.*", SearchOption.AllDirectories).Where(f => f.EndsWith(".ts", StringComparison.Ordinal) || f.EndsWith(".tsx", StringComparison.Ordinal) || f.EndsWith(".css", StringComparison.Ordinal)).Select(File.ReadAllText));
        var around = string.Concat(Directory.GetFiles(web, "*.*").Where(f => !Path.GetFileName(f).StartsWith("package", StringComparison.Ordinal)).Select(File.ReadAllText)) + File.ReadAllText(Path.Combine(root, "scripts/build.sh")) + string.Concat(wanted["scripts"]!.AsObject().Select(s => s.Value!.GetValue<string>() + "\n"));
        var tested = string.Concat(Directory.GetFiles(Path.Combine(root, "tests"), "*.cs", SearchOption.AllDirectories).Concat(Directory.GetFiles(Path.Combine(root, "scripts"))).Where(f => !f.Contains("/obj/", StringComparison.Ordinal)).Select(File.ReadAllText));
        foreach (var kind in new[] { "dependencies", "devDependencies" })
            foreach (var (name, version) in wanted[kind]!.AsObject())
            {
                Assert.False(Prerelease().IsMatch(version!.GetValue<string>()), $"{name} {version}");
                var bare = name.StartsWith("@types/", StringComparison.Ordinal) ? name["@types/".Length..] : name;
                var within = kind == "dependencies" ? code : code + around + tested;
                var word = name switch { "typescript" => "tsc", "dependency-cruiser" => "depcruise", "vite-plugin-pwa" or "vite" or "vitest" or "eslint" or "prettier" => name, _ => bare };
                Assert.True(within.Contains(word, StringComparison.Ordinal), $"{name} is not used");
            }
    }

    [GeneratedRegex(@"-(alpha|beta|rc|next|canary)")]
    private static partial Regex Prerelease();
}
