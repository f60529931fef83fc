import {
  readAnnotation,
  readFilamentLength,
  readTime,
  roleOf,
  type Annotation,
  type AnnotationTable,
  type Meaning,
} from './annotations';
import { roleIndex } from './roles';
import { normaliseSetting, plainText, type SettingValue } from '../model/study';

/** What the file says of itself. */
export interface SelfReport {
  time_s: number | null;
  filament_mm: number | null;
  filament_g: number | null;
  layer_count: number | null;
}

/** The most settings that are kept. */
const MOST_SETTINGS = 20_000;
const EXTRUDE = roleIndex('extrude');
const PRIME = roleIndex('prime');

/** Keeps what the comments of a file say: role, layers, settings, what it says of itself. */
export class Notes {
  role = EXTRUDE;
  /** Layers opened by the file's own word; -1 before the first. */
  layer = -1;
  /** Height of each such layer where it is stated. */
  readonly heights: (number | null)[] = [];
  readonly settings: Record<string, SettingValue> = {};
  settingsRawCount = 0;
  readonly self: SelfReport = {
    time_s: null,
    filament_mm: null,
    filament_g: null,
    layer_count: null,
  };
  hasPrime = false;
  /** Whether something moved since the last layer was opened: two notes in a row open one. */
  movedSinceLayer = true;
  readonly #roleCache = new Map<string, number>();
  #settingsKept = 0;

  constructor(readonly table: AnnotationTable) {}

  /** Reads a comment, given without its semicolon. */
  read(bytes: Uint8Array, start: number, end: number): void {
    const text = plainText(latin1(bytes, start, Math.min(end, start + 2000)));
    const note = readAnnotation(text, this.table);
    if (note) this.#take(note);
  }

  #take(note: Annotation): void {
    if (note.meaning === 'setting' || note.meaning === 'setting-and') {
      this.settingsRawCount += 1;
      if (note.meaning === 'setting-and') this.#means(note.means, note.value);
      else if (this.#settingsKept < MOST_SETTINGS) {
        const [key, value] = normaliseSetting(note.key, note.value);
        if (!Object.hasOwn(this.settings, key)) this.#settingsKept += 1;
        Object.defineProperty(this.settings, key, {
          value,
          enumerable: true,
          writable: true,
          configurable: true,
        });
      }
      return;
    }
    this.#means(note.meaning, note.value);
  }

  #means(meaning: Meaning, value: string): void {
    switch (meaning) {
      case 'role': {
        let role = this.#roleCache.get(value);
        if (role === undefined) {
          role = roleIndex(roleOf(value, this.table));
          if (this.#roleCache.size < 1000) this.#roleCache.set(value, role);
        }
        this.role = role;
        if (role === PRIME) this.hasPrime = true;
        return;
      }
      case 'layer':
        if (!this.movedSinceLayer) return;
        this.layer += 1;
        this.movedSinceLayer = false;
        return;
      case 'layer-height': {
        const height = Number.parseFloat(value);
        if (this.layer >= 0 && height > 0) this.heights[this.layer] = height;
        return;
      }
      case 'time':
        this.self.time_s ??= readTime(value);
        return;
      case 'filament':
      case 'filament-mm':
        this.self.filament_mm ??= readFilamentLength(value);
        return;
      case 'filament-m': {
        const metres = Number.parseFloat(value);
        if (Number.isFinite(metres)) this.self.filament_mm ??= metres * 1000;
        return;
      }
      case 'filament-g': {
        const grams = Number.parseFloat(value);
        if (Number.isFinite(grams)) this.self.filament_g ??= grams;
        return;
      }
      case 'layer-count': {
        const count = Number.parseInt(value, 10);
        if (Number.isFinite(count)) this.self.layer_count ??= count;
        return;
      }
      case 'layer-z':
      case 'width':
      case 'filament-cm3':
      case 'object':
        return;
    }
  }
}

function latin1(bytes: Uint8Array, start: number, end: number): string {
  let text = '';
  for (let at = start; at < end; at += 1) text += String.fromCharCode(bytes[at] ?? 32);
  return text;
}
