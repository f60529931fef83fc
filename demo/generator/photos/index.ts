import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  FIGURE_OF,
  project,
  register,
  type MeasureValue,
  type PhotoMeasure,
  type ViewBox,
} from '../../../src/core/measures/image';
import { TABLES, type Row, type Tables } from '../../../src/core/model/study';
import { measureOnPhoto } from '../../../src/files/photos/measure';
import { drawsFrom, round, type Draws } from '../random';
import { photograph, type Photo, type Pose, type Scene } from './camera';
import { firstLayer, flange, onCard, spires, wall, type Light, type Looks } from './scenes';

const SEED = 2711;
export const PLAIN: Looks = {
  ringing: null,
  ringingY: null,
  lines: 0.07,
  bands: 0.006,
  texture: 0,
  strings: 0,
  gaps: 0,
};
/** How far off a hand sets a mark, pixels. */
const HAND_PX = 0.6;

/** By contender; a wave's length is its speed by its frequency: A swings at 63 Hz, its bed at 41, D at 49 and 57. */
const LOOKS: Readonly<Record<string, Looks>> = {
  'A-stock': {
    ...PLAIN,
    ringing: { wavelength: 95 / 63, decay: 4.2, contrast: 0.075 },
    ringingY: { wavelength: 95 / 41, decay: 5.5, contrast: 0.12 },
    strings: 7,
  },
  'A-tuned': {
    ...PLAIN,
    ringing: { wavelength: 75 / 63, decay: 3.6, contrast: 0.035 },
    ringingY: { wavelength: 75 / 41, decay: 5, contrast: 0.08 },
    strings: 2,
  },
  'B-stock': { ...PLAIN, strings: 2 },
  'B-tuned': { ...PLAIN, lines: 0.06 },
  'C-stock': { ...PLAIN, texture: 0.05, strings: 16 },
  'D-stock': {
    ...PLAIN,
    ringing: { wavelength: 105 / 49, decay: 5, contrast: 0.06 },
    ringingY: { wavelength: 105 / 57, decay: 4.4, contrast: 0.045 },
    bands: 0.03,
    strings: 8,
    gaps: 0.035,
  },
};

type Bench = Pick<Tables, 'prints' | 'specimens' | 'profile_settings' | 'contenders'>;

/** Photos of a study: their rows, and the pictures themselves. */
export interface DemoPhotos {
  tables: Pick<Tables, 'photos' | 'photo_marks' | 'photo_measures' | 'photo_values'>;
  files: ReadonlyMap<string, Uint8Array>;
}

interface Shot {
  artefact: string;
  view: NonNullable<Row<'photos'>['view']>;
  light: Light;
  /** The rectangle that the part fills on its view, and what is measured there. */
  box: ViewBox;
  measures: readonly (readonly [PhotoMeasure, ViewBox, feature?: string])[];
  scene: (draws: Draws, looks: Looks, code: string) => Scene;
  px_per_mm: number;
}

const WALL_BOX = { x: -60, y: 0, w: 120, h: 60 };
/** Behind the corner, under the letters. */
const BEHIND = { x: -52, y: 6, w: 26, h: 18 };

