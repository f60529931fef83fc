import { describe, expect, it } from 'vitest';
import type { ShownMeasure, ShownPhoto } from '../../contract/photos';
import type { ContenderMark } from '../../core/model/study';
import { levelAddress, levelFor, tileAddress } from './photo-address';
import { describeMeasure } from './describe-measure';
import { subjectsOf } from './side-by-side/subjects';
import { hasRectification, levelOf, type RectifiedPhoto } from './tiles';
import { between, pointUnder } from './use-place';

const LAID = {
  edition: 'e1',
  width: 4096,
  height: 2048,
  tile: 512,
  levels: 4,
  box: { x: 0, y: 0, w: 128, h: 64 },
};

const photo = (specimen_id: string, more: object = {}): ShownPhoto =>
  ({
    path: `photos/${specimen_id}.jpg`,
    version: 'abc',
    isRectified: true,
    laid: LAID,
    filed: { specimen_id, view: 'front', light: 'flat' },
    measures: [],
    ...more,
  }) as unknown as ShownPhoto;

const specimens = [
  ['s1', 'A'],
  ['s2', 'B'],
  ['s3', 'A'],
].map(([specimen_id, contender_id]) => ({
  specimen_id: specimen_id ?? '',
  contender_id: contender_id ?? '',
  artefact_id: 'wall',
  artefact: 'Wall',
  code: null,
  copy: 1,
  print_id: 'p',
  repeat: 1,
  measured: 0,
}));
const marks = ['A', 'B'].map((contender_id) => ({ contender_id }) as ContenderMark);

describe('addresses of photos', () => {
  it('tell another photo, another level and another laying apart', () => {
    const one = { path: 'photos/ä b.jpg', version: 'v1' };
    const all = [
      levelAddress('s', one, 0),
      levelAddress('s', one, 1),
      levelAddress('s', { ...one, version: 'v2' }, 0),
      tileAddress('s', one, 'e1', { level: 0, column: 0, row: 0 }),
      tileAddress('s', one, 'e2', { level: 0, column: 0, row: 0 }),
      tileAddress('s', one, 'e1', { level: 0, column: 1, row: 0 }),
    ];
    expect(new Set(all).size).toBe(all.length);
    const query = new URL(all[0] ?? '', 'http://x').searchParams;
    expect(query.get('path')).toBe('photos/ä b.jpg');
  });

  it('the level for a place is the largest that is not larger than it', () => {
    expect(levelFor(4000, 3000, 5000)).toBe(0);
    expect(levelFor(4000, 3000, 1400)).toBe(2);
    // Below 512 pixels nothing smaller is made.
    expect(levelFor(800, 600, 100)).toBe(1);
  });
});

describe('what stands side by side', () => {
  it('photos of one view in one light, the first of every contender before second ones', () => {
    const [subject, ...rest] = subjectsOf(
      [
        photo('s3'),
        photo('s2'),
        photo('s1', { filed: { specimen_id: 's1', view: 'front', light: 'flat' } }),
      ],
      specimens,
      marks,
    );
    expect(rest).toEqual([]);
    expect(subject?.key).toBe('wall/front/flat');
    expect(subject?.photos.map(({ photo: one }) => one.filed?.specimen_id)).toEqual([
      's3',
      's2',
      's1',
    ]);
  });

  it('other light is another subject, raking light first; what is not laid flat is none', () => {
    const raking = { filed: { specimen_id: 's1', view: 'front', light: 'raking-left' } };
    const subjects = subjectsOf(
      [
        photo('s1'),
        photo('s2'),
        photo('s1', raking),
        photo('s2', { isRectified: false, filed: { ...raking.filed, specimen_id: 's2' } }),
      ],
      specimens,
      marks,
    );
    expect(subjects.map(({ light, photos }) => [light, photos.length])).toEqual([
      ['raking-left', 1],
      ['flat', 2],
    ]);
  });

  it('a hidden contender’s photos are not there, nor those without a view or light unsaid as flat', () => {
    const only = marks.slice(1);
    expect(subjectsOf([photo('s1')], specimens, only)).toEqual([]);
    const unsaid = { filed: { specimen_id: 's2', view: null, light: null } };
    expect(subjectsOf([photo('s2', unsaid)], specimens, only)).toEqual([]);
    const dark = { filed: { specimen_id: 's2', view: 'front', light: null } };
    expect(subjectsOf([photo('s2', dark)], specimens, only)[0]?.light).toBe('unknown');
  });
});

