/**
 * Adds what a kernel makes of rows of values to other rows, all places of a row side by side:
 * `to[i] += Σ kernel[j]·source[i·sourceApart + j·tapsApart]`. Sums grow in the order of the taps, as in the
 * plain way, so that both come to the same number.
 *
 * Pointers are in bytes, distances in values.
 */
export function filterDown(
  source: usize,
  sourceApart: i32,
  tapsApart: i32,
  kernel: usize,
  taps: i32,
  to: usize,
  toApart: i32,
  count: i32,
  lanes: i32,
): void {
  const next = <usize>tapsApart << 3;
  for (let row = 0; row < count; row++) {
    const first = source + ((<usize>row * <usize>sourceApart) << 3);
    const goal = to + ((<usize>row * <usize>toApart) << 3);
    let lane = 0;
    for (; lane + 8 <= lanes; lane += 8) {
      const at = goal + (<usize>lane << 3);
      let a = v128.load(at);
      let b = v128.load(at, 16);
      let c = v128.load(at, 32);
      let d = v128.load(at, 48);
      let from = first + (<usize>lane << 3);
      for (let tap = 0; tap < taps; tap++) {
        const weight = v128.load64_splat(kernel + (<usize>tap << 3));
        a = f64x2.add(a, f64x2.mul(weight, v128.load(from)));
        b = f64x2.add(b, f64x2.mul(weight, v128.load(from, 16)));
        c = f64x2.add(c, f64x2.mul(weight, v128.load(from, 32)));
        d = f64x2.add(d, f64x2.mul(weight, v128.load(from, 48)));
        from += next;
      }
      v128.store(at, a);
      v128.store(at, b, 16);
      v128.store(at, c, 32);
      v128.store(at, d, 48);
    }
    for (; lane < lanes; lane++) {
      const at = goal + (<usize>lane << 3);
      let sum = load<f64>(at);
      let from = first + (<usize>lane << 3);
      for (let tap = 0; tap < taps; tap++) {
        sum += load<f64>(kernel + (<usize>tap << 3)) * load<f64>(from);
        from += next;
      }
      store<f64>(at, sum);
    }
  }
}

const BLOCK: i32 = 32;

/** Exchanges rows and columns, block by block, so that what is read together lies together. */
export function turn(source: usize, width: i32, height: i32, to: usize): void {
  for (let top = 0; top < height; top += BLOCK) {
    const bottom = min(top + BLOCK, height);
    for (let left = 0; left < width; left += BLOCK) {
      const right = min(left + BLOCK, width);
      for (let x = left; x < right; x++) {
        let at = to + ((<usize>x * <usize>height + <usize>top) << 3);
        let from = source + ((<usize>top * <usize>width + <usize>x) << 3);
        for (let y = top; y < bottom; y++) {
          store<f64>(at, load<f64>(from));
          at += 8;
          from += <usize>width << 3;
        }
      }
    }
  }
}
