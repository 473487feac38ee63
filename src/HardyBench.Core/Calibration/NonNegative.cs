using MathNet.Numerics.LinearAlgebra;

namespace HardyBench.Core.Calibration;

/// <summary>Least squares with coefficients that are not below zero.</summary>
/// <param name="Coefficients">One a column.</param>
/// <param name="Unscaled">Their variances over that of the residuals; of one held at zero as if it were free.</param>
/// <param name="Residuals">One a row: what is left of the right side.</param>
/// <param name="Free">Coefficients above zero.</param>
public sealed record NonNegative(
    IReadOnlyList<double> Coefficients, IReadOnlyList<double> Unscaled, IReadOnlyList<double> Residuals, int Free)
{
    /// <summary>The best of all choices of columns whose solution has no coefficient below zero. With few columns that is exact: the least
    /// squares of the problem with bounds is the plain one over the columns that are not at their bound (Lawson and Hanson, Solving Least
    /// Squares Problems, 1974, chapter 23).</summary>
    /// <param name="rows">As many values each as there are columns, three at most.</param>
    /// <param name="right">One a row.</param>
    public static NonNegative Solve(IReadOnlyList<double[]> rows, IReadOnlyList<double> right)
    {
        var columns = rows[0].Length;
        var side = Vector<double>.Build.DenseOfEnumerable(right);
        NonNegative? best = null;
        for (var choice = 0; choice < 1 << columns; choice++)
        {
            var kept = Enumerable.Range(0, columns).Where(column => (choice >> column & 1) == 1).ToArray();
            if (kept.Length > rows.Count || Plain(rows, side, kept) is not { } solution || solution.Any(value => value < 0))
            {
                continue;
            }

            var coefficients = new double[columns];
            for (var place = 0; place < kept.Length; place++)
            {
                coefficients[kept[place]] = solution[place];
            }

            var residuals = rows.Zip(right, (row, value) => value - row.Zip(coefficients, (one, by) => one * by).Sum()).ToList();
            if (best is null || Squares(residuals) < Squares(best.Residuals) * (1 - 1e-12))
            {
                best = new NonNegative(coefficients, [], residuals, coefficients.Count(value => value > 0));
            }
        }

        return best! with { Unscaled = UnscaledOf(rows) };
    }

    /// <returns>Null where the columns cannot be distinguished.</returns>
    private static double[]? Plain(IReadOnlyList<double[]> rows, Vector<double> side, int[] kept)
    {
        if (kept.Length == 0)
        {
            return [];
        }

        var matrix = Matrix<double>.Build.Dense(rows.Count, kept.Length, (row, column) => rows[row][kept[column]]);
        var solution = matrix.QR().Solve(side);
        return solution.All(double.IsFinite) ? solution.ToArray() : null;
    }

    /// <summary>The diagonal of (XᵀX)⁻¹; endless where columns cannot be distinguished.</summary>
    private static double[] UnscaledOf(IReadOnlyList<double[]> rows)
    {
        var matrix = Matrix<double>.Build.DenseOfRowArrays(rows);
        var square = matrix.TransposeThisAndMultiply(matrix);
        // Columns of unlike size: as shares of their lengths, so that rounding does not decide what can be distinguished.
        var lengths = square.Diagonal().PointwiseSqrt();
        var shares = Matrix<double>.Build.Dense(
            square.RowCount, square.ColumnCount, (row, column) => square[row, column] / lengths[row] / lengths[column]);
        return Math.Abs(shares.Determinant()) < 1e-9
            ? [.. lengths.Select(_ => double.PositiveInfinity)]
            : [.. shares.Inverse().Diagonal().Zip(lengths, (value, length) => value / length / length)];
    }

    private static double Squares(IReadOnlyList<double> values) => values.Sum(value => value * value);
}
