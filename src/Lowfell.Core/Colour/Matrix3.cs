namespace Lowfell.Core.Colour;

internal static class Matrix3
{
    /// <summary>Inverse of a regular 3 by 3 matrix by cofactors.</summary>
    public static double[,] Invert(double[,] m)
    {
        double Minor(int r, int c)
        {
            int r1 = (r + 1) % 3, r2 = (r + 2) % 3, c1 = (c + 1) % 3, c2 = (c + 2) % 3;
            return m[r1, c1] * m[r2, c2] - m[r1, c2] * m[r2, c1];
        }

        var determinant = m[0, 0] * Minor(0, 0) + m[0, 1] * Minor(0, 1) + m[0, 2] * Minor(0, 2);
        var inverse = new double[3, 3];
        for (var r = 0; r < 3; r++)
            for (var c = 0; c < 3; c++)
                inverse[c, r] = Minor(r, c) / determinant;
        return inverse;
    }
}
