using System.Text.Json.Serialization;
using Lowfell.Server.Bases;
using Lowfell.Server.Bench;
using Lowfell.Server.Calc;
using Lowfell.Server.Changes;
using Lowfell.Server.Commands;
using Lowfell.Server.Devices;
using Lowfell.Server.Estimates;
using Lowfell.Server.Files;
using Lowfell.Server.History;
using Lowfell.Server.Http;
using Lowfell.Server.Instruments;
using Lowfell.Server.Jobs;
using Lowfell.Server.Log;
using Lowfell.Server.Pieces;
using Lowfell.Server.Plan;
using Lowfell.Server.Pots;
using Lowfell.Server.Remarks;
using Lowfell.Server.Sessions;
using Lowfell.Server.Sets;
using Lowfell.Server.Shelf;
using Lowfell.Server.Stock;
using Lowfell.Server.Treatments;
using Lowfell.Server.Trials;
using Lowfell.Server.Variation;
using Lowfell.Server.Workshops;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Connections;
using Microsoft.EntityFrameworkCore;
using Serilog;

// What speaks to a Lowfell that runs needs none of what serves.
if (args is ["--devices", var served, .. var asked])
    return await DevicesCommand.Run(served, asked);
if (args is ["--instrument", var heard, .. var told])
    return await InstrumentCommand.Run(heard, told);

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog(Logs.Configure);
builder.WebHost.ConfigureKestrel(k =>
{
    k.AddServerHeader = false;
    k.Limits.MaxRequestBodySize = BodyLimit.MostDrainedBytes;
    k.Limits.MaxRequestHeadersTotalSize = 16_384;
});

// Other devices come in by a door of its own, which is opened and shut while the server runs; all that is encrypted comes through it.
var door = new DoorSettings();
((IConfigurationBuilder)builder.Configuration).Add(door);
builder.Services.AddSingleton(door);
builder.Services.AddSingleton<OwnSecret>();
builder.Services.AddSingleton<Restored>();
builder.Services.AddSingleton<DoorLimits>();
builder.Services.AddSingleton<SideTroubles>();
builder.Services.AddSingleton<Certificates>();
builder.Services.AddSingleton<Door>();
builder.Services.AddHostedService(s => s.GetRequiredService<Door>());
builder.WebHost.ConfigureKestrel(k => k.ConfigureHttpsDefaults(h => h.ServerCertificateSelector = (_, _) => k.ApplicationServices.GetRequiredService<Certificates>().Shown));

// What goes wrong in a side service is said and tried again; none of them ends the server.
builder.Services.Configure<HostOptions>(o => o.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore);
var connection = Pool.Of(builder.Configuration["Lowfell:Database"] ?? "Host=127.0.0.1;Database=lowfell");
builder.Services.AddDbContextFactory<LowfellDb>(o => LowfellDb.Configure((DbContextOptionsBuilder<LowfellDb>)o, connection));
builder.Services.AddScoped<Write>();
builder.Services.AddHostedService<Pruning>();
builder.Services.AddHostedService<JobRunner>();
builder.Services.AddSingleton<SetRemarksJob>();
builder.Services.AddSingleton<IJob>(s => s.GetRequiredService<SetRemarksJob>());
builder.Services.AddSingleton<ChangeFeed>();
builder.Services.AddHostedService(s => s.GetRequiredService<ChangeFeed>());
builder.Services.AddScoped<PotBook>();
builder.Services.AddSingleton<SetGraphs>();
builder.Services.AddSingleton<OneAtATime>();
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
builder.Services.AddResponseCompression(o => o.MimeTypes = ["application/json", "application/problem+json", "text/csv", "text/html", "text/plain"]);

var app = builder.Build();
app.UseSerilogRequestLogging(Logs.OfRequests);
app.UseResponseCompression();
app.UseExceptionHandler(e => e.Run(FaultTable.Handle));
app.UseStatusCodePages(Problems.HandleEmpty);
app.UseGuards();
app.UseElsewhere();
app.UseBodyLimit();
app.Use(WriteFilter.KeepBody);
app.MapOpenApi();
app.MapMetrics();
app.MapHealth();
app.MapCalc();
app.MapPlan();
app.MapColour();
app.MapRemarks();
app.MapShelf();
app.MapStock();
app.MapPots();
app.MapRecipes();
app.MapEstimates();
app.MapSessions();
app.MapBench();
app.MapPieces();
app.MapLog();
app.MapPutAwayPhotos();
app.MapFiles();
app.MapWorkshops();
app.MapCopies();
app.MapHouseRules();
app.MapFirstSet();
app.MapSets();
app.MapTreatments();
app.MapTrials();
app.MapVariation();
app.MapBases();
app.MapHistory();
app.MapChanges();
app.MapDevices();
app.MapPairing();
app.MapInstruments();
app.MapJobs();
Page.MapPage(app);

if (args is ["--write-openapi", var file])
{
    // Endpoints are known once the host runs; any free port will do for that moment.
    app.Urls.Clear();
    app.Urls.Add("http://127.0.0.1:0");
    await app.StartAsync();
    await ApiDocument.Write(app.Services, file);
    await app.StopAsync();
    return 0;
}

if (args is ["--migrations"])
{
    foreach (var migration in Readiness.Migrations())
        Console.WriteLine(migration);
    return 0;
}

if (args is ["--migrate"])
{
    var (said, well) = await Readiness.MigrateNow(app);
    (well ? Console.Out : Console.Error).WriteLine(said);
    return well ? 0 : 1;
}

if (args is ["--migrate-to", var target])
{
    await Readiness.MigrateTo(app, target);
    return 0;
}

if (args is ["--write-rules", var page])
{
    Task Beside(string name, string text) => File.WriteAllTextAsync(Path.Combine(Path.GetDirectoryName(Path.GetFullPath(page))!, name), text);
    await File.WriteAllTextAsync(page, Lowfell.Core.Order.RulesPage.Write());
    await Beside("drying.md", Lowfell.Core.Drying.DryingPage.Write());
    await Beside("pots.md", Lowfell.Core.Mixing.Pots.PotPage.Write());
    await Beside("techniques.md", Lowfell.Core.Layers.TechniquePage.Write());
    await Beside("set-file.schema.json", Lowfell.Store.Files.SetSchema.Write(app.Services.GetRequiredService<IDbContextFactory<LowfellDb>>().CreateDbContext()));
    return 0;
}

if (await Readiness.Prepare(app, async services =>
{
    await DemoPlan.Begin(services);
    await DemoTrial.Begin(services);
    await DemoBases.Begin(services);
}) is { } trouble)
{
    Log.Fatal("{Trouble}", trouble);
    await Log.CloseAndFlushAsync();
    return 1;
}

try
{
    await app.RunAsync();
    return 0;
}
catch (IOException held) when (held.InnerException is AddressInUseException)
{
    Log.Fatal("{Address} is taken by another program. Choose another port.", string.Join(", ", app.Urls));
    await Log.CloseAndFlushAsync();
    return 1;
}

/// <summary>The server's entry point, visible to its tests.</summary>
public partial class Program;
