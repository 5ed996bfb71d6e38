using System.Security.Cryptography;
using System.Text;

namespace Lowfell.Server.Http;

/// <summary>
/// A secret that lies beside the database and not in it: a file of the data folder that only its owner can read, the same for every server
/// before one database. What is sealed by it cannot be opened with the database, or a backup of it, alone.
/// </summary>
public sealed class OwnSecret
{
    private const int Bytes = 32, Nonce = 12, Tag = 16;
    private readonly byte[] secret;

    public OwnSecret(IConfiguration settings)
    {
        File = settings["Lowfell:Secret"] ?? "";
        secret = Read(File);
    }

    /// <summary>Where it lies; empty where it lives as long as this server, because no file was named.</summary>
    public string File { get; }

    /// <summary>Why it could not be read or made; empty when it is there. Until it is, what was sealed stays shut.</summary>
    public string Trouble { get; private set; } = "";

    private byte[] Read(string file)
    {
        if (file.Length == 0)
            return RandomNumberGenerator.GetBytes(Bytes);
        try
        {
            Make(file);

            // Another server may be at making it.
            for (var tries = 0; tries < 100; tries++, Thread.Sleep(20))
                if (System.IO.File.ReadAllText(file).Trim() is { Length: > 0 } text && (text.Length == 2 * Bytes || tries > 20))
                    return Convert.FromHexString(text) is { Length: Bytes } read ? read : throw new FormatException("it is no secret");
            Trouble = $"The secret in {file} is not one. Put the right file back, or remove it to have another made.";
        }
        catch (Exception odd) when (odd is IOException or UnauthorizedAccessException or FormatException)
        {
            Trouble = $"The secret in {file} could not be read: {odd.Message.TrimEnd('.')}.";
        }

        return RandomNumberGenerator.GetBytes(Bytes);
    }

    /// <summary>Makes it where there is none; of two servers that want to at once, the first does.</summary>
    private static void Make(string file)
    {
        var only = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            only.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        try
        {
            using var to = new FileStream(file, only);
            to.Write(Encoding.ASCII.GetBytes(Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(Bytes))));
        }
        catch (IOException) when (System.IO.File.Exists(file))
        {
            // It is there.
        }
    }

    private byte[] Key(string of) => HKDF.DeriveKey(HashAlgorithmName.SHA256, secret, Bytes, info: Encoding.UTF8.GetBytes(of));

    /// <summary>What nobody can make who has not the secret, and the same whenever it is asked for again.</summary>
    /// <param name="of">What it is for.</param>
    public byte[] Derived(string of) => Key(of);

    /// <summary>Seals bytes (AES-GCM, RFC 5116: nonce, tag, text).</summary>
    public byte[] Seal(byte[] plain)
    {
        var sealedBytes = new byte[Nonce + Tag + plain.Length];
        RandomNumberGenerator.Fill(sealedBytes.AsSpan(0, Nonce));
        using var cipher = new AesGcm(Key("seal"), Tag);
        cipher.Encrypt(sealedBytes.AsSpan(0, Nonce), plain, sealedBytes.AsSpan(Nonce + Tag), sealedBytes.AsSpan(Nonce, Tag));
        return sealedBytes;
    }

    /// <summary>Opens what was sealed; null where it was sealed by another secret, or changed.</summary>
    public byte[]? Open(byte[] sealedBytes)
    {
        if (sealedBytes.Length <= Nonce + Tag)
            return null;
        var plain = new byte[sealedBytes.Length - Nonce - Tag];
        using var cipher = new AesGcm(Key("seal"), Tag);
        try
        {
            cipher.Decrypt(sealedBytes.AsSpan(0, Nonce), sealedBytes.AsSpan(Nonce + Tag), sealedBytes.AsSpan(Nonce, Tag), plain);
            return plain;
        }
        catch (AuthenticationTagMismatchException)
        {
            return null;
        }
    }
}
