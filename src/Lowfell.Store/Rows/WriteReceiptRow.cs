namespace Lowfell.Store.Rows;

/// <summary>The answer to a write that carried an idempotency id, so that sending it again changes nothing.</summary>
public sealed class WriteReceiptRow
{
    public Guid Id { get; init; }
    public required string Path { get; init; }
    public int Status { get; init; }
    public required string Body { get; init; }
    public DateTimeOffset At { get; init; }
}
