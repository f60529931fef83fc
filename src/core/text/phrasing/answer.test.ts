import { describe, expect, it } from 'vitest';
import type { PairRow } from '../../statistics/compare';
import type { Effect, Effects } from '../../statistics/effects';
import type { ContenderScore, Scorecard } from '../../answers/scorecard';
import type { Sweep, SweepStep } from '../../measures/sweep';
import {
  describeEffects,
  describeGlance,
  describeHeadToHead,
  describeScorecard,
  formatShare,
  describeSweep,
} from './index';

const same = (id: string) => id;
const row = (verdict: PairRow['verdict'], more: Partial<PairRow> = {}): PairRow => ({
  contender: 'B',
  reference: 'A',
  artefacts: 1,
  strata: 1,
  prints_as_seen: null,
  on: [],
  verdict,
  prints_needed: null,
  notes: [],
  p: null,
  p_adjusted: null,
  df: null,
  difference: { estimate: -0.06, low: -0.08, high: -0.04 },
  ...more,
});

const term = (p: number | null, size: number | null = 0.6): Effect => ({
  df: 1,
  ss: 1,
  f: 4,
  p,
  partial_omega2: size,
});
const effects = (
  [machine, profile, interaction]: readonly (number | null)[],
  gains: Effects['gains'],
  more: Partial<Effects> = {},
): Effects => ({
  factor: 'kind',
  n: 12,
  gains,
  verdicts: {},
  cells: {},
  notes: [],
  levels: ['stock', 'tuned'],
  analysed: [],
  residual: { df: 8, ss: 1 },
  terms: {
    machine: term(machine ?? null),
    profile: term(profile ?? null),
    'machine:profile': term(interaction ?? null),
  },
  ...more,
});
const GAINS = {
  b: { estimate: 0, low: -0.1, high: 0.1 },
  a: { estimate: Math.LN2, low: 0.5, high: 0.9 },
};

describe('machine or profile, in words', () => {
  const first = (ps: readonly (number | null)[]) =>
    describeEffects('ln_mae', effects(ps, GAINS), same, 0.05)[0];

  it.each([
    [[0.01, 0.01, 0.01], 'what the profile does depends on the machine'],
    [[0.01, 0.01, 0.2], 'the machine explains 60 % and the profile 60 %'],
    [[0.01, 0.2, 0.2], 'the machine explains 60 %. It is not shown that the profile matters'],
    [[0.2, 0.01, 0.2], 'the profile explains 60 %. It is not shown that the machines differ'],
    [[0.2, 0.2, 0.2], 'neither the machine nor the profile is shown to matter'],
    [[null, null, null], 'cannot be separated: prints were not repeated'],
  ])('%j', (ps, words) => {
    expect(first(ps)).toContain(words);
  });

  it('says whom tuning helps, the most first, and never more than the interval holds', () => {
    const said = describeEffects('ln_mae', effects([0.01, 0.01, 0.01], GAINS), same, 0.05);
    // exp(−ln 2) = ½; exp(−0.5) = 0.607; exp(−0.9) = 0.407.
    expect(said[1]).toBe(
      'a is better than its stock: 50 % less error (between 39 % less error and 59 % less error).',
    );
    expect(said[2]).toBe(
      'That b is better than its stock is not shown: between 11 % more error and 10 % less error.',
    );
    expect(said.at(-1)).toBe('This speaks of these machines only.');
  });

  it('knows what is worse, what is trivial, and what one print a side is', () => {
    const gain = {
      a: { estimate: -2, low: -3, high: -1 },
      b: { estimate: 4, low: null, high: null },
    };
    const verdicts = { a: row('trivial') };
    const said = describeEffects(
      'surface_index',
      effects([0.2, 0.2, 0.2], gain, { verdicts }),
      same,
      0.05,
    );
    expect(said).toContain(
      'b gained 4 points more on one print a side: more prints are needed to decide.',
    );
    expect(said).toContain(
      'a is worse than its stock: 2 points fewer (between 3 points fewer and 1 points fewer), less than matters here.',
    );
  });

  it('of one machine has no analysis', () => {
    const alone = effects([], { a: GAINS.a }, { terms: null, residual: null, n: null });
    const said = describeEffects('ln_print_s', alone, same, 0.05);
    expect(said[0]).toContain('fewer than two machines were printed with each');
    expect(said).not.toContain('This speaks of these machines only.');
  });
});

