using Serilog;
using Serilog.AspNetCore;
using Serilog.Core;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace Lowfell.Server.Http;

/// <summary>What is logged: one line for a refused or slow request, a stack trace only for our own faults; files that roll by size and are kept few.</summary>
internal static class Logs
{
    private const long MostBytes = 4_000_000;
    private const int FilesKept = 4;
    private const double SlowMs = 1000;

    public static void Configure(HostBuilderContext context, LoggerConfiguration log)
    {
        var level = Enum.TryParse<LogEventLevel>(context.Configuration["Lowfell:LogLevel"], ignoreCase: true, out var asked) ? asked : LogEventLevel.Information;
        log.Enrich.With<WithoutAddresses>().MinimumLevel.Is(level)
            .MinimumLevel.Override("Microsoft", level < LogEventLevel.Information ? level : LogEventLevel.Warning)

            // Refusals are not defects; what is one is logged where it is told apart, in the table of faults.
            .MinimumLevel.Override("Microsoft.AspNetCore.Diagnostics.ExceptionHandlerMiddleware", LogEventLevel.Fatal)
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore", LogEventLevel.Fatal)

            // Addresses can be secrets: at no level does a log have them as they were asked for.
            .MinimumLevel.Override("Microsoft.AspNetCore.Hosting", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.AspNetCore.Routing", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.AspNetCore.StaticFiles", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.AspNetCore.Server", LogEventLevel.Warning);
        if (context.Configuration["Lowfell:Log"] is { Length: > 0 } file)
            log.WriteTo.File(new CompactJsonFormatter(), file, fileSizeLimitBytes: MostBytes, rollOnFileSizeLimit: true, retainedFileCountLimit: FilesKept)
                .WriteTo.Console(restrictedToMinimumLevel: LogEventLevel.Fatal, outputTemplate: "{Message:lj}{NewLine}", standardErrorFromLevel: LogEventLevel.Verbose);
        else
            log.WriteTo.Console(new CompactJsonFormatter(), standardErrorFromLevel: LogEventLevel.Verbose);
    }

    /// <summary>Every line of a request is told at which address it was; the route says as much, and no secret.</summary>
    private sealed class WithoutAddresses : ILogEventEnricher
    {
        public void Enrich(LogEvent logEvent, ILogEventPropertyFactory propertyFactory) => logEvent.RemovePropertyIfPresent("RequestPath");
    }

    public static void OfRequests(RequestLoggingOptions options)
    {
        options.MessageTemplate = "{RequestMethod} {Route} {StatusCode} in {Elapsed:0} ms";
        options.GetMessageTemplateProperties = (http, _, milliseconds, status) =>
        [
            new("RequestMethod", new ScalarValue(http.Request.Method)), new("Route", new ScalarValue(RouteOf(http))), new("StatusCode", new ScalarValue(status)), new("Elapsed", new ScalarValue(milliseconds)),
        ];
        options.GetLevel = (http, milliseconds, _) => http.Response.StatusCode switch
        {
            >= 500 => LogEventLevel.Warning,
            >= 400 => LogEventLevel.Information,
            _ => milliseconds > SlowMs ? LogEventLevel.Information : LogEventLevel.Verbose,
        };
    }

    /// <summary>What was asked for as the routes name it, with nothing of what stood in the address.</summary>
    public static string RouteOf(HttpContext http)
    {
        // Where something went wrong, the endpoint it went wrong in.
        var endpoint = http.Features.Get<Microsoft.AspNetCore.Diagnostics.IExceptionHandlerFeature>()?.Endpoint ?? http.GetEndpoint();
        return (endpoint as RouteEndpoint)?.RoutePattern.RawText ?? "(no route)";
    }
}
