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

    [Fact]
    public void Features_do_not_reach_into_each_other()
    {
        string[] features = ["Plan", "Shelf", "Calc", "Workshops"];
        foreach (var feature in features)
        {
            var others = features.Where(f => f != feature).Select(f => $"Lowfell.Server.{f}").ToArray();
            var result = Types.InAssembly(typeof(Program).Assembly).That().ResideInNamespace($"Lowfell.Server.{feature}").ShouldNot().HaveDependencyOnAny(others).GetResult();
            Assert.True(result.IsSuccessful, $"{feature} reaches into another feature: {string.Join(", ", result.FailingTypeNames ?? [])}");
        }
    }
}
