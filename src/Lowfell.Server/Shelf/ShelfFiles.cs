using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Shelf;

/// <summary>A file to bring in; without <c>store</c> it is only looked at. A file with any fault is not stored at all.</summary>
public sealed record ImportIn(string? Text, bool? Store);

/// <summary>One thing wrong in a file: the line, the column, and what to do.</summary>
public sealed record ImportFault(int Line, string Field, string Message);

/// <summary>What a file holds, and what came of it.</summary>
public sealed record ImportReading(bool Stored, int Rows, IReadOnlyList<string> First, IReadOnlyList<ImportFault> Faults, int FaultCount);

/// <summary>Materials in and out as CSV, colours in and out as a palette.</summary>
internal static class ShelfFiles
{
    private const int MostFaults = 500, Shown = 12;

    /// <summary>Thinners none of which it takes, which is not the same as thinners that were left out; and what is so or not.</summary>
    private const string None = "none", Yes = "yes", No = "no";

    private static readonly (string Name, Func<MaterialRow, string> Of)[] columns =
    [
        ("name", m => m.Name), ("maker", m => m.Maker), ("code", m => m.Code), ("kind", m => EnumWords.Of(m.Kind)), ("carrier", m => EnumWords.Of(m.Carrier)), ("colour", m => m.Colour ?? ""),
        ("over_black", m => m.OverBlack ?? ""), ("over_white", m => m.OverWhite ?? ""), ("coats_to_hide", m => Number(m.CoatsToHide)), ("sheen", m => EnumWords.Of(m.Sheen)), ("lustre", m => EnumWords.Of(m.Lustre)),
        ("solids", m => Number(m.SolidsFraction)), ("most_thinner_share", m => Number(m.MostThinnerShare)), ("thinners", m => m.Thinners.Length == 0 ? None : string.Join("; ", m.Thinners.Select(t => EnumWords.Of(t)))),
        ("touch_min", m => Number(m.TouchMinutes)), ("recoat_min", m => Number(m.RecoatMinutes)), ("cure_min", m => Number(m.CureMinutes)), ("heat_safe", m => m.HeatSafe ? Yes : No), ("stock_ml", m => Number(m.StockMl)), ("pack_ml", m => Number(m.PackMl)),
        ("price", m => Number(m.Price)), ("drop_ml", m => Number(m.DropMl)), ("density_g_per_ml", m => Number(m.DensityGPerMl)), ("hazards", m => m.Hazards), ("notes", m => m.Notes),
    ];

    /// <summary>Fields of a material's checks by the column they are written in.</summary>
    private static readonly Dictionary<string, string> columnOf = new()
    {
        ["overBlack"] = "over_black",
        ["overWhite"] = "over_white",
        ["coatsToHide"] = "coats_to_hide",
        ["solidsFraction"] = "solids",
        ["mostThinnerShare"] = "most_thinner_share",
        ["touchMinutes"] = "touch_min",
        ["recoatMinutes"] = "recoat_min",
        ["cureMinutes"] = "cure_min",
        ["stockMl"] = "stock_ml",
        ["packMl"] = "pack_ml",
        ["dropMl"] = "drop_ml",
        ["densityGPerMl"] = "density_g_per_ml",
    };

