using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Devices;

/// <summary>
/// The workshop's own authority and the certificates it gives. The authority lives in the database, so that every server before it has the
/// same; certificates are made anew whenever a door is opened.
/// </summary>
internal sealed class Certificates(IDbContextFactory<LowfellDb> factory, TimeProvider clock)
{
    private const int AuthorityYears = 10, DoorDays = 390;
    private static readonly TimeSpan clocksDiffer = TimeSpan.FromDays(1);

    /// <summary>What the door shows; null while it was never opened.</summary>
    public X509Certificate2? Shown { get; private set; }

    /// <summary>The authority's own certificate, which a device may come to trust.</summary>
    public async Task<X509Certificate2> Authority(CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        if (await db.Authorities.AsNoTracking().FirstOrDefaultAsync(stop) is not { } row)
        {
            var (certificate, key) = MakeAuthority();

            // Of two servers that make one at once, the first is the authority.
            await db.Database.ExecuteSqlAsync($"insert into authorities (id, certificate, key, made_at) values (1, {certificate}, {key}, {clock.GetUtcNow()}) on conflict do nothing", stop);
            row = await db.Authorities.AsNoTracking().FirstAsync(stop);
        }

        return Open(row);
    }

    /// <summary>Makes the certificate for an address, and shows it from now on.</summary>
    public async Task For(IPAddress address, CancellationToken stop)
    {
        using var authority = await Authority(stop);
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN=Lowfell at {address}", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddIpAddress(address);
        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        request.CertificateExtensions.Add(X509AuthorityKeyIdentifierExtension.CreateFromCertificate(authority, true, false));
        var now = clock.GetUtcNow();
        using var made = request.Create(authority, now - clocksDiffer, now.AddDays(DoorDays), RandomNumberGenerator.GetBytes(16));
        Shown = made.CopyWithPrivateKey(key);
    }

    private (byte[] Certificate, byte[] Key) MakeAuthority()
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Lowfell workshop authority", key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign | X509KeyUsageFlags.CrlSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        var now = clock.GetUtcNow();
        using var made = request.CreateSelfSigned(now - clocksDiffer, now.AddYears(AuthorityYears));
        return (made.RawData, key.ExportPkcs8PrivateKey());
    }

    private static X509Certificate2 Open(AuthorityRow row)
    {
        using var key = ECDsa.Create();
        key.ImportPkcs8PrivateKey(row.Key, out _);
        using var bare = X509CertificateLoader.LoadCertificate(row.Certificate);
        return bare.CopyWithPrivateKey(key);
    }
}
