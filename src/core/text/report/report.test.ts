import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { demoFiles } from '../../../../tests/support/demo-files';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { memorySource, readPackage } from '../../model/package';
import { isReportable } from '../../answers/figure-address';
import { figureAt, type Results } from '../../answers/results';
import type { Study } from '../../model/study';
import {
  buildReport,
  caveatsOf,
  openReport,
  proposalsOf,
  publishable,
  readinessOf,
  revisionFigures,
  studyUntil,
  textOf,
  tieOf,
  verifyFigures,
  type ReportContext,
  type ReportModel,
} from '.';

/** A citation below a sentence. */
const said = (address: string): string =>
  textOf(tieOf(context, address)?.text ?? [], context.nameOf);

const FACTS = {
  number: 1,
  frozen_at: '2026-03-28T17:20:00+01:00',
  drawings: new Map(),
  since: null,
  data: { sha256: 'a'.repeat(64), bytes: 1, tables: {}, files: {} },
};

let study: Study;
let results: Results;
let context: ReportContext;
let model: ReportModel;

beforeAll(async () => {
  const { content } = await readPackage(memorySource(demoFiles()));
  if (!content) throw new Error('the demo has faults');
  ({ study } = content);
  results = evaluate(study);
  context = openReport(study, results);
  model = buildReport(context, FACTS);
});

