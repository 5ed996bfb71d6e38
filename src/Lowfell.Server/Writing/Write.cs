using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Writing;

/// <summary>
/// One write at work: the store within its transaction, who does it and when. Steps save through it, so that what a write touches is
/// known without being told; a step has no transaction, no receipt and no <c>try</c> of its own.
/// </summary>
public sealed class Write(LowfellDb db, TimeProvider clock)
{
    private readonly HashSet<Slice> touched = [];
    private Guid? workshop;
    private string? words;

    public LowfellDb Db => db;

    /// <summary>The instant of this write by the server's clock, and by the device's where it told one.</summary>
    public DateTimeOffset Now { get; private set; }
    public DateTimeOffset ToldAt { get; private set; }

    /// <summary>Its <c>Idempotency-Key</c>.</summary>
    public Guid Id { get; private set; }
    public Actor Actor { get; private set; } = new("", "");
    public CancellationToken Stop { get; private set; }

    /// <summary>Slices of the workshop that this write has changed.</summary>
    internal IReadOnlyCollection<Slice> Touched => touched;

    /// <summary>What it does, in a sentence: it stands in the list of what can be undone.</summary>
    internal string Words => words ?? "Changed the plan";

    /// <summary>What it removes may be brought back by itself for a month.</summary>
    internal bool Removes { get; private set; }

    internal Guid? WorkshopOrNone => workshop;

    internal Guid Workshop => workshop ?? throw new InvalidOperationException("A write must say which workshop it is in before it saves.");

    /// <summary>Says whose workshop is written to.</summary>
    public void In(Guid workshopId) => workshop = workshopId;

    /// <summary>Says what is done, as the list of what can be undone tells it: "Renamed the set Sill Lock to Fen Lock".</summary>
    public void Says(string what, bool removes = false) => (words, Removes) = (what.Length > LongestWords ? what[..(LongestWords - 1)] + "…" : what, removes);

    private const int LongestWords = 300;

    /// <summary>Says that a slice is changed by something that the store does not track.</summary>
    public void Touch(Slice slice) => touched.Add(slice);

    /// <summary>Saves what was added and changed so far; a row that was changed by another meanwhile ends the write.</summary>
    public Task Save()
    {
        touched.UnionWith(Slices.About(db));
        return db.SaveChangesAsync(Stop);
    }

    /// <summary>Begins, or begins again after the database asked to.</summary>
    internal void Begin(Guid id, Actor actor, DateTimeOffset? toldAt, CancellationToken stop)
    {
        db.ChangeTracker.Clear();
        touched.Clear();
        (workshop, words, Removes) = (null, null, false);
        (Id, Now, Actor, Stop) = (id, clock.GetUtcNow(), actor, stop);
        ToldAt = toldAt ?? Now;
    }
}
