import { plainName } from '../model/study';
import type { Role } from './roles';

/** What a comment of a sliced file says. */
export type Meaning =
  | 'role'
  | 'layer'
  | 'layer-z'
  | 'layer-height'
  | 'width'
  | 'time'
  | 'filament-mm'
  | 'filament-m'
  | 'filament-g'
  | 'filament-cm3'
  | 'filament'
  | 'layer-count'
  | 'object';

/** The table of what comments mean: data, which users can extend with lines of their own. */
export interface AnnotationTable {
  /** By the comment's name before `:` or `=` (or all of it), letters, digits and brackets only. */
  names: Readonly<Record<string, Meaning>>;
  /** Roles by their names, without case, blanks, `-` and `_`. */
  roles: Readonly<Record<string, Role>>;
}

export const ANNOTATIONS: AnnotationTable = {
  names: {
    type: 'role',
    feature: 'role',
    role: 'role',
    linetype: 'role',
    turning: 'role',
    laying: 'role',
    layer: 'layer',
    layerchange: 'layer',
    changelayer: 'layer',
    newlayer: 'layer',
    beginlayer: 'layer',
    turn: 'layer',
    strake: 'layer',
    z: 'layer-z',
    layerz: 'layer-z',
    zheight: 'layer-z',
    turnz: 'layer-z',
    strakez: 'layer-z',
    height: 'layer-height',
    layerheight: 'layer-height',
    turnheight: 'layer-height',
    width: 'width',
    linewidth: 'width',
    time: 'time',
    printtime: 'time',
    estimatedtime: 'time',
    estimatedprinttime: 'time',
    estimatedprintingtime: 'time',
    totaltime: 'time',
    totalestimatedtime: 'time',
    lathetime: 'time',
    timeafloat: 'time',
    filamentused: 'filament',
    filamentlength: 'filament',
    linepaidout: 'filament',
    filamentusedmm: 'filament-mm',
    filamentlengthmm: 'filament-mm',
    totalfilamentlengthmm: 'filament-mm',
    filamentusedm: 'filament-m',
    cordm: 'filament-m',
    filamentusedg: 'filament-g',
    cordg: 'filament-g',
    totalfilamentusedg: 'filament-g',
    filamentweight: 'filament-g',
    filamentweightg: 'filament-g',
    filamentusedcm3: 'filament-cm3',
    layercount: 'layer-count',
    totallayers: 'layer-count',
    totallayercount: 'layer-count',
    totallayernumber: 'layer-count',
    numberoflayers: 'layer-count',
    turns: 'layer-count',
    strakes: 'layer-count',
    object: 'object',
    printingobject: 'object',
    mesh: 'object',
  },
  roles: {
    outerwall: 'outer-wall',
    wallouter: 'outer-wall',
    rind: 'outer-wall',
    hull: 'outer-wall',
    externalperimeter: 'outer-wall',
    outerperimeter: 'outer-wall',
    innerwall: 'inner-wall',
    wallinner: 'inner-wall',
    innerrind: 'inner-wall',
    innerhull: 'inner-wall',
    perimeter: 'inner-wall',
    internalperimeter: 'inner-wall',
    innerperimeter: 'inner-wall',
    wall: 'inner-wall',
    walloverair: 'wall-over-air',
    overhangwall: 'wall-over-air',
    overhangperimeter: 'wall-over-air',
    overhang: 'wall-over-air',
    top: 'top',
    topsurface: 'top',
    topsolidinfill: 'top',
    topskin: 'top',
    lid: 'top',
    deck: 'top',
    skin: 'top',
    bottom: 'bottom',
    bottomsurface: 'bottom',
    bottomskin: 'bottom',
    floor: 'bottom',
    keel: 'bottom',
    bottomsolidinfill: 'bottom',
    solid: 'solid',
    solidinfill: 'solid',
    ballast: 'solid',
    internalsolidinfill: 'solid',
    sparse: 'infill',
    sparseinfill: 'infill',
    core: 'infill',
    lattice: 'infill',
    internalinfill: 'infill',
    infill: 'infill',
    fill: 'infill',
    bridge: 'bridge',
    bridgeinfill: 'bridge',
    internalbridge: 'bridge',
    thinfill: 'thin-fill',
    gapfill: 'thin-fill',
    gapinfill: 'thin-fill',
    thinwall: 'thin-fill',
    ironing: 'ironing',
    support: 'support',
    supportmaterial: 'support',
    supportinfill: 'support',
    supportinterface: 'support-interface',
    supportmaterialinterface: 'support-interface',
    adhesion: 'adhesion',
    skirt: 'adhesion',
    hem: 'adhesion',
    fender: 'adhesion',
    brim: 'adhesion',
    raft: 'adhesion',
    skirtbrim: 'adhesion',
    prime: 'prime',
    primetower: 'prime',
    wipetower: 'prime',
    purge: 'prime',
    primeline: 'prime',
  },
};

