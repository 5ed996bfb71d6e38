using Lowfell.Core.Layers;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Sets;

/// <summary>Checks what is entered of a zone, fills it in, and guesses what was not measured.</summary>
internal static class ZoneFill
{
    public static void Check(ZoneChange change, Faults faults, bool whole)
    {
        faults.Text(change.Name, "name", 120, needed: whole || change.Name is not null);
        faults.Require(!whole || change.AreaCm2 is > 0, "areaCm2", "Give an area above 0 cm².");
        faults.Range(change.AreaCm2, "areaCm2", 0.01m, 100_000);
        faults.Range(change.EdgeMm, "edgeMm", 0, 1_000_000);
        faults.Range(change.FaceWidthMm, "faceWidthMm", 0.1m, 10_000);
        faults.Range(change.JointMm, "jointMm", 0, 1_000_000);
        faults.Range(change.SmallestDetailMm, "smallestDetailMm", 0.01m, 1000);
        faults.Range(change.SurfaceLengthMm, "surfaceLengthMm", 0.01m, 10_000);
        faults.Range(change.SurfaceHeightMm, "surfaceHeightMm", 0.01m, 10_000);
        faults.Range(change.RivetMm, "rivetMm", 0.05m, 10_000);
        faults.Range(change.Position, "position", 0, 1000);
        Shares(faults, "up", change.Up, change.Side, change.Down, "up, side and down");
        Shares(faults, "raised", change.Raised, change.Field, change.Recess, "raised, field and recess");
        foreach (var field in change.Clear ?? [])
            faults.Require(field is "handling" or "targetSheen" or "surfaceLengthMm" or "surfaceHeightMm" or "rivetMm" or "faceWidthMm", "clear", $"{field} cannot be made empty.");
    }

    private static void Shares(Faults faults, string field, decimal? a, decimal? b, decimal? c, string names)
    {
        if (a is not null || b is not null || c is not null)
            faults.Require(a >= 0 && b >= 0 && c >= 0 && Math.Abs(a.Value + b.Value + c.Value - 1) < 0.001m, field, $"Give {names} together; they add to 1.");
    }

    public static void Fill(ZoneRow row, ZoneChange change)
    {
        row.Name = change.Name?.Trim() ?? row.Name;
        row.AreaCm2 = change.AreaCm2 ?? row.AreaCm2;
        row.Relief = change.Relief ?? row.Relief;
        (row.UpShare, row.SideShare, row.DownShare) = (change.Up ?? row.UpShare, change.Side ?? row.SideShare, change.Down ?? row.DownShare);
        (row.RaisedShare, row.FieldShare, row.RecessShare) = (change.Raised ?? row.RaisedShare, change.Field ?? row.FieldShare, change.Recess ?? row.RecessShare);
        row.EdgeMm = change.EdgeMm ?? row.EdgeMm;
        row.JointMm = change.JointMm ?? row.JointMm;
        row.SmallestDetailMm = change.SmallestDetailMm ?? row.SmallestDetailMm;
        row.FaceWidthMm = change.FaceWidthMm ?? row.FaceWidthMm;
        row.Handling = change.Handling ?? row.Handling;
        row.TargetSheen = change.TargetSheen ?? row.TargetSheen;
        row.CutEdge = change.CutEdge ?? row.CutEdge;
        row.BeforeAssembly = change.BeforeAssembly ?? row.BeforeAssembly;
        row.Surface = change.Surface ?? row.Surface;
        row.SurfaceLengthMm = change.SurfaceLengthMm ?? row.SurfaceLengthMm;
        row.SurfaceHeightMm = change.SurfaceHeightMm ?? row.SurfaceHeightMm;
        row.RivetMm = change.RivetMm ?? row.RivetMm;
        row.Across = change.Across ?? row.Across;
        var clear = change.Clear ?? [];
        if (clear.Contains("handling"))
            row.Handling = null;
        if (clear.Contains("targetSheen"))
            row.TargetSheen = null;
        if (clear.Contains("surfaceLengthMm"))
            row.SurfaceLengthMm = null;
        if (clear.Contains("surfaceHeightMm"))
            row.SurfaceHeightMm = null;
        if (clear.Contains("faceWidthMm"))
            row.FaceWidthMm = null;
        if (clear.Contains("rivetMm"))
            row.RivetMm = null;
    }

    public static ZoneGuess Guess(ZoneRow z, int scale)
    {
        var surface = Surfaces.Of(z, scale);
        var shares = Zone.UsualShares(z.Relief);
        var area = (double)z.AreaCm2;
        return new ZoneGuess(
            Math.Round(surface.JointMm(area)), Math.Round(surface.EdgeMm(area)), shares.Raised, shares.Field, shares.Recess, surface.LengthMm, surface.HeightMm);
    }

    /// <summary>Everything measured on a zone at another scale.</summary>
    public static void Scale(ZoneRow z, decimal factor)
    {
        z.AreaCm2 = Math.Clamp(Round(z.AreaCm2 * factor * factor), 0.01m, 100_000);
        z.EdgeMm = Round(z.EdgeMm * factor);
        z.JointMm = Round(z.JointMm * factor);
        z.SmallestDetailMm = Math.Max(0.01m, Round(z.SmallestDetailMm * factor));
        z.FaceWidthMm = z.FaceWidthMm is { } w ? Math.Clamp(Round(w * factor), 0.1m, 10_000) : null;
        z.SurfaceLengthMm = z.SurfaceLengthMm is { } l ? Math.Max(0.01m, Round(l * factor)) : null;
        z.SurfaceHeightMm = z.SurfaceHeightMm is { } h ? Math.Max(0.01m, Round(h * factor)) : null;
        z.RivetMm = z.RivetMm is { } r ? Math.Max(0.05m, Round(r * factor)) : null;
    }

    private static decimal Round(decimal value) => Math.Round(value, value < 1 ? 3 : 2);
}
