import { arcBetween, eachExtreme, type Arc } from './arc';
import { AXIS_NAMES, type Limits } from './limits';
import type { Notes } from './notes';
import { BOUND_AXIS, BOUND_COMMAND, BOUND_CORNER, type Block, type Planner } from './planner';
import { roleIndex } from './roles';
import { Travelled } from './travelled';
import type { BrokenReason, WordReader } from './words';

const [E, F, I, J, P, R, S, T, X, Y, Z] = [69, 70, 73, 74, 80, 82, 83, 84, 88, 89, 90] as const;
const AXES = [X, Y, Z] as const;
const NEEDS_NUMBER = [X, Y, Z, E, F, I, J, R].reduce(
  (bits, letter) => bits | (1 << (letter - 65)),
  0,
);

const INCH = 25.4;
/** An axis that moves less than this share of the way bounds nothing. */
const NO_SHARE = 1e-12;
const FIRST_FEED_MM_S = 25;
const TRAVEL = roleIndex('travel');
const RETRACT = roleIndex('retract');

/** Executes the commands of a sliced file and hands the moves to the planner. */
export class Interpreter {
  /** What the moves amount to besides their time. */
  readonly travelled: Travelled;
  dwell_s = 0;
  fanMax = 0;
  readonly nozzleTemps: number[] = [];
  readonly bedTemps: number[] = [];
  readonly #position = new Float64Array(3);
  readonly #offset = new Float64Array(3);
  readonly #target = new Float64Array(3);
  #e = 0;
  #isAbsolute = true;
  #isAbsoluteE = true;
  #isEOwn = false;
  #unit = 1;
  #feed = FIRST_FEED_MM_S;
  #feedFactor = 1;
  #flowFactor = 1;
  #tool = 0;
  #g10: { length: number; feed: number } | null = null;
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

  constructor(
    readonly limits: Limits,
    readonly planner: Planner,
    readonly notes: Notes,
  ) {
    this.travelled = new Travelled(notes);
  }

  /** Executes a line's command. @returns why the line is broken, else null */
  execute(words: WordReader): BrokenReason | null {
    const { code } = words;
    if (words.letter === T) {
      this.#changeTool(code);
      return null;
    }
    return words.letter === 71 ? this.#executeG(code, words) : this.#executeM(code, words);
  }

  #executeG(code: number, words: WordReader): BrokenReason | null {
    switch (code) {
      case 0:
      case 1:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        this.#line(words);
        return null;
      case 2:
      case 3:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        return this.#arc(words, code === 2) ? null : 'an impossible arc';
      case 4:
        this.planner.stop();
        if (words.has(S)) this.dwell_s += Math.max(0, words.value(S));
        else if (words.has(P)) this.dwell_s += Math.max(0, words.value(P) / 1000);
        return null;
      case 10:
      case 11:
        // With P or L the command sets tool data, which does not move anything.
        if ((words.present & ((1 << (P - 65)) | (1 << (76 - 65)))) === 0) {
          this.#firmwareRetract(code === 10);
        }
        return null;
      case 20:
        this.#unit = INCH;
        return null;
      case 21:
        this.#unit = 1;
        return null;
      case 28:
        this.#home(words);
        return null;
      case 90:
      case 91:
        this.#isAbsolute = code === 90;
        if (!this.#isEOwn) this.#isAbsoluteE = code === 90;
        return null;
      case 92:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        this.#shift(words);
        return null;
      default:
        return null;
    }
  }

  #executeM(code: number, words: WordReader): null {
    switch (code) {
      case 82:
      case 83:
        this.#isAbsoluteE = code === 82;
        this.#isEOwn = true;
        return null;
      case 104:
      case 109:
        if (code === 109) this.planner.stop();
        addDistinct(this.nozzleTemps, words);
        return null;
      case 140:
      case 190:
        if (code === 190) this.planner.stop();
        addDistinct(this.bedTemps, words);
        return null;
      case 106:
        this.fanMax = Math.max(
          this.fanMax,
          words.has(S) ? Math.min(1, Math.max(0, words.value(S) / 255)) : 1,
        );
        return null;
      case 201:
      case 203:
        AXIS_NAMES.forEach((axis, at) => {
          const letter = at === 3 ? E : (AXES[at] ?? X);
          if (!words.has(letter)) return;
          if (code === 201) this.limits.setAcceleration(axis, words.value(letter));
          else this.limits.setSpeed(axis, words.value(letter));
        });
        return null;
      case 204:
        if (words.has(S)) {
          this.limits.setMove('print', words.value(S));
          this.limits.setMove('travel', words.value(S));
        }
        if (words.has(P)) this.limits.setMove('print', words.value(P));
        if (words.has(T)) this.limits.setMove('travel', words.value(T));
        if (words.has(R)) this.limits.setMove('retract', words.value(R));
        return null;
      case 205:
        this.#setCornering(words);
        return null;
      case 207: {
        const length = words.has(S)
          ? Math.max(0, words.value(S)) * this.#unit
          : (this.#g10?.length ?? 0);
        const feed = words.has(F)
          ? (words.value(F) * this.#unit) / 60
          : (this.#g10?.feed ?? FIRST_FEED_MM_S);
        this.#g10 = { length, feed: feed > 0 ? feed : FIRST_FEED_MM_S };
        return null;
      }
      case 220:
        if (words.has(S) && words.value(S) > 0) this.#feedFactor = words.value(S) / 100;
        return null;
      case 221:
        if (words.has(S) && words.value(S) > 0) this.#flowFactor = words.value(S) / 100;
        return null;
      case 600:
        this.planner.stop();
        return null;
      default:
        return null;
    }
  }

  #setCornering(words: WordReader): void {
    let isJerk = false;
    AXIS_NAMES.forEach((axis, at) => {
      const letter = at === 3 ? E : (AXES[at] ?? X);
      if (!words.has(letter) || !(words.value(letter) > 0)) return;
      this.limits.setJerk(axis, words.value(letter));
      isJerk = true;
    });
    if (!isJerk && words.has(J) && words.value(J) > 0) {
      this.limits.setJunctionDeviation(words.value(J));
    }
  }

  #changeTool(tool: number): void {
    if (tool === this.#tool) return;
    this.planner.stop();
    this.#tool = tool;
    this.travelled.changeTool(tool);
  }

  #home(words: WordReader): void {
    this.planner.stop();
    const named = AXES.filter((letter) => (words.present & (1 << (letter - 65))) !== 0);
    for (const letter of named.length > 0 ? named : AXES) {
      this.#position[letter - X] = 0;
      this.#offset[letter - X] = 0;
    }
  }