/** The built-in table with a person's own lines on top. */
export const extendAnnotations = (own: Partial<AnnotationTable>): AnnotationTable => ({
  names: { ...ANNOTATIONS.names, ...own.names },
  roles: { ...ANNOTATIONS.roles, ...own.roles },
});

/** A comment that says something. */
export type Annotation =
  | { meaning: Meaning; value: string }
  | { meaning: 'setting'; key: string; value: string }
  | { meaning: 'setting-and'; means: Meaning; key: string; value: string };

/** Reads a comment (without its semicolon); null where it says nothing that is known. */
export function readAnnotation(text: string, table: AnnotationTable): Annotation | null {
  const equals = /^\s*([A-Za-z][^=:;]{0,80}?)\s*=\s*(.*)$/.exec(text);
  const named = equals ?? /^\s*([A-Za-z][^=:;]{0,80}?)\s*(?::\s*(.*))?$/.exec(text);
  if (!named) return null;
  const key = named[1] ?? '';
  const value = (named[2] ?? '').trim();
  const bare = plainName(key.replace(/\([^)]*\)/g, ''));
  const meaning = Object.hasOwn(table.names, bare) ? table.names[bare] : undefined;
  if (equals) {
    // `layer_height = 0.2` is a setting; `; filament used [mm] = 12` is what the file says of itself.
    const isSelf =
      meaning === 'time' || meaning === 'layer-count' || meaning?.startsWith('filament') === true;
    return meaning && isSelf
      ? { meaning: 'setting-and', means: meaning, key, value }
      : { meaning: 'setting', key, value };
  }
  return meaning ? { meaning, value } : null;
}

/** The role that an annotated name stands for; `other` for a name that is not known. */
export const roleOf = (name: string, table: AnnotationTable): Role => {
  const plain = plainName(name);
  return Object.hasOwn(table.roles, plain) ? (table.roles[plain] ?? 'other') : 'other';
};

/** Seconds from `1d 2h 3m 4s`, `1:02:03` or a plain number of seconds; null for anything else. */
export function readTime(text: string): number | null {
  const plain = text.trim();
  if (/^\d+(?:\.\d+)?\s*s?$/.test(plain)) return Number.parseFloat(plain);
  const clock = /^(?:(\d+):)?(\d+):(\d{2})$/.exec(plain);
  if (clock) {
    return Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3]);
  }
  const parts =
    /^(?:(\d+)\s*d\w*)?\s*(?:(\d+)\s*h\w*)?\s*(?:(\d+)\s*m\w*)?\s*(?:(\d+(?:\.\d+)?)\s*s\w*)?$/.exec(
      plain,
    );
  if (!parts || parts.slice(1).every((part) => part === undefined)) return null;
  const [days, hours, minutes, seconds] = parts.slice(1).map((part) => Number(part ?? 0));
  return (days ?? 0) * 86_400 + (hours ?? 0) * 3600 + (minutes ?? 0) * 60 + (seconds ?? 0);
}

/** Filament in mm from `1.23m`, `1230 mm` or a plain number of mm; null for anything else. */
export function readFilamentLength(text: string): number | null {
  const parts = /^(\d+(?:\.\d+)?)\s*(mm|cm|m)?(?:[,\s]|$)/.exec(text.trim());
  if (!parts) return null;
  const scale = parts[2] === 'm' ? 1000 : parts[2] === 'cm' ? 10 : 1;
  return Number(parts[1]) * scale;
}
