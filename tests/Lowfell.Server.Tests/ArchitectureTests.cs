using Lowfell.Core.Colour;
using Lowfell.Store;
using NetArchTest.Rules;

namespace Lowfell.Server.Tests;

public sealed class ArchitectureTests
{
    [Fact]
    public void The_core_knows_nothing_but_the_base_library()
    {
        var foreign = typeof(Optics).Assembly.GetReferencedAssemblies().Select(a => a.Name!).Where(n => !n.StartsWith("System", StringComparison.Ordinal) && n is not "netstandard").ToList();
        Assert.Empty(foreign);
        Assert.True(Types.InAssembly(typeof(Optics).Assembly).ShouldNot().HaveDependencyOnAny("System.IO", "System.Net", "System.Text.Json").GetResult().IsSuccessful);
    }

    [Fact]
    public void The_store_knows_nothing_of_the_server() =>
        Assert.True(Types.InAssembly(typeof(LowfellDb).Assembly).ShouldNot().HaveDependencyOn("Lowfell.Server").GetResult().IsSuccessful);

    /// <summary>What features share; it knows of none of them.</summary>
    private static readonly string[] shared = ["Http", "Writing", "Jobs", "Stacks", "Timetables", "Fillings", "Photos"];

    /// <summary>Every folder of the server that is not shared is a feature: the list comes from the code itself.</summary>
    private static IReadOnlyList<string> Features => typeof(Program).Assembly.GetTypes().Select(t => t.Namespace ?? "").Where(n => n.StartsWith("Lowfell.Server.", StringComparison.Ordinal))
        .Select(n => n.Split('.')[2]).Distinct().Except(shared).Order().ToList();

    [Fact]
    public void Features_do_not_reach_into_each_other()
    {
        Assert.True(Features.Count >= 7, string.Join(", ", Features));
        foreach (var feature in Features)
        {
            var others = Features.Where(f => f != feature).Select(f => $"Lowfell.Server.{f}").ToArray();
            var result = Types.InAssembly(typeof(Program).Assembly).That().ResideInNamespace($"Lowfell.Server.{feature}").ShouldNot().HaveDependencyOnAny(others).GetResult();
            Assert.True(result.IsSuccessful, $"{feature} reaches into another feature: {string.Join(", ", result.FailingTypeNames ?? [])}");
        }
    }

    [Fact]
    public void What_is_shared_knows_of_no_feature()
    {
        var features = Features.Select(f => $"Lowfell.Server.{f}").ToArray();
        foreach (var home in shared)
        {
            var types = Types.InAssembly(typeof(Program).Assembly).That().ResideInNamespace($"Lowfell.Server.{home}");

            // The document of the API describes the words of the order check, and nothing else of it.
            var result = types.And().DoNotHaveName("ApiDocument").ShouldNot().HaveDependencyOnAny(features).GetResult();
            Assert.True(result.IsSuccessful, $"{home} knows of a feature: {string.Join(", ", result.FailingTypeNames ?? [])}");
        }
    }
}
