using System.Text.RegularExpressions;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>Full-text search, by the database's own: every word that is looked for begins a word of what is found.</summary>
internal static partial class Search
{
    private const int LongestAsk = 200, MostWords = 12, MostOfAKind = 25;

    private sealed record Found(string Kind, Guid Id, string Title, string Words, DateTimeOffset? At, Guid? SetId, Guid? ZoneId);

    public static async Task<Results<Ok<Hits>, ProblemHttpResult>> Find(Guid workshopId, LowfellDb db, CancellationToken stop, string? q = null)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var faults = new Faults();
        faults.Text(q, "q", LongestAsk);
        var words = WordsOf().Matches(q ?? "").Select(m => m.Value.ToLowerInvariant()).Distinct().ToList();
        faults.Require(faults.Any || words.Count is > 0 and <= MostWords, "q", $"Look for one to {MostWords} words.");
        if (faults.Any)
            return faults.ToProblem();
        var ask = string.Join(" & ", words.Select(w => $"'{w}':*"));

        // The expressions are those of the indexes.
        var found = await db.Database.SqlQuery<Found>($"""
            with
              -- By the words first: going back in time until enough were found looks at every line when few have them.
              told as materialized (select e.* from work_events e where (e.note <> '' or e.saved_by <> '') and to_tsvector('simple', e.note || ' ' || e.saved_by) @@ to_tsquery('simple', {ask}) and e.workshop_id = {workshopId})
            (select 'log' as kind, e.id, coalesce(z.name || ' on ' || d.name, 'The bench') as title, concat_ws('; ', nullif(e.note, ''), nullif(e.saved_by, '')) as words, e.at, d.set_id, e.zone_id
             from told e left join zones z on z.id = e.zone_id left join designs d on d.id = z.design_id
             where not exists (select from work_events u where u.undoes_id = e.id) order by e.at desc limit {MostOfAKind + 1})
            union all
            (select 'photo', p.id, 'Photograph', p.words, p.taken_at, p.set_id, p.zone_id from photos p
             where to_tsvector('simple', p.words) @@ to_tsquery('simple', {ask}) and p.workshop_id = {workshopId} and p.put_away_at is null order by p.taken_at desc limit {MostOfAKind + 1})
            union all
            (select 'material', m.id, m.name, m.maker || ', ' || m.kind, null::timestamptz, null::uuid, null::uuid from materials m
             where to_tsvector('simple', m.name || ' ' || m.maker) @@ to_tsquery('simple', {ask}) and m.workshop_id = {workshopId} order by m.name limit {MostOfAKind + 1})
            union all
            (select 'pot', p.id, p.label, p.note, p.made_at, null::uuid, null::uuid from pots p
             where to_tsvector('simple', p.label || ' ' || p.note) @@ to_tsquery('simple', {ask}) and p.workshop_id = {workshopId} order by p.made_at desc limit {MostOfAKind + 1})
            union all
            (select 'treatment', t.id, t.name, 'treatment', null::timestamptz, null::uuid, null::uuid from treatments t
             where to_tsvector('simple', t.name) @@ to_tsquery('simple', {ask}) and t.workshop_id = {workshopId} order by t.name limit {MostOfAKind + 1})
            """).ToListAsync(stop);
        var kinds = found.GroupBy(f => f.Kind).ToList();
        return TypedResults.Ok(new Hits(
            string.Join(' ', words), kinds.SelectMany(k => k.Take(MostOfAKind)).Select(f => new Hit(EnumWords.Read<HitKind>(f.Kind)!.Value, f.Id, f.Title, f.Words, f.At, f.SetId, f.ZoneId)).ToList(), kinds.Any(k => k.Count() > MostOfAKind)));
    }

    [GeneratedRegex(@"[\p{L}\p{N}]+")]
    private static partial Regex WordsOf();
}
