using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Devices;

/// <summary>How it stands with the workshop's own authority. Certificate is the bare one (DER), null where it cannot be read; Trouble why devices may not get in by it.</summary>
internal sealed record AuthorityState(byte[]? Certificate, string Fingerprint, DateTimeOffset MadeAt, DateTimeOffset? GoodUntil, string Trouble);

/// <summary>The authority's key cannot be opened.</summary>
internal sealed class SealedShut(string why) : Exception(why);

/// <summary>
/// The workshop's own authority and the certificates it gives. The authority lives in the database, so that every server before it has the
/// same, its key sealed by a secret that is not in there; certificates are made anew whenever a door is opened, and in time before they end.
/// </summary>
internal sealed class Certificates(IDbContextFactory<LowfellDb> factory, OwnSecret secret, TimeProvider clock)
{
    private const string MakeAnother = "Make a new authority under Other devices; devices that trusted the old one then have to trust the new one.";
    private byte[] signedBy = [];

    /// <summary>What the door shows; null while it was never opened.</summary>
    public X509Certificate2? Shown { get; private set; }

    /// <summary>The authority as it stands: made where there is none, renewed where it is about to end.</summary>
    public async Task<AuthorityState> State(CancellationToken stop)
    {
        var row = await Row(stop);
        try
        {
            using var bare = X509CertificateLoader.LoadCertificate(row.Certificate);
            var (now, from, until) = (clock.GetUtcNow(), (DateTimeOffset)bare.NotBefore, (DateTimeOffset)bare.NotAfter);
            var trouble = secret.Open(row.SealedKey) is null
                ? $"The key of the workshop's authority cannot be opened: {(secret.Trouble.Length > 0 ? secret.Trouble : $"it was sealed by another secret than that in {(secret.File.Length > 0 ? secret.File : "this server")}.")} Put that back, or: {MakeAnother}"
                : from > now ? $"The workshop's authority is dated ahead: it begins {from.UtcDateTime:d MMMM yyyy, HH:mm} UTC, and devices refuse it until then. Look whether this machine's clock is right. If it is: {MakeAnother}" : "";
            return new AuthorityState(row.Certificate, bare.GetCertHashString(HashAlgorithmName.SHA256), row.MadeAt, until, trouble);
        }
        catch (CryptographicException)
        {
            return new AuthorityState(null, "", row.MadeAt, null, $"The certificate of the workshop's authority cannot be read. {MakeAnother}");
        }
    }

    /// <summary>Makes the certificate for an address where that is needed, and shows it from now on: another address or authority, or the one shown is about to end.</summary>
    public async Task For(IPAddress address, CancellationToken stop)
    {
        var (row, now) = (await Row(stop), clock.GetUtcNow());
        if (Shown is { } shown && signedBy.AsSpan().SequenceEqual(row.Certificate) && shown.MatchesHostname(address.ToString(), allowWildcards: false, allowCommonName: false) && (shown.NotAfter - now > Authority.InTime || shown.NotAfter == NotAfter(row)))
            return;
        using var authority = Open(row);
        Shown = Authority.Sign(authority, address, now);
        signedBy = row.Certificate;
    }

    /// <summary>A new authority in place of the one there is; within a write.</summary>
    public async Task Replace(LowfellDb db, CancellationToken stop)
    {
        var (now, row) = (clock.GetUtcNow(), await db.Authorities.FirstOrDefaultAsync(stop));
        var (certificate, key) = Authority.Make(now);
        if (row is null)
            db.Add(new AuthorityRow { Certificate = certificate, SealedKey = secret.Seal(key), MadeAt = now });
        else
            (row.Certificate, row.SealedKey, row.MadeAt) = (certificate, secret.Seal(key), now);
        CryptographicOperations.ZeroMemory(key);
    }

    private async Task<AuthorityRow> Row(CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        var row = await db.Authorities.AsNoTracking().FirstOrDefaultAsync(stop);
        if (row is not null && !IsEnding(row))
            return row;

        // Of two servers that make one at once, the first is the authority; one that still lives is never taken for one that ended.
        var (now, was) = (clock.GetUtcNow(), row?.MadeAt);
        var (certificate, key) = Authority.Make(now);
        var sealedKey = secret.Seal(key);
        CryptographicOperations.ZeroMemory(key);
        if (was is null)
            await db.Database.ExecuteSqlAsync($"insert into authorities (id, certificate, sealed_key, made_at) values (1, {certificate}, {sealedKey}, {now}) on conflict do nothing", stop);
        else
            await db.Database.ExecuteSqlAsync($"update authorities set certificate = {certificate}, sealed_key = {sealedKey}, made_at = {now} where made_at = {was}", stop);
        return await db.Authorities.AsNoTracking().FirstAsync(stop);
    }

    /// <summary>It has ended, or is about to. One that cannot be read is left to a person: its secret may only be mislaid.</summary>
    private bool IsEnding(AuthorityRow row) => NotAfter(row) is { } until && until - clock.GetUtcNow() < Authority.InTime;

    private static DateTime? NotAfter(AuthorityRow row)
    {
        try
        {
            using var bare = X509CertificateLoader.LoadCertificate(row.Certificate);
            return bare.NotAfter;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    private X509Certificate2 Open(AuthorityRow row)
    {
        try
        {
            if (secret.Open(row.SealedKey) is not { } opened)
                throw new SealedShut("The key of the workshop's authority cannot be opened.");
            using var key = ECDsa.Create();
            key.ImportPkcs8PrivateKey(opened, out _);
            CryptographicOperations.ZeroMemory(opened);
            using var bare = X509CertificateLoader.LoadCertificate(row.Certificate);
            return bare.CopyWithPrivateKey(key);
        }
        catch (Exception odd) when (odd is CryptographicException or ArgumentException)
        {
            throw new SealedShut("The certificate of the workshop's authority cannot be read.");
        }
    }
}