const step = (contender: string, value: number, shown: boolean | null): SweepStep => ({
  contender,
  value,
  shown,
  estimate: null,
  difference: null,
  notes: [],
});
const sweep = (more: Partial<Sweep>): Sweep => ({
  setting: 'speed_outer_wall_mm_s',
  unit: 'mm/s',
  reference: 'S1',
  limited_by: [],
  figures: {
    accuracy_mm: {
      delta: 0.03,
      holds_to: 'S2',
      steps: [step('S1', 100, null), step('S2', 150, true), step('S3', 200, false)],
    },
  },
  holds_to: 'S2',
  gain: { estimate: 0.8, low: 0.75, high: 0.85 },
  notes: [],
  ...more,
});
const saidOf = (more: Partial<Sweep>) => describeSweep(sweep(more), () => 'accuracy');

describe('a sweep, in words', () => {
  it('says where it holds to, what stops it and what is gained', () => {
    const lost = { figure: 'accuracy_mm', why: 'lost' as const, prints_needed: null, notes: [] };
    expect(saidOf({ limited_by: [lost] })).toEqual([
      'Speed outer wall can go to 150 mm/s without loss against 100 mm/s in accuracy.',
      '200 mm/s is worse in accuracy.',
      'Prints take 20 % less time there (15 % to 25 %).',
    ]);
  });

  it('says with how many prints what is open would be shown', () => {
    const open = { figure: 'accuracy_mm', why: 'not_shown' as const, notes: [] };
    expect(saidOf({ limited_by: [{ ...open, prints_needed: 7 }] })[1]).toBe(
      '200 mm/s may be worse in accuracy (7 prints per step would show it).',
    );
    expect(saidOf({ limited_by: [{ ...open, prints_needed: null }] })[1]).toContain(
      'may be worse in accuracy (repeat the prints first)',
    );
  });

  it('knows when nothing holds, when everything does, and when nothing is tested', () => {
    expect(saidOf({ holds_to: null, gain: null })[0]).toBe(
      'No step after 100 mm/s is shown to be as good. Keep speed outer wall there.',
    );
    expect(saidOf({ holds_to: 'S3' })[0]).toContain(
      'can go to 200 mm/s, the last step, without loss',
    );
    expect(saidOf({ figures: {} })[0]).toContain('Nothing is tested');
  });

  it('claims no gain that the interval does not hold', () => {
    expect(saidOf({ gain: { estimate: 0.97, low: 0.9, high: 1.05 } }).at(-1)).toContain(
      'A gain in time is not shown',
    );
  });
});

const scored = (more: Partial<ContenderScore>): ContenderScore => ({
  score: { low: 50, high: 50 },
  in: true,
  gates: [],
  values: {},
  notes: [],
  first_place_share: 0,
  rank_shares: [0, 1],
  turning_price: null,
  ...more,
});
const card = (contenders: Scorecard['contenders'], more: Partial<Scorecard> = {}): Scorecard => ({
  name: null,
  criteria: [{ key: 'price', weight: 1 }],
  contenders,
  pairwise_win_share: {},
  doubt: { price: 0, weights: 0 },
  winner: 'B',
  draws: 100,
  seed: 1,
  notes: [],
  ...more,
});
const describedCard = (given: Scorecard) =>
  describeScorecard(given, 'our bench', same, (key) => `the ${key}`, 'EUR');