const SHOTS: readonly Shot[] = [
  {
    artefact: 'echo-wall',
    view: 'front',
    light: 'raking-left',
    box: WALL_BOX,
    measures: [
      ['ringing', BEHIND, 'x'],
      ['layer-lines', { x: 0, y: 6, w: 25, h: 30 }],
      ['texture', { x: 0, y: 6, w: 25, h: 30 }],
    ],
    scene: (draws, looks, code) => wall(draws, looks, 'raking-left', code),
    px_per_mm: 22,
  },
  {
    artefact: 'echo-wall',
    view: 'front',
    light: 'flat',
    box: WALL_BOX,
    measures: [['texture', { x: 0, y: 6, w: 25, h: 30 }]],
    scene: (draws, looks, code) => wall(draws, looks, 'flat', code),
    px_per_mm: 22,
  },
  {
    artefact: 'spire-pair',
    view: 'front',
    light: 'flat',
    box: { x: -25, y: 0, w: 50, h: 50 },
    measures: [['strings', { x: -10, y: 5, w: 20, h: 40 }]],
    scene: spires,
    px_per_mm: 20,
  },
  {
    artefact: 'tile-field',
    view: 'detail',
    light: 'flat',
    box: { x: -20, y: -20, w: 40, h: 40 },
    measures: [['gaps', { x: -17, y: -17, w: 34, h: 34 }]],
    scene: firstLayer,
    px_per_mm: 20,
  },
  {
    artefact: 'echo-wall',
    view: 'left',
    light: 'raking-left',
    box: { x: -10, y: 0, w: 20, h: 60 },
    measures: [['ringing', { x: -9, y: 6, w: 17, h: 48 }, 'y']],
    scene: flange,
    px_per_mm: 20,
  },
];

/** How each contender's parts look, and which sides are photographed. */
export interface PhotoSession {
  looksOf: (print: Row<'prints'>) => Looks;
  hasShot: (shot: Pick<Shot, 'artefact' | 'light' | 'view'>) => boolean;
}

/** The clip bench: every artefact, strings twice as thick with PETG. */
export const CLIP_BENCH_SESSION: PhotoSession = {
  looksOf: ({ contender_id, material_id }) => {
    const looks = LOOKS[contender_id] ?? PLAIN;
    return material_id === 'petg-clear' ? { ...looks, strings: 2 * looks.strings + 3 } : looks;
  },
  hasShot: () => true,
};

