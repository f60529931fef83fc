import { describe, expect, it } from 'vitest';
import { disagreements, inspectorsShares } from '.';

const zone = (specimen_id: string, zone_id: string) => ({ specimen_id, zone_id });
const DUE = [zone('s1', 'wall'), zone('s1', 'notch'), zone('s2', 'wall')];
const looked = (inspector: string, ...zones: readonly (typeof DUE)[number][]) =>
  zones.map((one) => ({ ...one, inspector }));
const found = (
  inspector: string,
  one: (typeof DUE)[number],
  defect: 'ringing' | 'blobs',
  grade: number,
) => ({ ...one, inspector, defect, grade });

const [A, B, C] = DUE as [(typeof DUE)[0], (typeof DUE)[0], (typeof DUE)[0]];

describe('what is due', () => {
  it('is told by inspector, with the specimen that is next', () => {
    const shares = inspectorsShares(DUE, [...looked('TS', ...DUE), ...looked('KM', A)]);
    expect(shares).toEqual([
      { inspector: 'KM', done: 1, of: 3, next: 's1' },
      { inspector: 'TS', done: 3, of: 3, next: null },
    ]);
  });

  it('a zone that is inspected no more does not count as done', () => {
    const [share] = inspectorsShares([A], looked('KM', B, C));
    expect(share).toEqual({ inspector: 'KM', done: 0, of: 1, next: 's1' });
  });
});

describe('where inspectors differ', () => {
  const inspections = [...looked('KM', A, B, C), ...looked('TS', A, B), ...looked('ZQ', B)];
  const findings = [
    found('KM', A, 'ringing', 3),
    found('TS', A, 'ringing', 2),
    found('KM', B, 'blobs', 2),
    found('KM', C, 'ringing', 4),
    found('KM', A, 'blobs', 1),
    found('TS', A, 'blobs', 1),
  ];

  it('the farthest apart come first; who found nothing gave 0; the same grade is no difference', () => {
    expect(disagreements(DUE, inspections, findings, 'KM')).toEqual([
      {
        ...B,
        defect: 'blobs',
        apart: 2,
        grades: [
          { inspector: 'KM', grade: 2 },
          { inspector: 'TS', grade: 0 },
          { inspector: 'ZQ', grade: 0 },
        ],
      },
      {
        ...A,
        defect: 'ringing',
        apart: 1,
        grades: [
          { inspector: 'KM', grade: 3 },
          { inspector: 'TS', grade: 2 },
        ],
      },
    ]);
  });

  it('nobody sees the grades of a zone that they have not graded', () => {
    const seen = (asks: string) =>
      disagreements(DUE, inspections, findings, asks).map((one) => one.zone_id);
    expect(seen('ZQ')).toEqual(['notch']);
    expect(seen('nobody')).toEqual([]);
  });
});
