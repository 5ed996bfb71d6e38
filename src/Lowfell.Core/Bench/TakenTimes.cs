namespace Lowfell.Core.Bench;

/// <summary>How long hands were on what an event laid.</summary>
/// <param name="Event">The event.</param>
/// <param name="Pieces">How many pieces it was laid on.</param>
/// <param name="Minutes">All of them together.</param>
/// <param name="Counts">It is taken into what is learned; a timer that was left running is asked about first, never guessed.</param>
public sealed record TakenTime(Guid Event, int Pieces, double Minutes, bool Counts);

/// <summary>
/// Times taken at the bench. A timer is no ticking thing but two instants: on each device the hands are on one layer at a time, from the
/// moment it was begun, or its last pieces were done, until the next are; a pause lies outside.
/// </summary>
public static class TakenTimes
{
    /// <summary>A timer that ran longer than so many times the estimate was left running.</summary>
    public const double LeftRunning = 2;

    /// <summary>Where nothing was told for longer than this a night lay between: nobody's hands were on anything.</summary>
    public static readonly TimeSpan Night = TimeSpan.FromHours(12);

    /// <summary>The time of everything that was laid while its layer was begun on the same device.</summary>
    /// <param name="events">In any order, those taken back left out.</param>
    public static IReadOnlyList<TakenTime> Of(IEnumerable<BenchEvent> events)
    {
        var ordered = events.ToList();
        ordered.Sort(BenchEvent.Order);
        var devices = new Dictionary<string, (DateTimeOffset Heard, Hands? On)>();
        var taken = new List<TakenTime>();

        // What came over with a copy was told on no device, and took nobody's time.
        foreach (var e in ordered.Where(e => e.Device.Length > 0))
        {
            var on = devices.TryGetValue(e.Device, out var device) && e.At - device.Heard <= Night ? device.On : null;
            var same = on is not null && e.Targets.Any(on.Holds);
            switch (e.Kind)
            {
                case DoneKind.Begun:
                    on = new Hands(e, same && !on!.Implied && on.Since is { } already ? already : e.At, same ? on!.Before : 0);
                    break;
                case DoneKind.Paused when same && on!.Since is { } since:
                    on = on with { Since = null, Implied = false, Before = on.Before + (e.At - since).TotalMinutes };
                    break;
                case DoneKind.Given:
                    var ran = same ? on!.Before + (on.Since is { } from ? (e.At - from).TotalMinutes : 0) : (double?)null;
                    if ((e.SaidMinutes ?? ran) is { } minutes)
                        taken.Add(new TakenTime(e.Id, e.Pieces.Count, minutes, minutes > 0 && (e.SaidMinutes is not null || e.EstimateMinutes is not { } estimate || minutes <= LeftRunning * estimate)));

                    // The next pieces of the same layer begin where these end.
                    if (same)
                        on = on! with { Since = e.At, Before = 0, Implied = true };
                    break;
                default:
                    break;
            }

            devices[e.Device] = (e.At, on);
        }

        return taken;
    }

    /// <summary>What hands are on: the layer on all zones that were begun with it, wherever of those it is laid first.</summary>
    private sealed record Hands(BenchEvent Begun, DateTimeOffset? Since, double Before)
    {
        public bool Holds(Target target) => Begun.Targets.Any(t => (t.Zone, t.Line) == (target.Zone, target.Line));

        /// <summary>Nobody said so: it goes on since the pieces before were done.</summary>
        public bool Implied { get; init; }
    }
}
