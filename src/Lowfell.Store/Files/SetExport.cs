using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Store.Files;

/// <summary>
/// Everything about a set, told so that it can be told again elsewhere: rows in an order of their own (names, places, time), counted instead of
/// called by ids. Two sets that say the same make the same file.
/// </summary>
public sealed class SetExport(LowfellDb db, Guid set, CancellationToken stop)
{
    public const int Version = 2;

    /// <summary>What rows are called by, in the order they were told; of different tables two may have one id.</summary>
    private readonly Dictionary<(string Prefix, Guid Id), string> counted = [];
    private readonly IReadOnlyList<SetTable> tables = SetTable.All(db);

    /// <summary>Ids of rows of each table that belong to the set.</summary>
    private const string Belongs = """
        with recursive
          the_designs as (select id from designs where set_id = @set),
          the_zones as (select id, treatment_id from zones where design_id in (select id from the_designs)),
          laid as (select e.* from work_events e where e.zone_id in (select id from the_zones)),
          the_pots as (
            select distinct pot_id as id from laid where pot_id is not null
            union select case when e.pot_id = p.id then e.other_pot_id else e.pot_id end from the_pots p join work_events e on p.id in (e.pot_id, e.other_pot_id) where e.other_pot_id is not null),
          the_events as (
            select id from laid union select e.id from work_events e where e.pot_id in (select id from the_pots)
            union select u.id from work_events u where u.undoes_id in (select id from laid)),
          the_treatments as (
            select treatment_id as id from the_zones union select l.treatment_id from layers l where l.id in (select layer_id from laid)),
          the_layers as (select * from layers where treatment_id in (select id from the_treatments)),
          the_mixes as (select mix_id as id from the_layers where mix_id is not null),
          the_materials as (
            select material_id as id from the_layers where material_id is not null union select thinner_id from the_layers where thinner_id is not null
            union select (m.found[1])::uuid from trials a, regexp_matches(a.body::text, '"(?:materialId|thinnerId)": "([0-9a-f-]{36})"', 'g') m(found) where a.zone_id in (select id from the_zones)
            union select material_id from mix_components where mix_id in (select id from the_mixes) union select material_id from work_amounts where event_id in (select id from the_events))
        """;

