using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

/// <summary>Checks and applies a zone's measures; what is left out stays as it is.</summary>
internal static class ZoneMeasures
{
    public static Faults Check(ZoneIn change)
    {
        var faults = new Faults();
        faults.Require(change.Version is not null, "version", "Give the version you edited from.");
        if (change.Name is not null)
            faults.Text(change.Name, "name", 120);
        faults.Range(change.AreaCm2, "areaCm2", 0.01m, 100_000);
        faults.Range(change.EdgeMm, "edgeMm", 0, 1_000_000);
        faults.Range(change.JointMm, "jointMm", 0, 1_000_000);
        faults.Colour(change.TargetColour, "targetColour", needed: false);
        Shares(faults, "up", change.Up, change.Side, change.Down, "up, side and down");
        Shares(faults, "raised", change.Raised, change.Field, change.Recess, "raised, field and recess");
        return faults;
    }

    private static void Shares(Faults faults, string field, decimal? a, decimal? b, decimal? c, string names)
    {
        if (a is null && b is null && c is null)
            return;
        faults.Require(a >= 0 && b >= 0 && c >= 0 && Math.Abs(a.Value + b.Value + c.Value - 1) < 0.001m, field, $"Give {names} together; they add to 1.");
    }

    public static void Fill(ZoneRow row, ZoneIn change)
    {
        row.Name = change.Name?.Trim() ?? row.Name;
        row.AreaCm2 = change.AreaCm2 ?? row.AreaCm2;
        row.Relief = change.Relief ?? row.Relief;
        row.EdgeMm = change.EdgeMm ?? row.EdgeMm;
        row.JointMm = change.JointMm ?? row.JointMm;
        if (change.TargetColour is { } target)
            row.TargetColour = target.Length == 0 ? null : target.ToLowerInvariant();
        row.TargetPosition = row.TargetColour is null ? null : change.TargetPosition ?? row.TargetPosition ?? Position.Field;
        row.CutEdge = change.CutEdge ?? row.CutEdge;
        row.BeforeAssembly = change.BeforeAssembly ?? row.BeforeAssembly;
        row.TargetSheen = change.TargetSheen ?? row.TargetSheen;
        (row.UpShare, row.SideShare, row.DownShare) = (change.Up ?? row.UpShare, change.Side ?? row.SideShare, change.Down ?? row.DownShare);
        (row.RaisedShare, row.FieldShare, row.RecessShare) = (change.Raised ?? row.RaisedShare, change.Field ?? row.FieldShare, change.Recess ?? row.RecessShare);
    }
}
