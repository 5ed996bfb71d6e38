namespace Lowfell.Core.Bases;

/// <summary>Where the mass of a composition lies, kind by kind, as soft spots on a coarse grid: what two bases are compared by.</summary>
internal sealed class Masses
{
    private const int Grid = 8;

    private static readonly int kinds = Enum.GetValues<ElementKind>().Length;

    /// <summary>How soft a spot is: its variance as a share of the square of the reach.</summary>
    private const double Soft = 0.05;

    private readonly double[] spots = new double[kinds * Grid * Grid];
    private readonly Lean lean;
    private double all;

    private Masses(Lean lean) => this.lean = lean;

    public static Masses Of(BasePlan plan, BaseShape shape)
    {
        var masses = new Masses(plan.Lean);
        var (hx, hy) = shape.Half;
        var soft = 2 * Soft * shape.ReachMm * shape.ReachMm;
        Span<double> across = stackalloc double[Grid], down = stackalloc double[Grid];
        foreach (var e in plan.Elements)
        {
            for (var i = 0; i < Grid; i++)
            {
                double x = ((i + 0.5) / Grid * 2 - 1) * hx - e.X, y = ((i + 0.5) / Grid * 2 - 1) * hy - e.Y;
                (across[i], down[i]) = (Math.Exp(-x * x / soft), Math.Exp(-y * y / soft));
            }

            var from = (int)e.Kind * Grid * Grid;
            for (var j = 0; j < Grid; j++)
                for (var i = 0; i < Grid; i++)
                {
                    var mass = e.AreaMm2 * across[i] * down[j];
                    masses.spots[from + j * Grid + i] += mass;
                    masses.all += mass;
                }
        }

        return masses;
    }

    /// <summary>The mass of either that would have to be carried, as a share of all of it; without any, how differently the grounds lean.</summary>
    public double Apart(Masses other)
    {
        if (all + other.all == 0)
            return Math.Min(1, Math.Sqrt((lean.X - other.lean.X) * (lean.X - other.lean.X) + (lean.Y - other.lean.Y) * (lean.Y - other.lean.Y)));
        var apart = 0.0;
        for (var i = 0; i < spots.Length; i++)
            apart += Math.Abs(spots[i] - other.spots[i]);
        return apart / (all + other.all);
    }
}
