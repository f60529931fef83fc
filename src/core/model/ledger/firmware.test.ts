import { describe, expect, it } from 'vitest';
import { firmwareIn, firmwareTurns, outdatedPrints } from '.';

const print = (started_at: string | null, firmware: string | null) => ({ started_at, firmware });

describe('firmware by the prints', () => {
  it('turns where prints name another one, by the time they began and not by their order', () => {
    expect(
      firmwareTurns([
        print('2026-03-12T08:00:00+01:00', '1.9.2'),
        print('2026-03-10T08:00:00+01:00', '1.9.0'),
        // An hour before the last one, though its clock shows more.
        print('2026-03-12T09:00:00+03:00', '1.9.0'),
        print(null, '2.0'),
        print('2026-03-11T08:00:00+01:00', null),
      ]),
    ).toEqual([{ at: '2026-03-12T08:00:00+01:00', firmware: '1.9.2', before: '1.9.0' }]);
  });

  it('there and back are two turns', () => {
    const turns = firmwareTurns(
      ['1', '2', '2', '1'].map((firmware, day) => print(`2026-03-1${day}T08:00:00Z`, firmware)),
    );
    expect(turns.map(({ firmware }) => firmware)).toEqual(['2', '1']);
  });

  it('prints are outdated that name another than the machine; what is not known is not', () => {
    const prints = [
      { print_id: 'a', firmware: '1.9.0' },
      { print_id: 'b', firmware: '1.9.2' },
      { print_id: 'c', firmware: null },
    ];
    expect(outdatedPrints(prints, '1.9.2')).toEqual([{ print_id: 'a', firmware: '1.9.0' }]);
    expect(outdatedPrints(prints, null)).toEqual([]);
  });
});

describe('a change of firmware', () => {
  it.each([
    ['1.9.0 to 1.9.2', '1.9.2'],
    ['1.9.2 → 2.4, by the memory card', '2.4'],
    ['v3.1-beta2', '3.1-beta2'],
    ['R7', 'R7'],
    ['updated', null],
    ['a new one by wire', null],
  ])('%s names %s', (what, version) => {
    expect(firmwareIn(what)).toBe(version);
  });
});
