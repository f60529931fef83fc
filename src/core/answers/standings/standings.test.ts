import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { plainStandings, sameArtefacts, standingsOf, type KnownArtefact } from '.';

type Given = Parameters<typeof smallStudy>[0];

/** A study whose prints have one specimen and one reading each: [print, contender, mm]. */
const study = (
  name: string,
  read: readonly (readonly [string, string, number])[],
  more: Given = {},
) => ({
  study: smallStudy(
    {
      ...TWO_SIDES,
      dimensions: [
        {
          artefact_id: 'part',
          dimension_id: 'w',
          name: 'w',
          axis: 'x',
          kind: 'external',
          nominal_mm: 20,
        },
      ],
      instruments: [{ instrument_id: 'cal', name: 'Caliper 1' }],
      prints: read.map(([id, contender]) => print(id, contender)),
      specimens: read.map(([id]) => ({ specimen_id: `s${id}`, print_id: id })),
      readings: read.map(([id, , value_mm]) => ({
        specimen_id: `s${id}`,
        dimension_id: 'w',
        trial: 1,
        value_mm,
        instrument_id: 'cal',
      })),
      ...more,
    },
    { name },
  ),
  meshes: new Map<string, { identity: string | null; sha256: string | null }>(),
});

const known = (
  study: number,
  artefact_id: string,
  more: object = {},
  mesh: KnownArtefact['mesh'] = null,
) =>
  ({
    study,
    mesh,
    artefact: {
      artefact_id,
      name: artefact_id,
      version: null,
      mesh: null,
      mesh_sha256: null,
      notes: null,
      ...more,
    },
  }) as KnownArtefact;

const grouped = (all: KnownArtefact[]) =>
  sameArtefacts(all).map((group) => group.map((one) => `${one.study}${one.artefact.artefact_id}`));

describe('two artefacts are the same', () => {
  it('where the identity of the mesh is, whatever they are called', () => {
    const mesh = { identity: 'i1', sha256: 'a' };
    expect(grouped([known(0, 'a', {}, mesh), known(1, 'b', {}, { ...mesh, sha256: 'c' })])).toEqual(
      [['0a', '1b']],
    );
    expect(
      grouped([known(0, 'a', {}, mesh), known(1, 'a', {}, { identity: 'i2', sha256: 'c' })]),
    ).toEqual([['0a'], ['1a']]);
  });

  it('where a hash is that of the other’s file, in capitals or not, through a third one too', () => {
    const all = [
      known(0, 'a', { mesh_sha256: 'ABC' }),
      known(1, 'b', {}, { identity: 'i1', sha256: 'def' }),
      known(2, 'c', {}, { identity: 'i1', sha256: 'abc' }),
    ];
    expect(grouped(all)).toEqual([['0a', '1b', '2c']]);
    expect(grouped([known(0, 'a', { mesh_sha256: 'abc' }), known(1, 'a')])).toEqual([
      ['0a'],
      ['1a'],
    ]);
  });

  it('where neither has any: by id and version', () => {
    const all = [known(0, 'a'), known(1, 'a', { version: '2' }), known(1, 'b'), known(2, 'a')];
    expect(grouped(all)).toEqual([['0a', '2a'], ['1a'], ['1b']]);
  });
});