describe('tiles', () => {
  const laid = photo('s1');
  if (!hasRectification(laid)) throw new Error('it is laid flat');

  // 4096 px for 128 mm are 32 px a millimetre.
  it.each([
    [64, 0],
    [32, 0],
    [16, 1],
    [8, 2],
    [0.5, 3],
  ])('at %d px/mm on the screen level %d is drawn', (scale, level) => {
    expect(levelOf(laid as RectifiedPhoto, scale)).toBe(level);
  });

  it('what was laid by other marks is not laid flat', () => {
    expect(hasRectification(photo('s1', { isRectified: false }))).toBe(false);
    expect(hasRectification(photo('s1', { laid: null }))).toBe(false);
  });
});

describe('a window onto a view', () => {
  it('the point under the pointer: right is right, down is down', () => {
    const target = {
      getBoundingClientRect: () => ({ left: 100, top: 50, width: 400, height: 200 }),
    } as unknown as EventTarget;
    const place = { x: 10, y: 20, scale: 4 };
    expect(pointUnder({ clientX: 300, clientY: 150, target }, place)).toEqual({ x: 10, y: 20 });
    expect(pointUnder({ clientX: 340, clientY: 190, target }, place)).toEqual({ x: 20, y: 10 });
  });

  it('a rectangle is drawn from any of its corners', () => {
    const box = { x: 1, y: 2, w: 3, h: 5 };
    expect(between({ x: 1, y: 2 }, { x: 4, y: 7 })).toEqual(box);
    expect(between({ x: 4, y: 2 }, { x: 1, y: 7 })).toEqual(box);
  });
});

describe('measures in words', () => {
  const measure = (more: object, values: Record<string, number> = {}): ShownMeasure =>
    ({
      measure: 'ringing',
      feature: null,
      value: null,
      low: null,
      high: null,
      found: null,
      ...more,
      values: Object.entries(values).map(([key, value]) => ({ key, value })),
    }) as unknown as ShownMeasure;

  it('ringing that was found: how strong, its wave, and hertz where the speed is known', () => {
    const found = { found: 'true', value: 0.0491, low: 0.0468, high: 0.0514 };
    const values = { wavelength_mm: 1.9, frequency_hz: 63.2, waves: 5 };
    expect(describeMeasure(measure(found, values))).toBe(
      'ringing 4.91 % (4.68 to 5.14) · wave 1.90 mm · 63 Hz · 5.0 waves',
    );
    expect(describeMeasure(measure(found, { wavelength_mm: 1.9 }))).not.toContain('Hz');
    // Along x and along y are two things.
    expect(describeMeasure(measure({ ...found, feature: 'y' }, values))).toMatch(
      /^ringing along y 4\.91 %/,
    );
  });

  it('ringing that was not found: how strong it would have to be', () => {
    expect(describeMeasure(measure({ found: 'false' }, { detectable_amplitude: 0.0036 }))).toBe(
      'no ringing above the noise; over 0.36 % it would be',
    );
    expect(describeMeasure(measure({}))).toBe('ringing: cannot be measured here');
  });

  it('others: their figure, or that it is not resolved', () => {
    expect(describeMeasure(measure({ measure: 'gaps', value: 0.0268 }))).toBe('gaps, area 2.68 %');
    expect(describeMeasure(measure({ measure: 'layer-lines' }))).toBe(
      'bands of layers, contrast: not resolved here',
    );
  });
});