describe('a scorecard, in words', () => {
  it('says who comes first only as surely as the draws do', () => {
    const sure = card({
      A: scored({ first_place_share: 0.02 }),
      B: scored({ first_place_share: 0.98 }),
    });
    expect(describedCard(sure)[0]).toBe(
      'Best for our bench: B. It comes first in 98 % of simulations.',
    );
    const open = card({
      A: scored({ first_place_share: 0.4 }),
      B: scored({ first_place_share: 0.6 }),
    });
    expect(describedCard(open).slice(0, 2)).toEqual([
      'Best for our bench so far: B.',
      'It comes first in 60 % of simulations; A in 40 %.',
    ]);
  });

  it('names who is out and why, and who is left alone', () => {
    const gate = { key: 'price', op: '<=' as const, value: 5, passed: false };
    const out = scored({ in: false, gates: [gate], first_place_share: null });
    const alone = card({ A: out, C: out, B: scored({ first_place_share: 1 }) });
    expect(describedCard(alone).slice(0, 2)).toEqual([
      'Only B meets the conditions for our bench.',
      'A and C are excluded: the price.',
    ]);
    expect(describedCard(card({ A: out }, { winner: null, doubt: null }))).toEqual([
      'No contender meets the conditions for our bench.',
      'A is excluded: the price.',
    ]);
  });

  it('says what it depends on most, evidence or opinion', () => {
    const two = { A: scored({ first_place_share: 0.3 }), B: scored({ first_place_share: 0.7 }) };
    expect(describedCard(card(two, { doubt: { price: 0.3, weights: 0.1 } })).join(' ')).toContain(
      'The result depends most on the price: within its uncertainty another contender would come first in 30 %',
    );
    expect(describedCard(card(two, { doubt: { price: 0.1, weights: 0.3 } })).join(' ')).toContain(
      'The result depends most on the weights, which are an opinion',
    );
    expect(describedCard(card(two)).join(' ')).toContain(
      'No single figure could change the result within its uncertainty.',
    );
  });

  it('says the turning price of who comes first, and where evidence is missing', () => {
    const missing = card({
      A: scored({ score: { low: 20, high: 60 }, first_place_share: 0.1 }),
      B: scored({ first_place_share: 0.9, turning_price: 702.4 }),
    });
    expect(describedCard(missing)).toContain(
      'Some evidence is missing for A, so its score is a range.',
    );
    expect(describedCard(missing)).toContain('B stays first up to a price of 702 EUR.');
    const any = card({
      A: scored({}),
      B: scored({ first_place_share: 1, notes: ['turning price: at any price'] }),
    });
    expect(describedCard(any)).toContain('B stays first at any price.');
  });

  it.each([
    [0, '0 %'],
    [0.004, 'under 1 %'],
    [0.46, '46 %'],
    [0.996, 'over 99 %'],
    [1, '100 %'],
  ])('a share of %d is %s', (share, words) => {
    expect(formatShare(share)).toBe(words);
  });
});

describe('head to head, in words', () => {
  const figure = (label: string, own: PairRow | null) => ({ label, row: own });

  it('says where each is better, what is the same, what is open', () => {
    expect(
      describeHeadToHead('B', 'A', [
        figure('accuracy', row('better')),
        figure('time', row('worse')),
        figure('surface', row('indistinguishable')),
        figure('strings', row('trivial')),
        figure('successes', row('unsettled', { prints_needed: 9 })),
        figure('gaps', row('unsettled')),
        figure('ringing', row('one_print')),
        figure('banding', null),
      ]),
    ).toEqual([
      'B is better than A in accuracy.',
      'A is better in time.',
      'In surface and strings any difference is below what matters.',
      'Too close to call: successes (9 prints each to be sure either way) and gaps.',
      'One print each, no conclusion: ringing.',
    ]);
  });

  it('claims nothing where nothing is shown, and counts what would be a long list', () => {
    const open = describeHeadToHead('B', 'A', [figure('time', row('unsettled'))]);
    expect(open[0]).toBe('No difference that matters has been shown between B and A.');
    expect(describeHeadToHead('B', 'A', [figure('time', row('worse'))])[0]).toBe(
      'A is better than B in time.',
    );
    const many = ['a', 'b', 'c', 'd'].map((label) => figure(label, row('one_print')));
    expect(describeHeadToHead('B', 'A', many).at(-1)).toBe(
      '4 figures rest on one print each and cannot be decided.',
    );
  });
});

describe('at a glance, in words', () => {
  it('says figure by figure who is better, who is worse, and what is open', () => {
    const found = describeGlance(
      'A',
      [
        {
          label: 'accuracy',
          rows: [
            row('better'),
            row('better', { contender: 'C' }),
            row('worse', { contender: 'D' }),
          ],
        },
        { label: 'time', rows: [row('worse')] },
        { label: 'surface', rows: [row('unsettled'), row('unsettled', { contender: 'C' })] },
        { label: 'strings', rows: [row('unsettled'), row('better', { contender: 'C' })] },
      ],
      same,
    );
    expect(found.said).toEqual([
      'Accuracy: B and C better than A, D worse.',
      'Time: B worse than A.',
      'Strings: C better than A.',
    ]);
    expect(found.open).toEqual(['surface (all)', 'strings (B)']);
  });

  it('counts what is open beyond the first four', () => {
    const figures = ['a', 'b', 'c', 'd', 'e', 'f'].map((label) => ({
      label,
      rows: [row('unsettled')],
    }));
    expect(describeGlance('A', figures, same).open.at(-1)).toBe('2 more');
  });
});
