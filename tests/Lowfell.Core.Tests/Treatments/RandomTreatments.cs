using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Treatments;

namespace Lowfell.Core.Tests.Treatments;

/// <summary>Treatments as chance makes them.</summary>
internal static class RandomTreatments
{
    private static readonly Technique[] techniques = [Technique.Prime, Technique.BaseCoat, Technique.AllOverWash, Technique.DryBrush, Technique.Varnish, Technique.CleanUpExcess];
    private static readonly Material[] paints = [Bench.Primer, Bench.Brown, Bench.White, Bench.Wash, Bench.Matt];

    /// <summary>A treatment of up to six surfaces, some of them details, and layers over some or all of them, here and there different.</summary>
    public static Treatment Any(Random random)
    {
        var surfaces = new List<Surface>();
        for (var i = 0; i < random.Next(1, 7); i++)
            surfaces.Add(new Surface(Guid.NewGuid(), $"surface {i}", i > 0 && random.Next(3) == 0 ? surfaces.Where(s => s.On is null).ElementAt(0).Id : null));
        var steps = new List<Step>();
        for (var i = 0; i < random.Next(0, 12); i++)
        {
            var over = surfaces.Where(_ => random.Next(2) == 0).DefaultIfEmpty(surfaces[0]).ToList();
            var shared = Layer(random) with { DownTo = steps.Count > 0 && random.Next(4) == 0 ? steps[random.Next(steps.Count)].Id : null };
            steps.Add(new Step(Guid.NewGuid(), shared, "", over.Select(s => random.Next(3) == 0 ? Other(random, shared, new Lay(s.Id, Guid.NewGuid())) : new Lay(s.Id, Guid.NewGuid())).ToList()));
        }

        return new Treatment(surfaces, steps);
    }

    public static Layer Layer(Random random) => new()
    {
        Technique = techniques[random.Next(techniques.Length)],
        Paint = [new MixPart(paints[random.Next(paints.Length)], Parts.One)],
        Coats = random.Next(1, 4),
        Strength = random.Next(1, 5) / 4.0,
    };

    private static Lay Other(Random random, Layer shared, Lay lay) =>
        lay with { Differs = Differs.Strength | Differs.Coats, Own = shared with { Strength = shared.Strength + 0.1, Coats = random.Next(4, 7) } };

    /// <summary>A stack in words: everything that its layers are on one surface.</summary>
    public static List<string> Words(IReadOnlyList<Layer> stack) => stack.Select(l => $"{l.Id} {l.Technique} {l.MaterialName} {l.Tool} {l.Coats} {l.Strength} {l.Region} {l.DownTo}").ToList();
}