    public static async Task<Results<ContentHttpResult, ProblemHttpResult>> CsvOut(Guid workshopId, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var rows = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId && m.PutAwayAt == null).OrderBy(m => m.Maker).ThenBy(m => m.Name).ToListAsync(stop);
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = CsvText.Writer(text))
        {
            foreach (var (name, _) in columns)
                csv.WriteField(name);
            await csv.NextRecordAsync();
            foreach (var row in rows)
            {
                foreach (var (_, of) in columns)
                    csv.WriteField(of(row));
                await csv.NextRecordAsync();
            }
        }

        return TypedResults.Text(text.ToString(), "text/csv; charset=utf-8");
    }

    public static async Task<Results<ContentHttpResult, ProblemHttpResult>> PaletteOut(Guid workshopId, LowfellDb db, CancellationToken stop)
    {
        if (await db.Workshops.AsNoTracking().FirstOrDefaultAsync(w => w.Id == workshopId, stop) is not { } workshop)
            return Problems.NotFound("workshop");
        var rows = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId && m.PutAwayAt == null && (m.Colour != null || m.OverWhite != null)).OrderBy(m => m.Maker).ThenBy(m => m.Name).ToListAsync(stop);
        var palette = new GplPalette(workshop.Name, 8, rows.Select(m => new GplColour(SrgbColour.Parse(m.Colour ?? m.OverWhite!), m.Name)).ToList());
        return TypedResults.Text(palette.Write(), "text/plain; charset=utf-8");
    }

    public static Task<Outcome<ImportReading>> CsvIn(Guid workshopId, ImportIn ask, Write write) => In(workshopId, ask, ReadCsv, write);

    public static Task<Outcome<ImportReading>> PaletteIn(Guid workshopId, ImportIn ask, Write write) => In(workshopId, ask, ReadPalette, write);

    private sealed record Line(int Number, MaterialIn Material);

    private static async Task<Outcome<ImportReading>> In(Guid workshopId, ImportIn ask, Func<string, List<ImportFault>, List<Line>> read, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var text = ask.Text ?? "";
        var faults = new List<ImportFault>();
        var lines = text.Contains('\uFFFD', StringComparison.Ordinal) || text.Contains('\0', StringComparison.Ordinal)
            ? Refuse(faults, "This file is not UTF-8 text. Save it as UTF-8 and bring it in again.")
            : read(text, faults);
        foreach (var line in lines)
            foreach (var fault in MaterialEntry.Check(line.Material).All)
                faults.Add(new ImportFault(line.Number, columnOf.GetValueOrDefault(fault.Field, fault.Field), fault.Message));
        await CheckNames(workshopId, lines, faults, write.Db, write.Stop);
        var first = lines.Take(Shown).Select(l => l.Material.Name ?? "").ToList();
        if (ask.Store != true || faults.Count > 0 || lines.Count == 0)
            return Outcome<ImportReading>.Look(TypedResults.Ok(new ImportReading(false, lines.Count, first, faults.OrderBy(f => f.Line).Take(MostFaults).ToList(), faults.Count)));
        await Store(workshopId, lines, write);
        return new ImportReading(true, lines.Count, first, [], 0);
    }

    private static List<Line> Refuse(List<ImportFault> faults, string why)
    {
        faults.Add(new ImportFault(1, "", why));
        return [];
    }

    private static async Task CheckNames(Guid workshopId, List<Line> lines, List<ImportFault> faults, LowfellDb db, CancellationToken stop)
    {
        static (string, string) Key(string? maker, string? name) => (maker?.Trim() ?? "", name?.Trim() ?? "");
        var there = (await db.Materials.Where(m => m.WorkshopId == workshopId && m.PutAwayAt == null).Select(m => new { m.Maker, m.Name }).ToListAsync(stop)).Select(m => (m.Maker, m.Name)).ToHashSet();
        if (there.Count + lines.Count > ShelfEndpoints.MostMaterials)
            faults.Add(new ImportFault(1, "", $"The shelf holds at most {ShelfEndpoints.MostMaterials} materials; there are {there.Count} on it."));
        var seen = new Dictionary<(string, string), int>();
        foreach (var line in lines)
        {
            var key = Key(line.Material.Maker, line.Material.Name);
            if (there.Contains(key))
                faults.Add(new ImportFault(line.Number, "name", "This maker's material is on the shelf already. Take the line out, or give it another name."));
            else if (!seen.TryAdd(key, line.Number))
                faults.Add(new ImportFault(line.Number, "name", $"The same maker and name stand in line {seen[key]}."));
        }
    }

    private static async Task Store(Guid workshopId, List<Line> lines, Write write)
    {
        var rows = lines.Select(line =>
        {
            var row = new MaterialRow { WorkshopId = workshopId, Name = line.Material.Name! };
            MaterialEntry.Fill(row, line.Material);
            return row;
        }).ToList();
        await write.Db.CopyIn(rows, write.Stop);
        write.Touch(Slice.Shelf);
        write.Touch(Slice.Stock);
    }

    private static List<Line> ReadCsv(string text, List<ImportFault> faults)
    {
        text = text.TrimStart('\uFEFF');
        var header = text.AsSpan(0, Math.Max(0, text.IndexOfAny(['\r', '\n']) is var end and >= 0 ? end : text.Length)).ToString();
        var semicolons = header.Contains(';', StringComparison.Ordinal) && !header.Contains(',', StringComparison.Ordinal);
        using var csv = new CsvParser(new StringReader(text), new CsvConfiguration(CultureInfo.InvariantCulture) { Delimiter = semicolons ? ";" : ",", BadDataFound = null, MaxFieldSize = 10_000, TrimOptions = TrimOptions.Trim });
        var lines = new List<Line>();
        try
        {
            if (!csv.Read() || csv.Record is null)
                return Refuse(faults, "The file is empty.");
            var names = csv.Record.Select(c => c.Trim().ToLowerInvariant()).ToList();
            foreach (var unknown in names.Where(n => n.Length > 0 && columns.All(c => c.Name != n)))
                faults.Add(new ImportFault(1, unknown, $"No such column. There are: {string.Join(", ", columns.Select(c => c.Name))}."));
            if (!names.Contains("name") || !names.Contains("kind"))
                return Refuse(faults, "The first line must name the columns; name and kind are needed.");
            var next = csv.RawRow + 1;
            while (csv.Read())
            {
                // A value may go over several lines; it is told by the one it begins in.
                var (record, at) = (csv.Record!, next);
                next = csv.RawRow + 1;
                if (record.All(string.IsNullOrWhiteSpace))
                    continue;
                if (record.Length > names.Count)
                    faults.Add(new ImportFault(at, "", $"{record.Length} values for {names.Count} columns. Put quotes around values with a {(semicolons ? "semicolon" : "comma")} in them."));
                else if (Array.FindIndex(record, v => v.Contains('\n', StringComparison.Ordinal)) is var broken and >= 0 && names[broken] is not ("notes" or "hazards"))
                    faults.Add(new ImportFault(at, names[broken], "This value goes on into the next line: a closing quote is missing."));
                else
                    lines.Add(new Line(at, Material(names, record, at, faults)));
            }
        }
        catch (CsvHelperException)
        {
            faults.Add(new ImportFault(csv.RawRow, "", "This line cannot be read: a quote may be missing, or a value is far too long."));
        }

        return lines;
    }

    private static MaterialIn Material(List<string> names, string[] record, int line, List<ImportFault> faults)
    {
        string? Text(string column)
        {
            var at = names.IndexOf(column);
            var value = at >= 0 && at < record.Length ? record[at] : "";

            // What was escaped against spreadsheets on the way out loses its quote on the way in.
            if (value.Length > 1 && value[0] == '\'' && value[1] is '=' or '+' or '-' or '@' or '\t')
                value = value[1..];
            return value.Length == 0 ? null : value;
        }

        decimal? Decimal(string column)
        {
            if (Text(column) is not { } value)
                return null;
            if (decimal.TryParse(value.Replace(',', '.'), NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number) && Math.Abs(number) < 1_000_000_000)
                return number;
            faults.Add(new ImportFault(line, column, "Write a number, such as 12 or 2.5."));
            return null;
        }

        T? Word<T>(string column) where T : struct, Enum
        {
            if (Text(column) is not { } value)
                return null;
            if ((EnumWords.Read<T>(value) ?? EnumWords.Read<T>(value.ToLowerInvariant())) is { } word)
                return word;
            faults.Add(new ImportFault(line, column, $"Write one of: {string.Join(", ", EnumWords.All<T>())}."));
            return null;
        }

        bool? YesOrNo(string column)
        {
            if (Text(column)?.ToLowerInvariant() is { } value and not (Yes or No))
                faults.Add(new ImportFault(line, column, $"“{value}” is neither {Yes} nor {No}."));
            return Text(column) is { } said ? string.Equals(said, Yes, StringComparison.OrdinalIgnoreCase) : null;
        }

        IReadOnlyList<ThinnerFamily>? Thinners()
        {
            if (string.Equals(Text("thinners"), None, StringComparison.OrdinalIgnoreCase))
                return [];
            var families = Text("thinners")?.Split([';', '|'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            var read = families?.Select(f => EnumWords.Read<ThinnerFamily>(f.ToLowerInvariant())).ToList();
            if (read?.Contains(null) == true)
                faults.Add(new ImportFault(line, "thinners", $"Write any of these, with semicolons between, or {None}: {string.Join(", ", EnumWords.All<ThinnerFamily>())}."));
            return read?.OfType<ThinnerFamily>().ToList();
        }

        // A kind that is not one is told once, by its column, and not again as missing.
        var kind = Word<MaterialKind>("kind") ?? (Text("kind") is null ? null : MaterialKind.Paint);
        var carrier = Word<Carrier>("carrier") ?? (kind is { } k && k is MaterialKind.Pigment or MaterialKind.Pencil ? Carrier.Dry : Carrier.WaterAcrylic);
        return new MaterialIn(
            null, Text("name"), Text("maker"), Text("code"), kind, carrier, Text("colour"), Text("over_black"), Text("over_white"), Decimal("coats_to_hide"), Word<Sheen>("sheen"), Decimal("solids"), Thinners(),
            Decimal("touch_min"), Decimal("recoat_min"), Decimal("cure_min"), YesOrNo("heat_safe"), Decimal("stock_ml"), Decimal("pack_ml"), Decimal("price"), Text("hazards"), Text("notes"), Word<Lustre>("lustre"), Decimal("most_thinner_share"), Decimal("drop_ml"), Decimal("density_g_per_ml"));
    }

    /// <summary>Every colour becomes a paint of which only the masstone is known; its hiding is an estimate until somebody measures it.</summary>
    private static List<Line> ReadPalette(string text, List<ImportFault> faults)
    {
        try
        {
            var palette = GplPalette.Read(text);
            var names = new Dictionary<string, int>();
            return palette.Colours.Select((c, i) =>
            {
                var name = c.Name.Length > 0 && !string.Equals(c.Name, "Untitled", StringComparison.OrdinalIgnoreCase) ? c.Name : $"Colour {i + 1}";
                names[name] = names.GetValueOrDefault(name) + 1;
                if (names[name] > 1)
                    name = $"{name} {names[name]}";
                return new Line(i + 1, new MaterialIn(
                    null, name, palette.Name.Length > 0 ? palette.Name : "Palette", null, MaterialKind.Paint, Carrier.WaterAcrylic, c.Colour.ToString(), null, null, null, null, null, null, null, null, null, null, 0, 0, 0, null, null));
            }).ToList();
        }
        catch (FormatException wrong)
        {
            return Refuse(faults, wrong.Message);
        }
    }

    private static string Number(decimal? value) => value?.ToString("0.####", CultureInfo.InvariantCulture) ?? "";
}
