using System.Buffers;
using System.Text.Json;
using Lowfell.Store.Files;

namespace Lowfell.Server.Files;

/// <summary>
/// Reads the document of a set as a stream, before anything is built of it: whose file it is and of which version, and that it is no larger, no
/// deeper and in no more pieces than a set can be. What would fill the memory as a tree is refused while it is still text.
/// </summary>
internal sealed class SetScan
{
    private const int MostRows = 250_000, MostValues = 6_000_000, MostMembers = 100, MostListed = 60, Deepest = 8, BufferBytes = 65_536;

    private readonly HashSet<string> seen = new(StringComparer.Ordinal);
    private string table = "";
    private int rows, values, members, listed;
    private bool isSet;
    private int? version;

    /// <summary>Reads a document to its end; refuses what is no set.</summary>
    /// <param name="from">The document as it unpacks.</param>
    /// <param name="most">The most bytes it may have.</param>
    /// <param name="stop">Gives up.</param>
    public static async Task Read(Stream from, long most, CancellationToken stop)
    {
        var scan = new SetScan();
        var (buffer, held, all) = (ArrayPool<byte>.Shared.Rent(BufferBytes), 0, 0L);
        try
        {
            var state = new JsonReaderState(new JsonReaderOptions { MaxDepth = Deepest });
            for (var ended = false; !ended;)
            {
                var read = await from.ReadAsync(buffer.AsMemory(held), stop);
                (held, all, ended) = (held + read, all + read, read == 0);
                if (all > most)
                    throw new NotASet($"{SetArchive.Document} is larger than {most / 1_000_000} MB.");
                var used = scan.Take(buffer.AsSpan(0, held), ended, ref state);
                buffer.AsSpan(used, held - used).CopyTo(buffer);
                held -= used;

                // One text that is longer than the buffer, such as how bases are laid out.
                if (used == 0 && held == buffer.Length)
                    buffer = Grown(buffer, held);
            }
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }

        scan.Whole();
    }

    private static byte[] Grown(byte[] buffer, int held)
    {
        if (held >= SetTable.LongestText * 6)
            throw new NotASet("A text in it is longer than any that a set has.");
        var larger = ArrayPool<byte>.Shared.Rent(buffer.Length * 2);
        buffer.AsSpan(0, held).CopyTo(larger);
        ArrayPool<byte>.Shared.Return(buffer);
        return larger;
    }

    private int Take(ReadOnlySpan<byte> text, bool last, ref JsonReaderState state)
    {
        var reader = new Utf8JsonReader(text, last, state);
        while (reader.Read())
            Token(ref reader);
        state = reader.CurrentState;
        return (int)reader.BytesConsumed;
    }

    private void Token(ref Utf8JsonReader reader)
    {
        if (++values > MostValues)
            throw new NotASet("The file holds more than any set does.");
        switch (reader.CurrentDepth, reader.TokenType)
        {
            case (0, JsonTokenType.StartObject or JsonTokenType.EndObject):
                break;
            case (0, _):
                throw new NotASet($"{SetArchive.Document} has to be an object.");
            case (1, JsonTokenType.PropertyName):
                Begins(reader.GetString() ?? "");
                break;
            case (1, JsonTokenType.StartArray or JsonTokenType.EndArray):
                break;
            case (1, _):
                Header(ref reader);
                break;
            case (2, JsonTokenType.StartObject):
                members = 0;
                if (++rows > MostRows)
                    throw new NotASet($"The file has more than {MostRows} rows.");
                break;
            case (2, JsonTokenType.EndObject):
                break;
            case (2, _):
                throw new NotASet($"“{table}” has to be a list of objects.");
            case (3, JsonTokenType.PropertyName):
                listed = 0;
                if (++members > MostMembers)
                    throw new NotASet($"A row of “{table}” has more in it than any row has.");
                break;
            default:
                if (reader.CurrentDepth > 3 && ++listed > MostListed)
                    throw new NotASet($"A list in “{table}” is longer than any in a set.");
                break;
        }
    }

    private void Begins(string name)
    {
        table = name.Length > 60 ? name[..60] : name;
        if (!seen.Add(table))
            throw new NotASet($"“{table}” is in it twice.");
        if (seen.Count > MostMembers)
            throw new NotASet($"“{table}” is nothing that a set has.");
    }

    private void Header(ref Utf8JsonReader reader)
    {
        if (table == "lowfell" && reader.TokenType == JsonTokenType.String)
            isSet = reader.ValueTextEquals("set");
        else if (table == "version" && reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var number))
            version = number;
        if (version > SetExport.Version)
            throw new NotASet($"The file is of version {version}; this Lowfell reads up to version {SetExport.Version}. Take a newer Lowfell.");
    }

    private void Whole()
    {
        if (!isSet)
            throw new NotASet("This is no file of a Lowfell set.");
    }
}