  #shift(words: WordReader): void {
    for (const letter of AXES) {
      if (!words.has(letter)) continue;
      const at = letter - X;
      this.#offset[at] = (this.#position[at] ?? 0) - words.value(letter) * this.#unit;
    }
    if (words.has(E)) this.#e = words.value(E) * this.#unit;
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

  #line(words: WordReader): void {
    const e = this.#aim(words);
    const p = this.#position;
    const t = this.#target;
    const dx = (t[0] ?? 0) - (p[0] ?? 0);
    const dy = (t[1] ?? 0) - (p[1] ?? 0);
    const dz = (t[2] ?? 0) - (p[2] ?? 0);
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz);
    if (length < 1e-9) {
      if (e !== 0) this.#filamentAlone(e, this.#feed * this.#feedFactor);
      return;
    }
    const block = this.#block;
    block.sx = block.ex = dx / length;
    block.sy = block.ey = dy / length;
    block.sz = block.ez = dz / length;
    this.#move(length, e, dx !== 0 || dy !== 0, null);
    p[0] = t[0] as number;
    p[1] = t[1] as number;
    p[2] = t[2] as number;
  }

  #arc(words: WordReader, isClockwise: boolean): boolean {
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
    p[0] = t[0] as number;
    p[1] = t[1] as number;
    p[2] = t[2] as number;
    return true;
  }

  /** Hands a move of X, Y, Z to the planner; direction stands in the block already. */
  #move(length: number, e: number, isXy: boolean, arc: Arc | null): void {
    const { limits, notes } = this;
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
    block.role = extrudes ? notes.role : TRAVEL;
    this.travelled.move(this.#position, this.#target, length, e, isXy, limits.move.print.value);
    if (arc && extrudes) {
      const z = Math.max(this.#position[2] ?? 0, this.#target[2] ?? 0);
      eachExtreme(arc, (x, y) => this.travelled.widen(x, y, z));
    }
    block.layerNoted = notes.layer;
    block.layerMoved = this.travelled.layer;
    this.planner.add(block);
  }

  /** A move of E alone: at rest before and after it. */
  #filamentAlone(e: number, speed: number): void {
    const { limits, notes } = this;
    const block = this.#block;
    this.planner.stop();
    block.length = Math.abs(e);
    block.sx = block.sy = block.sz = block.ex = block.ey = block.ez = 0;
    block.e = Math.sign(e);
    block.commanded = speed;
    block.nominal = Math.min(speed, limits.speed.e.value);
    block.bound = BOUND_COMMAND;
    block.acceleration = Math.min(limits.move.retract.value, limits.acceleration.e.value);
    block.extrudes = block.extrudesXy = false;
    block.role = RETRACT;
    block.layerNoted = notes.layer;
    block.layerMoved = this.travelled.layer;
    this.planner.add(block);
    this.planner.stop();
    this.travelled.filament(e);
  }

  #firmwareRetract(isBack: boolean): void {
    this.planner.stop();
    const length = this.#g10?.length ?? 0;
    if (length > 0) {
      const { feed } = this.#g10 ?? { feed: FIRST_FEED_MM_S };
      this.#filamentAlone(isBack ? -length : length, feed);
    } else this.travelled.firmwareRetract(isBack);
  }
}

function addDistinct(temps: number[], words: WordReader): void {
  const value = words.has(S) ? words.value(S) : words.has(R) ? words.value(R) : 0;
  if (value !== 0 && !temps.includes(value) && temps.length < 1000) temps.push(value);
}