/** Photographs the demo's specimens, ties the photos to their views and measures on them. */
export async function demoPhotos(bench: Bench, session: PhotoSession): Promise<DemoPhotos> {
  const tables: DemoPhotos['tables'] = {
    photos: [],
    photo_marks: [],
    photo_measures: [],
    photo_values: [],
  };
  const files = new Map<string, Uint8Array>();
  const folder = mkdtempSync(join(tmpdir(), 'vergleich-demo-'));
  try {
    for (const [number, shot] of SHOTS.entries()) {
      if (!session.hasShot(shot)) continue;
      for (const { specimen, print } of photographed(bench, shot.artefact)) {
        const seed = SEED + 1000 * number + Number(specimen.specimen_id.replace(/\D/g, ''));
        const draws = drawsFrom(seed);
        const looks = session.looksOf(print);
        const code = specimen.code ?? specimen.specimen_id;
        const scene = shot.scene(draws, looks, code);
        // One wall was photographed on the scale card, from farther away.
        const isOnCard =
          shot.artefact === 'spire-pair' &&
          print.contender_id === 'B-tuned' &&
          print.material_id !== 'petg-clear';
        const at = takenAt(print, number);
        const path = `photos/${code}-${shot.view}${shot.light === 'flat' ? '' : `-${shot.light}`}.jpg`;
        const photo = await photograph(
          draws,
          isOnCard ? onCard(scene, shot.box) : scene,
          poseOf(draws, shot, isOnCard),
          at,
        );
        files.set(path, new Uint8Array(photo.jpeg));
        const key = { specimen_id: specimen.specimen_id, path };
        tables.photos.push({
          ...key,
          view: shot.view,
          light: shot.light,
          px_per_mm: null,
          taken_at: at,
          session: `${shot.artefact}, ${shot.view === 'left' ? 'the flange' : shot.light}`,
        });
        const marks = marksOf(draws, photo, shot.box);
        tables.photo_marks.push(
          ...marks.map((mark, order) => ({ ...key, mark: order + 1, ...mark })),
        );
        const copy = join(folder, 'photo.jpg');
        writeFileSync(copy, photo.jpeg);
        await measure(tables, bench, shot, { key, print, marks, copy, at });
      }
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return { tables, files };
}

/** The first specimen of each print of an artefact; of one that is printed in many copies, of one print each. */
function photographed({ prints, specimens }: Bench, artefact: string) {
  const seen = new Set<string>();
  return prints
    .filter((print) => print.artefact_id === artefact && print.outcome === 'success')
    .flatMap((print) => {
      const specimen = specimens.find((one) => one.print_id === print.print_id);
      const isAgain = artefact === 'tile-field' && seen.has(print.contender_id);
      seen.add(print.contender_id);
      return specimen && !isAgain ? [{ specimen, print }] : [];
    });
}

const takenAt = (print: Row<'prints'>, number: number): string => {
  const ended = new Date(print.ended_at ?? print.started_at ?? '2026-03-20T10:00:00Z');
  return new Date(ended.getTime() + (30 + number) * 60_000).toISOString();
};

const poseOf = (draws: Draws, { px_per_mm }: Shot, isOnCard: boolean): Pose => ({
  px_per_mm: isOnCard ? 13 : px_per_mm * draws.between(0.96, 1),
  roll: draws.between(-0.035, 0.035),
  pan: draws.between(-0.09, 0.09),
  tilt: draws.between(-0.09, 0.09),
});

/** The corners of the part as a hand sets them. */
const marksOf = (draws: Draws, { toPicture }: Photo, { x, y, w, h }: ViewBox) =>
  [
    [x, y + h],
    [x + w, y + h],
    [x + w, y],
    [x, y],
  ].map(([x_mm = 0, y_mm = 0]) => {
    const at = project(toPicture, { x: x_mm, y: y_mm });
    const u_px = round(at.x + draws.noise(HAND_PX), 1);
    return { u_px, v_px: round(at.y + draws.noise(HAND_PX), 1), x_mm, y_mm };
  });

interface Taken {
  key: { specimen_id: string; path: string };
  print: Row<'prints'>;
  marks: ReturnType<typeof marksOf>;
  copy: string;
  at: string;
}

async function measure(
  tables: DemoPhotos['tables'],
  { contenders, profile_settings }: Bench,
  shot: Shot,
  { key, print, marks, copy, at }: Taken,
): Promise<void> {
  const { toPicture, px_per_mm } = register(marks, shot.box);
  const profile = contenders.find((one) => one.contender_id === print.contender_id)?.profile_id;
  const setting = (name: string): number | null => {
    const row = profile_settings.find((one) => one.profile_id === profile && one.key === name);
    return row ? Number(row.value) : null;
  };
  for (const [kind, region, feature = null] of shot.measures) {
    const [layer_height_mm, speed_mm_s] = [
      kind === 'layer-lines' ? setting('layer_height_mm') : null,
      kind === 'ringing' ? setting('speed_outer_wall_mm_s') : null,
    ];
    const { values } = await measureOnPhoto(
      copy,
      kind,
      { px_per_mm, layer_height_mm, speed_mm_s },
      { unit: 'mm', region, toPicture },
    );
    const along = feature === null ? '' : `-${feature}`;
    const measure_id = `${key.specimen_id}-${kind}-${shot.light}${along}`.toLowerCase();
    const figure = FIGURE_OF[kind];
    tables.photo_measures.push(
      TABLES.photo_measures.row.parse({
        ...key,
        measure_id,
        measure: kind,
        ...region,
        unit: 'mm',
        layer_height_mm,
        speed_mm_s,
        background: null,
        feature,
        operator: 'KM',
        at,
        value_key: figure,
        ...kept(values[figure] ?? null),
        found: typeof values.found === 'boolean' ? String(values.found) : null,
      }),
    );
    for (const [name, value] of Object.entries(values)) {
      if (name === figure || name === 'found') continue;
      tables.photo_values.push({ measure_id, key: name, ...kept(value) });
    }
  }
}

const six = (value: number | null): number | null =>
  value === null ? null : Number(value.toPrecision(9));

function kept(value: MeasureValue): {
  value: number | null;
  low: number | null;
  high: number | null;
} {
  if (value !== null && typeof value === 'object') {
    return { value: six(value.estimate), low: six(value.low), high: six(value.high) };
  }
  return { value: six(typeof value === 'boolean' ? Number(value) : value), low: null, high: null };
}
