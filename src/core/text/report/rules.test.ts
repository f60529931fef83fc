import { beforeAll, describe, expect, it } from 'vitest';
import { demoFiles } from '../../../../tests/support/demo-files';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { memorySource, readPackage } from '../../model/package';
import type { Study } from '../../model/study';
import {
  buildReport,
  caveatsOf,
  labelOf,
  openReport,
  revisionFigures,
  type ReportContext,
} from '.';

const open = (study: Study) => openReport(study, evaluate(study));
const saidIn = (study: Study, kind: string): string[] =>
  caveatsOf(open(study)).flatMap((one) => (one.kind === kind ? [one.text] : []));
const FACTS = {
  number: 1,
  frozen_at: '2026-03-28T17:20:00+01:00',
  drawings: new Map(),
  since: null,
  data: { sha256: 'a'.repeat(64), bytes: 1, tables: {}, files: {} },
};

describe('caveats', () => {
  const prints = [
    print('r1', 'R', { firmware: '1.0' }),
    print('r2', 'R', { firmware: '1.1' }),
    print('c1', 'C'),
  ];

  it('name prints of older firmware, and only those', () => {
    const machines = [
      { machine_id: 'mr', name: 'Reference machine', firmware: '1.1' },
      { machine_id: 'mc', name: 'Other machine' },
    ];
    expect(saidIn(smallStudy({ ...TWO_SIDES, machines, prints }), 'firmware')).toEqual([
      'Reference machine: 1 of 2 prints are of firmware 1.0; it runs 1.1 now.',
    ]);
  });

  it('name an instrument without a certificate where something was read with it', () => {
    const given = (uncertainty: number | null, reads: boolean) =>
      smallStudy({
        ...TWO_SIDES,
        prints,
        dimensions: [
          {
            artefact_id: 'part',
            dimension_id: 'd',
            name: 'd',
            axis: 'x',
            kind: 'external',
            nominal_mm: 10,
          },
        ],
        specimens: [{ specimen_id: 's', print_id: 'r1' }],
        instruments: [
          { instrument_id: 'i', name: 'Old caliper', expanded_uncertainty_mm: uncertainty },
        ],
        readings: reads
          ? [{ specimen_id: 's', dimension_id: 'd', trial: 1, value_mm: 10, instrument_id: 'i' }]
          : [],
      });
    expect(saidIn(given(null, true), 'certificate')).toEqual([
      'Old caliper has no certificate: its own error is not part of the intervals.',
    ]);
    expect(saidIn(given(0.03, true), 'certificate')).toEqual([]);
    expect(saidIn(given(null, false), 'certificate')).toEqual([]);
  });

  it('repeat what somebody accepted, with the reason', () => {
    const study = smallStudy({
      ...TWO_SIDES,
      prints,
      accepted_differences: [
        {
          contender_id: 'C',
          reference_id: 'R',
          artefact_id: 'part',
          item: 'wall_count',
          reason: 'It is not loaded.',
          operator: 'KM',
          at: '2026-03-02T10:00:00Z',
        },
      ],
    });
    expect(saidIn(study, 'accepted')).toEqual([
      'Accepted: Other machine stock on Part differs in wall count. It is not loaded.',
    ]);
  });
});

