namespace Lowfell.Store.Rows;

/// <summary>A photograph: of what happened, of a piece, or of the set. It holds the picture and nothing of the camera or the place.</summary>
public sealed class PhotoRow
{
    /// <summary>Made by the client, so that a photo sent twice is there once.</summary>
    public Guid Id { get; init; }
    public Guid WorkshopId { get; init; }
    public Guid SetId { get; init; }

    /// <summary>What it was taken at; null where it is of a piece, or of the set as a whole.</summary>
    public Guid? EventId { get; init; }
    public Guid? PieceId { get; set; }
    public Guid? ZoneId { get; set; }
    public string Words { get; set; } = "";
    public DateTimeOffset TakenAt { get; init; }
    public required string Actor { get; init; }

    /// <summary>Pixels.</summary>
    public int Width { get; init; }
    public int Height { get; init; }

    /// <summary>The picture as it is kept, and small for a list.</summary>
    public Guid? BlobId { get; set; }
    public Guid? SmallId { get; set; }

    /// <summary>Taken out of the log; it can be brought back.</summary>
    public DateTimeOffset? PutAwayAt { get; set; }

    /// <summary>Its picture was let go for good; it was put away before that, and stays so.</summary>
    public DateTimeOffset? FreedAt { get; set; }
    public uint Version { get; init; }
}
