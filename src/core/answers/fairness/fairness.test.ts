import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { fullRow, indexStudy, type Settings, type Study } from '../../model/study';
import {
  fairnessOfAll,
  fairnessOfPair,
  planDifferences,
  describePlanDifferences,
  type Fairness,
} from './index';
import { roleOf } from './items';

const SETTINGS: Settings = {
  layer_height_mm: 0.2,
  first_layer_height_mm: 0.25,
  line_width_mm: 0.42,
  walls: 3,
  top_layers: 5,
  bottom_layers: 4,
  infill_share: 0.15,
  infill_pattern: 'grid',
  support: 'no',
  adhesion: 'none',
  speed_outer_wall_mm_s: 60,
};

const KNOWN = {
  nozzle_mm: 0.4,
  firmware: '1.2',
  plate: 'textured steel',
  operator: 'M.K.',
  ambient_c: 21,
};

interface Sides {
  intent?: Study['meta']['intent'];
  reference?: Record<string, unknown>;
  contender?: Record<string, unknown>;
  /** Settings of the contender's file that are other than the reference's. */
  settings?: Record<string, string | number>;
  material?: Record<string, unknown>;
  change?: string;
  accepted?: Record<string, unknown>[];
}

/** Two prints a side of one part with a mesh, alike in everything but what is given. */
function pair(sides: Sides = {}): Study {
  const prints = [1, 2].flatMap((repeat) => [
    print(`r${repeat}`, 'R', { repeat, ...KNOWN, toolpath: 'r.gcode', ...sides.reference }),
    print(`c${repeat}`, 'C', {
      repeat,
      ...KNOWN,
      toolpath: 'c.gcode',
      ...(sides.material && { material_id: 'other' }),
      ...sides.contender,
    }),
  ]);
  const study = smallStudy(
    {
      ...TWO_SIDES,
      contenders: [
        { contender_id: 'R', label: 'R', machine_id: 'mr', profile_id: 'p' },
        {
          contender_id: 'C',
          label: 'C',
          machine_id: 'mc',
          profile_id: 'p',
          change: sides.change ?? null,
        },
      ],
      artefacts: [{ artefact_id: 'part', name: 'Part', mesh: 'part.stl' }],
      materials: [
        { material_id: 'pla', type: 'PLA', maker: 'M', colour: 'slate', lot: '1' },
        {
          material_id: 'other',
          type: 'PLA',
          maker: 'M',
          colour: 'slate',
          lot: '1',
          ...sides.material,
        },
      ],
      prints,
      specimens: prints.map((row) => ({
        specimen_id: `s-${String(row.print_id)}`,
        print_id: row.print_id,
        plate_x_mm: 100,
        plate_y_mm: 100,
      })),
      accepted_differences: sides.accepted ?? [],
    },
    { intent: sides.intent ?? 'machines' },
  );
  study.sliced = new Map([
    ['r.gcode', SETTINGS],
    ['c.gcode', { ...SETTINGS, ...sides.settings }],
  ]);
  return study;
}

function check(sides: Sides = {}): Fairness {
  const [only, ...others] = fairnessOfAll(indexStudy(pair(sides)), 'R');
  expect(others).toEqual([]);
  if (!only) throw new Error('nothing was compared');
  return only;
}

const item = (found: Fairness, key: string) => found.items.find((one) => one.key === key);

