using System.Reflection;
using System.Text.Json.Nodes;
using Lowfell.Store;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mono.Cecil;
using Mono.Cecil.Cil;

namespace Lowfell.Server.Tests;

/// <summary>Whatever writes layers of a zone leaves the other surfaces of its treatment as they are. Who writes layers is found in the code itself.</summary>
public sealed class LayerWriterTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private const string Design = "Mud-and-salt base";
    private static CancellationToken Stop => TestContext.Current.CancellationToken;
    private readonly Weaver weaver = new(server);
    private Guid leftOut;

    /// <summary>Those that begin treatments of their own, or are asked for more than one surface by what they are.</summary>
    private static readonly Dictionary<string, string> others = new()
    {
        ["addSet"] = "a new set has treatments of its own",
        ["addDesign"] = "a new design has treatments of its own",
        ["addZone"] = "a new zone has a treatment of its own",
        ["makeMatch"] = "more pieces get treatments as those were done",
        ["trialOntoBench"] = "a tile has a treatment of its own",
        ["copyTreatment"] = "a copy is a treatment of its own",
        ["bringBackVersion"] = "a version is of all surfaces",
        ["remedySet"] = "a remedy for the whole set",
        ["replaceMaterial"] = "a material is replaced everywhere",
        ["storeSurfaces"] = "surfaces are named, not laid on",
        ["bringTogether"] = "no stack changes at all",
        ["placeStep"] = "a layer is moved wherever it lies",
        ["addStep"] = "it says over what",
        ["storeOver"] = "it says over what",
        ["leaveDetailOut"] = "it is of a detail alone",
    };

    /// <summary>Names of endpoints that come to store layers, by what their handlers call.</summary>
    private List<string> Writers()
    {
        using var module = ModuleDefinition.ReadModule(typeof(Program).Assembly.Location);
        var methods = All(module.Types).SelectMany(t => t.Methods).Where(m => m.HasBody).ToDictionary(m => m.FullName);
        var reaches = new Dictionary<string, bool>();
        bool Reaches(string name)
        {
            if (reaches.TryGetValue(name, out var known))
                return known;
            reaches[name] = false;
            if (!methods.TryGetValue(name, out var method))
                return reaches[name] = name.Contains("Lowfell.Store.Revisions::Add(", StringComparison.Ordinal) || name.Contains("Revisions::Begin(", StringComparison.Ordinal) || name.Contains("Revisions::BringBack(", StringComparison.Ordinal);
            foreach (var called in method.Body.Instructions.Select(i => i.Operand).OfType<MethodReference>())
            {
                // What a method awaits stands in the type that was made for it.
                var machine = called.DeclaringType.Resolve() is { IsNested: true } made && made.Name.Contains('<') ? made.Methods.Where(m => m.Name == "MoveNext" || m.FullName == called.FullName).Select(m => m.FullName) : [];
                if (machine.Append(called.FullName).Any(Reaches))
                    return reaches[name] = true;
            }

            foreach (var made in method.CustomAttributes.Where(a => a.AttributeType.Name == "AsyncStateMachineAttribute").Select(a => ((TypeReference)a.ConstructorArguments[0].Value).Resolve()))
                if (made.Methods.Any(m => m.Name == "MoveNext" && Reaches(m.FullName)))
                    return reaches[name] = true;
            return reaches[name];
        }

        return server.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.Metadata.GetMetadata<MethodInfo>() is { } handler && Named(module, handler) is { } method && Reaches(method))
            .Select(e => e.Metadata.GetMetadata<IEndpointNameMetadata>()!.EndpointName).Order(StringComparer.Ordinal).ToList();
    }

    private static IEnumerable<TypeDefinition> All(IEnumerable<TypeDefinition> types) => types.SelectMany(t => All(t.NestedTypes).Prepend(t));

    private static string? Named(ModuleDefinition module, MethodInfo handler) => (module.LookupToken(handler.MetadataToken) as MethodDefinition)?.FullName;

    private sealed record At(Guid Zone, JsonNode Sheet, Guid Set, Guid Workshop)
    {
        public Guid Treatment => Sheet["treatmentId"]!.GetValue<Guid>();
        public JsonArray Layers => Sheet["layers"]!.AsArray();
        public uint Version => Sheet["version"]!.GetValue<uint>();

        /// <summary>The layers with one of them done otherwise.</summary>
        public JsonArray With(int at, Action<JsonNode> change)
        {
            var layers = Layers.Copy().AsArray();
            change(layers[at]!);
            return layers;
        }
    }

    private async Task<At> Zone(string name) => await Here(await server.ZoneId(Design, name));

    private async Task<At> Here(Guid zone) => new(zone, await weaver.Sheet(zone), await server.SetId(), await server.WorkshopId());

    private Dictionary<string, Func<Task<Guid>>> Calls => new()
    {
        ["storeStack"] = async () =>
        {
            var at = await Zone("Fen mud");
            await weaver.Sent(HttpMethod.Put, $"/api/plan/zones/{at.Zone}/stack", new { version = at.Version, layers = at.With(1, l => l["coats"] = 3) });
            return at.Zone;
        },
        ["storeStacks"] = async () =>
        {
            var at = await Zone("Fen mud");
            var surface = (await server.Get($"/api/treatments/{at.Treatment}/order"))["surfaces"]!.AsArray().Single(s => s!["zones"]!.AsArray().Any(z => z!["zoneId"]!.GetValue<Guid>() == at.Zone))!["id"];
            Assert.Equal(400, (await server.Send(HttpMethod.Put, $"/api/plan/sets/{at.Set}/stacks", new { stacks = new[] { new { treatmentId = at.Treatment, version = at.Version, layers = at.Layers } } })).Status);
            await weaver.Sent(HttpMethod.Put, $"/api/plan/sets/{at.Set}/stacks", new { stacks = new[] { new { treatmentId = at.Treatment, surfaceId = surface, version = at.Version, layers = at.With(1, l => l["coats"] = 4) } } });
            return at.Zone;
        },
        ["mixOntoLayer"] = async () =>
        {
            var at = await Zone("Fen mud");
            var layer = at.Layers.First(l => l!["paint"]!.AsArray().Count > 0)!;
            var other = at.Layers.Last(l => l!["paint"]!.AsArray().Count > 0)!["paint"]![0]!["materialId"]!;
            await weaver.Sent(HttpMethod.Put, $"/api/zones/{at.Zone}/mix", new { layerId = layer["id"], parts = new[] { new { materialId = other.Copy(), parts = 2 }, new { materialId = layer["paint"]![0]!["materialId"]!.Copy(), parts = 1 } }, version = at.Version });
            return at.Zone;
        },
        ["keepVariation"] = async () =>
        {
            var at = await Here(await server.ZoneId("Lock-wall straight", "Coping"));
            var stipple = at.Layers.First(l => l!.Text("technique") == "stipple")!;
            await weaver.Sent(HttpMethod.Put, $"/api/variation/{at.Set}/{at.Treatment}/{stipple["id"]}", new { treatmentVersion = at.Version, varied = new { seed = 77 } });
            return at.Zone;
        },
        ["chooseField"] = async () =>
        {
            var at = await Zone("Salt crust");
            var layer = at.Layers.First(l => l!.Text("technique") == "base coat")!;
            var levels = new[] { 1, 2, 3 }.Select(coats =>
            {
                var level = layer.Copy();
                level["coats"] = coats;
                return level;
            });
            var trial = await weaver.Sent(HttpMethod.Post, $"/api/trials/{at.Set}", new
            {
                id = Guid.NewGuid(),
                zoneId = at.Zone,
                name = "How much ground?",
                tile = new { widthMm = 40, heightMm = 40 },
                factors = new[] { new { layerId = layer["id"], levels } },
            });
            var cell = trial["cells"]!.AsArray().First(c => c!["levels"]![0]!.GetValue<int>() == 2)!.Text("cell");
            await weaver.Sent(HttpMethod.Post, $"/api/trials/{at.Set}/{trial.Text("id")}/choose", new { cell, treatmentVersion = trial["treatmentVersion"] });
            return at.Zone;
        },
        ["partZone"] = async () =>
        {
            var at = await Zone("Rim");
            await weaver.Sent(HttpMethod.Post, $"/api/zones/{at.Zone}/part", new { name = "The rim by itself", layers = at.With(0, l => l["coats"] = 2) });
            return at.Zone;
        },
        ["leaveOut"] = async () =>
        {
            foreach (var zone in await weaver.Zones("Lock-wall straight"))
            {
                var at = await Here(zone);
                var (status, body) = await server.Send(HttpMethod.Post, $"/api/sessions/{at.Workshop}/left-out", new { layers = new[] { new { treatmentId = at.Treatment, layerId = at.Layers[^1]!["id"] } } });
                if (status == 409)
                    continue; // It is on a piece already.
                Assert.True(status == 200, body.ToJsonString());
                Assert.Equal(at.Layers.Count - 1, (await weaver.Sheet(zone))["layers"]!.AsArray().Count);
                return leftOut = zone;
            }

            throw new InvalidOperationException("Every zone of the walls has its last layer already.");
        },
        ["putBack"] = async () =>
        {
            var at = await Here(leftOut);
            await weaver.Sent(HttpMethod.Post, $"/api/sessions/{at.Workshop}/left-out/back", new { layers = new[] { new { treatmentId = at.Treatment, layerId = at.Sheet["leftOut"]![0]!["layerId"] } } });
            Assert.Equal(at.Layers.Count + 1, (await weaver.Sheet(at.Zone))["layers"]!.AsArray().Count);
            return at.Zone;
        },
        ["trayIntoPlan"] = async () =>
        {
            var set = await server.SetId();
            var design = (await server.Get($"/api/bases/{set}"))["designs"]!.AsArray().Single(d => d!.Text("name") == Design)!.Text("designId");

            // Tufts lie on the reed bed: their number is that of the tray.
            var tray = $"/api/bases/{set}/{design}";
            await weaver.Sent(HttpMethod.Put, tray, new { wish = (await server.Get(tray))["wish"] });
            await weaver.Sent(HttpMethod.Post, $"{tray}/plan", null);
            return await server.ZoneId(Design, "Reed bed");
        },
    };

    [Fact]
    public async Task Every_endpoint_that_writes_layers_of_a_zone_leaves_the_other_surfaces_as_they_are()
    {
        Assert.Equal(Calls.Keys.Concat(others.Keys).Order(StringComparer.Ordinal), Writers());
        await weaver.Woven(Design);
        await weaver.Woven("Lock-wall straight");
        foreach (var (name, call) in Calls)
        {
            var before = await Lines();
            var zone = await call();
            var surface = await SurfaceOf(zone);
            var after = await Lines();
            foreach (var (id, (on, layers)) in before)
                Assert.True(id == zone || on == surface || layers == after[id].Layers, $"{name} changed another surface.");
        }
    }

    private async Task<Guid> SurfaceOf(Guid zone)
    {
        await using var db = server.Db();
        return await db.Zones.Where(z => z.Id == zone).Select(z => z.SurfaceId).SingleAsync(Stop);
    }

    /// <summary>The surface of every zone, and all of its layers.</summary>
    private async Task<Dictionary<Guid, (Guid Surface, string Layers)>> Lines()
    {
        var lines = new Dictionary<Guid, (Guid, string)>();
        foreach (var zone in await weaver.Zones())
            lines[zone] = (await SurfaceOf(zone), (await weaver.Sheet(zone))["layers"]!.ToJsonString());
        return lines;
    }
}