describe('a large study', () => {
  it('has no dots where nothing would be seen but dots', () => {
    const given = (count: number) => {
      const all = Array.from({ length: count }, (_, at) => at);
      return smallStudy({
        ...TWO_SIDES,
        prints: [...all.map((at) => print(`p${at}`, 'R')), print('c', 'C')],
        specimens: all.map((at) => ({ specimen_id: `s${at}`, print_id: `p${at}` })),
        dimensions: [
          {
            artefact_id: 'part',
            dimension_id: 'd',
            name: 'd',
            axis: 'x',
            kind: 'external',
            nominal_mm: 10,
          },
        ],
        instruments: [{ instrument_id: 'i', name: 'i' }],
        readings: all.map((at) => ({
          specimen_id: `s${at}`,
          dimension_id: 'd',
          trial: 1,
          instrument_id: 'i',
          value_mm: 10 + 0.001 * (at % 7),
        })),
      });
    };
    const dotsOf = (count: number) =>
      open(given(count))
        .charts.get('accuracy_mm')
        ?.rows.find((row) => row.contender === 'R')?.dots.length;
    expect(dotsOf(80)).toBe(80);
    expect(dotsOf(81)).toBe(0);
  });

  it('shows no more than twelve places on photos, those of most contenders first', () => {
    const places = Array.from({ length: 15 }, (_, at) => `part-${at}`);
    const of = (place: string, side: 'R' | 'C') => `${place}-${side}`;
    const sides = ['R', 'C'] as const;
    const study = smallStudy({
      ...TWO_SIDES,
      artefacts: places.map((artefact_id) => ({ artefact_id, name: artefact_id })),
      prints: places.flatMap((place) =>
        sides.map((side) => print(of(place, side), side, { artefact_id: place })),
      ),
      specimens: places.flatMap((place) =>
        sides.map((side) => ({ specimen_id: of(place, side), print_id: of(place, side) })),
      ),
      photos: places.flatMap((place) =>
        sides.map((side) => ({
          specimen_id: of(place, side),
          path: `photos/${of(place, side)}.jpg`,
          view: 'front',
          light: 'flat',
        })),
      ),
      photo_marks: places.flatMap((place) =>
        sides.flatMap((side) =>
          [1, 2].map((mark) => ({
            specimen_id: of(place, side),
            path: `photos/${of(place, side)}.jpg`,
            mark,
            u_px: 100 * mark,
            v_px: 50,
            x_mm: 10 * mark,
            y_mm: 5,
          })),
        ),
      ),
      photo_measures: places.flatMap((place) =>
        sides.map((side) => ({
          specimen_id: of(place, side),
          path: `photos/${of(place, side)}.jpg`,
          measure_id: of(place, side),
          measure: 'strings',
          x: 0,
          y: 0,
          w: 5,
          h: 5,
          unit: 'mm',
          value_key: 'coverage_share',
          value: 0.01,
        })),
      ),
    });
    expect(open(study).photos).toHaveLength(12);
  });
});

describe('what figures are called', () => {
  let context: ReportContext;
  beforeAll(async () => {
    const { content } = await readPackage(memorySource(demoFiles()));
    if (!content) throw new Error('the demo has faults');
    context = open(content.study);
  });

  it.each([
    ['accuracy:A-tuned:mae_mm', 'Auklet 19 tuned: mean deviation'],
    [
      'pairs:B-stock:ln_print_s',
      'Gannet X24 stock: print time relative to the reference, against the reference',
    ],
    ['noise:gannet:printing.at_1m_db', 'Gannet X24: noise at 1 m'],
    [
      'speed:C-stock:by_artefact.stair-block.median_print_s',
      'Petrel G27 stock: printing time of Stair block',
    ],
    ['cost:D-stock:tile-field.per_good_part', 'Fulmar 38 stock: cost of a good Tile field'],
    ['fairness:A-tuned:echo-wall', 'Auklet 19 tuned: fairness on Echo wall'],
    ['accuracy:C-stock:fit.x.advice.scale_to_enter', 'Petrel G27 stock: scale to enter, X'],
    ['instruments:caliper-1:readings', 'Caliper 1: readings taken'],
    [
      'panels:smooth-front:abilities.A-tuned.wins',
      'On which one is the wall smoother?: Auklet 19 tuned preferred',
    ],
    ['panels:odd-block:p', 'Which block is not like the other two?: p against guessing'],
    ['scorecard:doubt:weights', 'How far it depends on the weights'],
    ['scorecard:B-tuned:turning_price', 'Gannet X24 tuned: stays first up to'],
  ])('%s', (address, label) => expect(labelOf(context, address)).toBe(label));

  it('are words for every figure that a report prints: no key, no id', () => {
    const { figures } = revisionFigures(buildReport(context, FACTS), context.study);
    const ids = context.study.tables.contenders.map((row) => row.contender_id);
    for (const { address, label } of figures) {
      expect(label, address).not.toMatch(/_|:\S/);
      for (const id of ids) expect(label, address).not.toContain(id);
    }
  });

  it('and every table of what changed is called as a person says it', () => {
    const { sections } = buildReport(context, FACTS);
    const made = sections.flatMap(({ blocks }) =>
      blocks.flatMap((block) => (block.kind === 'made' ? block.sentences : [])),
    );
    // Each sentence stands once, whatever it was said of.
    expect(new Set(made.map(({ text }) => text)).size).toBe(made.length);
  });
});
