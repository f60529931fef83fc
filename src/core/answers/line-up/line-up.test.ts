import { describe, expect, it } from 'vitest';
import { settingNames } from '../../model/study/settings';
import {
  changesOf,
  MACHINE_FACTS,
  profileSettings,
  proposeFromFiles,
  settingRows,
  type MachineFacts,
} from '.';

const fact = (key: string) => {
  const found = MACHINE_FACTS.find((one) => one.key === key);
  if (!found) throw new Error(`no fact ${key}`);
  return found;
};
const typed = (key: string, text: string): MachineFacts | string => {
  const written = fact(key).write(text);
  return 'fault' in written ? written.fault : written.change;
};

describe('a machine’s facts are typed as they are read', () => {
  it('its build sizes: three, two of a round plate, one of a cube', () => {
    const sizes = (x: number, y: number, z: number) => ({
      build_x_mm: x,
      build_y_mm: y,
      build_z_mm: z,
    });
    expect(typed('build', '230 × 230 × 250')).toEqual(sizes(230, 230, 250));
    expect(typed('build', '230x220x250,5')).toEqual(sizes(230, 220, 250.5));
    expect(typed('build', '⌀ 300 × 380')).toEqual(sizes(300, 300, 380));
    expect(typed('build', '260')).toEqual(sizes(260, 260, 260));
    expect(typed('build', 'big')).toBe('type it as 230 × 230 × 250');
    expect(typed('build', ' ')).toEqual({ build_x_mm: null, build_y_mm: null, build_z_mm: null });
  });

  it('its price: paid, list price, currency', () => {
    expect(typed('price', '640 (812) eur')).toEqual({
      price_paid: 640,
      price_list: 812,
      currency: 'EUR',
    });
    expect(typed('price', '231')).toEqual({ price_paid: 231, price_list: null });
    expect(typed('price', '(812)')).toEqual({ price_paid: null, price_list: 812 });
    expect(typed('price', 'cheap')).toMatch(/^type it as/);
    expect(fact('price').show({ price_paid: 640, price_list: 812, currency: 'EUR' })).toBe(
      '640 (812) EUR',
    );
    expect(fact('price').show({ price_paid: 231, price_list: 231, currency: 'EUR' })).toBe(
      '231 EUR',
    );
  });

  it('is read back as it was typed', () => {
    for (const [key, text] of [
      ['build', '230 × 230 × 250'],
      ['price', '640 (812) EUR'],
      ['nozzle_mm', '0.4'],
      ['firmware', '1.9.2'],
    ] as const) {
      expect(fact(key).show(typed(key, text) as MachineFacts)).toBe(text);
    }
    expect(
      fact('build').show({
        build_x_mm: 300,
        build_y_mm: 300,
        build_z_mm: 380,
        kinematics: 'delta',
      }),
    ).toBe('⌀ 300 × 380');
    expect(fact('build').show({})).toBeNull();
    expect(fact('kinematics').show({ kinematics: 'cartesian-moving-bed' })).toBe(
      'cartesian moving bed',
    );
  });

  it('a number is a number', () => {
    expect(typed('nozzle_mm', '0,6')).toEqual({ nozzle_mm: 0.6 });
    expect(typed('nozzle_mm', 'wide')).toBe('“wide” is not a number');
    expect(typed('nozzle_mm', '')).toEqual({ nozzle_mm: null });
  });
});

