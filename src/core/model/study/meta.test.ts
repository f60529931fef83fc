import { describe, expect, it } from 'vitest';
import {
  isCriterion,
  scorecardSchema,
  smallestDifferenceSchema,
  studyMetaSchema,
  vergleichSchema,
} from '.';

const messages = (read: { error?: { issues: { message: string }[] } }) =>
  read.error?.issues.map((issue) => issue.message) ?? [];

const OWN = { format: 1, intent: 'machines', reference: 'R' };

describe('what a study is about', () => {
  it('needs its format, its intent and its reference', () => {
    expect(messages(vergleichSchema.safeParse(OWN))).toEqual([]);
    expect(messages(vergleichSchema.safeParse({ ...OWN, format: 2 }))).toEqual(['must be 1']);
    expect(messages(vergleichSchema.safeParse({ ...OWN, intent: 'fun' }))[0]).toContain(
      'must be one of: ',
    );
    expect(messages(vergleichSchema.safeParse({ ...OWN, reference: 'two words' }))).toHaveLength(1);
  });

  it('keeps words that this program does not know', () => {
    expect(vergleichSchema.parse({ ...OWN, mood: 'good' })).toHaveProperty('mood', 'good');
  });

  it('has a name and a title of sane length, without control characters', () => {
    const meta = {
      name: 'n',
      title: 't',
      description: null,
      created: null,
      intent: 'machines',
      question: null,
      reference: null,
      smallest_difference: {},
      cost: null,
      scorecard: null,
    };
    expect(messages(studyMetaSchema.safeParse(meta))).toEqual([]);
    expect(messages(studyMetaSchema.safeParse({ ...meta, title: '' }))).toHaveLength(1);
    expect(messages(studyMetaSchema.safeParse({ ...meta, title: 'x'.repeat(301) }))).toEqual([
      'is too long',
    ]);
    expect(messages(studyMetaSchema.safeParse({ ...meta, question: 'a\0b' }))).toEqual([
      'holds a control character: take it out',
    ]);
  });
});

describe('smallest differences of interest', () => {
  it.each([
    [{ accuracy_mm: 0.05, surface: null, time_pct: 5 }, true],
    [{ 'photo:echo-wall/ringing/raking-left': 0.2 }, true],
    [{ 'photo:echo-wall/strings/unknown': 0.2 }, true],
    [{ 'photo:echo-wall/ringing/moonlight': 0.2 }, false],
    [{ 'photo:echo-wall/beauty/flat': 0.2 }, false],
    [{ 'limit:lantern/bridges': 5 }, false],
    [{ 'photo:echo-wall': 0.2 }, false],
    [{ accuracy_mm: 0 }, false],
    [{ time_pct: -1 }, false],
    [{ success_pct: 1e12 }, false],
  ])('%j', (given, isTaken) => {
    expect(smallestDifferenceSchema.safeParse(given).success).toBe(isTaken);
  });
});

describe('criteria that a scorecard can weigh', () => {
  it.each([
    'accuracy_mm',
    'build_l',
    'limit:lantern/bridges',
    'works:ring-stack/turns freely',
    'panel:finish',
    'photo:echo-wall/layer-lines/back',
    'trial:runout-sensor',
    'mark:handling',
  ])('%s', (key) => {
    expect(isCriterion(key)).toBe(true);
  });

  it.each([
    '',
    'beauty',
    'limit:lantern',
    'works:ring-stack/',
    'panel:',
    'trial:nothing',
    'mark:x',
  ])('%j is none', (key) => {
    expect(isCriterion(key)).toBe(false);
  });
});

describe('a scorecard', () => {
  const points = [
    [0, 1],
    [0.2, 0],
  ];
  const card = (more: object) => ({
    criteria: [{ key: 'accuracy_mm', weight: 1, points, ...more }],
  });

  it('is taken where its curve ascends in value and some weight counts', () => {
    expect(messages(scorecardSchema.safeParse(card({})))).toEqual([]);
  });

  it.each([
    [card({ points: [[0, 1]] }), 'a value curve needs at least two points'],
    [card({ points: [...points, [0.2, 0.5]] }), 'the values of a curve must ascend'],
    [
      card({
        points: [
          [0, 1],
          [1, 1.5],
        ],
      }),
      'utility is from 0 to 1',
    ],
    [card({ weight: -1 }), 'a weight must not be below 0'],
    [card({ weight: 0 }), 'at least one weight must be over 0'],
    [card({ key: 'beauty' }), 'is no criterion that a scorecard can weigh'],
    [{ ...card({}), gates: [{ key: 'price', op: '>', value: 3 }] }, 'must be >= or <='],
  ])('%#', (given, message) => {
    expect(messages(scorecardSchema.safeParse(given))).toContain(message);
  });
});

describe('the steps of a sweep', () => {
  const sweep = (...values: number[]) => ({
    ...OWN,
    intent: 'sweep',
    sweep: {
      setting: 'speed_outer_wall_mm_s',
      steps: values.map((value, at) => ({ contender_id: `C${at}`, value })),
    },
  });

  it('go one way, up or down', () => {
    expect(vergleichSchema.safeParse(sweep(50, 100, 200)).success).toBe(true);
    expect(vergleichSchema.safeParse(sweep(0.3, 0.2, 0.1)).success).toBe(true);
    for (const values of [
      [50, 100, 75],
      [50, 50, 100],
      [100, 100, 100],
    ]) {
      expect(messages(vergleichSchema.safeParse(sweep(...values)))).toEqual([
        'the values must ascend, or descend, from step to step',
      ]);
    }
  });

  it('are at least three, each of another contender', () => {
    expect(messages(vergleichSchema.safeParse(sweep(50, 100)))).toEqual([
      'a sweep needs at least three steps',
    ]);
    const given = sweep(50, 100, 200);
    given.sweep.steps[2] = { contender_id: 'C0', value: 200 };
    expect(messages(vergleichSchema.safeParse(given))).toEqual([
      'a contender is listed twice among the steps',
    ]);
  });
});

describe('how the run order is drawn', () => {
  it.each([
    [{ seed: 7, block_by: 'lot', prints_per_day: 6 }, true],
    [{ seed: 7, block_by: 'lot', prints_per_day: 6, readings: 9 }, true],
    [{ seed: 7, block_by: 'lot', prints_per_day: 6, readings: 10 }, false],
    [{ seed: -1, block_by: 'lot', prints_per_day: 6 }, false],
    [{ seed: 2 ** 31, block_by: 'lot', prints_per_day: 6 }, false],
    [{ seed: 7, block_by: 'moon', prints_per_day: 6 }, false],
    [{ seed: 7, block_by: 'day', prints_per_day: 0 }, false],
    [{ seed: 7, block_by: 'day', prints_per_day: 1001 }, false],
  ])('%j', (plan, isTaken) => {
    expect(vergleichSchema.safeParse({ ...OWN, plan }).success).toBe(isTaken);
  });
});
