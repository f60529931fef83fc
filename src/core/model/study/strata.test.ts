import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { fullRow, indexStudy, partsOfStratum } from '.';

const MATERIALS = [
  { material_id: 'pla', type: 'PLA' },
  { material_id: 'pla-2', type: 'PLA' },
  { material_id: 'petg', type: 'PETG' },
];

describe('a stratum', () => {
  const study = smallStudy({
    ...TWO_SIDES,
    materials: MATERIALS,
    prints: [
      print('one', 'R'),
      print('lot', 'R', { material_id: 'pla-2' }),
      print('two', 'R', { material_id: 'petg' }),
      print('mixed', 'R'),
    ],
    print_materials: [
      { print_id: 'mixed', slot: 1, material_id: 'pla' },
      { print_id: 'mixed', slot: 2, material_id: 'petg' },
      { print_id: 'mixed', slot: 3, material_id: 'pla-2' },
    ],
  });
  const strata = () => {
    const index = indexStudy(study);
    return study.tables.prints.map((row) => index.stratumOf(row));
  };

  it('is an artefact in a type of material, of several materials in the set of their types', () => {
    expect(strata()).toEqual(['part/PLA', 'part/PLA', 'part/PETG', 'part/PETG+PLA']);
    expect(partsOfStratum('part/PETG+PLA')).toEqual({ artefact_id: 'part', type: 'PETG+PLA' });
  });

  it('is the artefact where materials are what is compared', () => {
    study.meta.intent = 'materials';
    expect(new Set(strata())).toEqual(new Set(['part']));
    expect(partsOfStratum('part')).toEqual({ artefact_id: 'part', type: null });
  });
});

describe('prints of one part in two plastics', () => {
  // R: PLA 100 s twice, PETG 200 s twice. C: PLA 90 s twice, PETG not at all.
  const timed = (id: string, contender: string, material_id: string, print_s: number) =>
    print(id, contender, { material_id, print_s });
  const study = () =>
    smallStudy(
      {
        ...TWO_SIDES,
        materials: MATERIALS,
        prints: [
          timed('r1', 'R', 'pla', 99),
          timed('r2', 'R', 'pla', 101),
          timed('r3', 'R', 'petg', 199),
          timed('r4', 'R', 'petg', 201),
          timed('c1', 'C', 'pla', 89),
          timed('c2', 'C', 'pla-2', 91),
        ],
      },
      { smallest_difference: { time_pct: 5 } },
    );

  it('are compared in the plastic that both have', () => {
    const { pairs, speed } = evaluate(study());
    const [row] = pairs.ln_print_s ?? [];
    const expected = (Math.log(89 * 91) - Math.log(99 * 101)) / 2;
    expect(row).toMatchObject({ artefacts: 1, strata: 1, verdict: 'better', prints_as_seen: null });
    expect(row?.difference.estimate).toBeCloseTo(expected, 12);
    expect(row?.notes).toEqual(['part in PETG is on one side only: not compared']);
    expect(speed.C?.by_artefact.part?.ratio_to_reference).toBeCloseTo(Math.exp(expected), 12);
  });

  it('are no repeats of one another: the plastic is not their scatter', () => {
    const { pairs } = evaluate(study());
    // Were all four of R repeats of one question, the interval would be some 70 % wide.
    const { low, high } = pairs.ln_print_s?.[0]?.difference ?? {};
    expect((high ?? 1) - (low ?? 0)).toBeLessThan(0.15);
  });

  it('count as two strata of one artefact where both sides have both', () => {
    const both = study();
    const [first] = both.tables.prints;
    for (const id of ['c3', 'c4']) {
      both.tables.prints.push({
        ...(first as NonNullable<typeof first>),
        print_id: id,
        contender_id: 'C',
        material_id: 'petg',
        print_s: id === 'c3' ? 189 : 191,
      });
    }
    const [row] = evaluate(both).pairs.ln_print_s ?? [];
    expect(row).toMatchObject({ artefacts: 1, strata: 2 });
    const own = (Math.log(89 * 91) + Math.log(189 * 191)) / 4;
    const others = (Math.log(99 * 101) + Math.log(199 * 201)) / 4;
    expect(row?.difference.estimate).toBeCloseTo(own - others, 12);
  });

  it('have a note where a fit over all of them mixes their shrinkage', () => {
    const given = study();
    const sizes = [10, 20, 40].map((nominal_mm, at) =>
      fullRow('dimensions', {
        artefact_id: 'part',
        dimension_id: `d${at}`,
        name: 'D',
        nominal_mm,
        axis: 'x',
        kind: 'external',
      }),
    );
    given.tables.dimensions = sizes;
    given.tables.specimens = given.tables.prints.map(({ print_id }) =>
      fullRow('specimens', { specimen_id: print_id, print_id }),
    );
    const shrinkage: Record<string, number> = { petg: 0.996, pla: 0.999 };
    given.tables.readings = given.tables.prints.flatMap(({ print_id, material_id }) =>
      sizes.map(({ dimension_id, nominal_mm }) =>
        fullRow('readings', {
          specimen_id: print_id,
          dimension_id,
          trial: 1,
          value_mm: nominal_mm * (shrinkage[material_id] ?? 1),
        }),
      ),
    );
    given.present = new Set([...given.present, 'dimensions', 'specimens', 'readings']);
    const { accuracy } = evaluate(given);
    expect(accuracy?.R?.fit.x.notes).toContain(
      'mixes the shrinkage of several materials: PETG, PLA',
    );
    const fits = Object.entries(accuracy?.R?.fit_by_type ?? {});
    const scales = fits.map(([type, { x }]) => [type, x.scale?.estimate]);
    expect(scales).toEqual([
      ['PETG', expect.closeTo(0.996, 12)],
      ['PLA', expect.closeTo(0.999, 12)],
    ]);
    expect(accuracy?.C?.fit.x.notes).toEqual([]);
    expect(accuracy?.C?.fit_by_type).toBeNull();
  });

  it('of another plastic on each side are not compared at all', () => {
    const apart = study();
    for (const row of apart.tables.prints) if (row.contender_id === 'C') row.material_id = 'petg';
    apart.tables.prints = apart.tables.prints.filter(
      (row) => row.contender_id === 'C' || row.material_id === 'pla',
    );
    const { pairs, speed } = evaluate(apart);
    expect(pairs.ln_print_s).toEqual([]);
    expect(speed.C?.time_index.estimate).toBeNull();
  });
});
