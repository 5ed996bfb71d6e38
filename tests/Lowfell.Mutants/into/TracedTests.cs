using System.Reflection;
using Xunit.v3;

[assembly: Lowfell.TracedTests]

namespace Lowfell;

/// <summary>Tells which test is running.</summary>
[AttributeUsage(AttributeTargets.Assembly)]
public sealed class TracedTestsAttribute : BeforeAfterTestAttribute
{
    private static string Name(MethodInfo method) => $"{method.ReflectedType!.FullName}.{method.Name}";

    public override void Before(MethodInfo methodUnderTest, IXunitTest test) => Mutants.Begin(Name(methodUnderTest));

    public override void After(MethodInfo methodUnderTest, IXunitTest test) => Mutants.End(Name(methodUnderTest));
}