    /// <summary>Which rows of a table, and in which order; "t" is the row.</summary>
    private static readonly Dictionary<string, (string Where, string Order)> rows = new()
    {
        ["materials"] = ("t.id in (select id from the_materials)", "t.maker, t.name, t.kind, t.colour, t.code, t.notes, t.id"),
        ["calibrations"] = ("t.material_id in (select id from the_materials)", "@material_id, t.at, t.place, t.observed, t.id"),
        ["mixes"] = ("t.id in (select id from the_mixes)", "t.name, (select string_agg(m.maker || m.name || c.parts, '+' order by m.maker, m.name) from mix_components c join materials m on m.id = c.material_id where c.mix_id = t.id), t.id"),
        ["mix_components"] = ("t.mix_id in (select id from the_mixes)", "@mix_id, t.position"),
        ["treatments"] = ("t.id in (select id from the_treatments)", "t.name, (select min(d.position * 1000 + z.position) from zones z join designs d on d.id = z.design_id where z.treatment_id = t.id and d.set_id = @set), t.changed_at, t.id"),
        ["layers"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, (select min(array[r.revision, r.position]) from revision_layers r where r.layer_id = t.id), t.technique, t.id"),
        ["surfaces"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, (select min(array[r.revision, r.position]) from revision_surfaces r where r.surface_id = t.id), t.id"),
        ["layer_surfaces"] = ("t.treatment_id in (select id from the_treatments)", "@layer_id, @surface_id"),
        ["revision_surfaces"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, t.revision, t.position"),
        ["treatment_revisions"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, t.number"),
        ["revision_layers"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, t.revision, t.position"),
        ["version_names"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, t.number"),
        ["left_out_layers"] = ("t.treatment_id in (select id from the_treatments)", "@treatment_id, t.at, @layer_id"),
        ["sets"] = ("t.id = @set", "t.id"),
        ["designs"] = ("t.set_id = @set", "t.position, t.name, t.put_away_at, t.id"),
        ["zones"] = ("t.id in (select id from the_zones)", "@design_id, t.position, t.name, t.put_away_at, t.id"),
        ["zone_touches"] = ("t.first_zone_id in (select id from the_zones)", "least(@first_zone_id, @second_zone_id), greatest(@first_zone_id, @second_zone_id)"),
        ["pieces"] = ("t.design_id in (select id from the_designs)", "@design_id, (t.parent_id is not null), length(t.label), t.label, t.rim_number, t.put_away_at, t.id"),
        ["accepted_findings"] = ("t.zone_id in (select id from the_zones)", "@zone_id, t.accepted_at, t.rule, @layer_id, t.id"),
        ["marks_done"] = ("t.zone_id in (select id from the_zones)", "@zone_id, @piece_id, t.at, t.marks"),
        ["base_plans"] = ("t.design_id in (select id from the_designs)", "@design_id"),
        ["trials"] = ("t.zone_id in (select id from the_zones)", "t.created_at, t.name, t.id"),
        ["trial_looks"] = ("t.trial_id in (select id from trials where zone_id in (select id from the_zones))", "@trial_id, t.cell, t.position"),
        ["pots"] = ("t.id in (select id from the_pots)", "t.label"),
        ["work_events"] = ("t.id in (select id from the_events)", "t.sequence"),
        ["work_also"] = ("t.event_id in (select id from the_events) and t.zone_id in (select id from the_zones)", "@event_id, @zone_id"),
        ["work_amounts"] = ("t.event_id in (select id from the_events)", "@event_id, @material_id"),
        ["work_pieces"] = ("t.event_id in (select id from the_events) and t.piece_id in (select id from pieces where design_id in (select id from the_designs))", "@event_id, @piece_id"),
        ["photos"] = ("t.set_id = @set and t.freed_at is null", "t.taken_at, t.width, t.height, t.words, t.id"),
    };

    /// <summary>The set as a document, and the pictures that go beside it by their names in it.</summary>
    public async Task<(JsonObject Set, IReadOnlyList<(string Name, Guid Blob)> Pictures)> Make()
    {
        var document = new JsonObject { ["lowfell"] = "set", ["version"] = Version };
        var pictures = new List<(string, Guid)>();
        await db.Database.OpenConnectionAsync(stop);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();

        // All of it as it stood at one moment, with instants told in one way.
        await using var moment = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, stop);
        await using (var zone = new NpgsqlCommand("set local time zone 'UTC'", connection, moment))
            await zone.ExecuteNonQueryAsync(stop);
        foreach (var table in tables)
        {
            var list = new JsonArray();
            foreach (var row in await Read(connection, moment, table))
            {
                var told = Tell(table, row);
                if (table.Name == "photos")
                    pictures.Add(($"photos/{list.Count + 1}.jpg", row["blob_id"]!.GetValue<Guid>()));
                list.Add((JsonNode)told);
            }

            document[table.Name] = list;
        }

        return (document, pictures);
    }

    private async Task<List<JsonObject>> Read(NpgsqlConnection connection, NpgsqlTransaction moment, SetTable table)
    {
        var (where, order) = rows[table.Name];

        // References count by what they refer to, which has been told before.
        var prefixes = new List<string>();
        foreach (var column in table.Columns.Where(c => c.IsReference && order.Contains($"@{c.Name}", StringComparison.Ordinal)))
        {
            order = order.Replace($"@{column.Name}", $"array_position(@counted{prefixes.Count}, t.{column.Name})", StringComparison.Ordinal);
            prefixes.Add(SetTable.CalledBy(table.Name, column.Name));
        }

        await using var ask = new NpgsqlCommand($"{Belongs} select to_jsonb(t)::text from {table.Stored} t where {where} order by {order}", connection, moment);
        ask.Parameters.AddWithValue("set", set);
        for (var i = 0; i < prefixes.Count; i++)
            ask.Parameters.AddWithValue($"counted{i}", counted.Keys.Where(k => k.Prefix == prefixes[i]).Select(k => k.Id).ToArray());
        await using var reader = await ask.ExecuteReaderAsync(stop);
        var found = new List<JsonObject>();
        while (await reader.ReadAsync(stop))
            found.Add((JsonObject)JsonNode.Parse(reader.GetString(0))!);
        for (var i = 0; i < found.Count && table.HasId; i++)
            counted[(table.Prefix, found[i]["id"]!.GetValue<Guid>())] = FormattableString.Invariant($"{table.Prefix}{i + 1}");
        return found;
    }

    private JsonObject Tell(SetTable table, JsonObject row)
    {
        if (table.Name == "work_events")
            OnlyHere(row);

        // Two zones touch each other, whichever is named first.
        if (table.Name == "zone_touches" && Turn(row["first_zone_id"]!) > Turn(row["second_zone_id"]!))
            (row["first_zone_id"], row["second_zone_id"]) = (row["second_zone_id"]!.DeepClone(), row["first_zone_id"]!.DeepClone());
        var told = new JsonObject();
        if (table.HasId)
            told["id"] = counted[(table.Prefix, row["id"]!.GetValue<Guid>())];
        foreach (var column in table.Columns)
            told[column.Name] = row[column.Name] switch
            {
                null => null,
                var value when column.Name == SetTable.RecipeColumn => Recipe(value.GetValue<string>()),
                var value when column.IsReference => SetTable.IsLine(table.Name, column.Name) ? Line(value.GetValue<Guid>()) : counted.GetValueOrDefault((SetTable.To(column.Name), value.GetValue<Guid>())),
                var value when column.Name == TellingBody.Column => TellingBody.Tell(value, id => counted.FirstOrDefault(c => c.Key.Id == id && c.Key.Prefix != SetTable.LinePrefix).Value ?? Line(id)),
                var value when column.Name == SetTable.DeviceColumn => Device(value.GetValue<string>()),
                var value => value.DeepClone(),
            };
        return told;
    }

    /// <summary>What a pot gave to another set is gone from it here, and what came over with a copy was laid as its original was.</summary>
    private void OnlyHere(JsonObject row)
    {
        if (row["kind"]!.GetValue<string>() == "carried over")
            row["kind"] = "given";
        if (row["zone_id"] is null || counted.ContainsKey(("z", row["zone_id"]!.GetValue<Guid>())))
            return;
        (row["zone_id"], row["layer_id"], row["line_id"], row["filling"]) = (null, null, null, null);
        if (row["kind"]!.GetValue<string>() == "given")
            (row["kind"], row["note"]) = ("thrown away", "laid on another set");
    }

    /// <summary>The turn of a zone.</summary>
    private int Turn(JsonNode id) => int.Parse(counted[("z", id.GetValue<Guid>())][1..], CultureInfo.InvariantCulture);

    private readonly List<string> devices = [];

    private string Device(string name)
    {
        if (!devices.Contains(name))
            devices.Add(name);
        return FormattableString.Invariant($"{SetTable.DevicePrefix}{devices.IndexOf(name) + 1}");
    }

    private string Line(Guid line)
    {
        if (!counted.TryGetValue((SetTable.LinePrefix, line), out var name))
            counted[(SetTable.LinePrefix, line)] = name = FormattableString.Invariant($"{SetTable.LinePrefix}{counted.Keys.Count(k => k.Prefix == SetTable.LinePrefix) + 1}");
        return name;
    }

    /// <summary>Materials of a recipe in the order of the file; one of a material that is not in it is told of no more.</summary>
    private string Recipe(string key)
    {
        if (key.Length == 0)
            return "";
        var parts = key.Split('+').Select(p => p.Split('*')).Select(p => (Material: Guid.TryParse(p[0], out var id) ? counted.GetValueOrDefault(("m", id)) : null, Parts: p[1])).ToList();
        return parts.Any(p => p.Material is null) ? "" : string.Join('+', parts.OrderBy(p => int.Parse(p.Material![1..], CultureInfo.InvariantCulture)).Select(p => $"{p.Material}*{p.Parts}"));
    }
}
