namespace Lowfell.Server.Devices;

/// <summary>
/// That a backup was restored: the script leaves a file beside the data. Access is never restored with it, and whoever looks at the devices
/// is told why they are all sent away.
/// </summary>
internal sealed class Restored(IConfiguration settings)
{
    /// <summary>When that was last; null where it never was.</summary>
    public DateTimeOffset? At => settings["Lowfell:Restored"] is { Length: > 0 } file && new FileInfo(file) is { Exists: true } left ? left.LastWriteTimeUtc : null;
}
