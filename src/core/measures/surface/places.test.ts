import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { findingsOnSides, zoneBox } from '.';

const finding = (specimen_id: string, zone_id: string, more: object) => ({
  specimen_id,
  zone_id,
  inspector: 'KM',
  defect: 'ringing',
  grade: 3,
  ...more,
});

const sidesOf = (findings: Record<string, unknown>[]) =>
  findingsOnSides(
    smallStudy({
      ...TWO_SIDES,
      prints: [print('p1', 'R'), print('p2', 'C')],
      specimens: [
        { specimen_id: 's1', print_id: 'p1', copy: 1 },
        { specimen_id: 's2', print_id: 'p2', copy: 1 },
      ],
      zones: ['wall', 'face', 'inside'].map((zone_id) => ({
        artefact_id: 'part',
        zone_id,
        name: zone_id,
      })),
      zone_places: [
        // Drawn from its upper right to its lower left.
        {
          artefact_id: 'part',
          zone_id: 'wall',
          side: 'front',
          u1_mm: 30,
          v1_mm: 20,
          u2_mm: -10,
          v2_mm: 5,
        },
        {
          artefact_id: 'part',
          zone_id: 'face',
          side: 'top',
          u1_mm: 0,
          v1_mm: 0,
          u2_mm: 8,
          v2_mm: 8,
        },
      ],
      findings,
    }).tables,
  );

describe('where findings sit', () => {
  it('a zone is the rectangle between its corners, whichever came first', () => {
    expect(zoneBox({ u1_mm: 30, v1_mm: 20, u2_mm: -10, v2_mm: 5 })).toEqual({
      x: -10,
      y: 5,
      w: 40,
      h: 15,
    });
  });

  it('one without a box lies on the whole zone, one with a box where it was drawn', () => {
    const box = { x_mm: 1, y_mm: 6, w_mm: 2, h_mm: 3 };
    const [side] = sidesOf([
      finding('s1', 'wall', {}),
      finding('s2', 'wall', { ...box, view: 'front', grade: 2 }),
    ]);
    expect(side).toMatchObject({ artefact_id: 'part', side: 'front' });
    expect(side?.findings).toEqual([
      {
        contender_id: 'R',
        defect: 'ringing',
        grade: 3,
        isBoxed: false,
        box: { x: -10, y: 5, w: 40, h: 15 },
      },
      {
        contender_id: 'C',
        defect: 'ringing',
        grade: 2,
        isBoxed: true,
        box: { x: 1, y: 6, w: 2, h: 3 },
      },
    ]);
  });

  it('a box on another side says nothing of the zone’s', () => {
    const [side] = sidesOf([
      finding('s1', 'wall', { view: 'top', x_mm: 1, y_mm: 1, w_mm: 1, h_mm: 1 }),
    ]);
    expect(side?.findings[0]).toMatchObject({ isBoxed: false, box: { w: 40 } });
  });

  it('grade 0 and zones without a place are nowhere; the side with most is first', () => {
    const sides = sidesOf([
      finding('s1', 'wall', { grade: 0 }),
      finding('s1', 'inside', {}),
      finding('s1', 'face', {}),
      finding('s2', 'face', {}),
      finding('s2', 'wall', {}),
    ]);
    expect(sides.map(({ side, findings }) => [side, findings.length])).toEqual([
      ['top', 2],
      ['front', 1],
    ]);
  });
});
