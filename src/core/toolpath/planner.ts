import type { Limits } from './limits';

/** What bound a block's nominal speed. */
export const BOUND_COMMAND = 0;
export const BOUND_AXIS = 1;
export const BOUND_CORNER = 2;

/** A move as it is planned: one object that is filled anew for every move. */
export interface Block {
  /** Length of the move (of E, where only E moves), mm. */
  length: number;
  /** Nominal speed and acceleration along it, mm/s and mm/s². */
  nominal: number;
  acceleration: number;
  /** What bound the nominal speed. */
  bound: number;
  /** Speed asked for, before any limit, mm/s. */
  commanded: number;
  /** Unit vector x, y, z at the start and at the end; E per mm. */
  sx: number;
  sy: number;
  sz: number;
  ex: number;
  ey: number;
  ez: number;
  e: number;
  role: number;
  /** Layer by the file's own word (-1: none yet), and by motion alone. */
  layerNoted: number;
  layerMoved: number;
  /** Whether it extrudes while it moves, and whether it moves in the plane then. */
  extrudes: boolean;
  extrudesXy: boolean;
}

/** A block whose speeds are final. */
export interface Planned {
  length: number;
  nominal: number;
  acceleration: number;
  bound: number;
  commanded: number;
  e: number;
  role: number;
  layerNoted: number;
  layerMoved: number;
  extrudes: boolean;
  extrudesXy: boolean;
  /** Speeds at its start and end, mm/s. */
  entry: number;
  exit: number;
  /** Whether these are held by the corner's own limit. */
  entryHeld: boolean;
  exitHeld: boolean;
}

const FIELDS = 8;
const LENGTH = 0;
const NOMINAL2 = 1;
const ACCELERATION = 2;
const COMMANDED = 3;
const PER_MM = 4;
const CAP2 = 5;
const BACK_STOP = 6;
const BACK_FREE = 7;

const CORNER_HELD = 1;
const EXTRUDES = 2;
const EXTRUDES_XY = 4;
const BOUND_SHIFT = 4;

/**
 * Look-ahead without a limit, in bounded memory. Blocks wait in a queue; when it is full the
 * backward pass is run over it twice, ending once at rest and once at nominal speed: every block
 * before the last joint where both agree is final, whatever comes.
 */
