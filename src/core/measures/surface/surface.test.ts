import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { evidenceOf, openContext } from '../../answers/results';
import type { Row } from '../../model/study';
import { ordinalAlpha } from './index';

describe('Krippendorff’s alpha', () => {
  // Four observers, twelve units, grades 1–5, as printed in his paper of 2011; a dot is no value.
  const OBSERVERS = ['123321412...', '1233224125.3', '.3332342251.', '12332441251.'];
  const units = Array.from({ length: 12 }, (_, unit) =>
    OBSERVERS.flatMap((row) => (row[unit] === '.' ? [] : [Number(row[unit])])),
  );

  it('of the published example with ordinal data is 0.815', () => {
    expect(ordinalAlpha(units)).toBeCloseTo(0.815, 3);
  });

  it('is 1 where all agree, and not known where nothing varies or nobody looked twice', () => {
    expect(
      ordinalAlpha([
        [0, 0],
        [3, 3, 3],
        [4, 4],
      ]),
    ).toBe(1);
    expect(
      ordinalAlpha([
        [2, 2],
        [2, 2],
      ]),
    ).toBeNull();
    expect(ordinalAlpha([[0], [4]])).toBeNull();
    expect(ordinalAlpha([])).toBeNull();
  });

  it('leaves units with one value out, and goes by the order of values, not their size', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 0, max: 4 }), { maxLength: 4 }), { maxLength: 12 }),
        (values) => {
          const alpha = ordinalAlpha(values);
          const kept = values.filter((one) => one.length > 1);
          expect(ordinalAlpha(kept)).toEqual(alpha);
          const stretched = values.map((unit) => unit.map((value) => 10 ** value));
          if (alpha !== null) expect(ordinalAlpha(stretched)).toBeCloseTo(alpha, 12);
          if (alpha !== null) expect(alpha).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});

const zone = (zone_id: string, weight: number | null) => ({
  artefact_id: 'part',
  zone_id,
  name: zone_id,
  weight,
});
const look = (specimen_id: string, zone_id: string, inspector = 'KM') => ({
  specimen_id,
  zone_id,
  inspector,
});
const finding = (
  specimen_id: string,
  zone_id: string,
  defect: Row<'findings'>['defect'],
  grade: number,
  inspector = 'KM',
) => ({ ...look(specimen_id, zone_id, inspector), defect, grade });

const PARTS = {
  ...TWO_SIDES,
  zones: [zone('face', 3), zone('edge', null), zone('back', 0)],
  prints: [print('p1', 'C'), print('p2', 'C', { repeat: 2 }), print('p3', 'R')],
  specimens: ['s1:p1', 's2:p1', 's3:p2', 's4:p3'].map((pair) => {
    const [specimen_id, print_id] = pair.split(':');
    return { specimen_id, print_id };
  }),
};

