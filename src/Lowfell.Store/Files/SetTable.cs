using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Lowfell.Store.Files;

/// <summary>A column of a table in the file of a set.</summary>
/// <param name="Name">As in the database and in the file.</param>
/// <param name="Type">What it holds.</param>
/// <param name="Optional">It may be null.</param>
/// <param name="Longest">The most characters, where there is a limit.</param>
public sealed record SetColumn(string Name, Type Type, bool Optional, int? Longest)
{
    public bool IsReference => Type == typeof(Guid);

    /// <summary>It came after the first version of the file, so that one without it is taken as empty.</summary>
    public bool IsLater => Optional && Name is "number" or "face_width_mm" or "variation_habit" or "variation_mm" or "variation_marks" or "variation_spread" or "variation_dealt" or "clock" or "coats";
}

/// <summary>
/// One table of the file: which of its columns are in it. Rows have no ids of their own there but are counted ("z12" is the twelfth zone), so
/// that a file says the same wherever it comes from.
/// </summary>
public sealed class SetTable
{
    private SetTable(string name, IEntityType entity, string prefix, IReadOnlyList<SetColumn> columns) => (Name, Stored, Prefix, Columns, HasId) = (name, entity.GetTableName()!, prefix, columns, prefix.Length > 0);

    /// <summary>Its name in the file and in the database.</summary>
    public string Name { get; }
    public string Stored { get; }

    /// <summary>What its counted rows are called by; empty where nothing refers to them.</summary>
    public string Prefix { get; }
    public bool HasId { get; }

    /// <summary>The longest text of any row, characters.</summary>
    public const int LongestText = TellingBody.Longest;

    /// <summary>It came after the first version of the file, so that one without it has none of its rows.</summary>
    public bool IsLater => Name is "marks_done" or "base_plans" or "trials" or "trial_looks" or "work_also";
    public IReadOnlyList<SetColumn> Columns { get; }

    /// <summary>Steps and lines that layers carry on have no table: they are counted all the same, as one.</summary>
    public const string LinePrefix = "line";

    /// <summary>Whether a column refers to a step or a line: acceptances hang on a layer through all its versions.</summary>
    public static bool IsLine(string table, string column) => column is "step_id" or "line_id" or "on_line_id" or "down_to" || (table, column) == ("accepted_findings", "layer_id");

    /// <summary>What the rows, or lines, that a column refers to are called by.</summary>
    public static string CalledBy(string table, string column) => IsLine(table, column) ? LinePrefix : To(column);

    /// <summary>What a column refers to.</summary>
    public static string To(string column) => column switch
    {
        "material_id" or "thinner_id" => "m",
        "mix_id" => "x",
        "treatment_id" or "came_from_id" => "t",
        "surface_id" or "on_id" => "u",
        "layer_id" => "l",
        "set_id" => "s",
        "design_id" => "d",
        "zone_id" or "first_zone_id" or "second_zone_id" => "z",
        "piece_id" or "parent_id" => "p",
        "pot_id" or "other_pot_id" => "o",
        "trial_id" => "a",
        "event_id" or "undoes_id" or "twin_id" or "before_id" or "newest_event_id" or "last_out_event_id" => "e",
        _ => "?",
    };

    /// <summary>Devices are counted too: what they are called elsewhere is nobody's business, and two of one name would be one.</summary>
    public const string DeviceColumn = "device", DevicePrefix = "device";

    /// <summary>A recipe names materials in its text.</summary>
    public const string RecipeColumn = "recipe_key";

    private static readonly (Type Row, string Prefix, string[] Without)[] all =
    [
        (typeof(MaterialRow), "m", ["stock_ml", "put_away_at"]), (typeof(CalibrationRow), "", ["trial_id"]), (typeof(MixRow), "x", ["recipe_key"]), (typeof(MixComponentRow), "", []),
        (typeof(TreatmentRow), "t", []), (typeof(SurfaceRow), "u", []), (typeof(LayerRow), "l", []), (typeof(LayerSurfaceRow), "", []),
        (typeof(TreatmentRevisionRow), "", []), (typeof(RevisionSurfaceRow), "", []), (typeof(RevisionLayerRow), "", []), (typeof(VersionNameRow), "", []), (typeof(LeftOutRow), "", []),
        (typeof(SetRow), "s", []), (typeof(DesignRow), "d", []), (typeof(ZoneRow), "z", []), (typeof(ZoneTouchRow), "", []), (typeof(PieceRow), "p", []), (typeof(AcceptedFindingRow), "", ["facts"]),
        (typeof(MarksDoneRow), "", []), (typeof(BasePlanRow), "", []), (typeof(TrialRow), "a", []), (typeof(TrialLookRow), "", []),
        (typeof(PotRow), "o", []), (typeof(WorkEventRow), "e", ["sequence", "device_number"]), (typeof(WorkAlsoRow), "", []), (typeof(WorkAmountRow), "", []), (typeof(WorkPieceRow), "", []), (typeof(PhotoRow), "f", ["blob_id", "small_id", "freed_at"]),
    ];

    /// <summary>All tables in the order in which they can be put in.</summary>
    public static IReadOnlyList<SetTable> All(LowfellDb db) => all.Select(t =>
    {
        var entity = db.Model.FindEntityType(t.Row)!;
        var table = StoreObjectIdentifier.Table(entity.GetTableName()!);
        var columns = entity.GetProperties().Where(p => !p.IsConcurrencyToken).Select(p => new SetColumn(p.GetColumnName(table)!, Nullable.GetUnderlyingType(p.ClrType) ?? p.ClrType, p.IsNullable, p.GetMaxLength()))
            .Where(c => c.Name is not ("id" or "workshop_id") && !t.Without.Contains(c.Name)).OrderBy(c => c.Name, StringComparer.Ordinal).ToList();
        return new SetTable(entity.GetTableName()!, entity, t.Prefix, columns);
    }).ToList();
}
