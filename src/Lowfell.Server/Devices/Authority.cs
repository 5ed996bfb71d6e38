using System.Formats.Asn1;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Lowfell.Server.Devices;

/// <summary>
/// How the workshop's own authority is made, and what it signs. It can sign for private addresses and for this machine's names and for
/// nothing else: whoever trusts it trusts no site.
/// </summary>
internal static class Authority
{
    private const string NameConstraintsOid = "2.5.29.30", ServerAuthOid = "1.3.6.1.5.5.7.3.1";
    private const int Years = 2, LeafDays = 390;
    private static readonly TimeSpan clocksDiffer = TimeSpan.FromDays(1);

    /// <summary>So long before they end, authority and certificates are made anew.</summary>
    public static readonly TimeSpan InTime = TimeSpan.FromDays(30);

    /// <summary>Addresses of networks of one's own: RFC 1918, link-local (RFC 3927, RFC 4291), unique local (RFC 4193), loopback.</summary>
    private static readonly IPNetwork[] own =
        new[] { "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10", "::1/128" }.Select(n => IPNetwork.Parse(n)).ToArray();

    /// <summary>Whether an address is of a network of one's own.</summary>
    public static bool IsOwn(IPAddress address) => own.Any(n => n.Contains(address));

    /// <summary>The names of this machine: as it calls itself, and as a network calls it.</summary>
    public static IReadOnlyList<string> Names()
    {
        var name = string.Concat(Dns.GetHostName().ToLowerInvariant().Where(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.')).Trim('.', '-');
        name = name.Length is 0 or > 60 || name.All(c => char.IsAsciiDigit(c) || c == '.') ? "lowfell" : name;
        return name.Contains('.', StringComparison.Ordinal) ? [name] : [name, name + ".local"];
    }

    /// <summary>A new authority with its key (PKCS #8).</summary>
    public static (byte[] Certificate, byte[] Key) Make(DateTimeOffset now)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);

        // A name of its own, so that a device that trusted an older one does not take the two for each other.
        var request = new CertificateRequest($"CN=Lowfell workshop authority {now:yyyy-MM-dd} {Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(3))}", key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign | X509KeyUsageFlags.CrlSign, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid(ServerAuthOid)], false));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        request.CertificateExtensions.Add(new X509Extension(NameConstraintsOid, Constraints(Names()), critical: true));
        using var made = request.CreateSelfSigned(now - clocksDiffer, now.AddYears(Years));
        return (made.RawData, key.ExportPkcs8PrivateKey());
    }

    /// <summary>
    /// Permitted subtrees (RFC 5280, 4.2.1.10): an address is told with its mask, and a name with all below it. Constraints on addresses alone
    /// would leave every name free.
    /// </summary>
    private static byte[] Constraints(IReadOnlyList<string> names)
    {
        var (to, permitted, dns, ip) = (new AsnWriter(AsnEncodingRules.DER), new Asn1Tag(TagClass.ContextSpecific, 0), new Asn1Tag(TagClass.ContextSpecific, 2), new Asn1Tag(TagClass.ContextSpecific, 7));
        using (to.PushSequence())
        using (to.PushSequence(permitted))
        {
            foreach (var name in names)
                using (to.PushSequence())
                    to.WriteCharacterString(UniversalTagNumber.IA5String, name, dns);
            foreach (var network in own)
                using (to.PushSequence())
                    to.WriteOctetString([.. network.BaseAddress.GetAddressBytes(), .. Mask(network)], ip);
        }

        return to.Encode();
    }

    private static byte[] Mask(IPNetwork network)
    {
        var mask = new byte[network.BaseAddress.GetAddressBytes().Length];
        for (var bit = 0; bit < network.PrefixLength; bit++)
            mask[bit / 8] |= (byte)(0x80 >> (bit % 8));
        return mask;
    }

    /// <summary>A certificate for an address, never outside of the time its issuer lives.</summary>
    public static X509Certificate2 Sign(X509Certificate2 authority, IPAddress address, DateTimeOffset now)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN=Lowfell at {address}", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddIpAddress(address);
        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid(ServerAuthOid)], false));
        request.CertificateExtensions.Add(X509AuthorityKeyIdentifierExtension.CreateFromCertificate(authority, true, false));
        var (from, until) = (Later(now - clocksDiffer, authority.NotBefore), Earlier(now.AddDays(LeafDays), authority.NotAfter));
        if (until <= from)
            (from, until) = (authority.NotBefore, authority.NotAfter);
        using var made = request.Create(authority, from, until, RandomNumberGenerator.GetBytes(16));
        return made.CopyWithPrivateKey(key);
    }

    private static DateTimeOffset Later(DateTimeOffset a, DateTimeOffset b) => a > b ? a : b;

    private static DateTimeOffset Earlier(DateTimeOffset a, DateTimeOffset b) => a < b ? a : b;
}