export class Planner {
  #capacity = 4096;
  #data = new Float64Array(this.#capacity * FIELDS);
  #flags = new Int32Array(this.#capacity);
  #roles = new Uint8Array(this.#capacity);
  #noted = new Int32Array(this.#capacity);
  #moved = new Int32Array(this.#capacity);
  #count = 0;
  /** Squared speed with which the first waiting block is entered, and whether its corner holds it. */
  #entry2 = 0;
  #entryHeld = false;
  /** The end of the last block, for the corner with the next. */
  readonly #last = { ex: 0, ey: 0, ez: 0, e: 0, length: 0, acceleration: 0, nominal: 0 };
  readonly #planned: Planned = {
    length: 0,
    nominal: 0,
    acceleration: 0,
    bound: 0,
    commanded: 0,
    e: 0,
    role: 0,
    layerNoted: 0,
    layerMoved: 0,
    extrudes: false,
    extrudesXy: false,
    entry: 0,
    exit: 0,
    entryHeld: false,
    exitHeld: false,
  };

  constructor(
    readonly limits: Limits,
    readonly onPlanned: (planned: Planned) => void,
  ) {}

  /** Adds a move that follows the last without a stop. */
  add(block: Block): void {
    if (this.#count === this.#capacity) this.#relieve();
    const at = this.#count;
    const base = at * FIELDS;
    const data = this.#data;
    const nominal2 = block.nominal * block.nominal;
    let cap2 = 0;
    let flags = (block.extrudes ? EXTRUDES : 0) | (block.extrudesXy ? EXTRUDES_XY : 0);
    if (at > 0) {
      const last = this.#last;
      const slower2 = Math.min(last.nominal * last.nominal, nominal2);
      const corner2 = this.#corner2(block);
      cap2 = Math.min(slower2, corner2);
      if (corner2 < slower2) flags |= CORNER_HELD;
    }
    data[base + LENGTH] = block.length;
    data[base + NOMINAL2] = nominal2;
    data[base + ACCELERATION] = block.acceleration;
    data[base + COMMANDED] = block.commanded;
    data[base + PER_MM] = block.e;
    data[base + CAP2] = cap2;
    this.#flags[at] = flags | (block.bound << BOUND_SHIFT);
    this.#roles[at] = block.role;
    this.#noted[at] = block.layerNoted;
    this.#moved[at] = block.layerMoved;
    this.#count = at + 1;
    const last = this.#last;
    last.ex = block.ex;
    last.ey = block.ey;
    last.ez = block.ez;
    last.e = block.e;
    last.length = block.length;
    last.acceleration = block.acceleration;
    last.nominal = block.nominal;
  }

  /** Comes to rest after what was added. */
  stop(): void {
    if (this.#count > 0) {
      this.#backward(BACK_STOP, 0);
      this.#forward(this.#count, BACK_STOP);
    }
    this.#count = 0;
    this.#entry2 = 0;
    this.#entryHeld = false;
  }

  /** Squared speed that the corner between the last block and this one allows. */
  #corner2(block: Block): number {
    const last = this.#last;
    const cosine = last.ex * block.sx + last.ey * block.sy + last.ez * block.sz;
    const acceleration = Math.min(last.acceleration, block.acceleration);
    // θ is the angle between the way back and the way on: cos θ = −u₁·u₂.
    const sinHalf = Math.sqrt(Math.max(0, (1 + cosine) / 2));
    const cosHalf = Math.sqrt(Math.max(0, (1 - cosine) / 2));
    const isStraight = cosHalf < 1e-9;
    let limit = Infinity;
    const jerk = this.limits.jerk;
    if (jerk) {
      limit = jerkSpeed(jerk.x?.value, block.sx - last.ex, limit);
      limit = jerkSpeed(jerk.y?.value, block.sy - last.ey, limit);
      limit = jerkSpeed(jerk.z?.value, block.sz - last.ez, limit);
      limit = jerkSpeed(jerk.e?.value, block.e - last.e, limit);
      limit *= limit;
    } else if (!isStraight) {
      limit = (acceleration * this.limits.junctionDeviation.value * sinHalf) / (1 - sinHalf);
    }
    if (isStraight) return limit;
    const shorter = Math.min(last.length, block.length);
    return Math.min(limit, ((acceleration * shorter) / 2) * (sinHalf / cosHalf));
  }

  /** The fastest squared speeds at the joints from which the end can be met. */
  #backward(field: number, end2: number): void {
    const data = this.#data;
    let next2 = end2;
    for (let base = (this.#count - 1) * FIELDS; base >= FIELDS; base -= FIELDS) {
      const reach = next2 + 2 * (data[base + ACCELERATION] ?? 0) * (data[base + LENGTH] ?? 0);
      const cap2 = data[base + CAP2] ?? 0;
      next2 = reach < cap2 ? reach : cap2;
      data[base + field] = next2;
    }
  }

  /** Makes the first `count` blocks final and tells them. */
  #forward(count: number, field: number): void {
    const data = this.#data;
    const planned = this.#planned;
    const total = this.#count;
    let entry2 = this.#entry2;
    let entryHeld = this.#entryHeld;
    for (let at = 0; at < count; at += 1) {
      const base = at * FIELDS;
      const length = data[base + LENGTH] ?? 0;
      const acceleration = data[base + ACCELERATION] ?? 0;
      const reach = entry2 + 2 * acceleration * length;
      let exit2 = 0;
      let exitHeld = false;
      if (at + 1 < total) {
        const next = base + FIELDS;
        const back2 = data[next + field] ?? 0;
        exit2 = reach < back2 ? reach : back2;
        exitHeld =
          ((this.#flags[at + 1] ?? 0) & CORNER_HELD) !== 0 &&
          exit2 >= (data[next + CAP2] ?? 0) * (1 - 1e-12);
      }
      const flags = this.#flags[at] ?? 0;
      planned.length = length;
      planned.nominal = Math.sqrt(data[base + NOMINAL2] ?? 0);
      planned.acceleration = acceleration;
      planned.bound = flags >> BOUND_SHIFT;
      planned.commanded = data[base + COMMANDED] ?? 0;
      planned.e = data[base + PER_MM] ?? 0;
      planned.role = this.#roles[at] ?? 0;
      planned.layerNoted = this.#noted[at] ?? 0;
      planned.layerMoved = this.#moved[at] ?? 0;
      planned.extrudes = (flags & EXTRUDES) !== 0;
      planned.extrudesXy = (flags & EXTRUDES_XY) !== 0;
      planned.entry = Math.sqrt(entry2);
      planned.exit = Math.sqrt(exit2);
      planned.entryHeld = entryHeld;
      planned.exitHeld = exitHeld;
      this.onPlanned(planned);
      entry2 = exit2;
      entryHeld = exitHeld;
    }
    this.#entry2 = entry2;
    this.#entryHeld = entryHeld;
  }

  /** Makes room: tells the blocks that are final already, or lets the queue grow. */
  #relieve(): void {
    const data = this.#data;
    const count = this.#count;
    this.#backward(BACK_STOP, 0);
    this.#backward(BACK_FREE, data[(count - 1) * FIELDS + NOMINAL2] ?? 0);
    let joint = count - 1;
    while (joint > 0 && data[joint * FIELDS + BACK_STOP] !== data[joint * FIELDS + BACK_FREE]) {
      joint -= 1;
    }
    if (joint > 0) {
      this.#forward(joint, BACK_STOP);
      data.copyWithin(0, joint * FIELDS, count * FIELDS);
      this.#flags.copyWithin(0, joint, count);
      this.#roles.copyWithin(0, joint, count);
      this.#noted.copyWithin(0, joint, count);
      this.#moved.copyWithin(0, joint, count);
      this.#count = count - joint;
    }
    if (this.#count > this.#capacity / 2) this.#grow();
  }

  #grow(): void {
    this.#capacity *= 2;
    const data = new Float64Array(this.#capacity * FIELDS);
    data.set(this.#data);
    this.#data = data;
    const widen = (from: Int32Array) => {
      const to = new Int32Array(this.#capacity);
      to.set(from);
      return to;
    };
    this.#flags = widen(this.#flags);
    this.#noted = widen(this.#noted);
    this.#moved = widen(this.#moved);
    const roles = new Uint8Array(this.#capacity);
    roles.set(this.#roles);
    this.#roles = roles;
  }
}

/** The lesser of a speed and what an axis' jerk allows for a change of direction. */
function jerkSpeed(jerk: number | undefined, change: number, speed: number): number {
  if (jerk === undefined) return speed;
  const size = Math.abs(change);
  return size < 1e-12 ? speed : Math.min(speed, jerk / size);
}