describe('the surface index', () => {
  const study = smallStudy(
    {
      ...PARTS,
      inspections: [
        look('s1', 'face'),
        look('s1', 'face', 'TS'),
        look('s1', 'edge'),
        look('s2', 'face'),
        look('s3', 'edge'),
        look('s4', 'back'),
      ],
      findings: [
        finding('s1', 'face', 'ringing', 2),
        finding('s1', 'face', 'ringing', 3, 'TS'),
        finding('s1', 'face', 'blobs', 4, 'TS'),
        finding('s1', 'edge', 'seam', 1),
        finding('s3', 'edge', 'warping', 4),
      ],
    },
    { smallest_difference: { surface: 5 } },
  );
  const results = evaluate(study);
  const own = results.surface?.C;

  it('takes of each zone the worst defect, its grade the mean over who looked there', () => {
    // Ringing (2 + 3)/2 = 2.5; blobs (0 + 4)/2 = 2: the face is 2.5. An edge without weight counts 1.
    expect(own?.by_specimen[0]?.zones).toEqual([
      { zone_id: 'face', severity: 2.5 },
      { zone_id: 'edge', severity: 1 },
    ]);
    // 100·(1 − (3·2.5 + 1·1)/(4·4)) = 46.875; all weight looked at.
    expect(own?.by_specimen[0]).toMatchObject({ index: 46.875, coverage: 1 });
    expect(own?.by_specimen[1]).toMatchObject({ index: 100, coverage: 0.75 });
    expect(own?.by_specimen[2]).toMatchObject({ index: 0, coverage: 0.25 });
  });

  it('goes from specimens to prints to the contender', () => {
    // Prints (46.875 + 100)/2 = 73.4375 and 0; their t interval is far wider than an index can be.
    expect(own).toMatchObject({ prints: 2, specimens: 3 });
    expect(own?.index).toEqual({ estimate: 36.71875, low: 0, high: 100 });
    expect(own?.coverage).toBeCloseTo((0.875 + 0.25) / 2, 12);
  });

  it('zones without any weight tell nothing, and that is said', () => {
    expect(results.surface?.R).toMatchObject({
      prints: 0,
      specimens: 0,
      coverage: null,
      index: { estimate: null, notes: ['no specimen was inspected'] },
      notes: ['specimens whose inspected zones have no weight: 1'],
    });
  });

  it('where it shows: the worst of each zone, and how often', () => {
    expect(results.defects?.zones.C).toEqual({
      'part/face': {
        specimens: 2,
        found: 1,
        mean: 1.25,
        worst: { specimen_id: 's1', defect: 'ringing', severity: 2.5 },
      },
      'part/edge': {
        specimens: 2,
        found: 2,
        mean: 2.5,
        worst: { specimen_id: 's3', defect: 'warping', severity: 4 },
      },
    });
    expect(results.defects?.zones.R?.['part/back']).toEqual({
      specimens: 1,
      found: 0,
      mean: 0,
      worst: null,
    });
  });

  it('in which material: specimens that show it, of all that were looked at', () => {
    expect(results.defects?.materials).toEqual({
      ringing: { PLA: { specimens: 4, found: 1, worst: 2.5 } },
      blobs: { PLA: { specimens: 4, found: 1, worst: 2 } },
      seam: { PLA: { specimens: 4, found: 1, worst: 1 } },
      warping: { PLA: { specimens: 4, found: 1, worst: 4 } },
    });
  });

  it('the evidence is the zones, what weighs most first, with every inspector’s grades', () => {
    const context = openContext(study);
    const evidence = evidenceOf(context, 'surface:C:index');
    const [zones] = evidence?.tables ?? [];
    expect(zones?.rows.map((row) => [row[0], row[1], row[3], row[4]])).toEqual([
      ['s1', 'face', '2.5', 'KM ringing 2 · TS ringing 3, blobs 4'],
      ['s3', 'edge', '4.0', 'KM warping 4'],
      ['s1', 'edge', '1.0', 'KM seam 1'],
      ['s2', 'face', '0.0', 'KM clean'],
    ]);
    const zone = evidenceOf(context, 'defects:zones:C.part/face.mean');
    expect(zone?.sentence).toBe('Looked at on 2 specimens, clean on 1.');
    expect(evidenceOf(context, 'defects:zones:C.part/nowhere.mean')).toBeNull();
    expect(evidenceOf(context, 'defects:zones:R.part/face.mean')).toBeNull();
  });

  it('agreement is over zones that two have looked at', () => {
    expect(results.surface_agreement).toMatchObject({ units: 1, inspectors: 2 });
  });

  it('is compared with the reference where both have one; larger is better', () => {
    expect(results.pairs.surface).toEqual([]);
    const clean = smallStudy(
      {
        ...PARTS,
        prints: [1, 2, 3].flatMap((repeat) => [
          print(`c${repeat}`, 'C', { repeat }),
          print(`r${repeat}`, 'R', { repeat }),
        ]),
        specimens: [1, 2, 3].flatMap((repeat) => [
          { specimen_id: `sc${repeat}`, print_id: `c${repeat}` },
          { specimen_id: `sr${repeat}`, print_id: `r${repeat}` },
        ]),
        inspections: [1, 2, 3].flatMap((at) => [look(`sc${at}`, 'face'), look(`sr${at}`, 'face')]),
        findings: [1, 2, 3].map((at) => finding(`sr${at}`, 'face', 'ringing', 2)),
      },
      { smallest_difference: { surface: 5 } },
    );
    expect(evaluate(clean).pairs.surface).toMatchObject([
      { contender: 'C', verdict: 'better', difference: { estimate: 50 } },
    ]);
  });

  it('is null without a table of inspections; without findings every zone is clean', () => {
    const bare = evaluate(smallStudy(PARTS));
    expect([bare.surface, bare.surface_agreement, bare.pairs.surface]).toEqual([null, null, null]);
    const clean = evaluate(smallStudy({ ...PARTS, inspections: [look('s1', 'face')] }));
    expect(clean.surface?.C?.index.estimate).toBe(100);
  });
});

