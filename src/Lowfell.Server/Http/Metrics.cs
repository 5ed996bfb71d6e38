using System.Diagnostics.Metrics;
using Prometheus;

namespace Lowfell.Server.Http;

/// <summary>Figures of how it goes, as Prometheus text at <c>/metrics</c>: for this machine, like all else.</summary>
internal static class Metrics
{
    private static readonly Meter meter = new("Lowfell");

    /// <summary>Writes by what became of them: stored, refused, or told again.</summary>
    private static readonly Counter<long> writes = meter.CreateCounter<long>("lowfell.writes", description: "Writes by outcome.");
    private static readonly Histogram<double> took = meter.CreateHistogram<double>("lowfell.write.duration", "s", "How long writes took.");

    /// <summary>What is counted besides: requests and connections, the database's line, memory and threads.</summary>
    private static readonly string[] meters = ["Lowfell", "Microsoft.AspNetCore.Hosting", "Microsoft.AspNetCore.Server.Kestrel", "Npgsql", "System.Runtime"];

    public static void Wrote(string outcome, TimeSpan time)
    {
        writes.Add(1, new KeyValuePair<string, object?>("outcome", outcome));
        took.Record(time.TotalSeconds);
    }

    public static void MapMetrics(this WebApplication app)
    {
        var registry = Prometheus.Metrics.NewCustomRegistry();
        var listening = MeterAdapter.StartListening(new MeterAdapterOptions { Registry = registry, MetricFactory = Prometheus.Metrics.WithCustomRegistry(registry), InstrumentFilterPredicate = i => meters.Contains(i.Meter.Name) });
        app.Lifetime.ApplicationStopped.Register(listening.Dispose);
        app.MapMetrics("/metrics", registry).ExcludeFromDescription();
    }
}
