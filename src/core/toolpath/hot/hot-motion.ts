import { Distribution } from '../distribution';
import { LayerSums } from '../layer-sums';
import { AXES, E, F, I, J, R, X, Y, Z } from '../letters';
import type { Limits } from '../limits';
import type { Motion, Times, Ways } from '../motion';
import { roleIndex, ROLES } from '../roles';
import { FILAMENT_BIN, SPEED_BIN, type RoleSpeeds } from '../tally';
import { MOST_LAYERS, MOST_TOOLS } from '../travelled';
import type { WordReader } from '../words';
import { instantiate, type Compiled, type Sum } from './compiled';

/** A word and its bit in what the compiled loop is handed. */
const WORDS = [X, Y, Z, E, F, I, J, R];
const NUMBERS_OF_BIN = 4;
const FILAMENT_COMMANDED = 0;
const FILAMENT_REACHED = 1;
const FIRST_OF_ROLES = 2;

/** Makes moves in the compiled loop: the same as `PlainMotion`, many times faster. */
export class HotMotion implements Motion {
  /** What the loop gives to be called and read; `HotLines` hands it whole pieces of a file. */
  readonly compiled: Compiled;
  readonly #noted = new LayerSums();
  readonly #moved = new LayerSums();
  readonly #tops: number[] = [];
  readonly #notedTops: number[] = [];
  readonly #accelerations = new Set<number>();
  readonly #tools = new Map([[0, { sum: 0, highest: 0 }]]);
  #tool = 0;
  #toolChanges = 0;
  #role = roleIndex('extrude');
  #layer = -1;

