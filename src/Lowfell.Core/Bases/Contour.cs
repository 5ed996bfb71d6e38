namespace Lowfell.Core.Bases;

/// <summary>Outlines of where a field on a grid is above 0, by marching squares (Lorensen and Cline 1987, in two dimensions).</summary>
internal static class Contour
{
    /// <summary>Closed outlines; holes are outlines of their own, so that they are filled by the even-odd rule.</summary>
    /// <param name="field">Columns × rows values, row by row; below 0 all along the border.</param>
    /// <param name="columns">Nodes across.</param>
    /// <param name="place">Where a point between nodes lies, by column and row.</param>
    public static IReadOnlyList<IReadOnlyList<(double X, double Y)>> Of(double[] field, int columns, Func<double, double, (double X, double Y)> place)
    {
        var rows = field.Length / columns;
        var next = new Dictionary<int, int>();
        Span<int> edges = stackalloc int[4];
        Span<bool> inside = stackalloc bool[4];
        for (var j = 0; j + 1 < rows; j++)
            for (var i = 0; i + 1 < columns; i++)
            {
                int a = j * columns + i, b = a + 1, d = a + columns, c = d + 1;
                (inside[0], inside[1], inside[2], inside[3]) = (field[a] > 0, field[b] > 0, field[c] > 0, field[d] > 0);
                if (inside[0] == inside[1] && inside[1] == inside[2] && inside[2] == inside[3])
                    continue;

                // Around the cell: its upper, right, lower and left edge. An outline goes in where the walk leaves the field, and out where it comes back.
                (edges[0], edges[1], edges[2], edges[3]) = (a * 2, b * 2 + 1, d * 2, a * 2 + 1);
                var joined = field[a] + field[b] + field[c] + field[d] > 0;
                for (var e = 0; e < 4; e++)
                    if (inside[e] && !inside[(e + 1) % 4])
                        next[edges[e]] = edges[Entry(inside, e, joined)];
            }

        var outlines = new List<IReadOnlyList<(double, double)>>();
        while (next.Count > 0)
        {
            var (start, points) = (next.Keys.First(), new List<(double, double)>());
            for (var at = start; next.Remove(at, out var then); at = then)
                points.Add(Crossing(at));
            if (points.Count > 2)
                outlines.Add(points);
        }

        return outlines;

        (double, double) Crossing(int edge)
        {
            int node = edge / 2, other = edge % 2 == 0 ? node + 1 : node + columns;
            var t = field[node] / (field[node] - field[other]);
            return place(node % columns + (edge % 2 == 0 ? t : 0), node / columns + (edge % 2 == 0 ? 0 : t));
        }
    }

    /// <summary>Where an outline that left by an edge comes back: at the only place, or of two by whether the middle of the cell is inside.</summary>
    private static int Entry(ReadOnlySpan<bool> inside, int exit, bool joined)
    {
        for (var n = 1; n < 4; n++)
        {
            var e = (exit + (joined ? n : 4 - n)) % 4;
            if (!inside[e] && inside[(e + 1) % 4])
                return e;
        }

        return exit;
    }
}
