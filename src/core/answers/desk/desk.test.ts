import { describe, expect, it } from 'vitest';
import { deskTasks, type DeskStudy } from './desk';

const print = (contender_id: string, repeat = 1) => ({ contender_id, artefact_id: 'tile', repeat });

const study = (study_id: string, more: Partial<DeskStudy> = {}): DeskStudy => ({
  study_id,
  due: [],
  machineOf: { a: 'auklet', b: 'petrel', 'a-tuned': 'auklet' },
  readingsLeft: 0,
  zonesLeft: 0,
  photosLeft: 0,
  incomplete: 0,
  loans: [],
  ...more,
});

const TODAY = '2026-12-01';

describe('what to do at the bench', () => {
  it('is the next print of the plan for each machine that is free', () => {
    const due = [print('b'), print('a'), print('b', 2), print('a-tuned')];
    expect(deskTasks([study('s', { due })], new Set(), TODAY)).toEqual([
      { kind: 'start', study_id: 's', print: print('b') },
      { kind: 'start', study_id: 's', print: print('a') },
    ]);
    expect(deskTasks([study('s', { due })], new Set(['petrel']), TODAY)).toEqual([
      { kind: 'start', study_id: 's', print: print('a') },
    ]);
  });

  it('gives a machine of two studies to the one that was changed last', () => {
    const tasks = deskTasks(
      [study('new', { due: [print('a')] }), study('old', { due: [print('a-tuned'), print('b')] })],
      new Set(),
      TODAY,
    );
    expect(tasks.map(({ study_id }) => study_id)).toEqual(['new', 'old']);
  });

  it('is what is missing from printed parts, in the order of the stations', () => {
    const open = study('s', { readingsLeft: 12, zonesLeft: 3, photosLeft: 2, incomplete: 1 });
    expect(deskTasks([open], new Set(), TODAY)).toEqual([
      { kind: 'complete', study_id: 's', count: 1 },
      { kind: 'measure', study_id: 's', count: 12 },
      { kind: 'inspect', study_id: 's', count: 3 },
      { kind: 'file', study_id: 's', count: 2 },
    ]);
    expect(deskTasks([study('s')], new Set(), TODAY)).toEqual([]);
  });

  it('begins with loans that end within two weeks and ends with later ones', () => {
    const loan = (machine: string, returnBy: string) => ({ machine, name: machine, returnBy });
    const loans = [loan('auklet', '2027-03-01'), loan('petrel', '2026-12-15')];
    const tasks = deskTasks(
      [study('s', { loans, due: [print('b'), print('b', 2)] }), study('t', { loans })],
      new Set(['petrel']),
      TODAY,
    );
    expect(tasks).toEqual([
      { kind: 'return', study_id: 's', loan: loans[1], days: 14, prints: 2 },
      { kind: 'return', study_id: 's', loan: loans[0], days: 90, prints: 0 },
    ]);
  });

  it('counts days since a loan ended as negative', () => {
    const loans = [{ machine: 'b', name: 'Petrel', returnBy: '2026-11-30T12:00:00Z' }];
    expect(deskTasks([study('s', { loans })], new Set(), TODAY)[0]).toMatchObject({ days: -1 });
  });
});
