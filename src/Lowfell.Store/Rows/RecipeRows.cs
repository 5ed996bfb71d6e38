namespace Lowfell.Store.Rows;

/// <summary>A mix that is worth a name: what it is made of, thinner too, so that it can be put onto a layer or into a pot again.</summary>
public sealed class RecipeRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }
    public string Note { get; set; } = "";
    public uint Version { get; init; }
    public List<RecipePartRow> Parts { get; } = [];
}

/// <summary>So many parts of a material; thinner is a part like any other.</summary>
public sealed class RecipePartRow
{
    public Guid RecipeId { get; init; }
    public int Position { get; init; }
    public Guid MaterialId { get; init; }
    public decimal Parts { get; init; }
}
