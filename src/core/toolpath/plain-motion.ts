import { arcBetween, eachExtreme, type Arc } from './arc';
import { AXES, E, F, I, J, R, X } from './letters';
import type { Limits } from './limits';
import { FIRST_FEED_MM_S, type Motion, type Times, type Ways } from './motion';
import { BOUND_AXIS, BOUND_COMMAND, BOUND_CORNER, Planner, type Block } from './planner';
import { roleIndex } from './roles';
import { Tally } from './tally';
import { Travelled } from './travelled';
import type { WordReader } from './words';

/** An axis that moves less than this share of the way bounds nothing. */
const NO_SHARE = 1e-12;
const TRAVEL = roleIndex('travel');
const RETRACT = roleIndex('retract');

/** Makes moves of lines and arcs under the limits, hands them to the planner, and adds up what comes of them. */
export class PlainMotion implements Motion {
  readonly #travelled = new Travelled();
  readonly #tally: Tally;
  readonly #planner: Planner;
  readonly #position = new Float64Array(3);
  readonly #offset = new Float64Array(3);
  readonly #target = new Float64Array(3);
  #e = 0;
  #isAbsolute = true;
  #isAbsoluteE = true;
  #unit = 1;
  #feed = FIRST_FEED_MM_S;
  #feedFactor = 1;
  #flowFactor = 1;
  readonly #block: Block = {
    length: 0,
    nominal: 0,
    acceleration: 0,
    bound: BOUND_COMMAND,
    commanded: 0,
    sx: 0,
    sy: 0,
    sz: 0,
    ex: 0,
    ey: 0,
    ez: 0,
    e: 0,
    role: 0,
    layerNoted: -1,
    layerMoved: -1,
    extrudes: false,
    extrudesXy: false,
  };

  /** @param claim the claimed speed in mm/s, or null */
  constructor(
    readonly limits: Limits,
    claim: number | null,
  ) {
    this.#tally = new Tally(claim);
    this.#planner = new Planner(limits, this.#tally.add);
  }

  setModes(isAbsolute: boolean, isAbsoluteE: boolean, mmPerUnit: number): void {
    this.#isAbsolute = isAbsolute;
    this.#isAbsoluteE = isAbsoluteE;
    this.#unit = mmPerUnit;
  }

  setFactors(feed: number, flow: number): void {
    this.#feedFactor = feed;
    this.#flowFactor = flow;
  }

  limitsChanged(): void {
    // They are read where they are kept.
  }

  note(role: number, layer: number): void {
    this.#travelled.role = role;
    this.#travelled.noted = layer;
  }

  takeMoved(): boolean {
    return this.#travelled.takeMoved();
  }

  rest(): void {
    this.#planner.stop();
  }

  done(): { times: Times; ways: Ways } {
    this.rest();
    return { times: this.#tally, ways: this.#travelled };
  }

  changeTool(tool: number): void {
    this.rest();
    this.#travelled.changeTool(tool);
  }

  firmwareRetract(isBack: boolean): void {
    this.#travelled.firmwareRetract(isBack);
  }

  home(words: WordReader): void {
    this.#planner.stop();
    const named = AXES.filter((letter) => (words.present & (1 << (letter - 65))) !== 0);
    for (const letter of named.length > 0 ? named : AXES) {
      this.#position[letter - X] = 0;
      this.#offset[letter - X] = 0;
    }
  }

  shift(words: WordReader): void {
    for (const letter of AXES) {
      if (!words.has(letter)) continue;
      const at = letter - X;
      this.#offset[at] = (this.#position[at] ?? 0) - words.value(letter) * this.#unit;
    }
    if (words.has(E)) this.#e = words.value(E) * this.#unit;
  }

  line(words: WordReader): void {
    const e = this.#aim(words);
    const p = this.#position;
    const t = this.#target;
    const dx = (t[0] ?? 0) - (p[0] ?? 0);
    const dy = (t[1] ?? 0) - (p[1] ?? 0);
    const dz = (t[2] ?? 0) - (p[2] ?? 0);
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
    if (length < 1e-9) {
      if (e !== 0) this.filament(e, this.#feed * this.#feedFactor);
      return;
    }
    const block = this.#block;
    block.sx = block.ex = dx / length;
    block.sy = block.ey = dy / length;
    block.sz = block.ez = dz / length;
    this.#move(length, e, dx !== 0 || dy !== 0, null);
    p[0] = t[0]!;
    p[1] = t[1]!;
    p[2] = t[2]!;
  }

  arc(words: WordReader, isClockwise: boolean): boolean {
    const saved = { feed: this.#feed, e: this.#e };
    const e = this.#aim(words);
    const p = this.#position;
    const t = this.#target;
    const centre = words.has(R)
      ? { r: words.value(R) * this.#unit }
      : {
          i: words.has(I) ? words.value(I) * this.#unit : 0,
          j: words.has(J) ? words.value(J) * this.#unit : 0,
        };
    const arc = arcBetween(p[0] ?? 0, p[1] ?? 0, t[0] ?? 0, t[1] ?? 0, isClockwise, centre);
    if (!arc) {
      this.#feed = saved.feed;
      this.#e = saved.e;
      return false;
    }
    const dz = (t[2] ?? 0) - (p[2] ?? 0);
    const flat = arc.radius * Math.abs(arc.sweep);
    const length = Math.sqrt(flat * flat + dz * dz);
    const turn = Math.sign(arc.sweep) * (flat / length);
    const block = this.#block;
    const to = arc.from + arc.sweep;
    block.sx = -Math.sin(arc.from) * turn;
    block.sy = Math.cos(arc.from) * turn;
    block.ex = -Math.sin(to) * turn;
    block.ey = Math.cos(to) * turn;
    block.sz = block.ez = dz / length;
    this.#move(length, e, true, arc);
    p[0] = t[0]!;
    p[1] = t[1]!;
    p[2] = t[2]!;
    return true;
  }

  /** A move of E alone: at rest before and after it. */
  filament(e: number, speed: number): void {
    const { limits } = this;
    const block = this.#block;
    this.#planner.stop();
    block.length = Math.abs(e);
    block.sx = block.sy = block.sz = block.ex = block.ey = block.ez = 0;
    block.e = Math.sign(e);
    block.commanded = speed;
    block.nominal = Math.min(speed, limits.speed.e.value);
    block.bound = BOUND_COMMAND;
    block.acceleration = Math.min(limits.move.retract.value, limits.acceleration.e.value);
    block.extrudes = block.extrudesXy = false;
    block.role = RETRACT;
    block.layerNoted = this.#travelled.noted;
    block.layerMoved = this.#travelled.layer;
    this.#planner.add(block);
    this.#planner.stop();
    this.#travelled.filament(e);
  }

  /** Takes feed and target from a move's words; returns the length of E, flow factor and all. */
  #aim(words: WordReader): number {
    if (words.has(F) && words.value(F) > 0) this.#feed = (words.value(F) * this.#unit) / 60;
    for (let at = 0; at < 3; at += 1) {
      const letter = X + at;
      const here = this.#position[at] ?? 0;
      if (!words.has(letter)) this.#target[at] = here;
      else {
        const value = words.value(letter) * this.#unit;
        this.#target[at] = this.#isAbsolute ? value + (this.#offset[at] ?? 0) : here + value;
      }
    }
    if (!words.has(E)) return 0;
    const value = words.value(E) * this.#unit;
    const change = this.#isAbsoluteE ? value - this.#e : value;
    this.#e = this.#isAbsoluteE ? value : this.#e + value;
    // Differences of absolute values carry rounding that is no extrusion.
    return Math.abs(change) < 1e-9 ? 0 : change * this.#flowFactor;
  }

  /** Hands a move of X, Y, Z to the planner; direction stands in the block already. */
  #move(length: number, e: number, isXy: boolean, arc: Arc | null): void {
    const { limits } = this;
    const block = this.#block;
    const extrudes = e > 0;
    const perMm = e / length;
    const commanded = this.#feed * this.#feedFactor;
    const { speed, acceleration: ceilings } = limits;
    const shareX = arc ? 1 : Math.abs(block.sx);
    const shareY = arc ? 1 : Math.abs(block.sy);
    const shareZ = Math.abs(block.sz);
    const shareE = Math.abs(perMm);
    let axis = Infinity;
    let acceleration = e !== 0 ? limits.move.print.value : limits.move.travel.value;
    if (shareX > NO_SHARE) {
      axis = speed.x.value / shareX;
      acceleration = Math.min(acceleration, ceilings.x.value / shareX);
    }
    if (shareY > NO_SHARE) {
      axis = Math.min(axis, speed.y.value / shareY);
      acceleration = Math.min(acceleration, ceilings.y.value / shareY);
    }
    if (shareZ > NO_SHARE) {
      axis = Math.min(axis, speed.z.value / shareZ);
      acceleration = Math.min(acceleration, ceilings.z.value / shareZ);
    }
    if (shareE > NO_SHARE) {
      axis = Math.min(axis, speed.e.value / shareE);
      acceleration = Math.min(acceleration, ceilings.e.value / shareE);
    }
    const corner = arc ? Math.sqrt(acceleration * arc.radius) : Infinity;
    block.nominal = Math.min(commanded, axis, corner);
    block.bound =
      corner < commanded && corner <= axis
        ? BOUND_CORNER
        : axis < commanded
          ? BOUND_AXIS
          : BOUND_COMMAND;
    block.length = length;
    block.acceleration = acceleration;
    block.commanded = commanded;
    block.e = perMm;
    block.extrudes = extrudes;
    block.extrudesXy = extrudes && isXy;
    block.role = extrudes ? this.#travelled.role : TRAVEL;
    this.#travelled.move(this.#position, this.#target, length, e, isXy, limits.move.print.value);
    if (arc && extrudes) {
      const z = Math.max(this.#position[2] ?? 0, this.#target[2] ?? 0);
      eachExtreme(arc, (x, y) => this.#travelled.widen(x, y, z));
    }
    block.layerNoted = this.#travelled.noted;
    block.layerMoved = this.#travelled.layer;
    this.#planner.add(block);
  }
}
