using Lowfell.Core.Bench;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Fillings;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>What a step of a pot comes to.</summary>
public sealed record PotTold(Guid SetId, Guid PotId);

/// <summary>
/// Writes down what happens to pots: events into the stream of work, stock in the same transaction, and on the pot what its events
/// come to, so that its two-thousandth step asks no more than its first.
/// </summary>
public sealed class PotBook(Write write, SetGraphs graphs)
{
    public const int LongestNote = 500;

    private readonly HashSet<PieceKey> laidOn = [];
    private DateTimeOffset laidFrom = DateTimeOffset.MaxValue;

    private LowfellDb Db => write.Db;
    private CancellationToken Stop => write.Stop;

    public SetGraph Graph { get; private set; } = null!;
    public DateTimeOffset Now => write.Now;

    /// <summary>Opens the book of the workshop that a set belongs to; null when there is no such set.</summary>
    public async Task<SetGraph?> Open(Guid setId)
    {
        if (await graphs.OfSet(Db, setId, Stop) is not { } graph)
            return null;
        write.In(graph.Workshop.Id);
        return Graph = graph;
    }

    /// <summary>One step: checks what was sent, takes the pots at the versions they were seen in, and does it.</summary>
    /// <param name="setId">The set it is done from.</param>
    /// <param name="id">The pot that is answered with.</param>
    /// <param name="entry">What was sent.</param>
    /// <param name="check">Looks at what is particular to this step.</param>
    /// <param name="act">Does it; a problem leaves everything as it was.</param>
    public async Task<Outcome<PotTold>> Step(Guid setId, Guid id, IPotStep entry, Action<Faults> check, Func<IReadOnlyList<PotRow>, Task<ProblemHttpResult?>> act)
    {
        if (await Open(setId) is null)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Id(entry.Id, "id");
        faults.Require(entry.Version is not null, "version", "Give the version of the pot you saw.");
        faults.Text(entry.Note, "note", LongestNote, needed: false);
        check(faults);
        if (faults.Any)
            return faults.ToProblem();
        var wanted = entry.Others.Prepend((id, entry.Version)).ToList();
        var ids = wanted.Select(w => w.Item1).ToList();
        await Db.Database.ExecuteSqlAsync($"select 1 from pots where id = any({ids}) order by id for no key update", Stop);
        var rows = await Db.Pots.Include(p => p.Contents).Where(p => ids.Contains(p.Id) && p.WorkshopId == Graph.Workshop.Id).ToDictionaryAsync(p => p.Id, Stop);
        if (rows.Count < ids.Count)
            return Problems.NotFound("pot");

        // The same event under another key is the same event.
        if (await Db.WorkEvents.AnyAsync(e => e.Id == entry.Id && e.PotId == id, Stop))
            return new PotTold(setId, id);
        foreach (var (pot, version) in wanted)
            if (version is not null && rows[pot].Version != version)
                return Problems.Changed("pot", await PotsReader.ToDto(rows[pot], Graph, Db, Stop));
        var pots = ids.Select(p => rows[p]).ToList();
        if (await act(pots) is { } problem)
            return problem;
        foreach (var pot in pots)
            pot.ChangedAt = write.Now;
        await write.Save();
        await KeepPieces();
        return new PotTold(setId, id);
    }

    /// <summary>What the pieces come to by what was laid on them, or taken back.</summary>
    private async Task KeepPieces()
    {
        if (laidOn.Count == 0)
            return;
        await PieceBook.Hold(Db, Graph.Workshop.Id, Stop);
        await PieceBook.Refold(Db, laidOn, Stop);
        await PieceBook.Retime(Db, Graph.Workshop.Id, write.Actor.Device, laidFrom, Stop);
        await write.Save();
    }

    /// <summary>A new pot in its workshop; a problem when its label is taken, or there are too many with something in them.</summary>
    public async Task<ProblemHttpResult?> Begin(PotRow pot)
    {
        if (await Db.Pots.AnyAsync(p => p.WorkshopId == pot.WorkshopId && p.Label == pot.Label, Stop))
            return Problems.Taken("label", $"There is a pot labelled {pot.Label} already.");
        if (await NewPots.TooMany(Db, pot.WorkshopId, Stop))
            return Problems.Of(StatusCodes.Status409Conflict, "too-many", $"{NewPots.MostFull} pots have something in them, the most a bench keeps. Throw away what is dry; nothing was stored.");
        Db.Add(pot);
        return null;
    }

