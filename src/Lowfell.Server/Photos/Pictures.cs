using SkiaSharp;

namespace Lowfell.Server.Photos;

/// <summary>A picture as it is kept: upright, no larger than is looked at, as JPEG, and small for a list.</summary>
internal sealed record Picture(int Width, int Height, byte[] Full, byte[] Small);

/// <summary>
/// Takes in pictures: drawn anew from their pixels, so that nothing of the camera, the place or anything else hidden in the file is left.
/// </summary>
internal static class Pictures
{
    public const string Type = "image/jpeg";
    public const int MostMegabytes = 11, MostMegapixels = 50;
    private const int LongestSide = 2400, SmallSide = 360, Quality = 86;

    /// <summary>One at a time: a large picture takes much memory while it is drawn.</summary>
    private static readonly SemaphoreSlim drawing = new(1);

    /// <summary>A picture from a file, or why there is none.</summary>
    public static async Task<(Picture? Picture, string Why)> Read(byte[] file, CancellationToken stop)
    {
        await drawing.WaitAsync(stop);
        try
        {
            return Draw(file);
        }
        finally
        {
            drawing.Release();
        }
    }

    /// <summary>Whether a file is a JPEG as it is kept: of pictures, and of nothing beside them.</summary>
    public static bool IsBare(byte[] file)
    {
        if (file is not [0xff, 0xd8, ..])
            return false;
        for (var at = 2; at + 4 <= file.Length && file[at] == 0xff;)
        {
            var marker = file[at + 1];

            // From here on there are pixels, up to the very end.
            if (marker == 0xda)
                return file[^2] == 0xff && file[^1] == 0xd9;
            if (marker is not (0xe0 or 0xdb or 0xc0 or 0xc1 or 0xc2 or 0xc4 or 0xdd) || (marker == 0xe0 && !file.AsSpan(at + 4).StartsWith("JFIF\0"u8)))
                return false;
            at += 2 + (file[at + 2] << 8) + file[at + 3];
        }

        return false;
    }

    private static (Picture? Picture, string Why) Draw(byte[] file)
    {
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png or SKEncodedImageFormat.Webp))
            return (null, "This is no picture that can be read: send a JPEG, PNG or WebP.");
        var (width, height) = (codec.Info.Width, codec.Info.Height);
        if (width <= 0 || height <= 0 || (long)width * height > MostMegapixels * 1_000_000L)
            return (null, $"The picture has {(long)width * height / 1_000_000} megapixels; {MostMegapixels} is the most. Make it smaller first.");

        // A JPEG can be read at an eighth and so on: no more is drawn than is kept.
        var scaled = codec.GetScaledDimensions(Math.Min(1, (float)LongestSide / Math.Max(width, height)));
        using var read = new SKBitmap(new SKImageInfo(scaled.Width, scaled.Height, SKColorType.Rgba8888, SKAlphaType.Premul, SKColorSpace.CreateSrgb()));
        if (codec.GetPixels(read.Info, read.GetPixels()) != SKCodecResult.Success)
            return (null, "The picture is broken: it ends too soon, or its bytes make no sense. Save or take it again.");
        using var full = Upright(read, codec.EncodedOrigin, LongestSide);
        using var small = Upright(full, SKEncodedOrigin.TopLeft, SmallSide);
        return (new Picture(full.Width, full.Height, Encoded(full), Encoded(small)), "");
    }

    /// <summary>Turned as the camera was held, on white where it is clear, and no longer than a side.</summary>
    private static SKBitmap Upright(SKBitmap from, SKEncodedOrigin origin, int longest)
    {
        var across = origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var scale = Math.Min(1, (double)longest / Math.Max(from.Width, from.Height));
        var (w, h) = ((int)Math.Max(1, Math.Round(from.Width * scale)), (int)Math.Max(1, Math.Round(from.Height * scale)));

        // Without a profile of its own: it is in the colours that every picture is in which says nothing.
        var to = new SKBitmap(new SKImageInfo(across ? h : w, across ? w : h, SKColorType.Rgba8888, SKAlphaType.Premul));
        using var canvas = new SKCanvas(to);
        canvas.Clear(SKColors.White);
        canvas.SetMatrix(origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, h, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, h, -1, 0, w, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, w, 0, 0, 1),
            _ => SKMatrix.Identity,
        });
        using var image = SKImage.FromBitmap(from);
        canvas.DrawImage(image, new SKRect(0, 0, w, h), new SKSamplingOptions(SKCubicResampler.Mitchell));
        return to;
    }

    private static byte[] Encoded(SKBitmap of)
    {
        using var image = SKImage.FromBitmap(of);
        using var data = image.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return data.ToArray();
    }
}
