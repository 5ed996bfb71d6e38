using System.Text.Json;
using Lowfell.Core.Words;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>Events that did not fit: read back as they were told, settled, and put into words.</summary>
internal static class UnfitBook
{
    private const int MostOpen = 500, MostSettled = 50;

    /// <summary>An event as it was told; null where what was kept is none.</summary>
    public static BenchEventIn? Read(string told, JsonSerializerOptions json)
    {
        try
        {
            return JsonSerializer.Deserialize<BenchEventIn>(told, json) is { Kind: not null, ToldAt: not null, Id: not null } e ? e : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Writes down what a person decided.</summary>
    public static void Settle(BenchRefusalRow row, Settled? how, Write write, Guid? became)
    {
        (row.Settled, row.SettledAt, row.SettledBy, row.BecameId) = (how, how is null ? null : write.Now, how is null ? "" : write.Actor.Name, became);
        write.Touch(Slice.Work);
    }

    /// <summary>What waits for a decision, and the newest of what was decided; of one device, or of all.</summary>
    public static async Task<UnfitReading> Of(LowfellDb db, Guid workshop, string? device, JsonSerializerOptions json, CancellationToken stop)
    {
        var all = db.BenchRefusals.AsNoTracking().Where(r => r.WorkshopId == workshop && (device == null || r.Device == device));
        var rows = await all.Where(r => r.Settled == null).OrderByDescending(r => r.At).ThenBy(r => r.Number).Take(MostOpen).ToListAsync(stop);
        rows.AddRange(await all.Where(r => r.Settled != null).OrderByDescending(r => r.SettledAt).Take(MostSettled).ToListAsync(stop));
        return new UnfitReading(workshop, await all.CountAsync(r => r.Settled == null, stop), await Words(db, workshop, rows, json, stop));
    }

    private static IEnumerable<Guid> Zones(BenchEventIn e) => (e.Also ?? []).Select(a => a?.ZoneId).Prepend(e.ZoneId).OfType<Guid>();

    private const int LongestWords = 160;

    private static string Sentence(string words) => char.ToUpperInvariant(words[0]) + (words.Length > LongestWords ? words[1..(LongestWords - 1)] + "…" : words[1..]);

    private static async Task<List<Unfit>> Words(LowfellDb db, Guid workshop, List<BenchRefusalRow> rows, JsonSerializerOptions json, CancellationToken stop)
    {
        var told = rows.ToDictionary(r => r.EventId, r => Read(r.Told, json));
        var (zones, lines, pieces) = (told.Values.OfType<BenchEventIn>().SelectMany(Zones).ToHashSet(), told.Values.Select(e => e?.LayerId).OfType<Guid>().ToHashSet(), told.Values.SelectMany(e => e?.PieceIds ?? []).ToHashSet());
        var names = await (from z in db.Zones join d in db.Designs on z.DesignId equals d.Id where zones.Contains(z.Id) && db.Sets.Any(s => s.Id == d.SetId && s.WorkshopId == workshop) select new { z.Id, Name = z.Name + " on " + d.Name }).ToDictionaryAsync(z => z.Id, z => z.Name, stop);
        var techniques = (await (
            from lay in db.LayerSurfaces
            join layer in db.Layers on lay.LayerId equals layer.Id
            where lines.Contains(lay.LineId) && db.Treatments.Any(t => t.Id == lay.TreatmentId && t.WorkshopId == workshop)
            select new { lay.LineId, layer.Technique }).ToListAsync(stop)).DistinctBy(l => l.LineId).ToDictionary(l => l.LineId, l => EnumWords.Of(l.Technique));
        var labels = await (from p in db.Pieces join d in db.Designs on p.DesignId equals d.Id where pieces.Contains(p.Id) && db.Sets.Any(s => s.Id == d.SetId && s.WorkshopId == workshop) select new { p.Id, p.Label }).ToDictionaryAsync(p => p.Id, p => p.Label, stop);
        var paired = await db.PairedDevices.Where(d => d.WorkshopId == workshop).Select(d => new { d.Id, d.Name }).ToListAsync(stop);
        var devices = paired.ToDictionary(d => Actor.NameOfPaired(d.Id), d => d.Name);
        return rows.Select(r =>
        {
            var e = told[r.EventId];
            var on = (e?.PieceIds ?? []).Select(p => new UnfitPiece(p, labels.GetValueOrDefault(p, "a piece that is gone"))).ToList();
            var words = e is null ? (r.Told.Length > 2 ? "Something that could not be read" : "Only the reason was kept") : string.Join(", ", new[]
            {
                e.Kind == WorkKind.Given ? "done" : EnumWords.Of(e.Kind!.Value), e.LayerId is { } l ? techniques.GetValueOrDefault(l) : null, string.Join(" and ", Zones(e).Select(z => names.GetValueOrDefault(z, "a zone that is not known"))),
                on.Count > 0 ? string.Join(", ", on.Select(p => p.Label)) : null, e.Label, e.Note is { Length: > 0 } note ? "“" + note + "”" : null,
            }.Where(x => !string.IsNullOrEmpty(x)));
            return new Unfit(
                r.EventId, Sentence(words), r.HappenedAt, r.At, devices.GetValueOrDefault(r.Device, "this machine's page"), r.Actor, r.Why, r.Told, e?.Kind, e?.ZoneId, e?.LayerId, on, e?.Note ?? "", r.Settled, r.SettledAt, r.SettledBy);
        }).ToList();
    }
}
