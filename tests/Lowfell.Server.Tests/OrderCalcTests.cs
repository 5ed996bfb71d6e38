using System.Text.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Stacks written out in full, as a script would: everyday practice, sound and unsound.</summary>
public sealed class OrderCalcTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static object M(string? kind = null, string? carrier = null, string? colour = null, string? sheen = null, string? name = null) => new { kind, carrier, colour, sheen, name };

    private static object L(string technique, object? material = null, int coats = 1, double? waitHours = null, string? drying = null, string? region = null, string? tool = null,
        object? dilution = null, double? markMm = null, double? strength = null) =>
        new { technique, material, coats, waitHours, drying, region, tool, dilution, markMm, strength };

    private static readonly object prime = L("prime", M("primer", "solvent acrylic", "#444444"), waitHours: 4);
    private static readonly object brush = L("prime", M("primer", "water acrylic", "#7c7d7b"), 2, 4, tool: "brush");
    private static readonly object brown = L("base coat", M("paint", "water acrylic", "#7a5a3a"), 2, 3);
    private static readonly object wash = L("all-over wash", M("wash", "water acrylic", "#806040"), waitHours: 4);
    private static readonly object satin = L("varnish", M("varnish", "water acrylic", sheen: "satin"), 2, 12);
    private static readonly object matt = L("varnish", M("varnish", "water acrylic", sheen: "matt"), 1, 12);
    private static readonly object filter = L("filter", M("filter", "enamel", "#d2c9a0"), waitHours: 12);
    private static readonly object pin = L("pin wash", M("wash", "enamel", "#5a4530"), waitHours: 0.7);
    private static readonly object clean = L("clean up excess", M("thinner", "enamel"), waitHours: 24);
    private static readonly object highlight = L("dry brush", M("paint", "water acrylic", "#c0b090"), waitHours: 1);
    private static readonly object wall = new { areaCm2 = 318, relief = "deep", orientation = "side", handling = "careful" };
    private static readonly object panel = new { areaCm2 = 90, relief = "smooth", orientation = "side", handling = "careful" };
    private static readonly object basing = new { areaCm2 = 8, relief = "deep", orientation = "up", handling = "careful" };

    private static readonly (string Name, object Ask, string[] Wrong)[] everyday =
    [
        ("wall: prime, brown, wash, highlight, matt", Ask([prime, brown, wash, highlight, matt]), []),
        ("wall: full solvent process", Ask([prime, brown, satin, filter, satin, pin, clean, matt]), []),
        ("hull: chipping through a fresh top coat", Ask([prime, L("base coat", M("paint", colour: "#6a3a2c"), 2, 2), L("fluid chip", M("chipping fluid"), waitHours: 0.6), L("base coat", M("paint", colour: "#4a6a4a"), 1, 1), satin, matt]), []),
        ("house: sealed board", Ask([L("seal texture", M("glue", "PVA"), waitHours: 3), brush, brown, wash, matt], substrate: "board"), []),
        ("house: thin render keyed, thick one over it", Ask([L("seal texture", M("glue", "PVA"), waitHours: 3), L("render", M("filler"), waitHours: 8, strength: 0.5), L("render", M("filler"), waitHours: 24), brush, brown, wash, matt], substrate: "board"), []),
        ("foam hill: sealed, brushed primer", Ask([L("seal texture", M("glue", "PVA"), 2, 6), brush, brown, wash, highlight, matt], substrate: "foam"), []),
        ("base: sand, sprayed primer, wash, highlight, matt, tufts", Ask([L("glue and scatter", M("aggregate"), waitHours: 12), prime, brown, wash, highlight, matt, L("tuft", M("tuft"))], basing), []),
        ("base: crackle sealed twice, then washed", Ask([prime, L("crackle paste", M("crackle paste", colour: "#d8d0c0"), waitHours: 72), L("seal texture", M("varnish"), 2, 12), wash, highlight, matt], basing), []),
        ("vehicle: decals on gloss, sealed", Ask([prime, brown, L("varnish", M("varnish", sheen: "gloss"), 1, 12), L("decal", M("decal"), waitHours: 6), satin, matt], panel), []),
        ("door: hot air on a water-based coat", Ask([prime, L("base coat", M("paint", colour: "#7a5a3a"), 2, 0.5, "hot air"), matt], panel), []),
        ("wall: metal after the matt coat", Ask([prime, brown, wash, matt, L("edge line", M("paint", colour: "#a5a7a6", name: "Bright Steel"))]), []),
        ("wall: lacquer first, acrylic over it", Ask([L("prime", M("primer", "lacquer"), waitHours: 24), L("base coat", M("paint", "lacquer", "#6b6b5b"), 2, 24, tool: "airbrush"), brown, matt]), []),
        ("wall: pin wash of water acrylic over satin", Ask([prime, brown, satin, L("pin wash", M("wash", "water acrylic"), waitHours: 3), matt]), []),

        ("primer straight on foam", Ask([prime, brown, matt], substrate: "foam"), ["stop solvent-on-foam"]),
        ("instant glue on foam", Ask([L("seal texture", M("glue", "cyanoacrylate")), brush, brown, matt], substrate: "foam"), ["stop solvent-on-foam"]),
        ("lacquer varnish over enamel", Ask([prime, brown, satin, filter, L("varnish", M("varnish", "lacquer", sheen: "matt"))]), ["stop hot-over-soft"]),
        ("lacquer over acrylic an hour old", Ask([prime, L("base coat", M("paint", colour: "#7a5a3a"), 2, 1), L("base coat", M("paint", "lacquer", "#888888"), 2)]), ["stop hot-over-soft"]),
        ("pin wash over a bare filter", Ask([prime, brown, satin, filter, pin, clean, matt]), ["stop same-solvent"]),
        ("oil wash over enamel paint", Ask([prime, L("base coat", M("paint", "enamel", "#556b2f"), 2, 48), L("pin wash", M("paint", "oil", "#3d2f20"), waitHours: 1), L("clean up excess", M("thinner", "enamel"), waitHours: 72), matt]), ["caution pin-on-matt", "stop same-solvent"]),
        ("enamel wash on bare acrylic, rubbed", Ask([prime, brown, pin, clean, matt]), ["caution no-barrier", "caution pin-on-matt"]),
        ("acrylic thinned with white spirit", Ask([prime, L("base coat", M("paint", colour: "#7a5a3a"), 2, 3, dilution: new { paint = 2, thinner = 1, with = "white spirit" }), matt]), ["stop wrong-thinner"]),
        ("clean-up with water", Ask([prime, brown, satin, pin, L("clean up excess", M("thinner", "water acrylic"), waitHours: 24), matt]), ["stop wrong-thinner"]),
        ("acrylic with three parts of water", Ask([prime, L("base coat", M("paint", colour: "#7a5a3a"), 2, 4, dilution: "1:3"), matt]), ["caution overthinned"]),
        ("wash after five minutes", Ask([prime, L("base coat", M("paint", colour: "#7a5a3a"), 2, 0.08), wash, matt]), ["stop soft-below"]),
        ("wash on bare crackle", Ask([prime, L("crackle paste", M("crackle paste", colour: "#d8d0c0"), waitHours: 100), wash, matt], basing), ["stop unsealed-texture"]),
        ("hot air on crackle paste", Ask([prime, L("crackle paste", M("crackle paste"), waitHours: 100, drying: "hot air"), satin, matt], basing), ["stop crackle-film"]),
        ("hot air on an enamel wash", Ask([prime, brown, satin, L("all-over wash", M("wash", "enamel"), waitHours: 24, drying: "hot-air"), matt]), ["stop hot-air-wash"]),
        ("hot air on a lacquer primer", Ask([L("prime", M("primer", "solvent acrylic"), waitHours: 4, drying: "hot air"), brown, matt]), ["stop caution-notes"]),
        ("hot air on a water wash", Ask([prime, brown, L("all-over wash", M("wash"), waitHours: 2, drying: "hot air"), matt]), ["caution hot-air-wash"]),
        ("wash on a bare panel", Ask([prime, brown, wash, matt], panel), ["caution wash-on-flat"]),
        ("pin wash on matt", Ask([prime, brown, satin, matt, pin, clean, matt]), ["caution pin-on-matt"]),
        ("pin wash left for two days", Ask([prime, brown, satin, L("pin wash", M("wash", "enamel"), waitHours: 48), clean, matt]), ["caution clean-up-missed"]),
        ("no clean-up at all", Ask([prime, brown, satin, L("pin wash", M("wash", "enamel"), waitHours: 24), matt]), ["caution clean-up-missed"]),
        ("varnish between fluid and top coat", Ask([prime, brown, L("fluid chip", M("chipping fluid"), waitHours: 0.6), satin, L("base coat", M("paint", colour: "#4a6a4a"), 2, 3), matt]), ["caution chip-window"]),
        ("decal on matt, unsealed", Ask([prime, brown, L("decal", M("decal"))], panel), ["caution decal-bed"]),
        ("matt over steel", Ask([prime, brown, L("edge line", M("paint", colour: "#a5a7a6", name: "Bright Steel"), waitHours: 2), matt]), ["caution matt-over-metal"]),
        ("matt spray in a damp shed", Ask([prime, brown, matt], climate: new { relativeHumidity = 0.85, temperatureC = 20 }), ["caution matt-frost", "caution soft-below"]),
        ("varnish over pigments", Ask([prime, brown, L("pigment", M("pigment")), matt]), ["caution pigment-sealed"]),
        ("light under opaque coats", Ask([prime, L("directional light", M("paint", colour: "#e8e8e0"), 2, 2), L("base coat", M("paint", colour: "#5a3a2a"), 2, 3), matt]), ["caution light-buried"]),
        ("a 3 mm run of rust at 1:56", Ask([prime, L("base coat", M("paint", colour: "#b0b0a8"), 3, 3), satin, L("streak", M("wash", "enamel", "#a0562a"), waitHours: 24, markMm: 3), matt]), ["caution scale-size"]),
        ("no primer", Ask([brown, wash, matt]), ["caution bare-ground"]),
        ("left satin in a matt set", Ask([prime, brown, satin]), ["caution sheen-target"]),
    ];

    private static object Ask(object[] layers, object? zone = null, string substrate = "printed plastic", object? climate = null) => new
    {
        substrate,
        zone = zone ?? wall,
        climate,
        set = new { scale = 56, sheen = "matt", metres = 0.9 },
        houseRules = new Dictionary<string, string> { ["pinWashSheen"] = "satin", ["pigments"] = "fix-when-handled", ["hotAirOnWash"] = "never" },
        layers,
    };

    public static TheoryData<string> Stacks() => [.. everyday.Select(e => e.Name)];

    [Theory, MemberData(nameof(Stacks))]
    public async Task Everyday_stacks_get_what_an_expert_would_say(string name)
    {
        var (_, ask, wrong) = everyday.Single(e => e.Name == name);
        var (status, answer) = await server.Send(HttpMethod.Post, "/api/calc/order", ask);
        Assert.Equal(200, status);
        var found = answer["findings"]!.AsArray().Where(f => f!.Text("severity") != "hint").Select(f => $"{f!.Text("severity")} {f!.Text("rule")}").Distinct().Order().ToList();
        Assert.Equal(wrong.Order(), found);
        Assert.All(answer["findings"]!.AsArray().Where(f => f!.Text("severity") == "stop"), f => Assert.NotEmpty(f!["remedies"]!.AsArray()));
    }

    [Fact]
    public async Task Every_word_that_is_wrong_is_named_with_those_there_are()
    {
        var (status, problem) = await server.Send(HttpMethod.Post, "/api/calc/order", new
        {
            substrate = "cheese",
            zone = new { relief = "bumpy", orientation = "sideways and up" },
            houseRules = new Dictionary<string, string> { ["pinWashSheen"] = "matt", ["weather"] = "fine" },
            layers = new object?[] { new { technique = "paint it" }, null, new { technique = "base coat", dilution = "thin as string", coats = 99, material = new { colour = "brown" } } },
        });
        Assert.Equal(400, status);
        Assert.Superset(new HashSet<string> { "substrate", "layers[0].technique", "layers[1]", "layers[2].dilution", "layers[2].coats", "layers[2].material.colour" }, problem.Fields().ToHashSet());
        (status, problem) = await server.Send(HttpMethod.Post, "/api/calc/order", new
        {
            zone = new { relief = "bumpy", orientation = "sideways and up" },
            houseRules = new Dictionary<string, string> { ["pinWashSheen"] = "matt", ["weather"] = "fine" },
            layers = Array.Empty<object>(),
        });
        Assert.Equal(400, status);
        Assert.Superset(new HashSet<string> { "zone.relief", "zone.orientation", "houseRules.pinWashSheen", "houseRules.weather" }, problem.Fields().ToHashSet());
    }

    [Fact]
    public async Task Neighbours_pots_and_a_piece_half_done_count()
    {
        object pale = L("base coat", M("paint", colour: "#e6e1d3"), 4, 2), sprayed = L("base coat", M("paint", colour: "#5a4331"), 2, 2, tool: "airbrush");
        var beside = new { zone = wall, layers = new[] { prime, sprayed, matt }, neighbours = new[] { new { name = "coping", layers = new[] { prime, pale }, finishedFirst = true } } };
        Assert.Contains("overspray", await Rules(beside));
        var pots = new { zone = wall, layers = new[] { prime, brown, matt }, pots = new[] { new { layer = 1, material = M("paint", colour: "#7a5a3a") }, new { layer = 1, material = M("paint", colour: "#9a7a5a") } } };
        Assert.Contains("mixed-pots", await Rules(pots));
        object[] half = [prime, brown, satin, L("pin wash", M("wash", "enamel"), waitHours: 0.7), clean, matt];
        Assert.DoesNotContain("clean-up-missed", await Rules(new { zone = wall, layers = half, laid = 4, minutesSinceLast = 30 }));
        Assert.Contains("clean-up-missed", await Rules(new { zone = wall, layers = half, laid = 4, minutesSinceLast = 3000 }));
    }

    [Fact]
    public async Task Everyday_words_and_a_thinner_written_out_are_understood()
    {
        var rules = await Rules(new
        {
            substrate = "polystyrene",
            set = new { handling = "hard-play" },
            layers = new object[]
            {
                new { technique = "Undercoat", material = new { kind = "primer", carrier = "acrylic" }, tool = "brush" },
                new { technique = "basecoat", material = new { kind = "paint", carrier = "water-based" }, dilution = "2:1", thinner = new { kind = "thinner", carrier = "enamel" } },
                new { technique = "wash" }, new { technique = "drybrush" }, new { technique = "varnish", material = new { sheen = "matte" } }, new { technique = "Pigments" },
            },
        });
        Assert.Superset(new HashSet<string> { "wrong-thinner", "pigment-sealed" }, rules.ToHashSet());
        Assert.DoesNotContain("bare-ground", rules);
    }

    private async Task<List<string>> Rules(object ask)
    {
        var (status, answer) = await server.Send(HttpMethod.Post, "/api/calc/order", ask);
        Assert.True(status == 200, answer.ToJsonString(JsonSerializerOptions.Default));
        return answer["findings"]!.AsArray().Select(f => f!.Text("rule")).ToList();
    }

    [Fact]
    public async Task The_schema_lists_every_accepted_word()
    {
        var document = (await server.Get("/openapi/v1.json")).ToJsonString();
        foreach (var word in new[] { "lower third", "within rim", "clean up excess", "cyanoacrylate", "printed plastic", "hard play", "pinWashSheen: " })
            Assert.Contains(word, document, StringComparison.Ordinal);
    }
}
