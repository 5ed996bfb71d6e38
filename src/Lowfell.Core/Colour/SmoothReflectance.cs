namespace Lowfell.Core.Colour;

/// <summary>
/// The smoothest reflectance that gives a colour: least squared slope of the hyperbolic-tangent variable.
/// One plausible spectrum, not the paint's measured one; predicted mixes inherit the guess.
/// Source: Burns (2020), "Numerical methods for smoothest reflectance reconstruction", Color Research &amp; Application 45.
/// </summary>
public static class SmoothReflectance
{
    private const int N = Observer.Bands;
    private const int Size = N + 3;
    private const double Lowest = 0.002, Highest = 0.998;
    private const int MostIterations = 40;

    /// <summary>Reflectance of a colour, with linear channels clamped to 0.002..0.998.</summary>
    public static Reflectance From(SrgbColour colour) => From(colour.ToLinear());

    /// <inheritdoc cref="From(SrgbColour)"/>
    /// <param name="linear">Linear light.</param>
    /// <param name="lowest">A channel darker than this is raised to it; the least that still converges is 1e-4.</param>
    public static Reflectance From(LinearRgb linear, double lowest = Lowest)
    {
        double[] target =
        [
            Math.Clamp(linear.R, lowest, Highest),
            Math.Clamp(linear.G, lowest, Highest),
            Math.Clamp(linear.B, lowest, Highest),
        ];

        var z = new double[N];
        var multipliers = new double[3];
        var jacobian = new double[Size, Size];
        var residual = new double[Size];
        for (var iteration = 0; iteration < MostIterations; iteration++)
        {
            if (Assemble(z, multipliers, target, jacobian, residual) < 1e-12)
                break;
            Solve(jacobian, residual);
            for (var i = 0; i < N; i++)
                z[i] -= residual[i];
            for (var c = 0; c < 3; c++)
                multipliers[c] -= residual[N + c];
        }

        Span<double> values = stackalloc double[N];
        for (var i = 0; i < N; i++)
            values[i] = (Math.Tanh(z[i]) + 1) / 2;
        return new Reflectance(values);
    }

    /// <summary>Fills the Newton system and returns the largest residual.</summary>
    private static double Assemble(double[] z, double[] m, double[] target, double[,] jacobian, double[] residual)
    {
        Array.Clear(jacobian);
        for (var c = 0; c < 3; c++)
            residual[N + c] = -target[c];
        for (var i = 0; i < N; i++)
        {
            var tanh = Math.Tanh(z[i]);
            var sech2 = 1 - tanh * tanh;
            double r = Observer.RowOf(0)[i], g = Observer.RowOf(1)[i], b = Observer.RowOf(2)[i];
            var pull = r * m[0] + g * m[1] + b * m[2];
            var own = i is 0 or N - 1 ? 2.0 : 4.0;
            var slope = own * z[i];
            if (i > 0)
            {
                slope -= 2 * z[i - 1];
                jacobian[i, i - 1] = -2;
            }

            if (i < N - 1)
            {
                slope -= 2 * z[i + 1];
                jacobian[i, i + 1] = -2;
            }

            residual[i] = slope + sech2 / 2 * pull;
            jacobian[i, i] = own - sech2 * tanh * pull;
            var half = sech2 / 2;
            jacobian[i, N] = jacobian[N, i] = half * r;
            jacobian[i, N + 1] = jacobian[N + 1, i] = half * g;
            jacobian[i, N + 2] = jacobian[N + 2, i] = half * b;
            var reflectance = (tanh + 1) / 2;
            residual[N] += r * reflectance;
            residual[N + 1] += g * reflectance;
            residual[N + 2] += b * reflectance;
        }

        var largest = 0.0;
        foreach (var v in residual)
            largest = Math.Max(largest, Math.Abs(v));
        return largest;
    }

    /// <summary>Gaussian elimination with partial pivoting; the solution replaces the right-hand side.</summary>
    private static void Solve(double[,] a, double[] x)
    {
        for (var column = 0; column < Size; column++)
        {
            var pivot = column;
            for (var row = column + 1; row < Size; row++)
                if (Math.Abs(a[row, column]) > Math.Abs(a[pivot, column]))
                    pivot = row;
            if (pivot != column)
            {
                for (var k = column; k < Size; k++)
                    (a[column, k], a[pivot, k]) = (a[pivot, k], a[column, k]);
                (x[column], x[pivot]) = (x[pivot], x[column]);
            }

            for (var row = column + 1; row < Size; row++)
            {
                var factor = a[row, column] / a[column, column];
                if (factor == 0)
                    continue;
                for (var k = column; k < Size; k++)
                    a[row, k] -= factor * a[column, k];
                x[row] -= factor * x[column];
            }
        }

        for (var row = Size - 1; row >= 0; row--)
        {
            for (var k = row + 1; k < Size; k++)
                x[row] -= a[row, k] * x[k];
            x[row] /= a[row, row];
        }
    }
}
