import { AXES, E, F, G, I, J, P, R, S, T, X, Y, Z } from './letters';
import { AXIS_NAMES, type Limits } from './limits';
import { FIRST_FEED_MM_S, type Motion } from './motion';
import type { BrokenReason, WordReader } from './words';

const NEEDS_NUMBER = [X, Y, Z, E, F, I, J, R].reduce(
  (bits, letter) => bits | (1 << (letter - 65)),
  0,
);

const INCH = 25.4;
/** Executes the commands of a sliced file and hands the moves to the planner. */
export class Interpreter {
  dwell_s = 0;
  fanMax = 0;
  readonly nozzleTemps: number[] = [];
  readonly bedTemps: number[] = [];
  #isAbsolute = true;
  #isAbsoluteE = true;
  #isEOwn = false;
  #unit = 1;
  #feedFactor = 1;
  #flowFactor = 1;
  #tool = 0;
  #g10: { length: number; feed: number } | null = null;
  constructor(
    readonly limits: Limits,
    readonly motion: Motion,
  ) {}

  /** Executes a line's command. @returns why the line is broken, else null */
  execute(words: WordReader): BrokenReason | null {
    const { code } = words;
    if (words.letter === T) {
      this.#changeTool(code);
      return null;
    }
    return words.letter === G ? this.#executeG(code, words) : this.#executeM(code, words);
  }

  #executeG(code: number, words: WordReader): BrokenReason | null {
    switch (code) {
      case 0:
      case 1:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        this.motion.line(words);
        return null;
      case 2:
      case 3:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        return this.motion.arc(words, code === 2) ? null : 'an impossible arc';
      case 4:
        this.motion.rest();
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
      case 21:
        this.#unit = code === 20 ? INCH : 1;
        this.#tellModes();
        return null;
      case 28:
        this.motion.home(words);
        return null;
      case 90:
      case 91:
        this.#isAbsolute = code === 90;
        if (!this.#isEOwn) this.#isAbsoluteE = code === 90;
        this.#tellModes();
        return null;
      case 92:
        if ((words.empty & NEEDS_NUMBER) !== 0) return 'a word without a number';
        this.motion.shift(words);
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
        this.#tellModes();
        return null;
      case 104:
      case 109:
        if (code === 109) this.motion.rest();
        addDistinct(this.nozzleTemps, words);
        return null;
      case 140:
      case 190:
        if (code === 190) this.motion.rest();
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
        this.motion.limitsChanged();
        return null;
      case 204:
        if (words.has(S)) {
          this.limits.setMove('print', words.value(S));
          this.limits.setMove('travel', words.value(S));
        }
        if (words.has(P)) this.limits.setMove('print', words.value(P));
        if (words.has(T)) this.limits.setMove('travel', words.value(T));
        if (words.has(R)) this.limits.setMove('retract', words.value(R));
        this.motion.limitsChanged();
        return null;
      case 205:
        this.#setCornering(words);
        this.motion.limitsChanged();
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
        this.motion.setFactors(this.#feedFactor, this.#flowFactor);
        return null;
      case 221:
        if (words.has(S) && words.value(S) > 0) this.#flowFactor = words.value(S) / 100;
        this.motion.setFactors(this.#feedFactor, this.#flowFactor);
        return null;
      case 600:
        this.motion.rest();
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
    this.#tool = tool;
    this.motion.changeTool(tool);
  }

  #tellModes(): void {
    this.motion.setModes(this.#isAbsolute, this.#isAbsoluteE, this.#unit);
  }

  #firmwareRetract(isBack: boolean): void {
    this.motion.rest();
    const length = this.#g10?.length ?? 0;
    if (length > 0) {
      const { feed } = this.#g10 ?? { feed: FIRST_FEED_MM_S };
      this.motion.filament(isBack ? -length : length, feed);
    } else this.motion.firmwareRetract(isBack);
  }
}

function addDistinct(temps: number[], words: WordReader): void {
  const value = words.has(S) ? words.value(S) : words.has(R) ? words.value(R) : 0;
  if (value !== 0 && !temps.includes(value) && temps.length < 1000) temps.push(value);
}