describe('fairness check', () => {
  it('is clean where nothing differs', () => {
    expect(check()).toMatchObject({
      contender: 'C',
      reference: 'R',
      artefact_id: 'part',
      result: 'clean',
    });
    expect(check().items.filter((one) => one.state === 'different')).toEqual([]);
  });

  it('names the two settings that confound, with both values', () => {
    const found = check({ settings: { infill_pattern: 'gyroid', walls: 2 } });
    expect(found.result).toBe('confounded');
    expect(item(found, 'walls')).toEqual({
      key: 'walls',
      state: 'different',
      role: 'held',
      contender_value: 2,
      reference_value: 3,
      varies: false,
    });
    expect(found.sentence).toBe(
      'Confounded: walls (2 against 3) and infill pattern (gyroid against grid) differ and must be equal.',
    );
  });

  it.each([
    ['machines', 'clean'],
    ['tuning', 'clean'],
    ['same-settings', 'confounded'],
    ['before-after', 'confounded'],
  ] as const)('a speed that differs in a study of %s is %s', (intent, result) => {
    const sides = { intent, settings: { speed_outer_wall_mm_s: 90 } };
    expect(check(sides).result).toBe(result);
  });

  it.each([
    ['machines', 'noted'],
    ['same-settings', 'noted'],
    ['tuning', 'confounded'],
    ['before-after', 'confounded'],
  ] as const)('another plate surface in a study of %s is %s', (intent, result) => {
    expect(check({ intent, contender: { plate: 'glass' } }).result).toBe(result);
  });

  it('what a before-after study changes is the treatment', () => {
    const sides = { intent: 'before-after', contender: { firmware: '1.3' } } as const;
    expect(check(sides).result).toBe('confounded');
    expect(check({ ...sides, change: 'firmware 1.3' }).result).toBe('clean');
  });

  it('judges two contenders of one machine in a crossed study as tuning', () => {
    const study = pair({ intent: 'crossed', contender: { firmware: '1.3' } });
    expect(fairnessOfAll(indexStudy(study), 'R')[0]?.result).toBe('noted');
    study.tables.contenders.forEach((row) => (row.machine_id = 'mr'));
    expect(fairnessOfAll(indexStudy(study), 'R')[0]?.result).toBe('confounded');
  });

  it('another lot confounds, another colour is noted', () => {
    expect(check({ material: { lot: '2' } }).result).toBe('confounded');
    expect(check({ material: { colour: 'red' } }).result).toBe('noted');
  });

  it('counts what is not known as noted where it must be held, else not at all', () => {
    const study = pair({ contender: { nozzle_mm: null } });
    const [unknown] = fairnessOfAll(indexStudy(study), 'R');
    expect(unknown?.result).toBe('noted');
    expect(unknown?.sentence).toBe('Noted: not known: nozzle size.');
    expect(check({ contender: { operator: null } }).result).toBe('clean');
  });

  it('leaves out what nobody in the study knows anything of', () => {
    const study = pair();
    for (const print of study.tables.prints) print.nozzle_mm = null;
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    expect(found?.result).toBe('clean');
    expect(found?.items.map(({ key }) => key)).not.toContain('nozzle_mm');
  });

  it('is made for each type of material apart', () => {
    const study = pair();
    const [pla] = study.tables.materials;
    const petg = { ...pla, material_id: 'petg', type: 'PETG', lot: '9' } as NonNullable<typeof pla>;
    study.tables.materials.push(petg);
    const again = study.tables.prints.map((row) => ({
      ...row,
      print_id: `${row.print_id}-petg`,
      material_id: 'petg',
    }));
    study.tables.prints.push(...again);
    // On one side in another lot: that spoils the one stratum, not the other.
    study.tables.materials.push({ ...petg, material_id: 'petg-2', lot: '10' });
    for (const row of study.tables.prints) {
      if (row.material_id === 'petg' && row.contender_id === 'C') row.material_id = 'petg-2';
    }
    const found = fairnessOfAll(indexStudy(study), 'R');
    expect(found.map(({ artefact_id, type, result }) => [artefact_id, type, result])).toEqual([
      ['part', 'PETG', 'confounded'],
      ['part', 'PLA', 'clean'],
    ]);
    study.meta.intent = 'materials';
    expect(fairnessOfAll(indexStudy(study), 'R').map(({ type }) => type)).toEqual([null]);
  });

  it.each([
    ['slicer', 'machines', 'noted'],
    ['slicer_version', 'tuning', 'held'],
    ['origin', 'tuning', 'wanted'],
    ['origin', 'before-after', 'held'],
    ['speed_mode', 'machines', 'held'],
    ['orientation', 'machines', 'noted'],
    ['orientation', 'same-settings', 'held'],
    ['plate_aid', 'tuning', 'held'],
    ['plate_aid', 'materials', 'noted'],
    ['plate', 'materials', 'noted'],
    ['firmware', 'materials', 'held'],
    ['material_type', 'materials', 'wanted'],
    ['material_colour', 'materials', 'noted'],
    ['nozzle_temp_c', 'materials', 'wanted'],
    ['flow_factor', 'materials', 'wanted'],
    ['speed_outer_wall_mm_s', 'materials', 'held'],
    ['accel_print_mm_s2', 'materials', 'held'],
  ] as const)('%s is, where %s are compared, %s', (key, judged, role) => {
    expect(roleOf(key, { judged })).toBe(role);
  });

  it('of what machines are crossed with is wanted, and what follows from it', () => {
    const roles = (factor: 'slicer' | 'origin') =>
      ['slicer', 'slicer_version', 'origin', 'speed_top_mm_s'].map((key) =>
        roleOf(key, { judged: 'machines', factor }),
      );
    expect(roles('slicer')).toEqual(['wanted', 'wanted', 'noted', 'wanted']);
    expect(roles('origin')).toEqual(['noted', 'noted', 'wanted', 'wanted']);
  });

  it('reads the new items of prints, profiles, parts and plates', () => {
    const study = pair({ contender: { speed_mode: 'fast' }, reference: { speed_mode: 'usual' } });
    const { prints, profiles } = study.tables;
    profiles.forEach((row) => Object.assign(row, { slicer: 'Strake', origin: 'own' }));
    const isOfC = (row: { contender_id: string }) => row.contender_id === 'C';
    study.tables.plate_uses = prints.map((row) =>
      fullRow('plate_uses', {
        print_id: row.print_id,
        hold: 'held',
        aid: isOfC(row) ? 'glue-stick' : null,
      }),
    );
    study.tables.specimens = prints.map((row) =>
      fullRow('specimens', {
        specimen_id: `s-${row.print_id}`,
        print_id: row.print_id,
        angle_deg: isOfC(row) ? 90 : 0,
      }),
    );
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    const valuesOf = (key: string) => {
      const item = found?.items.find((one) => one.key === key);
      return [item?.contender_value, item?.reference_value];
    };
    expect(valuesOf('slicer')).toEqual(['Strake', 'Strake']);
    expect(valuesOf('speed_mode')).toEqual(['fast', 'usual']);
    expect(valuesOf('plate_aid')).toEqual(['glue-stick', 'none']);
    expect(valuesOf('orientation')).toEqual([90, 0]);
    expect(valuesOf('origin')).toEqual(['own', 'own']);
  });

  it('a version that a file states as a number is the one that a profile names in letters', () => {
    const study = pair();
    const program = { slicer: 'Strake', slicer_version: '0.9' };
    for (const row of study.tables.profiles) Object.assign(row, program);
    study.sliced = new Map([['c.gcode', { slicer: 'Strake', slicer_version: 0.9 }]]);
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    const version = found?.items.find((one) => one.key === 'slicer_version');
    expect(version).toMatchObject({ state: 'same', contender_value: '0.9' });
  });

  it('knows the nozzle from the machine where the print does not say', () => {
    const study = pair({ contender: { nozzle_mm: null } });
    study.tables.machines.forEach((machine) => (machine.nozzle_mm = 0.6));
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    expect(found?.items.find((one) => one.key === 'nozzle_mm')).toMatchObject({
      state: 'different',
      contender_value: 0.6,
      reference_value: 0.4,
    });
  });

  it('a value known of some prints only is not known', () => {
    const study = pair();
    const first = study.tables.prints.find((row) => row.print_id === 'c1');
    if (first) first.plate = null;
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    expect(found?.items.find((one) => one.key === 'plate')?.state).toBe('unknown');
  });

  it('a lot that changes within one contender is noted by itself', () => {
    const study = pair({ material: { lot: '2' } });
    const first = study.tables.prints.find((row) => row.print_id === 'c1');
    if (first) first.material_id = 'pla';
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    expect(found?.result).toBe('noted');
    expect(found?.items.find((one) => one.key === 'material_lot')).toMatchObject({
      state: 'different',
      varies: true,
      contender_value: ['1', '2'],
      reference_value: '1',
    });
  });

  it('several spellings of one text are one, shown alike whatever the order of the prints', () => {
    const study = pair({ material: { colour: 'SLATE' } });
    const own = study.tables.prints.filter((row) => row.contender_id === 'C');
    if (own[0]) own[0].material_id = 'pla';
    const colourOf = () =>
      fairnessOfAll(indexStudy(study), 'R')[0]?.items.find((one) => one.key === 'material_colour');
    expect(own.length).toBeGreaterThan(1);
    expect(colourOf()).toMatchObject({ state: 'same', varies: false, contender_value: 'SLATE' });
    study.tables.prints.reverse();
    expect(colourOf()).toMatchObject({ state: 'same', varies: false, contender_value: 'SLATE' });
  });

  it('means of the ambient temperature within 3 °C are the same', () => {
    expect(item(check({ contender: { ambient_c: 24 } }), 'ambient_c')?.state).toBe('same');
    expect(item(check({ contender: { ambient_c: 24.1 } }), 'ambient_c')?.state).toBe('different');
  });

  it('ambient temperatures at the limit are the same, and one that is not known is not', () => {
    const stateAt = (contender: number | null) =>
      item(check({ contender: { ambient_c: contender } }), 'ambient_c')?.state;
    expect(stateAt(24)).toBe('same');
    expect(stateAt(18)).toBe('same');
    expect(stateAt(24.1)).toBe('different');
    expect(stateAt(null)).toBe('unknown');
  });

  it('in a sweep the swept setting is wanted, and no other', () => {
    expect(
      roleOf('speed_outer_wall_mm_s', { judged: 'sweep', swept: 'speed_outer_wall_mm_s' }),
    ).toBe('wanted');
    expect(roleOf('layer_height_mm', { judged: 'sweep', swept: 'layer_height_mm' })).toBe('wanted');
    expect(roleOf('layer_height_mm', { judged: 'sweep', swept: 'speed_outer_wall_mm_s' })).toBe(
      'held',
    );
    expect(roleOf('speed_outer_wall_mm_s', { judged: 'sweep', swept: 'flow_factor' })).not.toBe(
      'wanted',
    );
    expect(roleOf('layer_height_mm', { judged: 'tuning', swept: 'layer_height_mm' })).toBe('held');
  });

  it('settings of the profile stand in where no sliced file was read', () => {
    const study = pair();
    study.sliced = new Map();
    study.tables.profile_settings = Object.entries(SETTINGS).map(([key, value]) => ({
      profile_id: 'p',
      key,
      value: key === 'infill_share' ? '15%' : String(value),
    }));
    const [found] = fairnessOfAll(indexStudy(study), 'R');
    expect(found?.result).toBe('clean');
    expect(found?.items.find((one) => one.key === 'infill_share')?.contender_value).toBe(0.15);
  });

  it('an accepted difference stays a difference, with its reason', () => {
    const found = check({
      settings: { walls: 2 },
      accepted: [
        {
          contender_id: 'C',
          reference_id: 'R',
          artefact_id: 'part',
          item: 'walls',
          reason: 'the wall is solid either way',
          operator: 'M.K.',
        },
      ],
    });
    expect(found.result).toBe('confounded');
    expect(item(found, 'walls')?.accepted?.reason).toBe('the wall is solid either way');
  });

  it('any other pair can be asked for', () => {
    const [turned] = fairnessOfPair(indexStudy(pair({ settings: { walls: 2 } })), 'R', 'C');
    expect(turned && item(turned, 'walls')).toMatchObject({
      contender_value: 3,
      reference_value: 2,
    });
  });
});