    /// <summary>Writes an event down, and on its pot what it comes to. It goes into the stream at the next save.</summary>
    public WorkEventRow Record(PotRow pot, Guid id, WorkKind kind, IEnumerable<WorkAmountRow> amounts, string? note = null, PotRow? other = null, Guid? twin = null, WorkEventRow? undoes = null, LaidOn? laid = null, DateTimeOffset? goodUntilBefore = null)
    {
        var row = new WorkEventRow
        {
            Id = id,
            WorkshopId = pot.WorkshopId,
            Actor = write.Actor.Name,
            Device = write.Actor.Device,
            Kind = kind,
            ToldAt = write.ToldAt,
            At = write.Now,
            ReceivedAt = write.Now,
            Note = note ?? "",
            PotId = pot.Id,
            OtherPotId = other?.Id,
            TwinId = twin,
            UndoesId = undoes?.Id,
            BeforeId = pot.NewestEventId,
            GoodUntilBefore = goodUntilBefore,
            ZoneId = laid?.Zone,
            LayerId = laid?.Layer,
            LineId = laid?.Line,
            Filling = laid is null ? null : pot.Filling,
        };
        row.Amounts.AddRange(amounts.Where(a => a.Ml != 0).Select(a => new WorkAmountRow { EventId = id, MaterialId = a.MaterialId, Ml = a.Ml, Drops = a.Drops }));
        row.Pieces.AddRange((laid?.Pieces ?? []).Select(p => new WorkPieceRow { EventId = id, PieceId = p }));
        Db.Add(row);
        PotState.Take(pot, row, undoes);
        Laid(row);
        return row;
    }

    /// <summary>Takes an event of a pot back with one of its own; a pouring with one at the other pot as well.</summary>
    public void Undo(PotRow pot, Guid id, WorkEventRow old, (PotRow Pot, Guid Id)? beside)
    {
        Record(pot, id, WorkKind.TakenBack, old.Amounts.Select(a => new WorkAmountRow { MaterialId = a.MaterialId, Ml = -a.Ml }), other: beside?.Pot, twin: beside?.Id, undoes: old);
        Laid(old);
        pot.GoodUntil = old.GoodUntilBefore ?? pot.GoodUntil;
    }

    private void Laid(WorkEventRow of)
    {
        if (of.ZoneId is not { } zone)
            return;
        laidOn.UnionWith(of.Pieces.Select(p => new PieceKey(zone, of.LineId!.Value, p.PieceId)));
        laidFrom = of.At < laidFrom ? of.At : laidFrom;
    }

    /// <summary>Portions as an event puts them in, or takes them with -1.</summary>
    public static IEnumerable<WorkAmountRow> Amounts(IEnumerable<Portion> portions, int sign = 1) => portions.Select(p => new WorkAmountRow { MaterialId = p.Material.Id, Ml = sign * p.Ml });

    /// <summary>Takes an event's amounts from the shelf; a problem when it does not hold them.</summary>
    public async Task<ProblemHttpResult?> FromShelf(PotRow pot, WorkEventRow filled, bool bottleHadMore) => await new ShelfBook(write).Take(pot, filled, bottleHadMore, write.ToldAt)
        ? null
        : Problems.Of(StatusCodes.Status409Conflict, "not-enough", "The shelf does not hold that much by the books. Mix less, record what was bought, or say that the bottle held more; nothing was stored.");

    /// <summary>Puts back on the shelf what an event took from it.</summary>
    public Task BackToShelf(Guid eventId) => new ShelfBook(write).PutBack(eventId, write.ToldAt);

    /// <summary>An event with its amounts, of this pot; null when there is none.</summary>
    public Task<WorkEventRow?> Event(Guid pot, Guid id) => Db.WorkEvents.AsNoTracking().Include(e => e.Amounts).Include(e => e.Pieces).FirstOrDefaultAsync(e => e.Id == id && e.PotId == pot, Stop);

    /// <summary>The newest row of a line on a surface, of the revision in force: what work is done by.</summary>
    public Task<Guid> LayerOf(Guid surface, Guid line) => Revisions.Laid(Db).Where(l => l.Lay.SurfaceId == surface && l.Lay.LineId == line).Select(l => l.Layer.Id).FirstAsync(Stop);

    /// <summary>What is in a pot.</summary>
    public PotContents Contents(PotRow pot) => Graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));
}

/// <summary>Where something was laid: the zone, the layer's row and line, and the pieces.</summary>
public sealed record LaidOn(Guid Zone, Guid Layer, Guid Line, IReadOnlyList<Guid> Pieces);
