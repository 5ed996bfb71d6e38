using System.Globalization;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>Pieces: more or fewer of them, their labels and rim numbers, what they are fixed to, spares.</summary>
internal static class PieceEndpoints
{
    private const int MostPieces = 500, LongestLabel = 40, LongestRim = 20;

    public static void MapPieces(this RouteGroupBuilder sets)
    {
        sets.MapPost("/designs/{designId:guid}/pieces", Add).WithName("addPieces").WithSummary("More pieces of a design: so many, numbered on, or those with labels given.").Writes<PiecesMade>(StatusCodes.Status201Created);
        sets.MapPut("/pieces/{pieceId:guid}", Change).WithName("changePiece").WithSummary("Label, rim number, what it is fixed to, spare or not, the design it is one of.").Writes<Changed>();
    }

    private static async Task<Outcome<PiecesMade>> Add(Guid designId, NewPiecesIn entry, Write write)
    {
        if (await SetCopies.Home(write, designId) is not var (design, _, workshop))
            return Problems.NotFound("design");
        write.In(workshop);
        var faults = new Faults();
        var there = await write.Db.Pieces.Where(p => p.DesignId == designId && p.PutAwayAt == null).Select(p => new { p.Id, p.Label, p.ParentId }).ToListAsync(write.Stop);
        var labels = there.Select(p => p.Label).ToHashSet();
        var wanted = entry.Labels?.Select(l => l?.Trim()).ToList() ?? Numbered(labels, entry.Count ?? 1);
        faults.Require(wanted.Count is > 0 && wanted.Count + there.Count <= MostPieces, entry.Labels is null ? "count" : "labels", $"At least one, and at most {MostPieces} pieces of a design.");
        for (var i = 0; i < Math.Min(wanted.Count, MostPieces); i++)
        {
            faults.Text(wanted[i], $"labels[{i}]", LongestLabel);
            faults.Require(wanted[i] is null || labels.Add(wanted[i]!), $"labels[{i}]", $"{design.Name} has a piece of this label already. Choose another.");
        }

        faults.Require(entry.ParentId is null || there.Any(p => p.Id == entry.ParentId && p.ParentId is null), "parentId", "Give a piece of this design that is not fixed to another itself.");
        if (faults.Any)
            return faults.ToProblem();
        var rows = wanted.Select(l => new PieceRow { DesignId = designId, Label = l!, RimNumber = l!.Length <= LongestRim ? l : "", Spare = entry.Spare ?? false, ParentId = entry.ParentId }).ToList();
        write.Db.AddRange(rows);
        write.Says(rows.Count == 1 ? $"Added the piece {rows[0].Label} to {design.Name}" : $"Added {rows.Count} pieces to {design.Name}");
        await write.Save();
        return new PiecesMade(rows.Select(r => r.Id).ToList());
    }

    /// <summary>Numbers on from the labels there are: W8 is followed by W9.</summary>
    private static List<string?> Numbered(IReadOnlySet<string> labels, int count)
    {
        var parted = labels.Select(Parted).Where(p => p.Number > 0).ToList();
        var stem = parted.Count > 0 ? parted.GroupBy(p => p.Stem).MaxBy(g => g.Count())!.Key : "";
        var next = parted.Where(p => p.Stem == stem).Select(p => p.Number).DefaultIfEmpty().Max() + 1;
        return Enumerable.Range(0, Math.Clamp(count, 0, MostPieces + 1)).Select(i => (string?)$"{stem}{next + i}").ToList();
    }

    private static (string Stem, int Number) Parted(string label)
    {
        var digits = label.Length - label.TrimEnd([.. "0123456789"]).Length;
        return digits is > 0 and < 7 ? (label[..^digits], int.Parse(label[^digits..], CultureInfo.InvariantCulture)) : (label, 0);
    }

    private static async Task<Outcome<Changed>> Change(Guid pieceId, PieceIn entry, Write write)
    {
        await write.Hold<PieceRow>(pieceId);
        if (await write.Db.Pieces.FirstOrDefaultAsync(p => p.Id == pieceId, write.Stop) is not { } row || await SetCopies.Home(write, row.DesignId) is not var (design, set, workshop))
            return Problems.NotFound("piece");
        write.In(workshop);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (entry.Label is not null)
            faults.Text(entry.Label, "label", LongestLabel);
        if (entry.RimNumber is { Length: > 0 })
            faults.Text(entry.RimNumber, "rimNumber", LongestRim);
        foreach (var field in entry.Clear ?? [])
            faults.Require(field == "parentId", "clear", $"{field} cannot be made empty.");
        var to = entry.DesignId is { } other && other != row.DesignId ? await SetCopies.Home(write, other) : (design, set, workshop);
        faults.Require(to is { } t && t.Workshop == workshop, "designId", "This workshop has no such design.");
        if (faults.Any)
            return faults.ToProblem();
        var there = await write.Db.Pieces.Where(p => p.DesignId == to!.Value.Design.Id && p.PutAwayAt == null && p.Id != pieceId).Select(p => new { p.Id, p.Label, p.ParentId }).ToListAsync(write.Stop);
        var children = await write.Db.Pieces.AnyAsync(p => p.ParentId == pieceId && p.PutAwayAt == null, write.Stop);
        var parent = entry.Clear?.Contains("parentId") == true ? null : entry.ParentId ?? row.ParentId;
        if (entry.ParentId is not null)
            faults.Require(!children && there.Any(p => p.Id == entry.ParentId && p.ParentId is null), "parentId", "Give a piece of the same design that is not fixed to another itself.");
        if (to!.Value.Design.Id != row.DesignId)
        {
            faults.Require(!children, "designId", "Others are fixed to it. Free them first.");
            faults.Require(!await write.Db.Set<WorkPieceRow>().AnyAsync(p => p.PieceId == pieceId, write.Stop), "designId", "Something was done on it as a piece of this design. Put it away, and add one to the other design.");
            parent = entry.ParentId;
        }

        if (faults.Any)
            return faults.ToProblem();
        var label = entry.Label?.Trim() ?? row.Label;
        if (there.Any(p => p.Label == label))
            return Problems.Taken("label", $"{to.Value.Design.Name} has a piece of this label already.");
        write.Says(to.Value.Design.Id != row.DesignId ? $"Moved the piece {row.Label} from {design.Name} to {to.Value.Design.Name}" : label != row.Label ? $"Relabelled the piece {row.Label} of {design.Name} as {label}" : $"Changed the piece {row.Label} of {design.Name}");
        row.DesignId = to.Value.Design.Id;
        row.Label = label;
        row.RimNumber = entry.RimNumber?.Trim() ?? row.RimNumber;
        row.Spare = entry.Spare ?? row.Spare;
        row.ParentId = parent;
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("piece", (await SetsReader.Sheet(set.Id, write.Db, write.Stop))!);
        await write.Save();
        return new Changed(row.Id, row.Version);
    }
}