describe('a report of the demo study', () => {
  it('prints every figure with the address at which it stands in the results', () => {
    const { figures } = revisionFigures(model, study);
    expect(figures.length).toBeGreaterThan(300);
    for (const { address, value, word } of figures) {
      const found = figureAt(results, address);
      expect(found?.word, address).toBe(word);
      if (value === null) expect(found?.value, address).toBeNull();
      else
        expect((found?.value ?? NaN) / (value || 1), address).toBeCloseTo(value === 0 ? 0 : 1, 9);
    }
    const mae = figures.filter(({ address }) => address === 'accuracy:A-stock:mae_mm');
    expect(mae.map(({ printed }) => printed)).toContain('0.080 mm');
  });

  it('prints how each panel was held, and what was done with it that a reader should know', () => {
    const { blocks = [] } = model.sections.find(({ part }) => part === 'panels') ?? {};
    const said = new Map(
      blocks.flatMap((block) =>
        block.kind === 'made'
          ? [[block.title, block.sentences.map(({ text }) => text)] as const]
          : [],
      ),
    );
    expect(said.get('Which block is not like the other two?')).toEqual([
      'No difference could be shown: 16 of 48 answers were right, 16 by guessing alone (p = 0.554).',
      'As far as these ballots say, no more than 23 of 100 people really can.',
      'Judges had the parts themselves before them, under codes; the panel ended when as many as ' +
        'were wanted had judged.',
    ]);
    const spires = said.get('Which pair was printed on the large machine?') ?? [];
    expect(spires).toContain(
      'Judges saw photos of the same place under codes: front, flat light, grey and equally ' +
        'bright; the panel ended when as many as were wanted had judged.',
    );
    expect(spires.at(-1)).toBe(
      'Somebody looked before the end: to see whether the first three phones had sent anything',
    );
    // The table and the sentences are of one mind: both by judge, where judges gave several ballots.
    const { figures } = revisionFigures(model, study);
    const tuned = figures.find(
      ({ address }) => address === 'panels:smooth-front:abilities.A-tuned.log_ability_by_judge',
    );
    expect(tuned?.low).toBeCloseTo(Math.log(0.51 / 0.49), 1);
    expect(
      figures.some(
        ({ address }) => address.startsWith('panels:smooth') && address.endsWith('.log_ability'),
      ),
    ).toBe(false);
    const early = buildReport(
      openReport(
        {
          ...study,
          tables: {
            ...study.tables,
            panel_notes: [],
            panel_setups: study.tables.panel_setups.map((row) => ({
              ...row,
              closed_by: 'hand' as const,
            })),
          },
        },
        results,
      ),
      FACTS,
    );
    expect(JSON.stringify(early.sections)).toContain('the panel ended by hand, before its rule');
    expect(JSON.stringify(early.sections)).not.toContain('Somebody looked before the end');
  });

  it('has the parts that have something to say, in the order that is asked for', () => {
    const parts = model.sections.map(({ part }) => part);
    expect(parts.slice(0, 4)).toEqual(['answer', 'glance', 'line-up', 'method']);
    expect(parts).toContain('panels');
    // Nobody swept a setting, so that there is nothing to read about it.
    expect(JSON.stringify(model.sections)).not.toContain('How far the setting can be taken');
    const asked = {
      ...study,
      meta: { ...study.meta, report: { parts: ['speed' as const, 'answer' as const] } },
    };
    const short = buildReport(openReport(asked, results), FACTS);
    expect(short.sections.map(({ part }) => part)).toEqual(['speed', 'answer']);
    expect(short.card).toBeNull();
    expect(short.charts.map(({ criterion }) => criterion)).toEqual(['time_index']);
  });

  it('shows what is not known as not known', () => {
    const { specimens, prints, ladder_results } = study.tables;
    const ofFulmar = new Set(
      prints.filter((row) => row.contender_id === 'D-stock').map((row) => row.print_id),
    );
    const printOf = new Map(specimens.map((row) => [row.specimen_id, row.print_id]));
    const others = ladder_results.filter(
      (row) => !ofFulmar.has(printOf.get(row.specimen_id) ?? ''),
    );
    const fewer = { ...study, tables: { ...study.tables, ladder_results: others } };
    const { charts } = buildReport(openReport(fewer, evaluate(fewer)), FACTS);
    const lantern = charts.find(({ title }) => title === 'Bridges, Lantern');
    const row = lantern?.rows.find(({ contender }) => contender === 'D-stock');
    expect(row).toMatchObject({ figure: null, instead: '' });
  });

  it('leaves photos out on request', () => {
    const meta = { ...study.meta, report: { with_photos: false } };
    const bare = buildReport(openReport({ ...study, meta }, results), FACTS);
    expect(model.photos.length).toBeGreaterThan(0);
    expect(bare.photos).toEqual([]);
    expect(JSON.stringify(bare.sections)).not.toContain('"photos"');
  });

  it('follows from its data; what is altered is named with both values', () => {
    const stated = revisionFigures(model, study);
    expect(verifyFigures(stated, context, model)).toEqual({
      figures: stated.figures.length,
      follow: stated.figures.length,
      departures: [],
    });
    const [first, ...rest] = stated.figures;
    if (!first) throw new Error('no figure');
    // The last digit that is stated is another.
    const digits = String(first.value);
    const last = (Number(digits.at(-1)) + 1) % 10;
    const value = Number(`${digits.slice(0, -1)}${last}`);
    const altered = { ...stated, figures: [{ ...first, value }, ...rest] };
    const one = verifyFigures(altered, context, model);
    expect(one.follow).toBe(stated.figures.length - 1);
    expect(one.departures).toMatchObject([{ what: 'figure', where: first.address }]);
    const printed = { ...stated, figures: [{ ...first, printed: '9.999' }, ...rest] };
    expect(verifyFigures(printed, context, model).departures[0]?.stated).toContain('9.999');
  });

  it('names words that are others than in the data, and citations to nothing', () => {
    const stated = revisionFigures(model, study);
    const [first, ...rest] = stated.words;
    if (!first) throw new Error('no words');
    const others = (word: Partial<typeof first>) =>
      verifyFigures({ ...stated, words: [{ ...first, ...word }, ...rest] }, context, model)
        .departures;
    expect(others({ text: 'Take the Fulmar.' })).toMatchObject([
      { what: 'words', where: first.verdict_id, stated: 'Take the Fulmar.', found: first.text },
    ]);
    expect(others({ rests_on: ['accuracy:nobody:mae_mm'] }).length).toBeGreaterThan(0);
    const [, ...fewer] = stated.words;
    expect(verifyFigures({ ...stated, words: fewer }, context, model).departures).toMatchObject([
      { what: 'words', where: first.verdict_id, stated: 'not there' },
    ]);
    const [said, ...more] = stated.sentences;
    if (!said) throw new Error('no sentence');
    const untrue = { ...stated, sentences: [{ ...said, text: 'All is well.' }, ...more] };
    expect(verifyFigures(untrue, context, model).departures).toMatchObject([
      { what: 'sentence', where: said.name, found: said.text },
    ]);
  });
});

