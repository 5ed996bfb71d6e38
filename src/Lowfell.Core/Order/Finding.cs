using Lowfell.Core.Layers;

namespace Lowfell.Core.Order;

/// <summary>How bad it is.</summary>
public enum Severity
{
    /// <summary>It will be ruined, or someone may be hurt.</summary>
    Stop,

    /// <summary>Likely trouble.</summary>
    Caution,

    /// <summary>A cheaper or better way.</summary>
    Hint,
}

/// <summary>What a rule says of a stack.</summary>
/// <param name="Rule">Stable rule id, such as "same-solvent".</param>
/// <param name="Severity">How bad.</param>
/// <param name="Layers">Indices into the stack, bottom first; the first is the layer the remark hangs on.</param>
/// <param name="Title">A few words.</param>
/// <param name="Why">The reason with the actual layers, materials and figures.</param>
/// <param name="Remedies">Edits, each tried on the stack before it is offered.</param>
public sealed record Finding(
    string Rule, Severity Severity, IReadOnlyList<int> Layers, string Title, string Why, IReadOnlyList<Remedy> Remedies)
{
    /// <summary>It only gathers the usual cautions, which always stand; there is nothing to mend.</summary>
    public bool IsCare => Title == Rules.CautionNotes.CareTitle;
}

/// <summary>A way out, as edits to the stack.</summary>
public sealed record Remedy(string Id, string Text, IReadOnlyList<StackEdit> Edits);

/// <summary>One change to a stack; indices are those of the stack just before this edit, bottom first.</summary>
public abstract record StackEdit
{
    private StackEdit(int at) => At = at;

    /// <summary>The lowest index it touches.</summary>
    public int At { get; }

    /// <summary>Puts a layer at an index; what was there moves up. It has no id yet: whoever applies the edit gives it one.</summary>
    public sealed record Insert(int At, Layer Layer) : StackEdit(At);

    /// <summary>Takes a layer out.</summary>
    public sealed record Remove(int At) : StackEdit(At);

    /// <summary>Takes a layer out and puts it back at an index of the stack without it.</summary>
    public sealed record Move(int From, int To) : StackEdit(Math.Min(From, To));

    /// <summary>Puts a changed layer in the place of another.</summary>
    public sealed record Replace(int At, Layer Layer) : StackEdit(At);

    /// <summary>The stack after some edits.</summary>
    public static IReadOnlyList<Layer> Apply(IReadOnlyList<Layer> stack, IEnumerable<StackEdit> edits)
    {
        var layers = stack.ToList();
        foreach (var edit in edits)
        {
            switch (edit)
            {
                case Insert insert:
                    layers.Insert(insert.At, insert.Layer);
                    break;
                case Remove remove:
                    layers.RemoveAt(remove.At);
                    break;
                case Move move:
                    var moved = layers[move.From];
                    layers.RemoveAt(move.From);
                    layers.Insert(move.To, moved);
                    break;
                case Replace replace:
                    layers[replace.At] = replace.Layer;
                    break;
            }
        }

        return layers;
    }
}
