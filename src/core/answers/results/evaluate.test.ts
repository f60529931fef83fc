import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from './evaluate';

const timed = (id: string, contender: string, print_s: number, more = {}) =>
  print(id, contender, { print_s, estimate_s: 1000, heat_s: 200, repeat: 1, ...more });

describe('speed', () => {
  const study = smallStudy(
    {
      ...TWO_SIDES,
      prints: [
        timed('r1', 'R', 1000),
        timed('r2', 'R', 1210, { repeat: 2 }),
        timed('c1', 'C', 500, { outcome: 'rescued' }),
        timed('c2', 'C', 605, { repeat: 2 }),
        timed('c3', 'C', 60, { repeat: 3, outcome: 'failed' }),
        print('c4', 'C', { repeat: 4 }),
      ],
    },
    { smallest_difference: { time_pct: 5 } },
  );
  const { speed, pairs, accuracy } = evaluate(study);

  it('takes finished prints with a known time', () => {
    expect(speed.C).toMatchObject({ prints: 2, median_print_s: 552.5 });
    expect(speed.C?.notes).toEqual(['1 finished prints without a printing time']);
  });

  it('compares geometric means', () => {
    expect(speed.C?.by_artefact.part?.ratio_to_reference).toBeCloseTo(0.5, 12);
    expect(speed.C?.time_index.estimate).toBeCloseTo(0.5, 12);
    expect(speed.R?.time_index).toMatchObject({ estimate: 1, low: null, high: null });
    expect(pairs.ln_print_s?.[0]).toMatchObject({ verdict: 'better', artefacts: 1 });
    // √(1.000 · 1.210) = 1.1
    expect(speed.R?.estimate_ratio.estimate).toBeCloseTo(1.1, 12);
  });

  it('has no accuracy where nothing was measured', () => {
    expect(accuracy).toBeNull();
    expect(pairs.accuracy_mm).toBeNull();
  });
});

describe('reliability', () => {
  const incident = (
    incident_id: string,
    machine_id: string,
    print_id: string | null,
    cause: string,
    more = {},
  ) => ({
    incident_id,
    machine_id,
    print_id,
    mode: 'other',
    cause,
    ...more,
  });
  const study = smallStudy({
    ...TWO_SIDES,
    prints: [
      timed('c1', 'C', 3400),
      timed('c2', 'C', 3400, { outcome: 'failed', repeat: 2 }),
      timed('c3', 'C', 3400, { outcome: 'aborted', repeat: 3 }),
      print('c4', 'C', {
        repeat: 4,
        started_at: '2026-03-02T10:00:00+01:00',
        ended_at: '2026-03-02T12:00:00+02:00',
        paused_s: 1800,
      }),
      timed('r1', 'R', 3400),
    ],
    incidents: [
      incident('i1', 'mc', 'c2', 'operator', { downtime_s: 3600, hands_s: 600 }),
      incident('i2', 'mc', 'c3', 'machine', { downtime_s: 1800 }),
      incident('i3', 'mc', null, 'machine'),
    ],
  });
  const { reliability } = evaluate(study);

  it('counts outcomes, hours and incidents of a contender', () => {
    const own = reliability.C?.all;
    expect(own).toMatchObject({
      prints: 4,
      good: 2,
      failed: 1,
      aborted: 1,
      rescued: 0,
      incidents: 2,
    });
    // Three prints of an hour; the fourth lasts one hour by its ends, less half an hour paused.
    expect(own?.hours).toBeCloseTo(3.5, 10);
    expect(own?.downtime_share).toBeCloseTo(1.5 / 5, 10);
    expect(own?.hands_min_per_100_h).toBeCloseTo(1000 / 3.5, 8);
    expect(own?.per_100_h.estimate).toBeCloseTo(200 / 3.5, 8);
    // Clopper–Pearson for 2 of 4.
    expect(own?.success.low).toBeCloseTo(0.0675859, 6);
    expect(own?.success.high).toBeCloseTo(0.9324141, 6);
    expect(own?.notes).toContain('incidents without hands time, counted 0: 1');
  });

  it('leaves the operator’s own mistakes out, hours and all', () => {
    const own = reliability.C?.without_operator;
    expect(own).toMatchObject({ prints: 3, good: 2, failed: 0, incidents: 1 });
    expect(own?.hours).toBeCloseTo(2.5, 10);
  });

  it('books incidents between prints to the machine', () => {
    expect(reliability['machine:mc']?.all.incidents).toBe(3);
    expect(reliability['machine:mr']?.all.incidents).toBe(0);
  });

  it('says what a row of successes proves', () => {
    expect(reliability.R?.all.failure_rate_below).toBeCloseTo(0.95, 10);
    expect(reliability.C?.all.failure_rate_below).toBeNull();
  });

  it('does not take no record of incidents for no incidents', () => {
    const silent = evaluate(smallStudy({ ...TWO_SIDES, prints: [timed('r1', 'R', 3400)] }));
    expect(silent.reliability.R?.all).toMatchObject({ incidents: null, downtime_share: null });
    expect(silent.reliability.R?.all.per_100_h.estimate).toBeNull();
  });
});

describe('accuracy between two contenders', () => {
  const dimension = (dimension_id: string) => ({
    artefact_id: 'part',
    dimension_id,
    name: dimension_id,
    axis: 'x',
    kind: 'external',
    nominal_mm: 20,
  });
  const read = (specimen_id: string, dimension_id: string, value_mm: number) => ({
    specimen_id,
    dimension_id,
    trial: 1,
    value_mm,
  });
  const study = smallStudy({
    ...TWO_SIDES,
    dimensions: [dimension('a'), dimension('b')],
    prints: [print('r1', 'R'), print('c1', 'C')],
    specimens: [
      { specimen_id: 'sr', print_id: 'r1' },
      { specimen_id: 'sc', print_id: 'c1' },
    ],
    readings: [read('sr', 'a', 20.1), read('sr', 'b', 21), read('sc', 'a', 20.3)],
  });

  it('goes by the dimensions that both have, and does not decide from one print', () => {
    const [row] = evaluate(study).pairs.accuracy_mm ?? [];
    expect(row?.difference.estimate).toBeCloseTo(0.2, 10);
    expect(row).toMatchObject({
      verdict: 'one_print',
      artefacts: 1,
      contender: 'C',
      reference: 'R',
    });
  });

  it('takes another reference when asked, and no stranger', () => {
    const [row] = evaluate(study, { reference: 'C' }).pairs.accuracy_mm ?? [];
    expect(row?.difference.estimate).toBeCloseTo(-0.2, 10);
    expect(() => evaluate(study, { reference: 'nobody' })).toThrow(RangeError);
  });
});
