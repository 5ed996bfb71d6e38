using SkiaSharp;

namespace Lowfell.Server.Tests;

/// <summary>Takes photographs as a camera does that is held on its side and knows where it is.</summary>
internal static class Camera
{
    /// <summary>A JPEG with a red corner (upper left as the camera saw it), turned by its own word, with camera and place told in it.</summary>
    public static byte[] Photo(int width, int height)
    {
        using var bitmap = new SKBitmap(width, height);
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.SlateBlue);
            using var red = new SKPaint { Color = SKColors.Red };
            canvas.DrawRect(0, 0, 12, 12, red);
        }

        using var image = SKImage.FromBitmap(bitmap);
        var plain = image.Encode(SKEncodedImageFormat.Jpeg, 95).ToArray();
        var told = Told();
        return [.. plain[..2], 0xff, 0xe1, (byte)((told.Length + 2) >> 8), (byte)(told.Length + 2), .. told, .. plain[2..]];
    }

    /// <summary>What a camera writes beside the picture: that it was turned by a quarter, what it is, and where.</summary>
    private static byte[] Told()
    {
        byte[] name = [.. "Camera of nobody, Fen Row, GPS"u8, 0];
        byte[] Entry(int tag, int type, int count, int value) => [(byte)(tag >> 8), (byte)tag, 0, (byte)type, (byte)(count >> 24), (byte)(count >> 16), (byte)(count >> 8), (byte)count, (byte)(value >> 24), (byte)(value >> 16), (byte)(value >> 8), (byte)value];
        const int entries = 2, dataAt = 8 + 2 + entries * 12 + 4;
        return
        [
            .. "Exif"u8, 0, 0, .. "MM"u8, 0, 42, 0, 0, 0, 8, 0, entries,
            .. Entry(0x010f, 2, name.Length, dataAt), .. Entry(0x0112, 3, 1, 6 << 16),
            0, 0, 0, 0, .. name,
        ];
    }
}
