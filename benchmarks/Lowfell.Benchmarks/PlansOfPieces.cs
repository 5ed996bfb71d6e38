using Lowfell.Core.Bases;
using Lowfell.Core.Layers;
using Lowfell.Core.Variation;

namespace Lowfell.Benchmarks;

/// <summary>Twenty-four bases laid out with their grounds, and a layer varied over as many pieces.</summary>
internal static class PlansOfPieces
{
    private const int Pieces = 24, Rounds = 15;

    public static void Run(Action<string, double, double> report, Func<Action, int, double> time)
    {
        var shape = new BaseShape(Outline.Round, 32, 32);
        var wish = new BaseWish(
            shape, 1, [new(FlatKind.Foot, -3.4, 0, 8, 3.6, 80), new(FlatKind.Foot, 3.4, 0, 8, 3.6, 100)], [new(TexturePlace.ByReeds, 0.112), new(TexturePlace.Anywhere, 0.547), new(TexturePlace.Anywhere, 0.341)], 1.3, 0.8, 2.2, 0, 0.6);
        var seed = 0;
        report($"{Pieces} bases laid out, with their grounds", time(() => Lay(wish, ++seed), Rounds), 200);
        report($"{Pieces} oval bases of five textures", time(() => Lay(wish with { Shape = new(Outline.Oval, 60, 35), Textures = [new(TexturePlace.Path, 0.15), new(TexturePlace.Puddle, 0.1), new(TexturePlace.ByFeet, 0.1), new(TexturePlace.ByRocks, 0.1), new(TexturePlace.Anywhere, 1)], Planks = 1 }, ++seed), Rounds), 200);
        var face = new Face(240, 130, [], [12, 24, 36, 48], []);
        report($"marks of a layer over {Pieces} pieces", time(() => MarksPlan.For(new(Habit.Anywhere, 8, 3, 0.6), face, ++seed, Pieces), Rounds), 5);
    }

    private static void Lay(BaseWish wish, int seed)
    {
        var ground = new Ground(wish);
        foreach (var plan in Arranger.Tray(wish, seed, Pieces))
            ground.Of(plan);
    }
}
