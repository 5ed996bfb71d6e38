using System.Net;
using Lowfell.Tests;

namespace Lowfell.Browser.Tests;

/// <summary>A line between browser and server on which things get lost: the server does what it is asked, and its answer never arrives.</summary>
public sealed class LossyLine : IDisposable
{
    private readonly HttpListener listener = new();
    private readonly HttpClient http = new(new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false }) { Timeout = Timeout.InfiniteTimeSpan };
    private int losing, lost, vain;

    public LossyLine(string server)
    {
        Address = $"http://127.0.0.1:{Ports.Free()}";
        listener.Prefixes.Add(Address + "/");
        listener.Start();
        _ = Task.Run(() => Serve(server));
    }

    public string Address { get; }

    /// <summary>Answers to writes that were lost so far.</summary>
    public int Lost => Volatile.Read(ref lost);

    /// <summary>Writes that found no server.</summary>
    public int InVain => Volatile.Read(ref vain);

    /// <summary>Loses the answers to the next writes.</summary>
    public void Lose(int answers) => Volatile.Write(ref losing, answers);

    public void Dispose()
    {
        listener.Close();
        http.Dispose();
    }

    private async Task Serve(string server)
    {
        while (listener.IsListening)
        {
            HttpListenerContext call;
            try
            {
                call = await listener.GetContextAsync();
            }
            catch (Exception e) when (e is HttpListenerException or ObjectDisposedException)
            {
                return;
            }

            _ = Task.Run(() => Pass(call, server));
        }
    }

    private async Task Pass(HttpListenerContext call, string server)
    {
        try
        {
            using var question = new HttpRequestMessage(new HttpMethod(call.Request.HttpMethod), server + call.Request.RawUrl);
            if (call.Request.HasEntityBody)
                question.Content = new StreamContent(call.Request.InputStream);
            foreach (var name in call.Request.Headers.AllKeys.OfType<string>().Where(n => n is not ("Connection" or "Content-Length")))
                if (!question.Headers.TryAddWithoutValidation(name, call.Request.Headers[name]))
                    question.Content?.Headers.TryAddWithoutValidation(name, call.Request.Headers[name]);
            using var answer = await http.SendAsync(question, HttpCompletionOption.ResponseHeadersRead);
            if (call.Request.HttpMethod == "PUT" && Interlocked.Decrement(ref losing) >= 0)
            {
                // Now with nothing in it, now broken off.
                Cut(call, whole: Interlocked.Increment(ref lost) % 2 == 0);
                return;
            }

            call.Response.StatusCode = (int)answer.StatusCode;
            foreach (var (name, values) in answer.Headers.Concat(answer.Content.Headers).Where(h => h.Key is not ("Transfer-Encoding" or "Content-Length" or "Connection")))
                call.Response.Headers[name] = string.Join(", ", values);
            call.Response.SendChunked = true;
            await answer.Content.CopyToAsync(call.Response.OutputStream);
            call.Response.Close();
        }
        catch (Exception e) when (e is HttpRequestException or IOException or HttpListenerException or ObjectDisposedException or InvalidOperationException)
        {
            if (e is HttpRequestException && call.Request.HttpMethod == "PUT")
                Interlocked.Increment(ref vain);
            Cut(call, whole: false);
        }
    }

    private static void Cut(HttpListenerContext call, bool whole)
    {
        try
        {
            if (!whole)
                call.Response.ContentLength64 = 100_000;
        }
        catch (Exception e) when (e is InvalidOperationException or ObjectDisposedException)
        {
            // Part of it has gone out already.
        }

        call.Response.Abort();
    }
}
