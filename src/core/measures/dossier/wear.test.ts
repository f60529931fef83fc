import { describe, expect, it } from 'vitest';
import type { Print, Row } from '../../model/study';
import { wearOf } from '.';

const change = (
  at: string,
  kind: Row<'machine_changes'>['kind'],
  what: string,
): Row<'machine_changes'> => ({
  change_id: at,
  machine_id: 'm',
  at,
  kind,
  what,
  operator: null,
});
/** A print of an hour for each day of March that it is given. */
const print = (day: number, hours = 1): Print =>
  ({
    started_at: `2026-03-${String(day).padStart(2, '0')}T08:00:00Z`,
    ended_at: new Date(Date.UTC(2026, 2, day, 8) + hours * 3_600_000).toISOString(),
    outcome: 'success',
    print_s: null,
    heat_s: null,
    paused_s: null,
  }) as Print;
const wear = (changes: Row<'machine_changes'>[], prints: Print[]) =>
  wearOf(changes, prints).map(({ change: { what }, wear: own }) => [
    what,
    own?.hours ?? null,
    own?.prints ?? null,
    own?.until ?? null,
  ]);

describe('wear', () => {
  it('is what was printed since, whatever the order of the rows', () => {
    const nozzle = change('2026-03-03T00:00:00Z', 'part', 'nozzle 0.4');
    expect(wear([nozzle], [print(9, 4), print(2), print(3, 2.5)])).toEqual([
      ['nozzle 0.4', 6.5, 2, null],
    ]);
  });

  it('ends where the same part is fitted again, however it is written', () => {
    const rows = [
      change('2026-03-02T00:00:00Z', 'part', 'Belt'),
      change('2026-03-05T00:00:00Z', 'part', 'belt '),
      change('2026-03-04T00:00:00Z', 'part', 'fan'),
    ];
    expect(wear(rows, [print(1), print(2), print(4), print(6), print(7)])).toEqual([
      ['belt ', 2, 2, null],
      ['fan', 3, 3, null],
      ['Belt', 2, 2, '2026-03-05T00:00:00Z'],
    ]);
  });

  it('is of parts and maintenance, not of firmware and settings', () => {
    const rows = [
      change('2026-03-02T00:00:00Z', 'firmware', '2.0'),
      change('2026-03-01T00:00:00Z', 'maintenance', 'rails oiled'),
    ];
    expect(wear(rows, [print(3)])).toEqual([
      ['2.0', null, null, null],
      ['rails oiled', 1, 1, null],
    ]);
  });

  it('counts no print of which nobody knows when it was begun, nor hours nobody knows', () => {
    const unknown = { ...print(4), started_at: null };
    const running = { ...print(5), ended_at: null };
    expect(wear([change('2026-03-01T00:00:00Z', 'part', 'fan')], [unknown, running])).toEqual([
      ['fan', 0, 1, null],
    ]);
  });
});
