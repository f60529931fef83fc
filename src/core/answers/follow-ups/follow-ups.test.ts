import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { chainsOf, compareRuns, thingsChanged } from '.';

const given = (more: object = {}) =>
  smallStudy({
    ...TWO_SIDES,
    profiles: [
      { profile_id: 'p', name: 'Stock', kind: 'stock' },
      { profile_id: 'q', name: 'Slow', kind: 'tuned', parent_id: 'p' },
    ],
    profile_settings: [
      { profile_id: 'p', key: 'nozzle_temp_c', value: '215' },
      { profile_id: 'q', key: 'nozzle_temp_c', value: '205' },
    ],
    materials: [
      { material_id: 'pla', type: 'PLA', maker: 'Ropewalk', lot: 'L1', colour: 'slate' },
      { material_id: 'pla2', type: 'PLA', maker: 'Ropewalk', lot: 'L2', colour: 'red' },
    ],
    contenders: [
      { contender_id: 'R', label: 'R', machine_id: 'mr', profile_id: 'p' },
      { contender_id: 'C', label: 'C', machine_id: 'mr', profile_id: 'q' },
    ],
    ...more,
  });
const follow = (follow_up_id: string, print_before: string, print_after: string) => ({
  follow_up_id,
  print_before,
  print_after,
  suspect: 'setting',
  changed: 'x',
  outcome: 'gone',
});

describe('what really differed between two prints', () => {
  const study = given({
    prints: [
      print('1', 'R', { ambient_c: 20, operator: 'KM', plate: 'textured' }),
      print('2', 'C', { ambient_c: 22.9, operator: 'KM', plate: 'textured' }),
      print('3', 'C', { ambient_c: 24, operator: 'TS', plate: null, material_id: 'pla2' }),
    ],
  });
  const [one, two, three] = study.tables.prints;
  const compare = compareRuns(study);

  it('is told setting by setting; near temperatures are the same', () => {
    const changed = compare(one!, two!);
    expect(changed).toEqual([{ key: 'nozzle_temp_c', before: 215, after: 205 }]);
    expect(thingsChanged(changed)).toBe(1);
  });

  it('counts a spool as one thing, and who started it as none', () => {
    const changed = compare(two!, three!);
    expect(changed.map((one) => one.key)).toEqual(['material_lot', 'material_colour', 'operator']);
    expect(thingsChanged(changed)).toBe(1);
    expect(thingsChanged(compare(one!, three!))).toBe(3);
  });
});

describe('chains', () => {
  it('go from print to print, and part where one was followed twice', () => {
    const study = given({
      prints: ['1', '2', '3', '4', '5'].map((id) =>
        print(id, 'R', { started_at: `2026-03-0${id}T10:00:00Z` }),
      ),
      follow_ups: [
        follow('a', '1', '2'),
        follow('b', '2', '3'),
        follow('c', '2', '4'),
        follow('d', '5', '5'),
      ],
    });
    const chains = chainsOf(study).map(({ first, steps }) =>
      [first.print_id, ...steps.map((step) => step.after.print_id)].join('→'),
    );
    expect(chains).toEqual(['1→2→3', '1→2→4']);
  });

  it('that lead back to where they began come to an end', () => {
    const study = given({
      prints: ['1', '2', '3'].map((id) => print(id, 'R')),
      follow_ups: [follow('a', '1', '2'), follow('b', '2', '3'), follow('c', '3', '2')],
    });
    const [chain] = chainsOf(study);
    expect(chain?.steps.map((step) => step.after.print_id)).toEqual(['2', '3']);
  });
});
