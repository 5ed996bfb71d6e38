using Lowfell.Server.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace Lowfell.Server.Tests;

/// <summary>What runs beside the serving goes wrong in every way there is, and takes nothing with it.</summary>
public sealed class SideServiceTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private sealed class Clumsy(SideTroubles troubles, TimeProvider clock, ILogger<Clumsy> log) : SideService(troubles, clock, log)
    {
        public int Runs { get; private set; }

        public int Breaks { get; set; } = 4;

        protected override string What => "Something clumsy";

        protected override TimeSpan Pause => TimeSpan.FromMilliseconds(5);

        protected override async Task Run(CancellationToken stop)
        {
            Runs++;
            if (Runs <= Breaks)
                throw (Runs % 4) switch { 0 => new ArgumentException("odd"), 1 => new OperationCanceledException("nobody asked"), 2 => new InvalidOperationException("broken"), _ => new NullReferenceException("missing") };
            Well();
            await Task.Delay(Timeout.InfiniteTimeSpan, stop);
        }
    }

    [Fact]
    public async Task Whatever_it_throws_the_server_serves_and_says_so_until_it_is_well_again()
    {
        Clumsy? clumsy = null;
        var (factory, http) = server.Start(s => s.AddHostedService(p => clumsy = ActivatorUtilities.CreateInstance<Clumsy>(p)));
        await using var _ = factory;
        var troubles = factory.Services.GetRequiredService<SideTroubles>();
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(2));
        var said = false;
        for (var tries = 0; clumsy!.Runs <= clumsy.Breaks || troubles.Now.Any(t => t.What == "Something clumsy"); tries++)
        {
            said |= troubles.Now.Any(t => t.What == "Something clumsy");
            Assert.True(tries < 10_000, "it never came back");
            await timer.WaitForNextTickAsync(TestContext.Current.CancellationToken);
        }

        Assert.True(said, "what went wrong was said");
        Assert.True((await http.GetAsync("/health", TestContext.Current.CancellationToken)).IsSuccessStatusCode);
        Assert.False(factory.Services.GetRequiredService<IHostApplicationLifetime>().ApplicationStopping.IsCancellationRequested);
    }
}