describe('settings side by side', () => {
  const profiles = [
    { profile_id: 's', name: 'Stock', kind: 'stock' as const, parent_id: null },
    { profile_id: 't', name: 'Tuned', kind: 'tuned' as const, parent_id: 's' },
  ];
  const contenders = [
    { contender_id: 'A', profile_id: 's' },
    { contender_id: 'B', profile_id: 't' },
  ];
  const set = (profile_id: string, key: string, value: string) => ({ profile_id, key, value });
  const settings = [
    set('s', 'walls', '3'),
    set('t', 'perimeters', '3'),
    set('s', 'nozzle_temp_c', '215'),
    set('t', 'nozzle_temp_c', '210'),
  ];

  it('are compared under one name, what differs first, against the stock parent', () => {
    const rows = settingRows(contenders, profiles, settings);
    expect(rows.map((row) => [row.key, row.isDifferent])).toEqual([
      ['nozzle_temp_c', true],
      ['walls', false],
    ]);
    expect(rows[0]?.cells).toEqual([
      { value: '215', differs: false, otherwise: null, isStated: false },
      { value: '210', differs: true, otherwise: null, isStated: false },
    ]);
    expect(rows[0]?.label).toBe('nozzle temp, °C');
    expect(changesOf(profiles[1]!, settings)).toBe(1);
    expect(changesOf(profiles[0]!, settings)).toBeNull();
  });

  it('are counted from the files of both where nobody has typed them in', () => {
    const file = (contender_id: string, stated: Record<string, number>) => ({
      contender_id,
      artefact: 'Wall',
      settings: stated,
    });
    const stated = [
      file('A', { walls: 3, retract_mm: 0.8 }),
      file('B', { walls: 2, retract_mm: 0.8, fan_share: 1 }),
    ];
    expect(changesOf(profiles[1]!, [], stated, contenders)).toBe(1);
    // What was typed in wins over what a file says.
    expect(changesOf(profiles[1]!, [set('t', 'walls', '3')], stated, contenders)).toBe(0);
    expect(changesOf(profiles[1]!, [], [], contenders)).toBe(0);
  });

  it('that are alike stand in the order of the words, those of other words last', () => {
    const [first = '', second = '', third = ''] = settingNames();
    const same = [third, 'aardvark', first, second].map((key) => set('s', key, '1'));
    const rows = settingRows(contenders.slice(0, 1), profiles, same);
    expect(rows.map((row) => row.key)).toEqual([first, second, third, 'aardvark']);
  });

  it('say what files state otherwise, and on which part', () => {
    const stated = [
      { contender_id: 'B', artefact: 'Echo wall', settings: { walls: 2 } },
      { contender_id: 'B', artefact: 'Lantern', settings: { walls: 3 } },
    ];
    const walls = settingRows(contenders, profiles, settings, stated).find(
      (row) => row.key === 'walls',
    );
    expect(walls?.cells[1]).toMatchObject({
      value: '3',
      differs: false,
      otherwise: '2 on Echo wall',
    });
    expect(walls?.isDifferent).toBe(true);
  });

  it('that no profile says are what all files of it state', () => {
    const file = (contender_id: string, artefact: string, retract_mm: number) => ({
      contender_id,
      artefact,
      settings: { retract_mm },
    });
    const rows = settingRows(
      contenders,
      profiles,
      [],
      [
        file('A', 'Wall', 0.8),
        file('A', 'Ring', 0.8),
        file('B', 'Wall', 0.8),
        file('B', 'Ring', 1),
      ],
    );
    expect(rows[0]?.cells[0]).toEqual({
      value: '0.8',
      differs: false,
      otherwise: null,
      isStated: true,
    });
    expect(rows[0]?.cells[1]).toMatchObject({ value: null, otherwise: '0.8 on Wall; 1 on Ring' });
  });

  it('that a tuned profile lacks differ from a parent that has them', () => {
    const rows = settingRows(contenders, profiles, [set('s', 'walls', '3')]);
    expect(rows[0]?.cells[1]).toMatchObject({ value: null, differs: true });
  });
});

describe('dropped files', () => {
  const known = { machines: ['Gannet X24', 'Gannet'], parts: ['Stair block', 'Echo wall'] };
  const propose = (name: string, settings: Record<string, string | number> = {}) =>
    proposeFromFiles([{ name, settings }], known)[0];

  it('say their machine, profile, part and material', () => {
    const settings = {
      Machine: 'gannet x24',
      Profile: 'Gannet, clip bench',
      Object: 'stair-block',
      filament_type: 'petg',
    };
    expect(propose('a.gcode', settings)).toEqual({
      machine: 'Gannet X24',
      profile: 'Gannet, clip bench',
      kind: 'tuned',
      part: 'Stair block',
      material: 'PETG',
    });
    expect(propose('a.gcode', { Profile: 'Gannet, as shipped' })?.kind).toBe('stock');
    const strake = { Yard: 'gannet x24', Plan: 'Gannet, clip bench', Vessel: 'echo wall' };
    expect(propose('a.gcode', strake)).toMatchObject({ machine: 'Gannet X24', part: 'Echo wall' });
  });

  it('are known by their names where they do not say; what is not known is left to a person', () => {
    expect(propose('echo-wall_gannet-x24.gcode.gz')).toEqual({
      machine: 'Gannet X24',
      profile: 'Gannet X24, as shipped',
      kind: 'stock',
      part: 'Echo wall',
      material: null,
    });
    expect(propose('hook_v2.gcode')).toMatchObject({ machine: '', profile: '', part: 'Hook v2' });
  });

  it('give their profile the settings that have names of ours', () => {
    expect(profileSettings({ walls: 3, Machine: 'x', infill_pattern: 'grid' })).toEqual({
      walls: '3',
      infill_pattern: 'grid',
    });
  });
});