describe('a report of little', () => {
  it('says what there is, without a reference, a reading or a word', () => {
    const bare = smallStudy(
      { ...TWO_SIDES, prints: [print('p1', 'R'), print('p2', 'C', { outcome: 'failed' })] },
      { reference: null },
    );
    const little = buildReport(openReport(bare, evaluate(bare)), FACTS);
    const parts = little.sections.map(({ part }) => part);
    expect(parts).toEqual(
      expect.arrayContaining(['answer', 'line-up', 'method', 'reliability', 'data']),
    );
    expect(parts).not.toContain('accuracy');
    expect(little.card).toBeNull();
    const stated = revisionFigures(little, bare);
    expect(verifyFigures(stated, openReport(bare, evaluate(bare)), little).departures).toEqual([]);
    expect(
      readinessOf(openReport(bare, evaluate(bare))).find(({ key }) => key === 'reference')?.weight,
    ).toBe('missing');
  });

  it('counts photos of one place only where several have them, and marks citation them', () => {
    const photo = (specimen_id: string) => ({
      specimen_id,
      path: `photos/${specimen_id}.jpg`,
      view: 'front',
      light: 'flat',
    });
    const marks = (specimen_id: string) =>
      [1, 2].map((mark) => ({
        specimen_id,
        path: `photos/${specimen_id}.jpg`,
        mark,
        u_px: 100 * mark,
        v_px: 100,
        x_mm: 10 * mark,
        y_mm: 5,
      }));
    const measure = (specimen_id: string) => ({
      specimen_id,
      path: `photos/${specimen_id}.jpg`,
      measure_id: `m-${specimen_id}`,
      measure: 'strings',
      x: 0,
      y: 0,
      w: 20,
      h: 10,
      unit: 'mm',
      value_key: 'coverage_share',
      value: 0.02,
    });
    const given = (tied: string[]) =>
      smallStudy({
        ...TWO_SIDES,
        prints: [print('p1', 'R'), print('p2', 'C')],
        specimens: [
          { specimen_id: 's1', print_id: 'p1' },
          { specimen_id: 's2', print_id: 'p2' },
        ],
        photos: ['s1', 's2'].map(photo),
        photo_marks: tied.flatMap(marks),
        photo_measures: ['s1', 's2'].map(measure),
      });
    const rows = (tied: string[]) => openReport(given(tied), evaluate(given(tied))).photos;
    expect(rows(['s1'])).toEqual([]);
    const [row] = rows(['s1', 's2']);
    expect(row?.frames.map(({ contender, file }) => [contender, file])).toEqual([
      ['R', 'photos/part-strings-flat-R.jpg'],
      ['C', 'photos/part-strings-flat-C.jpg'],
    ]);
    expect(row?.box).toEqual({ x: 0, y: 0, w: 20, h: 10 });
    expect(row?.frames[0]?.figure?.printed).toBe('2.00 %');
  });
});

