using CsCheck;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Precedence;

/// <summary>Pieces of a few zones by chance: primers from the can, sprayed and brushed coats, washes, other varnishes on each, rims, loose powder, masks, parts.</summary>
internal static class RandomPieces
{
    private static readonly Material[] varnishes = [Matt, Satin, Gloss];

    private static readonly Gen<Layer> middle = Gen.Select(Gen.Int[0, 6], Gen.Bool, Gen.Int[0, 3], (what, sprayed, paint) => what switch
    {
        0 => Lay(Technique.AllOverWash, Wash),
        1 => Lay(Technique.DryBrush, White),
        2 => Lay(Technique.Filter, WaterFilter),
        3 => Lay(Technique.PinWash, EnamelWash),
        4 => Lay(Technique.Mask),
        5 => Lay(Technique.Unmask),
        _ => Lay(Technique.BaseCoat, new[] { Brown, White, Lacquer, Brown }[paint], 2) with { Tool = sprayed ? Tool.Airbrush : Tool.Brush },
    });

    /// <summary>What a zone ends with: a varnish sprayed from either, or brushed; a rim; powder left loose; nothing more.</summary>
    private static readonly Gen<Layer?> last = Gen.Select(Gen.Int[0, 5], Gen.Int[0, 2], (what, which) => what switch
    {
        0 => Lay(Technique.Rim, Brown),
        1 => Lay(Technique.Pigment, Dust),
        2 => null,
        3 => Lay(Technique.Varnish, varnishes[which]) with { Tool = Tool.Brush },
        4 => Lay(Technique.Varnish, varnishes[which]) with { Tool = Tool.SprayCan },
        _ => Lay(Technique.Varnish, varnishes[which]) with { Tool = Tool.Airbrush },
    });

    private static readonly Gen<Layer[]> stacks = Gen.Select(Gen.Bool, middle.Array[0, 5], last, (can, between, end) =>
        ((Layer[])[Lay(Technique.Prime, Primer) with { Tool = can ? Tool.SprayCan : Tool.Brush }, .. between, .. end is null ? [] : new[] { end }]).Select(l => l with { Id = Guid.NewGuid() }).ToArray());

    /// <summary>Some zones take surfaces of one treatment, and a varnish over all of those.</summary>
    public static readonly Gen<PieceZone[]> All = Gen.Select(stacks.Array[2, 6], Gen.Double[10, 200].Array[6], Gen.Bool.Array[36], Gen.Int[0, 9].Array[6], Gen.Bool, (layers, areas, touch, kinds, shared) =>
    {
        var ids = layers.Select(_ => Guid.NewGuid()).ToArray();
        var zones = layers.Select((l, z) => new PieceZone(ids[z], Bench.Zone(areaCm2: areas[z]) with { Name = $"Zone {z + 1}", BeforeAssembly = kinds[z] == 0 }, ids[z], ids[z], l)
        {
            Touching = ids.Where((_, o) => o != z && touch[Math.Min(o, z) * 6 + Math.Max(o, z)]).ToHashSet(),
        }).ToArray();
        return shared ? Together(zones) : zones;
    });

    /// <summary>The first two zones as surfaces of one treatment: one after the other, and one sprayed coat over both at the end.</summary>
    private static PieceZone[] Together(PieceZone[] zones)
    {
        var treatment = Guid.NewGuid();
        Layer over = Lay(Technique.Varnish, Satin) with { Tool = Tool.Airbrush };
        Layer[] ends = [over with { Id = Guid.NewGuid() }, over with { Id = Guid.NewGuid() }];
        var order = zones[0].Layers.Concat(zones[1].Layers).Select((l, i) => (l.Id, Step: Guid.NewGuid(), i)).ToList();
        var (step, at) = (Guid.NewGuid(), order.Count);
        return [.. zones.Take(2).Select((z, n) => z with
        {
            Treatment = treatment,
            Layers = [.. z.Layers, ends[n]],
            Steps = order.ToDictionary(o => o.Id, o => (o.Step, o.i)).Append(new(ends[n].Id, (step, at))).ToDictionary(),
        }), .. zones.Skip(2)];
    }

    /// <summary>What rules may look at around a zone of a piece.</summary>
    public static StackContext Around(PieceZone[] zones, int here) => Context(zones[here].Zone) with { Piece = new PieceAround(zones, here), Pieces = 8 };
}