describe('standings', () => {
  const one = study('one', [
    ['1', 'R', 20.1],
    ['2', 'R', 20.3],
    ['3', 'C', 20.05],
  ]);
  const two = study('two', [
    ['1', 'R', 20.15],
    ['2', 'R', 20.151],
  ]);

  it('put everyone of every study by mean deviation, each with its own interval', () => {
    const [part] = standingsOf([one, two]);
    expect(part?.rows.map((row) => `${row.study}/${row.contender}`)).toEqual([
      'one/C',
      'two/R',
      'one/R',
    ]);
    // Mean 0.2 of 0.1 and 0.3; t(0.975, 1) = 12.7062, s/√2 = 0.1.
    const last = part?.rows[2];
    expect(last?.mae_mm.estimate).toBeCloseTo(0.2, 9);
    expect(last?.mae_mm.high).toBeCloseTo(0.2 + 1.27062, 4);
    // One print: no interval. The others' hold the first's estimate or not.
    expect(part?.rows.map((row) => row.near_best)).toEqual([true, false, true]);
    expect(part?.rows[0]?.mae_mm).toMatchObject({ low: null, high: null });
  });

  it('leave a row without an interval undecided', () => {
    const three = study('three', [['1', 'C', 20.4]]);
    expect(standingsOf([one, three])[0]?.rows.map((row) => row.near_best)).toEqual([
      true,
      true,
      null,
    ]);
  });

  it('put rows without readings last, by study and contender', () => {
    const bare = study('bare', [], {
      prints: [print('9', 'R'), print('8', 'C')],
      specimens: [],
      readings: [],
    });
    const rows = standingsOf([bare, two])[0]?.rows ?? [];
    expect(rows.map((row) => `${row.study}/${row.contender}`)).toEqual([
      'two/R',
      'bare/C',
      'bare/R',
    ]);
    expect(rows[1]?.mae_mm).toEqual({
      estimate: null,
      low: null,
      high: null,
      notes: ['no readings'],
    });
  });

  it('are of the artefact alone: the other artefacts of a contender are not in it', () => {
    const both = study('both', [['1', 'R', 20.1]], {
      artefacts: [
        { artefact_id: 'part', name: 'Part' },
        { artefact_id: 'other', name: 'Other' },
      ],
      prints: [
        print('1', 'R', { print_s: 100, started_at: '2026-03-02T01:00:00Z' }),
        print('2', 'R', {
          print_s: 400,
          outcome: 'rescued',
          started_at: '2026-03-01T23:00:00-05:00',
        }),
        print('3', 'R', { print_s: 900, outcome: 'failed' }),
        print('4', 'R', { print_s: 5000, artefact_id: 'other' }),
      ],
    });
    const [part, other] = standingsOf([both]);
    // The geometric mean of 100 and 400 is 200; a failed print has no time.
    expect(part?.rows[0]?.print_s.estimate).toBeCloseTo(200, 9);
    expect(part?.rows[0]).toMatchObject({ prints: 3, success: { estimate: 1 / 3 } });
    // By the moment, not by the text.
    expect(part?.rows[0]).toMatchObject({
      from: '2026-03-02T01:00:00Z',
      to: '2026-03-01T23:00:00-05:00',
    });
    expect(other?.rows[0]).toMatchObject({ prints: 1, mae_mm: { estimate: null }, from: null });
    expect(other?.rows[0]?.print_s.estimate).toBeCloseTo(5000, 6);
  });

  it('name what a row does not share with the first; nothing known on a side is not named', () => {
    const settings = (value: string) => [{ profile_id: 'p', key: 'layer_height', value }];
    const first = study('a', [['1', 'R', 20.01]], {
      materials: [{ material_id: 'pla', type: 'PLA', lot: 'L1' }],
      profile_settings: settings('0.20'),
    });
    const other = study('b', [['1', 'R', 20.1]], {
      machines: [
        { machine_id: 'mr', name: 'R', nozzle_mm: 0.6 },
        { machine_id: 'mc', name: 'C' },
      ],
      materials: [{ material_id: 'pla', type: 'PETG', lot: 'L2' }],
      instruments: [{ instrument_id: 'cal', name: 'Caliper 2' }],
      profile_settings: settings('0.2'),
    });
    const rows = standingsOf([first, other])[0]?.rows;
    expect(rows?.[0]?.differs).toEqual([]);
    expect(rows?.[1]?.differs).toEqual(['material_type', 'material_lot', 'instrument']);
    expect(rows?.[1]?.own).toMatchObject({ instrument: ['Caliper 2'], material_lot: ['L2'] });
    expect(plainStandings(standingsOf([first, other]))[0]?.rows[1]).not.toHaveProperty('own');
  });

  it('say where under half of the dimensions are the same', () => {
    const dimensions = (nominals: readonly number[]) =>
      nominals.map((nominal_mm, at) => ({
        artefact_id: 'part',
        dimension_id: `d${at}`,
        name: 'D',
        axis: 'x',
        kind: 'external',
        nominal_mm,
      }));
    const measured = (name: string, nominals: readonly number[]) => {
      const given = smallStudy(
        {
          ...TWO_SIDES,
          dimensions: dimensions(nominals),
          prints: [print('1', 'R')],
          specimens: [{ specimen_id: 's', print_id: '1' }],
          readings: nominals.map((nominal_mm, at) => ({
            specimen_id: 's',
            dimension_id: `d${at}`,
            trial: 1,
            value_mm: nominal_mm + 0.01 * (name === 'a' ? 1 : 2),
          })),
        },
        { name },
      );
      return { study: given, meshes: new Map() };
    };
    const first = measured('a', [20, 30, 40, 50]);
    const differsOf = (nominals: readonly number[]) =>
      standingsOf([first, measured('b', nominals)])[0]?.rows[1]?.differs;
    // Two of four is half: not under it. One of four is.
    expect(differsOf([20, 30, 41, 51])).toEqual([]);
    expect(differsOf([20, 31, 41, 51])).toEqual(['dimensions']);
  });

  it('have the ladder limits that are passed without effort', () => {
    const given = study('l', [['1', 'R', 20]], {
      ladders: [
        { artefact_id: 'part', ladder_id: 'gap', name: 'gap', quantity: 'clearance', unit: 'mm' },
      ],
      ladder_steps: [1, 2].map((step) => ({
        artefact_id: 'part',
        ladder_id: 'gap',
        step,
        value: 0.5 / step,
      })),
      ladder_results: [
        { specimen_id: 's1', ladder_id: 'gap', step: 1, result: 'clear' },
        { specimen_id: 's1', ladder_id: 'gap', step: 2, result: 'effort' },
      ],
    });
    expect(standingsOf([given])[0]?.rows[0]?.limits).toEqual({ gap: 0.5 });
  });

  it('take identity and name of the first study; an artefact that nobody printed has no rows', () => {
    const named = study('n', [], {
      artefacts: [{ artefact_id: 'part', name: 'First name' }],
      prints: [],
      specimens: [],
      readings: [],
    });
    named.meshes.set('part', { identity: 'i1', sha256: 'a' });
    const again = study('m', [['1', 'R', 20.1]]);
    again.meshes.set('part', { identity: 'i1', sha256: 'b' });
    const all = standingsOf([named, again]);
    expect(all).toHaveLength(1);
    expect(all[0]).toMatchObject({ identity: 'i1', name: 'First name' });
    expect(all[0]?.rows).toHaveLength(1);
    expect(standingsOf([named])[0]?.rows).toEqual([]);
  });
});
