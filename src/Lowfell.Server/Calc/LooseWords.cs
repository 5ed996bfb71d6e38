using Lowfell.Core.Words;
using Lowfell.Server.Http;

namespace Lowfell.Server.Calc;

/// <summary>Reads terms of the field as scripts write them: spaces, hyphens, underscores and capitals count alike.</summary>
internal static class LooseWords
{
    /// <summary>Everyday names for terms that have one word here.</summary>
    private static readonly Dictionary<string, string> everyday = new()
    {
        // Techniques
        ["primer coat"] = "prime",
        ["priming"] = "prime",
        ["undercoat"] = "prime",
        ["base"] = "base coat",
        ["ground colour"] = "base coat",
        ["basecoat"] = "base coat",
        ["base colour"] = "base coat",
        ["drybrush"] = "dry brush",
        ["dry brushing"] = "dry brush",
        ["highlight"] = "dry brush",
        ["wash"] = "all-over wash",
        ["all over wash"] = "all-over wash",
        ["pinwash"] = "pin wash",
        ["light from above"] = "directional light",
        ["pre shade"] = "directional light",
        ["pre shading"] = "directional light",
        ["edge highlight"] = "edge line",
        ["chip"] = "painted chip",
        ["chipping"] = "painted chip",
        ["sponge chip"] = "painted chip",
        ["fluid chip"] = "chipping fluid",
        ["clean up"] = "clean up excess",
        ["cleanup"] = "clean up excess",
        ["scatter"] = "glue and scatter",
        ["texture"] = "texture paste",
        ["seal"] = "seal texture",
        ["sealer"] = "seal texture",
        ["trim"] = "trim and touch up",
        ["touch up"] = "trim and touch up",
        ["splatter"] = "speckle",
        ["streaking"] = "streak",
        ["dusting"] = "dust",
        ["masking"] = "mask",
        ["sponging"] = "sponge",
        ["stippling"] = "stipple",
        ["glazing"] = "glaze",
        ["camouflage"] = "patch",
        ["clear coat"] = "varnish",
        ["assembly"] = "assemble",

        // Carriers, kinds and thinners
        ["acrylic"] = "water acrylic",
        ["water"] = "water acrylic",
        ["water based"] = "water acrylic",
        ["water based acrylic"] = "water acrylic",
        ["lacquer"] = "solvent acrylic",
        ["solvent"] = "solvent acrylic",
        ["instant glue"] = "cyanoacrylate",
        ["powder"] = "dry",
        ["render"] = "filler",
        ["sand"] = "aggregate",
        ["grit"] = "aggregate",
        ["crackle"] = "crackle paste",
        ["chipping medium"] = "chipping fluid",
        ["mineral spirit"] = "white spirit",
        ["enamel thinner"] = "white spirit",
        ["turpentine"] = "white spirit",
        ["thinner"] = "acrylic thinner",
        ["own thinner"] = "acrylic thinner",
        ["strong thinner"] = "lacquer thinner",
        ["cellulose thinner"] = "lacquer thinner",
        ["isopropanol"] = "alcohol",

        // The rest
        ["polystyrene"] = "foam",
        ["polystyrene foam"] = "foam",
        ["mdf"] = "board",
        ["card"] = "board",
        ["cardboard"] = "board",
        ["plastic"] = "moulded plastic",
        ["balsa"] = "wood",
        ["white metal"] = "metal",
        ["can"] = "spray can",
        ["aerosol"] = "spray can",
        ["spray"] = "spray can",
        ["mat"] = "matt",
        ["matte"] = "matt",
        ["glossy"] = "gloss",
        ["hair dryer"] = "hot air",
        ["lower"] = "lower third",
        ["recesses"] = "recess",
        ["edge"] = "edges",
        ["everywhere"] = "all",
        ["hard"] = "hard play",
        ["play"] = "hard play",
    };

    /// <summary>A term; what was not given is null, what is no such term is a fault that lists them.</summary>
    public static T? Read<T>(string? text, string field, Faults faults) where T : struct, Enum
    {
        if (text is null)
            return null;
        var plain = Plain(text);
        foreach (var form in new[] { plain, plain.TrimEnd('s') })
        {
            if (Find<T>(form) is { } value)
                return value;
            if (everyday.TryGetValue(form, out var word) && Find<T>(Plain(word)) is { } meant)
                return meant;
        }

        faults.Add(field, $"No such word here. There are: {string.Join(", ", EnumWords.All<T>())}.");
        return null;
    }

    public static string Plain(string text) => string.Join(' ', text.ToLowerInvariant().Split([' ', '-', '_'], StringSplitOptions.RemoveEmptyEntries));

    private static T? Find<T>(string plain) where T : struct, Enum
    {
        foreach (var value in Enum.GetValues<T>())
            if (Plain(EnumWords.Of(value)) == plain || string.Equals(value.ToString(), plain.Replace(" ", ""), StringComparison.OrdinalIgnoreCase))
                return value;
        return null;
    }
}