describe('the plan, before anything is printed', () => {
  const planned = (contender_id: string, toolpath: string | null) => ({
    contender_id,
    artefact_id: 'part',
    material_id: 'pla',
    repeats: 2,
    toolpath,
  });
  const files = new Map<string, Settings>([
    ['a', SETTINGS],
    ['b', { ...SETTINGS, walls: 2, speed_outer_wall_mm_s: 90 }],
    ['c', SETTINGS],
  ]);
  const rows = [planned('A', 'a'), planned('B', 'b'), planned('C', 'c'), planned('D', null)];

  it('names what must be equal and differs; speeds only where they must be', () => {
    const found = planDifferences(rows, files, 'machines');
    expect(found.map((one) => one.key)).toEqual(['walls']);
    expect(describePlanDifferences(found, (id) => id)).toBe(
      'The files differ in what must be equal: walls (2 for B; 3 for A, C).',
    );
    expect(planDifferences(rows, files, 'same-settings').map((one) => one.key)).toEqual([
      'walls',
      'speed_outer_wall_mm_s',
    ]);
  });

  it('says nothing of files that agree or were not read', () => {
    expect(planDifferences([planned('A', 'a'), planned('C', 'c')], files, 'machines')).toEqual([]);
    expect(planDifferences([planned('A', 'a'), planned('X', 'x')], files, 'machines')).toEqual([]);
    expect(describePlanDifferences([], (id) => id)).toBeNull();
  });
});
