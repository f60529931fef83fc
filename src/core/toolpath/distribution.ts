/** The most bins of a distribution: what lies above is counted in the last. */
const MOST_BINS = 200_000;

/**
 * Time spread over values: point masses (a constant speed) and even spreads (a ramp, in which
 * speed is linear in time). Fine bins, each with the mean of its point masses, so that a value
 * that stands alone in its bin is given back exactly.
 */
export class Distribution {
  #mass = new Float64Array(2048);
  #moment = new Float64Array(2048);
  /** Density steps: their part in the first bin, and what they add to every later one. */
  #part = new Float64Array(2049);
  #step = new Float64Array(2049);
  max = 0;
  /** Bins to a unit. */
  readonly #perUnit: number;

  /** @param width width of a bin, in the unit of the values: one over a whole number */
  constructor(readonly width: number) {
    this.#perUnit = Math.round(1 / width);
  }

  /**
   * A distribution as it was added up elsewhere.
   *
   * @param records of each bin mass, moment, part and step; one record more than there are bins
   */
  static of(width: number, max: number, records: Float64Array): Distribution {
    const made = new Distribution(width);
    const bins = records.length / 4 - 1;
    if (bins < 1) return made;
    const column = (at: number, length: number) => {
      const values = new Float64Array(length);
      for (let bin = 0; bin < length; bin += 1) values[bin] = records[4 * bin + at] ?? 0;
      return values;
    };
    made.#mass = column(0, bins);
    made.#moment = column(1, bins);
    made.#part = column(2, bins + 1);
    made.#step = column(3, bins + 1);
    made.max = max;
    return made;
  }

  /** Time spent at one value. */
  addPoint(value: number, time: number): void {
    const bin = this.#bin(value * this.#perUnit + 1e-9);
    this.#mass[bin] = (this.#mass[bin] ?? 0) + time;
    this.#moment[bin] = (this.#moment[bin] ?? 0) + time * value;
    if (value > this.max) this.max = value;
  }

  /** Time spread evenly from one value to a higher one. */
  addSpread(low: number, high: number, time: number): void {
    const from = low * this.#perUnit;
    const to = high * this.#perUnit;
    if (to - from < 1e-9) {
      this.addPoint(low, time);
      return;
    }
    const density = time / (to - from);
    this.#addStep(from, density);
    this.#addStep(to, -density);
    if (high > this.max) this.max = high;
  }

  #addStep(at: number, density: number): void {
    const bin = this.#bin(at);
    const within = Math.min(1, at - bin);
    this.#part[bin] = (this.#part[bin] ?? 0) + density * (1 - within);
    this.#step[bin + 1] = (this.#step[bin + 1] ?? 0) + density;
  }

  #bin(at: number): number {
    const bin = Math.min(MOST_BINS - 1, Math.max(0, Math.floor(at)));
    if (bin >= this.#mass.length) {
      let size = this.#mass.length;
      while (size <= bin) size *= 2;
      const widen = (from: Float64Array, length: number) => {
        const to = new Float64Array(length);
        to.set(from);
        return to;
      };
      this.#mass = widen(this.#mass, size);
      this.#moment = widen(this.#moment, size);
      this.#part = widen(this.#part, size + 1);
      this.#step = widen(this.#step, size + 1);
    }
    return bin;
  }

  /** Adds all that another distribution of the same width holds. */
  addAll(other: Distribution): void {
    const bins = other.#mass.length;
    this.#bin(bins - 1);
    for (let bin = 0; bin <= bins; bin += 1) {
      this.#part[bin] = (this.#part[bin] ?? 0) + (other.#part[bin] ?? 0);
      this.#step[bin] = (this.#step[bin] ?? 0) + (other.#step[bin] ?? 0);
      if (bin === bins) break;
      this.#mass[bin] = (this.#mass[bin] ?? 0) + (other.#mass[bin] ?? 0);
      this.#moment[bin] = (this.#moment[bin] ?? 0) + (other.#moment[bin] ?? 0);
    }
    this.max = Math.max(this.max, other.max);
  }

  /** Calls back for every bin with time in it: a value in the bin, and the time. */
  forEach(visit: (value: number, time: number) => void): void {
    let running = 0;
    for (let bin = 0; bin < this.#mass.length; bin += 1) {
      running += this.#step[bin] ?? 0;
      const spread = running + (this.#part[bin] ?? 0);
      const mass = this.#mass[bin] ?? 0;
      const centre = (bin + 0.5) * this.width;
      if (spread > 1e-12) visit(Math.min(centre, this.max), spread);
      if (mass > 0) visit((this.#moment[bin] ?? 0) / mass, mass);
    }
  }

  /** All time in it. */
  get total(): number {
    let total = 0;
    this.forEach((_, time) => (total += time));
    return total;
  }

  /** The smallest value with at least this share of the time at or below it; null of nothing. */
  percentile(share: number): number | null {
    const { total } = this;
    if (total <= 0) return null;
    let below = 0;
    let found: number | null = null;
    this.forEach((value, time) => {
      if (found !== null) return;
      below += time;
      if (below >= share * total - 1e-9 * total) found = value;
    });
    return found ?? this.max;
  }

  /**
   * The time in bins of another width, from 0 on.
   *
   * @param scale what a value is multiplied with first
   */
  histogram(width: number, scale = 1): number[] {
    const bins: number[] = [];
    this.forEach((value, time) => {
      const bin = Math.min(9999, Math.floor((value * scale) / width + 1e-6));
      while (bins.length <= bin) bins.push(0);
      bins[bin] = (bins[bin] ?? 0) + time;
    });
    return bins;
  }
}
