namespace Lowfell.Script.Tests;

/// <summary>A line on which answers get lost, questions come twice, and everything may take its time; by a seed.</summary>
internal sealed class BadLine(int seed) : DelegatingHandler(new SocketsHttpHandler { PooledConnectionLifetime = TimeSpan.FromSeconds(20) })
{
    private readonly Random random = new(seed);
    private int dropped, doubled, delayed;

    public int Dropped => dropped;
    public int Doubled => doubled;
    public int Delayed => delayed;

    private int Draw()
    {
        lock (random)
            return random.Next(100);
    }

    protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken stop)
    {
        // What is sent twice has to be there twice.
        var body = request.Content is null ? null : await request.Content.ReadAsByteArrayAsync(stop);
        HttpRequestMessage Copy()
        {
            var copy = new HttpRequestMessage(request.Method, request.RequestUri);
            foreach (var (name, values) in request.Headers)
                copy.Headers.TryAddWithoutValidation(name, values);
            if (body is not null)
            {
                copy.Content = new ByteArrayContent(body);
                foreach (var (name, values) in request.Content!.Headers)
                    copy.Content.Headers.TryAddWithoutValidation(name, values);
            }

            return copy;
        }

        switch (Draw())
        {
            case < 5:
                Interlocked.Increment(ref dropped);
                using (await base.SendAsync(Copy(), stop))
                    throw new HttpRequestException("The answer was lost.");
            case < 9:
                Interlocked.Increment(ref doubled);
                var both = new[] { base.SendAsync(Copy(), stop), base.SendAsync(Copy(), stop) };
                return (await Task.WhenAll(both))[Draw() % 2];
            case < 13:
                Interlocked.Increment(ref delayed);
                await Task.Delay(20 + Draw() * 4, stop);
                return await base.SendAsync(Copy(), stop);
            default:
                return await base.SendAsync(Copy(), stop);
        }
    }
}