describe('the words of a report', () => {
  it('are proposed from verdicts, unless they are written or thrown away', () => {
    const bare = { ...study, tables: { ...study.tables, verdicts: [] } };
    const proposed = proposalsOf(openReport(bare, results));
    const quick = proposed.find(({ rests_on }) => rests_on.includes('pairs:B-stock:ln_print_s'));
    expect(quick).toMatchObject({ kind: 'plus', contender: 'B-stock' });
    expect(quick?.text).toMatch(/^Takes \d\d % less time than Auklet 19 stock\.$/);
    expect(
      proposed.some(
        ({ kind, text }) => kind === 'answer' && text.startsWith('Best for our clip bench'),
      ),
    ).toBe(true);
    // What is not settled is not proposed.
    expect(proposed.some(({ rests_on }) => rests_on.includes('pairs:C-stock:accuracy_mm'))).toBe(
      false,
    );
    const written = proposalsOf(openReport(study, results));
    expect(written.some(({ key }) => key === quick?.key)).toBe(false);
    const report = { thrown_away: [quick?.key ?? ''] };
    const thrown = proposalsOf(openReport({ ...bare, meta: { ...bare.meta, report } }, results));
    expect(thrown.length).toBe(proposed.length - 1);
  });

  it('are proposed for a sweep: how far it holds, and on which figures that rests', async () => {
    const { content } = await readPackage(memorySource(demoFiles(join('demo', 'gannet-speeds'))));
    if (!content) throw new Error('no study was read');
    const swept = { ...content.study, tables: { ...content.study.tables, verdicts: [] } };
    const found = evaluate(swept);
    const own = proposalsOf(openReport(swept, found)).filter(({ kind }) => kind === 'answer');
    const [answer] = own.filter(({ contender }) => contender === found.sweep?.holds_to);
    expect(answer?.text).toMatch(/can go to 200 mm\/s without loss against 120 mm\/s/);
    const tested = Object.values(found.sweep?.figures ?? {}).filter(({ delta }) => delta !== null);
    expect(answer?.rests_on).toHaveLength(tested.length);
    for (const address of answer?.rests_on ?? [])
      expect(figureAt(found, address), address).not.toBeNull();
  });

  it('are proposed without a card: whose parts cannot be told apart', () => {
    const sizes = (prints: readonly string[], mm: number) =>
      prints.map((print_id, at) => ({
        specimen_id: `s-${print_id}`,
        dimension_id: 'd',
        trial: 1,
        value_mm: mm + 0.001 * at,
      }));
    const [own, other] = [
      ['p1', 'p2', 'p3'],
      ['p4', 'p5', 'p6'],
    ];
    const alike = (apart: number) =>
      smallStudy(
        {
          ...TWO_SIDES,
          dimensions: [
            {
              artefact_id: 'part',
              dimension_id: 'd',
              name: 'd',
              axis: 'x',
              kind: 'external',
              nominal_mm: 20,
            },
          ],
          prints: [...own.map((id) => print(id, 'R')), ...other.map((id) => print(id, 'C'))],
          specimens: [...own, ...other].map((print_id) => ({
            specimen_id: `s-${print_id}`,
            print_id,
          })),
          readings: [...sizes(own, 20.05), ...sizes(other, 20.05 + apart)],
        },
        { smallest_difference: { accuracy_mm: 0.02 } },
      );
    const said = (one: Study) =>
      proposalsOf(openReport(one, evaluate(one)))
        .filter(({ kind }) => kind === 'answer')
        .map(({ text }) => text);
    expect(said(alike(0))).toEqual([
      'The sizes of the parts of Other machine stock and Reference machine stock do not differ by what matters.',
    ]);
    expect(said(alike(0.2))).toEqual([]);
  });

  it('say their citations in a few words', () => {
    expect(said('pairs:A-tuned:accuracy_mm')).toBe(
      'Auklet 19 tuned mean deviation better · 0.06 mm',
    );
    expect(said('noise:gannet:printing.at_1m_db')).toMatch(
      /^Gannet X24 noise at 1 m \d\d\.\d dB\(A\)$/,
    );
    expect(tieOf(context, 'accuracy:nobody:mae_mm')).toBeNull();
  });

  it('have their caveats collected', () => {
    const kinds = caveatsOf(openReport(study, results)).map(({ kind }) => kind);
    for (const kind of ['noted', 'one-print', 'firmware'] as const) expect(kinds).toContain(kind);
    expect(kinds).not.toContain('untested');
    const present = new Set([...study.present].filter((table) => table !== 'panels'));
    const unjudged = caveatsOf(openReport({ ...study, present }, results));
    expect(unjudged.find(({ kind }) => kind === 'untested')?.text).toBe(
      'Not tested: blind panels.',
    );
    const bare = smallStudy({
      ...TWO_SIDES,
      prints: [print('p1', 'R'), print('p2', 'C')],
      borrowed: [
        { borrowed_id: 'b', machine_id: 'mc', source: 'a letter', statement: 'It is quiet.' },
      ],
    });
    const texts = caveatsOf(openReport(bare, evaluate(bare))).map(({ text }) => text);
    expect(texts.join('\n')).toContain('Not tested: dimensions, surface, limits');
    expect(texts.join('\n')).toContain('Statements from elsewhere about Other machine');
  });

  it('tell what is missing before publishing', () => {
    const bare = smallStudy({ ...TWO_SIDES, prints: [print('p1', 'R'), print('p2', 'C')] });
    const open = (one: Study) =>
      readinessOf(openReport(one, evaluate(one)))
        .filter(({ weight }) => weight !== 'ready')
        .map(({ key }) => key);
    expect(open(bare)).toEqual(
      expect.arrayContaining(['question', 'answer', 'disclosure', 'author', 'obtained']),
    );
    const meta = {
      ...bare.meta,
      question: 'Which?',
      report: { author: 'A club', disclosure: 'Bought.' },
    };
    const verdicts = [
      { verdict_id: 's', contender_id: null, kind: 'answer', order: 1, text: 'R.', evidence: null },
    ] as Study['tables']['verdicts'];
    const left = open({ ...bare, meta, tables: { ...bare.tables, verdicts } });
    for (const done of ['question', 'answer', 'disclosure', 'author']) {
      expect(left).not.toContain(done);
    }
    const whole = readinessOf(openReport(study, results));
    expect(whole.find(({ key }) => key === 'settled')?.text).toMatch(
      /mean deviation, is too close to call for Petrel G27 stock \(\d+ prints each to be sure either way/,
    );
  });
});

describe('a pair that is confounded', () => {
  const BARE = { text: 'It is loud.', evidence: null, kind: 'caveat', order: 1 };
  const spoken = (row: object | null, tables: object = {}) => {
    const fairness = results.fairness.map((one) => ({
      ...one,
      result: one.contender === 'C-stock' ? ('confounded' as const) : ('clean' as const),
    }));
    const verdicts = row ? [{ ...BARE, verdict_id: 'v', contender_id: null, ...row }] : [];
    const own = {
      ...study,
      tables: { ...study.tables, verdicts, accepted_differences: [], ...tables },
    };
    const found = readinessOf(openReport(own as Study, { ...results, fairness }));
    return found.find(({ key }) => key === 'confounded');
  };

  it('is to be spoken of before a report is published', () => {
    expect(spoken(null)).toMatchObject({
      weight: 'missing',
      text: 'No caveat speaks of the confounded pair with Petrel G27 stock.',
    });
  });

  it.each([
    ['a caveat is about the contender', { contender_id: 'C-stock' }],
    ['a caveat rests on its fairness', { evidence: 'pairs:A:x fairness:C-stock:tile-field' }],
    ['a caveat names it and what is not fair', { text: 'Petrel G27 stock had other walls.' }],
  ])('is spoken of where %s', (_, row) => {
    expect(spoken(row)?.weight).toBe('ready');
  });

  it.each([
    ['is about somebody else', { contender_id: 'B-stock' }],
    ['names it, and says nothing of fairness', { text: 'Petrel G27 stock is loud.' }],
    ['is no caveat', { kind: 'plus', contender_id: 'C-stock' }],
  ])('is not by a sentence that %s', (_, row) => {
    expect(spoken(row)?.weight).toBe('missing');
  });

  it('is where somebody has accepted the difference, with a reason', () => {
    const accepted = {
      contender_id: 'C-stock',
      reference_id: 'A-stock',
      artefact_id: 'tile-field',
    };
    expect(spoken(null, { accepted_differences: [accepted] })?.weight).toBe('ready');
  });
});

describe('a figure that a page lets one pick', () => {
  it('has its place in the results, and words for it', () => {
    const addresses = [
      'accuracy:A-tuned:mae_mm',
      'accuracy:A-tuned:max_abs_mm',
      'accuracy:A-tuned:it_grade',
      'accuracy:A-tuned:tolerance.inside',
      'accuracy:A-tuned:by_axis.z.bias_mm',
      'accuracy:A-tuned:fit.x.scale',
      'pairs:A-tuned:accuracy_mm',
      'pairs:A-tuned:surface',
      'pairs:A-tuned:ln_print_s',
      'surface:A-tuned:index',
      'speed:A-tuned:time_index',
      'speed:A-tuned:by_artefact.tile-field.median_print_s',
      'reliability:A-tuned:without_operator.success',
      'cost:A-tuned:tile-field.per_good_part',
      'reliability:A-tuned:without_operator.per_100_h',
    ];
    for (const address of addresses) {
      expect(isReportable(address), address).toBe(true);
      expect(figureAt(results, address), address).not.toBeNull();
      expect(said(address), address).toMatch(/^Auklet 19 tuned /);
    }
  });
});

describe('a study that is given to anyone', () => {
  it('names nobody, carries no code and no name of a file, and comes to the same', () => {
    const named = { ...study, tables: { ...study.tables } };
    const { study: plain, files } = publishable(named, { withNames: false });
    const text = JSON.stringify(plain.tables);
    const initials = new Set(study.tables.readings.flatMap((row) => row.operator ?? []));
    expect(initials.size).toBeGreaterThan(1);
    for (const one of initials) expect(text).not.toContain(`"${one}"`);
    expect(plain.tables.specimens.every(({ code }) => code === null)).toBe(true);
    for (const { path } of study.tables.photos) expect(text).not.toContain(path);
    for (const { toolpath } of study.tables.prints) {
      if (toolpath !== null) expect(text).not.toContain(toolpath);
    }
    expect(new Set(files.names.values()).size).toBe(files.names.size);
    const again = evaluate(plain);
    for (const section of [
      'accuracy',
      'pairs',
      'surface',
      'surface_agreement',
      'gauge',
      'scorecard',
      'reliability',
    ] as const) {
      expect(again[section], section).toEqual(results[section]);
    }
  });

  it('stays as it is where names are kept', () => {
    const { study: same, files } = publishable(study, { withNames: true });
    expect(same.tables.readings).toEqual(study.tables.readings);
    expect([...files.names].every(([from, to]) => from === to)).toBe(true);
  });
});

describe('a study as it stood at a time', () => {
  it('has what was begun until then, and nothing that names what is not there', () => {
    const half = studyUntil(study, '2026-03-14T20:00:00+01:00');
    expect(half.tables.prints.length).toBe(
      study.tables.prints.filter((row) => (row.started_at ?? '') < '2026-03-14T20').length,
    );
    const prints = new Set(half.tables.prints.map((row) => row.print_id));
    const specimens = new Set(half.tables.specimens.map((row) => row.specimen_id));
    expect(half.tables.specimens.every((row) => prints.has(row.print_id))).toBe(true);
    expect(half.tables.readings.every((row) => specimens.has(row.specimen_id))).toBe(true);
    expect(half.tables.photo_marks.every((row) => specimens.has(row.specimen_id))).toBe(true);
    expect(half.tables.contenders).toEqual(study.tables.contenders);
    expect(() => evaluate(half)).not.toThrow();
    expect(studyUntil(study, '2030-01-01T00:00:00Z').tables).toEqual(study.tables);
  });
});
