using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

/// <summary>A zone to start from.</summary>
public sealed record ZonePreset(string Name, decimal AreaCm2, Relief Relief, decimal EdgeMm, decimal JointMm, decimal Up, Sheen? TargetSheen, string Ground);

/// <summary>A kind of piece with sensible zones.</summary>
public sealed record DesignPreset(string Kind, string Says, string Name, int Pieces, Substrate Substrate, Silhouette Silhouette, IReadOnlyList<ZonePreset> Zones);

/// <summary>Starting points for a first set: measured off ordinary pieces near 1:56.</summary>
internal static class Presets
{
    public static readonly IReadOnlyList<DesignPreset> All =
    [
        new("wall", "Straight pieces that repeat: walls, fences, banks.", "Wall section", 6, Substrate.PrintedPlastic, Silhouette.Wall,
        [
            new("Front face", 120, Relief.Deep, 400, 1000, 0, null, "Plain stone grey"),
            new("Top course", 25, Relief.Light, 320, 60, 0.7m, null, "Plain stone grey"),
            new("Back face", 110, Relief.Smooth, 400, 0, 0, null, "Plain stone grey"),
        ]),
        new("building", "Houses, sheds and towers with walls, roof and woodwork.", "Small house", 2, Substrate.Board, Silhouette.House,
        [
            new("Walls", 190, Relief.Light, 420, 70, 0, null, "Plain off-white"),
            new("Roof", 140, Relief.Deep, 300, 1500, 0.7m, null, "Plain earth brown"),
            new("Woodwork", 25, Relief.Light, 380, 120, 0, null, "Plain near-black"),
            new("Window glass", 5, Relief.Smooth, 90, 0, 0, Sheen.Gloss, "Plain near-black"),
        ]),
        new("vehicle", "Hulls with running gear that is painted before it goes on.", "Work vehicle", 2, Substrate.Resin, Silhouette.Boat,
        [
            new("Hull", 130, Relief.Light, 480, 520, 0.3m, null, "Plain dull green"),
            new("Running gear", 60, Relief.Deep, 420, 500, 0, null, "Plain near-black"),
            new("Glass", 4, Relief.Smooth, 60, 0, 0, Sheen.Gloss, "Plain near-black"),
        ]),
        new("base", "Bases by the dozen, with ground and a rim.", "Base, 32 mm", 12, Substrate.MouldedPlastic, Silhouette.Base,
        [
            new("Ground", 8, Relief.Deep, 20, 40, 1, null, "Plain earth brown"),
            new("Rim", 3.5m, Relief.Smooth, 201, 0, 0, null, "Plain near-black"),
        ]),
    ];
}
