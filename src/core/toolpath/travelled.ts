import { roleIndex } from './roles';

const ADHESION = roleIndex('adhesion');
const PRIME = roleIndex('prime');
const EXTRUDE = roleIndex('extrude');
const LAYER_STEP_MM = 0.005;
/** The most layers that are told apart. */
export const MOST_LAYERS = 1_000_000;
/** The most tools whose filament is told apart. */
export const MOST_TOOLS = 1000;

/** What the moves amount to besides their time: ways, filament, layers, the box. */
export class Travelled {
  travel_mm = 0;
  extruded_mm = 0;
  retractions = 0;
  retract_mm = 0;
  toolChanges = 0;
  purge_mm = 0;
  hasMotion = false;
  /** What is extruded now is for; its layer by the file's own word (-1: none yet). */
  role = EXTRUDE;
  noted = -1;
  /** Layers by motion alone: tops of all so far, and the present one's number (-1: none yet). */
  readonly tops: number[] = [];
  /** Tops of the layers that the file opens by its own word. */
  readonly notedTops: number[] = [];
  readonly accelerations = new Set<number>();
  readonly min = [Infinity, Infinity, Infinity];
  readonly max = [-Infinity, -Infinity, -Infinity];
  #hasMoved = false;
  #isRetracted = false;
  #hasChangedTool = false;
  #tool = 0;
  readonly #run = new Map<number, { sum: number; highest: number }>([[0, { sum: 0, highest: 0 }]]);

  get layer(): number {
    return this.tops.length - 1;
  }

  /** The highest running sum of E, over all tools, mm. */
  get filament_mm(): number {
    let total = 0;
    for (const { highest } of this.#run.values()) total += highest;
    return total;
  }

  /** Whether X, Y or Z moved since this was last asked. */
  takeMoved(): boolean {
    const moved = this.#hasMoved;
    this.#hasMoved = false;
    return moved;
  }

  changeTool(tool: number): void {
    this.toolChanges += 1;
    this.#hasChangedTool = true;
    this.#tool = tool;
  }

  /** A move of X, Y, Z, perhaps with E. */
  move(
    from: Float64Array,
    to: Float64Array,
    length: number,
    e: number,
    isXy: boolean,
    acceleration: number,
  ): void {
    this.hasMotion = true;
    this.#hasMoved = true;
    if (e !== 0) this.filament(e);
    if (e <= 0) {
      this.travel_mm += length;
      return;
    }
    this.extruded_mm += length;
    if (this.accelerations.size < 10_000) this.accelerations.add(acceleration);
    const { role } = this;
    if (role === PRIME && this.#hasChangedTool) this.purge_mm += e;
    if (isXy) this.#openLayer(from[2] ?? 0, to[2] ?? 0);
    if (role === ADHESION || role === PRIME) return;
    this.widen(from[0] ?? 0, from[1] ?? 0, from[2] ?? 0);
    this.widen(to[0] ?? 0, to[1] ?? 0, to[2] ?? 0);
  }

  /** E moving, with a move or alone. */
  filament(e: number): void {
    this.hasMotion = true;
    let run = this.#run.get(this.#tool);
    if (!run) {
      run = { sum: 0, highest: 0 };
      if (this.#run.size < MOST_TOOLS) this.#run.set(this.#tool, run);
    }
    run.sum += e;
    if (run.sum > run.highest) run.highest = run.sum;
    if (e > 0) {
      this.#isRetracted = false;
      return;
    }
    if (!this.#isRetracted) this.retractions += 1;
    this.#isRetracted = true;
    this.retract_mm -= e;
  }

  /** A retraction whose length nobody has stated: it counts, and moves nothing. */
  firmwareRetract(isBack: boolean): void {
    if (isBack && !this.#isRetracted) this.retractions += 1;
    this.#isRetracted = isBack;
  }

  /** Widens the box to hold a point of extruded material. */
  widen(x: number, y: number, z: number): void {
    const { min, max } = this;
    if (x < (min[0] ?? 0)) min[0] = x;
    if (y < (min[1] ?? 0)) min[1] = y;
    if (z < (min[2] ?? 0)) min[2] = z;
    if (x > (max[0] ?? 0)) max[0] = x;
    if (y > (max[1] ?? 0)) max[1] = y;
    if (z > (max[2] ?? 0)) max[2] = z;
  }

  #openLayer(from: number, to: number): void {
    const { noted } = this;
    if (noted >= 0 && noted < MOST_LAYERS && this.notedTops[noted] === undefined) {
      this.notedTops[noted] = to;
    }
    const { tops } = this;
    if (tops.length >= MOST_LAYERS) return;
    const top = tops.at(-1);
    const isFlat = Math.abs(to - from) < 1e-9;
    if (top === undefined) tops.push(to);
    else if (isFlat) {
      if (Math.abs(to - top) > LAYER_STEP_MM) tops.push(to);
    } else if (to > top + 1e-9) {
      // A climbing wall: a new layer as high as the one before.
      const before = tops.at(-2) ?? 0;
      tops.push(top + Math.max(top - before, LAYER_STEP_MM));
    }
  }
}
