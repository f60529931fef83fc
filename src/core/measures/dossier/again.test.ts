import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { toTestAgain } from '.';

const trial = (trial_id: string, feature: string, at: string) => ({
  trial_id,
  machine_id: 'mr',
  feature,
  provoked: 'x',
  outcome: 'as-promised',
  at,
});
const given = {
  ...TWO_SIDES,
  artefacts: [
    { artefact_id: 'part', name: 'Part' },
    { artefact_id: 'wall', name: 'Wall' },
  ],
  machine_changes: [
    { change_id: 'c', machine_id: 'mr', at: '2026-03-10T08:00:00Z', kind: 'firmware', what: '2' },
  ],
};

describe('since the last firmware', () => {
  it('what was printed with another and not again is to be printed again', () => {
    const study = smallStudy({
      ...given,
      prints: [
        print('1', 'R', { firmware: '1' }),
        print('2', 'R', { firmware: '1' }),
        print('3', 'R', { firmware: '1', artefact_id: 'wall' }),
        print('4', 'R', { firmware: '2', artefact_id: 'wall' }),
        print('5', 'R'),
      ],
    });
    expect(toTestAgain(study, '2')).toEqual([
      { what: 'Part', kind: 'prints', n: 2, firmware: '1' },
    ]);
    expect(toTestAgain(study, null)).toEqual([]);
  });

  it('features tried before the day of the change and not after it are to be tried again', () => {
    const study = smallStudy({
      ...given,
      trials: [
        trial('1', 'runout-sensor', '2026-03-09T08:00:00Z'),
        trial('2', 'power-loss', '2026-03-09T08:00:00Z'),
        trial('3', 'power-loss', '2026-03-11T08:00:00Z'),
      ],
    });
    expect(toTestAgain(study, '2')).toEqual([
      { what: 'runout-sensor', kind: 'trials', n: 1, firmware: null },
    ]);
    expect(toTestAgain({ tables: { ...study.tables, machine_changes: [] } }, '2')).toEqual([]);
  });
});
