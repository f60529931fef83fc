import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { dossierEntries, timeScale } from '.';

const DAY = 86_400_000;

describe('a scale of time', () => {
  it('is true where something happens all the time', () => {
    const { place, cuts } = timeScale([0, DAY, 2 * DAY]);
    expect([place(0), place(DAY / 2), place(DAY), place(2 * DAY)]).toEqual([0, 0.25, 0.5, 1]);
    expect(cuts).toEqual([]);
  });

  it('cuts weeks without a print down to two days, and says how many', () => {
    const { place, cuts } = timeScale([0, 2 * DAY, 202 * DAY, 204 * DAY]);
    expect([place(2 * DAY), place(202 * DAY), place(204 * DAY)]).toEqual([1 / 3, 2 / 3, 1]);
    expect(cuts).toEqual([{ at: 0.5, days: 200 }]);
  });

  it('holds one moment, and moments beyond its ends', () => {
    expect(timeScale([5]).place(5)).toBe(0);
    const { place } = timeScale([DAY, 2 * DAY]);
    expect([place(0), place(9 * DAY)]).toEqual([0, 1]);
  });
});

describe('what happened to a machine', () => {
  it('is told the latest first, with turns of the firmware that prints name', () => {
    const study = smallStudy({
      ...TWO_SIDES,
      prints: [
        print('1', 'R', { started_at: '2026-03-01T10:00:00Z', firmware: '1' }),
        print('2', 'R', { started_at: '2026-03-03T10:00:00Z', firmware: '2', outcome: 'failed' }),
        print('3', 'R'),
      ],
      incidents: [
        {
          incident_id: 'i',
          machine_id: 'mr',
          at: '2026-03-02T10:00:00Z',
          mode: 'layer-shift',
          cause: 'machine',
          note: 'belt',
        },
      ],
      machine_changes: [
        {
          change_id: 'c',
          machine_id: 'mr',
          at: '2026-03-02T12:00:00Z',
          kind: 'part',
          what: 'belt',
        },
      ],
    });
    expect(dossierEntries(study).map(({ kind, text, outcome }) => [kind, text, outcome])).toEqual([
      ['print', 'Part, repeat 1, R', 'failed'],
      ['change', 'firmware: prints name 2 from here on, 1 before', null],
      ['change', 'part: belt', null],
      ['incident', 'layer shift: belt', 'machine'],
      ['print', 'Part, repeat 1, R', 'success'],
    ]);
  });
});