describe('figures on photos', () => {
  const photo = (specimen_id: string, path: string, light: string | null, session = 'a') => ({
    specimen_id,
    path,
    light,
    session,
  });
  const measure = (measure_id: string, specimen_id: string, path: string, more: object) => ({
    measure_id,
    specimen_id,
    path,
    measure: 'ringing',
    x: 0,
    y: 0,
    w: 9,
    h: 9,
    unit: 'mm',
    ...more,
  });
  const study = smallStudy({
    ...PARTS,
    photos: [
      photo('s1', 'a.jpg', 'raking-left'),
      photo('s2', 'b.jpg', 'raking-left', 'b'),
      photo('s3', 'c.jpg', 'raking-left'),
      photo('s3', 'd.jpg', 'flat'),
      photo('s4', 'e.jpg', null),
    ],
    photo_measures: [
      measure('m1', 's1', 'a.jpg', { value_key: 'amplitude', value: 0.04, found: 'true' }),
      measure('m2', 's1', 'a.jpg', { value_key: 'amplitude', value: 0.02, found: 'true' }),
      measure('m3', 's2', 'b.jpg', { found: 'false' }),
      measure('m4', 's3', 'c.jpg', { value: 0.06, found: 'true' }),
      measure('m5', 's3', 'c.jpg', {}),
      measure('m6', 's3', 'd.jpg', { measure: 'gaps', value_key: 'gap_share', value: 0.1 }),
      measure('m7', 's4', 'e.jpg', { measure: 'texture' }),
    ],
  });
  const { photo: found } = evaluate(study);

  it('go from measures to specimens to prints; what was not found is 0', () => {
    // s1: 0.03, s2: 0; print p1 0.015; p2 0.06.
    expect(
      found?.C?.['part/ringing/raking-left']?.by_specimen.map(({ value, found: is }) => [
        value,
        is,
      ]),
    ).toEqual([
      [expect.closeTo(0.03, 12), true],
      [0, false],
      [expect.closeTo(0.06, 12), true],
    ]);
    expect(found?.C?.['part/ringing/raking-left']).toMatchObject({
      prints: 2,
      specimens: 3,
      found: 2,
      figure: { estimate: expect.closeTo(0.0375, 12) as number },
      notes: [
        'measures without a value, left out: 1',
        'photos of different sessions are put together',
      ],
    });
  });

  it('of another light stand by themselves, and one print has no interval', () => {
    expect(found?.C?.['part/gaps/flat']).toMatchObject({
      prints: 1,
      specimens: 1,
      found: null,
      notes: [],
      figure: { estimate: 0.1, low: null, high: null },
    });
  });

  it('without a light are of an unknown one, without a value not known', () => {
    expect(found?.R).toEqual({
      'part/texture/unknown': {
        prints: 0,
        specimens: 0,
        found: null,
        by_specimen: [],
        figure: { estimate: null, low: null, high: null, notes: ['no measure has a value'] },
        notes: ['measures without a value, left out: 1'],
      },
    });
  });
});

describe('after-work', () => {
  const row = (
    specimen_id: string,
    kind: string,
    minutes: number,
    damage: number | null = null,
  ) => ({
    specimen_id,
    kind,
    minutes,
    damage,
  });
  const { aftercare } = evaluate(
    smallStudy({
      ...PARTS,
      aftercare: [
        row('s1', 'support', 4, 1),
        row('s1', 'brim', 2, 3),
        row('s2', 'other', 0),
        row('s3', 'strings', 1),
      ],
    }),
  );

  it('is summed over a specimen, then by print; nothing to do is 0, nobody looked is not', () => {
    // p1: (6 + 0)/2 = 3; p2: 1. Mean 2 ± 12.7062·√2/√2.
    expect(aftercare?.C?.part).toMatchObject({ prints: 2, specimens: 3, damage_max: 3 });
    expect(aftercare?.C?.part?.minutes.estimate).toBe(2);
    expect(aftercare?.C?.part?.minutes.high).toBeCloseTo(2 + 12.7062, 3);
    expect(aftercare?.R).toEqual({});
  });
});
