using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Another device: it comes in by the door, trusts nothing but the workshop's own authority, and keeps its cookie.</summary>
internal sealed class OtherDevice : IDisposable
{
    private readonly X509Certificate2 authority;
    private readonly CookieContainer cookies = new();
    private readonly HttpClient http;

    public OtherDevice(string at, X509Certificate2 trusts)
    {
        authority = trusts;

        // A line that is not shaken hands on within ten seconds is closed: not all at once where the machine is slow.
        http = new HttpClient(new SocketsHttpHandler { MaxConnectionsPerServer = 50, AllowAutoRedirect = false, CookieContainer = cookies, SslOptions = new SslClientAuthenticationOptions { RemoteCertificateValidationCallback = Trusts } }) { BaseAddress = new Uri($"https://{at}") };
    }

    public HttpClient Http => http;

    /// <summary>It takes the certificate for any name: one that was led astray.</summary>
    public bool AnyName { get; init; }

    private bool Trusts(object sender, X509Certificate? shown, X509Chain? chain, SslPolicyErrors errors)
    {
        using var own = new X509Chain();
        own.ChainPolicy.TrustMode = X509ChainTrustMode.CustomRootTrust;
        own.ChainPolicy.CustomTrustStore.Add(authority);
        own.ChainPolicy.RevocationMode = X509RevocationMode.NoCheck;
        return shown is X509Certificate2 certificate && (AnyName || (errors & SslPolicyErrors.RemoteCertificateNameMismatch) == 0) && own.Build(certificate);
    }

    public async Task<(int Status, JsonNode Body, HttpResponseMessage Answer)> Send(HttpMethod method, string path, object? body = null, string? accept = null, string? secret = null)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        if (accept is not null)
            request.Headers.Add("Accept", accept);
        if (secret is not null)
            request.Headers.Authorization = new("Bearer", secret);
        if (body is not null)
            request.Content = JsonContent.Create(body);
        var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, TestContext.Current.CancellationToken);
        var text = answer.Content.Headers.ContentType?.MediaType?.EndsWith("json", StringComparison.Ordinal) == true ? await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken) : "";
        return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!, answer);
    }

    public static string Secret() => Convert.ToHexStringLower(System.Security.Cryptography.RandomNumberGenerator.GetBytes(32));

    public void Dispose() => http.Dispose();
}