  /** @param claim the claimed speed in mm/s, or null */
  constructor(
    readonly limits: Limits,
    claim: number | null,
  ) {
    this.compiled = instantiate({
      layerIsOver: (which, layer, time, extruding, filament) =>
        (which === 0 ? this.#noted : this.#moved).add(layer, time, extruding, filament),
      layerOpened: (top) => void this.#tops.push(top),
      notedTop: (top) => void (this.#notedTops[this.#layer] = top),
      accelerationSeen: (acceleration) => {
        if (this.#accelerations.size < 10_000) this.#accelerations.add(acceleration);
      },
    });
    const { compiled } = this;
    compiled.setClaim(claim ?? Number.NaN);
    compiled.setMoveRoles(roleIndex('travel'), roleIndex('retract'));
    compiled.setRoles(roleIndex('adhesion'), roleIndex('prime'));
    compiled.setNotes(this.#role, this.#layer, 0);
    this.limitsChanged();
  }

  setModes(isAbsolute: boolean, isAbsoluteE: boolean, mmPerUnit: number): void {
    this.compiled.setModes(Number(isAbsolute), Number(isAbsoluteE), mmPerUnit);
  }

  setFactors(feed: number, flow: number): void {
    this.compiled.setFactors(feed, flow);
  }

  limitsChanged(): void {
    const { compiled } = this;
    const { speed, acceleration, move, jerk, junctionDeviation } = this.limits;
    compiled.setSpeeds(speed.x.value, speed.y.value, speed.z.value, speed.e.value);
    compiled.setAccelerations(
      acceleration.x.value,
      acceleration.y.value,
      acceleration.z.value,
      acceleration.e.value,
    );
    compiled.setMoves(move.print.value, move.travel.value, move.retract.value);
    if (jerk) {
      const of = (axis: 'x' | 'y' | 'z' | 'e') => jerk[axis]?.value ?? Infinity;
      compiled.setJerks(of('x'), of('y'), of('z'), of('e'));
    } else compiled.setDeviation(junctionDeviation.value);
  }

  note(role: number, layer: number): void {
    if (role === this.#role && layer === this.#layer) return;
    this.#role = role;
    this.#layer = layer;
    this.compiled.setNotes(role, layer, Number(this.#isTopMissing()));
  }

  /** Whether the present layer has been opened, and nothing has been extruded in it. */
  #isTopMissing(): boolean {
    const layer = this.#layer;
    return layer >= 0 && layer < MOST_LAYERS && this.#notedTops[layer] === undefined;
  }

  takeMoved(): boolean {
    return this.compiled.takeMoved() !== 0;
  }

  line(words: WordReader): void {
    const value = (letter: number) => words.value(letter);
    this.compiled.line(bitsOf(words), value(X), value(Y), value(Z), value(E), value(F));
  }

  arc(words: WordReader, isClockwise: boolean): boolean {
    const value = (letter: number) => words.value(letter);
    const isThere = this.compiled.arc(
      Number(isClockwise),
      bitsOf(words),
      value(X),
      value(Y),
      value(Z),
      value(E),
      value(F),
      value(I),
      value(J),
      value(R),
    );
    return isThere !== 0;
  }

  filament(e: number, speed: number): void {
    this.compiled.moveFilament(e, speed);
  }

  firmwareRetract(isBack: boolean): void {
    this.compiled.bookRetract(Number(isBack));
  }

  home(words: WordReader): void {
    const named = AXES.reduce(
      (bits, letter, at) => bits | (words.present & (1 << (letter - 65)) ? 1 << at : 0),
      0,
    );
    this.compiled.home(named === 0 ? 7 : named);
  }

  shift(words: WordReader): void {
    const value = (letter: number) => words.value(letter);
    this.compiled.shift(bitsOf(words), value(X), value(Y), value(Z), value(E));
  }

  changeTool(tool: number): void {
    this.rest();
    this.#keepTool();
    this.#toolChanges += 1;
    this.#tool = tool;
    const { sum, highest } = this.#tools.get(tool) ?? { sum: 0, highest: 0 };
    this.compiled.setTool(sum, highest);
  }

  #keepTool(): void {
    const { runSum, runHighest } = this.compiled;
    const isKnown = this.#tools.has(this.#tool);
    // A tool that has moved no filament is none that is kept.
    if (!isKnown && (this.#tools.size >= MOST_TOOLS || runSum.value === 0)) return;
    this.#tools.set(this.#tool, { sum: runSum.value, highest: runHighest.value });
  }

  rest(): void {
    this.compiled.rest();
  }

  done(): { times: Times; ways: Ways } {
    const { compiled } = this;
    this.rest();
    compiled.endLayers();
    this.#keepTool();
    return { times: this.#times(), ways: this.#ways() };
  }

  #times(): Times {
    const { compiled } = this;
    const of = (name: Sum) => compiled[name].value;
    return {
      moving_s: of('moving'),
      constant_s: of('constant'),
      byRole: Float64Array.from(ROLES, (_, role) => compiled.timeOfRole(role)),
      noted: this.#noted,
      moved: this.#moved,
      heldBack: {
        command: of('heldCommand'),
        axis_speed: of('heldAxis'),
        acceleration: of('heldAcceleration'),
        corner: of('heldCorner'),
      },
      filamentCommanded: this.#distribution(FILAMENT_COMMANDED, FILAMENT_BIN),
      filamentReached: this.#distribution(FILAMENT_REACHED, FILAMENT_BIN),
      roles: this.#roles(),
      commandedMax: of('commandedMax'),
      reachedMax: of('reachedMax'),
      filamentCommandedMax: of('filamentCommandedMax'),
      filamentReachedMax: of('filamentReachedMax'),
      extrudingXy_s: of('extrudingXy'),
      atCommanded_s: of('atCommanded'),
      atClaim_s: of('atClaim'),
    };
  }

  #roles(): Map<number, RoleSpeeds> {
    const { compiled } = this;
    return new Map(
      Array.from({ length: compiled.roleCount.value }, (_, place): [number, RoleSpeeds] => {
        const role = compiled.roleAt(place);
        const which = FIRST_OF_ROLES + 2 * role;
        const commanded = this.#distribution(which, SPEED_BIN);
        const reached = this.#distribution(which + 1, SPEED_BIN);
        return [role, { commanded, reached, time_s: compiled.planeTimeOfRole(role) }];
      }),
    );
  }

  #distribution(which: number, width: number): Distribution {
    const { compiled } = this;
    const count = compiled.binCount(which);
    const records = new Float64Array(
      compiled.memory.buffer,
      compiled.binsOf(which) >>> 0,
      count === 0 ? 0 : (count + 1) * NUMBERS_OF_BIN,
    );
    return Distribution.of(width, compiled.highestOf(which), records);
  }

  #ways(): Ways {
    const { compiled } = this;
    const of = (name: Sum) => compiled[name].value;
    let filament_mm = 0;
    for (const { highest } of this.#tools.values()) filament_mm += highest;
    return {
      travel_mm: of('travel'),
      extruded_mm: of('extruded'),
      filament_mm,
      retractions: of('retractions'),
      retract_mm: of('retracted'),
      toolChanges: this.#toolChanges,
      purge_mm: of('purged'),
      hasMotion: compiled.hasMotion.value !== 0,
      tops: this.#tops,
      notedTops: this.#notedTops,
      accelerations: this.#accelerations,
      min: [of('minX'), of('minY'), of('minZ')],
      max: [of('maxX'), of('maxY'), of('maxZ')],
    };
  }
}

function bitsOf(words: WordReader): number {
  let bits = 0;
  for (const [at, letter] of WORDS.entries()) if (words.has(letter)) bits |= 1 << at;
  return bits;
}
