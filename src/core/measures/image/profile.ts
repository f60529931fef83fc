/**
 * Least-squares coefficients of `y ≈ Σ c·basis`, for few columns that are not dependent, by modified
 * Gram–Schmidt.
 */
export function orthonormal(columns: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const column of columns) {
    const own = Float64Array.from(column);
    // Twice, so that rounding leaves them at right angles.
    for (let times = 0; times < 2; times += 1) for (const one of basis) takeOut(own, one);
    const length = Math.sqrt(dot(own, own));
    if (length > 0) basis.push(own.map((value) => value / length));
  }
  return basis;
}

/** Takes the part of a vector along a unit vector out of it. */
export function takeOut(vector: Float64Array, unit: Float64Array): void {
  const along = dot(vector, unit);
  for (let at = 0; at < vector.length; at += 1) {
    vector[at] = (vector[at] ?? 0) - along * (unit[at] ?? 0);
  }
}

export function dot(a: Float64Array, b: Float64Array): number {
  let total = 0;
  for (let at = 0; at < a.length; at += 1) total += (a[at] ?? 0) * (b[at] ?? 0);
  return total;
}

/** Powers 0 … degree of places spread over −1 … 1: a basis of the polynomials. */
export function polynomials(length: number, degree: number): Float64Array[] {
  const at = (index: number) => (length > 1 ? (2 * index) / (length - 1) - 1 : 0);
  return orthonormal(
    Array.from({ length: degree + 1 }, (_, power) =>
      Float64Array.from({ length }, (__, index) => at(index) ** power),
    ),
  );
}

/** A profile without its polynomial trend. */
export function detrended(profile: Float64Array, degree: number): Float64Array {
  const out = Float64Array.from(profile);
  for (const one of polynomials(profile.length, degree)) takeOut(out, one);
  return out;
}

/** Where the parabola through three neighbours has its vertex, from the middle one, −0.5 … 0.5. */
export function vertexOffset(before: number, middle: number, after: number): number {
  const bend = before - 2 * middle + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}

/** A profile blurred by a Gaussian; at its ends the weights of what lies inside count. */
export function smoothed(profile: Float64Array, sigma: number): Float64Array {
  const reach = Math.ceil(7 * sigma);
  const weights = Float64Array.from({ length: reach + 1 }, (_, at) =>
    Math.exp(-(at * at) / (2 * sigma * sigma)),
  );
  return Float64Array.from(profile, (_, middle) => {
    let total = 0;
    let weight = 0;
    const from = Math.max(0, middle - reach);
    const to = Math.min(profile.length - 1, middle + reach);
    for (let at = from; at <= to; at += 1) {
      const own = weights[Math.abs(at - middle)] ?? 0;
      total += own * (profile[at] ?? 0);
      weight += own;
    }
    return total / weight;
  });
}
