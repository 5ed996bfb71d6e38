[assembly: AssemblyFixture(typeof(Lowfell.Script.Tests.Begun))]

namespace Lowfell.Script.Tests;

/// <summary>A data folder after its first start, at rest: most tests begin with a copy of it, and only those of a first start do one.</summary>
public sealed class Begun : IAsyncLifetime
{
    private readonly Place place = new();

    public async ValueTask InitializeAsync()
    {
        await place.Start();
        Assert.Equal(0, (await place.Run("stop")).Code);
    }

    /// <summary>A place of one's own with the demo in it, at rest.</summary>
    public Task<Place> Copy() => place.Copy();

    /// <summary>The same into the folder of a place that is there already.</summary>
    public Task Into(Place other) => place.Command("cp", "-a", place.Data + "/.", other.Data);

    public ValueTask DisposeAsync() => place.DisposeAsync();
}
