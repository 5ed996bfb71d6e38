using System.Text.Json.Serialization;
using Lowfell.Server.Calc;
using Lowfell.Server.Http;
using Lowfell.Server.Plan;
using Lowfell.Server.Pots;
using Lowfell.Server.Remarks;
using Lowfell.Server.Shelf;
using Lowfell.Server.Stock;
using Lowfell.Server.Workshops;
using Lowfell.Store;
using Lowfell.Store.Demo;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Formatting.Compact;

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog((context, log) => log
    .MinimumLevel.Information()
    .MinimumLevel.Override("Microsoft", Serilog.Events.LogEventLevel.Warning)
    // Refusals are not defects; what is one is logged where it is told apart, in Problems.
    .MinimumLevel.Override("Microsoft.AspNetCore.Diagnostics.ExceptionHandlerMiddleware", Serilog.Events.LogEventLevel.Fatal)
    .MinimumLevel.Override("Microsoft.EntityFrameworkCore", Serilog.Events.LogEventLevel.Fatal)
    .WriteTo.Console(new CompactJsonFormatter(), standardErrorFromLevel: Serilog.Events.LogEventLevel.Verbose));
builder.WebHost.ConfigureKestrel(k =>
{
    k.AddServerHeader = false;
    k.Limits.MaxRequestBodySize = BodyLimit.MostDrainedBytes;
    k.Limits.MaxRequestHeadersTotalSize = 16_384;
});
var connection = builder.Configuration["Lowfell:Database"] ?? "Host=127.0.0.1;Database=lowfell";
builder.Services.AddDbContext<LowfellDb>(o => LowfellDb.Configure((DbContextOptionsBuilder<LowfellDb>)o, connection));
builder.Services.AddSingleton<CoreMaterials>();
builder.Services.AddSingleton<SetGraphs>();
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
builder.Services.ConfigureHttpJsonOptions(o =>
{
    o.SerializerOptions.Converters.Add(new JsonStringEnumConverter(new WordsPolicy(), allowIntegerValues: false));
    o.SerializerOptions.MaxDepth = 32;
    o.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
});
builder.Services.AddOpenApi(ApiDocument.Configure);
builder.Services.AddProblemDetails();

var app = builder.Build();
app.UseExceptionHandler(e => e.Run(Problems.Handle));
app.UseStatusCodePages(Problems.HandleEmpty);
app.UseGuards();
app.UseBodyLimit();
app.UseSerilogRequestLogging();
app.MapOpenApi();
app.MapGet("/health", async (LowfellDb db, CancellationToken stop) =>
    await db.Database.CanConnectAsync(stop) ? Results.Ok(new { status = "ok" }) : Results.StatusCode(StatusCodes.Status503ServiceUnavailable)).ExcludeFromDescription();
app.MapCalc();
app.MapPlan();
app.MapColour();
app.MapRemarks();
app.MapShelf();
app.MapStock();
app.MapPots();
app.MapWorkshops();
app.MapHouseRules();
app.MapFirstSet();
Page.MapPage(app);

if (args is ["--write-openapi", var file])
{
    // Endpoints are known once the host runs; any free port will do for that moment.
    app.Urls.Clear();
    app.Urls.Add("http://127.0.0.1:0");
    await app.StartAsync();
    await ApiDocument.Write(app.Services, file);
    await app.StopAsync();
    return;
}

if (args is ["--write-rules", var page])
{
    await File.WriteAllTextAsync(page, Lowfell.Core.Order.RulesPage.Write());
    return;
}

using (var scope = app.Services.CreateScope())
{
    var db = scope.ServiceProvider.GetRequiredService<LowfellDb>();
    await db.Database.MigrateAsync();
    if (app.Configuration.GetValue("Lowfell:Demo", true))
        await DemoSet.LoadIfNew(db, scope.ServiceProvider.GetRequiredService<TimeProvider>().GetUtcNow());
}

await app.RunAsync();

/// <summary>The server's entry point, visible to its tests.</summary>
public partial class Program;
