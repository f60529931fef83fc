import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { maxAbs, sum, sumOf } from './summary';

/** An ordinary least-squares fit. */
export interface LeastSquares {
  coefficients: number[];
  residuals: number[];
  /** Sum of squared residuals; 0 where they are rounding only. */
  rss: number;
  /** Observations less terms. */
  df: number;
  /** (XᵀX)⁻¹, by rows. */
  inverse: number[][];
}

/**
 * Fits `y ≈ X·b` by least squares, columns scaled to length 1.
 *
 * @param columns the columns of X, each as long as y
 * @returns null where there are fewer than `columns + 1` observations or the columns are linearly
 *   dependent (smallest singular value of the scaled columns below 1e-7)
 * @see Golub and Van Loan, Matrix Computations, 5.5 (by singular values)
 * @example leastSquares([[1, 1, 1], [0, 1, 2]], [1, 3, 6])
 * // { coefficients: [0.8333, 2.5], rss: 0.1667, df: 1 }
 */
export function leastSquares(
  columns: readonly (readonly number[])[],
  y: readonly number[],
): LeastSquares | null {
  const terms = columns.length;
  if (terms === 0 || y.length < terms + 1) return null;
  const lengths = columns.map((column) => Math.hypot(...column));
  if (lengths.some((length) => length === 0)) return null;
  const scaled = new Matrix(
    y.map((_, row) => columns.map((column, at) => (column[row] ?? 0) / (lengths[at] ?? 1))),
  );
  const svd = new SingularValueDecomposition(scaled, { autoTranspose: true });
  if (Math.min(...svd.diagonal) < 1e-7) return null;
  const unscale = (at: number) => lengths[at] ?? 1;
  const solution = svd.solve(Matrix.columnVector([...y])).to1DArray();
  const coefficients = solution.map((value, at) => value / unscale(at));
  const residuals = y.map(
    (value, row) =>
      value - sum(columns.map((column, at) => (column[row] ?? 0) * (coefficients[at] ?? 0))),
  );
  const right = svd.rightSingularVectors;
  const inverse = columns.map((_, i) =>
    columns.map(
      (__, j) =>
        sum(svd.diagonal.map((s, k) => (right.get(i, k) * right.get(j, k)) / s ** 2)) /
        unscale(i) /
        unscale(j),
    ),
  );
  const isExact = maxAbs(residuals) <= 1e-10 * maxAbs(y);
  return {
    coefficients,
    residuals,
    rss: isExact ? 0 : sumOf(residuals, (residual) => residual ** 2),
    df: y.length - terms,
    inverse,
  };
}

/**
 * Variance of a linear combination of the coefficients, `w·(XᵀX)⁻¹·wᵀ · rss/df`.
 *
 * @param weights one for each coefficient
 * @returns squared units of the combination
 * @example combinationVariance(leastSquares([[1, 1, 1], [0, 1, 2]], [1, 3, 6]), [0, 1]) // 0.0833
 */
export function combinationVariance(fit: LeastSquares, weights: readonly number[]): number {
  const quadratic = sum(
    weights.flatMap((a, i) => weights.map((b, j) => a * b * (fit.inverse[i]?.[j] ?? 0))),
  );
  return (quadratic * fit.rss) / fit.df;
}
