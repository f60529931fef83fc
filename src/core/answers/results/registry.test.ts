import { beforeAll, describe, expect, it } from 'vitest';
import { demoFiles } from '../../../../tests/support/demo-files';
import { memorySource, readPackage } from '../../model/package';
import { ToolpathAnalysis, type ToolpathFacts } from '../../toolpath';
import { emptyTables, TABLE_NAMES, type Study } from '../../model/study';
import {
  evidenceOf,
  hangsOnReference,
  needsOf,
  openContext,
  PART_NAMES,
  partNames,
  SECTION_NAMES,
  sectionOfFigure,
  sectionOfPart,
} from './index';

let study: Study;
/** What was read in the files of the demo: the same small motion in each. */
let toolpaths: Map<string, ToolpathFacts>;

beforeAll(async () => {
  const { content } = await readPackage(memorySource(demoFiles()));
  if (!content) throw new Error('the demo has faults');
  ({ study } = content);
  const analysis = new ToolpathAnalysis({ file: 't', machine: { claimed_speed_mm_s: 250 } });
  analysis.push(new TextEncoder().encode('G1 X50 E2 F9000\nG1 X0 E4'));
  const facts = analysis.end();
  const named = [...study.tables.prints, ...study.tables.planned].flatMap(
    (row) => row.toolpath ?? [],
  );
  toolpaths = new Map(named.map((path) => [path, facts]));
  // What is empty hangs on nothing.
  expect(toolpaths.size).toBeGreaterThan(5);
});

/** The study with the tables that a section says it hangs on, and no others. */
function onlyWith(needs: ReadonlySet<string>): Study {
  const tables = emptyTables();
  for (const name of TABLE_NAMES) {
    if (needs.has(name)) (tables as Record<string, unknown>)[name] = study.tables[name];
  }
  const present = new Set([...study.present].filter((name) => needs.has(name)));
  return { ...study, tables, present };
}

describe('a section of the results', () => {
  it.each(SECTION_NAMES)('%s hangs on no table but those that it names', (name) => {
    const whole = openContext(study, { toolpaths }).resultOf(name);
    const own = onlyWith(needsOf(name));
    const isReading = needsOf(name).has('sliced_files');
    const found = openContext(own, isReading ? { toolpaths } : {}).resultOf(name);
    expect(found).toEqual(whole);
  });

  it('is known of the demo, but for what its artefacts and its question do not have', () => {
    const context = openContext(study, { toolpaths });
    const unknown = SECTION_NAMES.filter((name) => context.resultOf(name) === null);
    expect(unknown).toEqual(['squareness', 'by_place', 'sweep']);
  });

  it.each(SECTION_NAMES.filter((name) => !hangsOnReference(name)))(
    '%s is the same whatever the reference is',
    (name) => {
      const own = openContext(study).resultOf(name);
      expect(openContext(study, { reference: 'D-stock' }).resultOf(name)).toEqual(own);
    },
  );

  it('has parts of its own, each of which names it', () => {
    for (const part of PART_NAMES) expect(partNames(sectionOfPart(part))).toContain(part);
    expect(SECTION_NAMES.filter((name) => partNames(name).length === 0)).toEqual([]);
    expect(new Set(PART_NAMES).size).toBe(PART_NAMES.length);
  });
});

/** One of every kind of figure. */
const FIGURES = [
  'accuracy:B-stock:mae_mm',
  'accuracy:B-stock:max_abs_mm',
  'accuracy:B-stock:it_grade',
  'accuracy:B-stock:by_axis.z.bias_mm',
  'accuracy:B-stock:by_kind.hole.bias_mm',
  'accuracy:B-stock:by_size.to-30.mae_mm',
  'accuracy:B-stock:tolerance.inside',
  'accuracy:A-stock:fit.x.scale',
  'pairs:B-stock:accuracy_mm',
  'pairs:B-stock:surface',
  'pairs:B-stock:ln_print_s',
  'speed:B-stock:time_index',
  'surface:B-stock:index',
  'speed:B-stock:by_artefact.stair-block.median_print_s',
  'reliability:B-stock:without_operator.success',
  'reliability:A-stock:all.downtime_share',
  'defects:zones:A-stock.echo-wall/corners.mean',
  'cost:B-stock:stair-block.per_good_part',
  'panels:smooth-front:abilities.B-stock.log_ability',
];

const NO_FIGURES = [
  'nonsense:B-stock:x',
  'accuracy:Z:mae_mm',
  'accuracy:B-stock:nothing',
  'accuracy:B-stock',
  'accuracy:B-stock:fit.w.scale',
  'cost:B-stock:none.per_good_part',
  'pairs:B-stock:noise',
  'surface:B-stock:shine',
  'speed:B-stock:by_artefact',
  'reliability:B-stock:all',
  'defects:zones:A-stock.echo-wall/roof.mean',
  'noise:gannet:printing.at_1m_db',
  '',
];

describe('evidence', () => {
  it.each(FIGURES)('of %s has a sentence, a formula and rows as wide as their heads', (figure) => {
    const evidence = evidenceOf(openContext(study), figure);
    expect(evidence?.title).toMatch(/^(Auklet 19|Gannet X24) stock: \w/);
    expect(evidence?.sentence).toMatch(/\.$/);
    expect(evidence?.formula.length).toBeGreaterThan(20);
    expect(evidence?.tables.length).toBeGreaterThan(0);
    for (const { columns, rows } of evidence?.tables ?? []) {
      for (const row of rows) expect(row).toHaveLength(columns.length);
    }
  });

  it('of a mean is the rows that it is the mean of', () => {
    const context = openContext(study);
    const [prints] = evidenceOf(context, 'accuracy:B-stock:mae_mm')?.tables ?? [];
    const at = (label: string) => prints?.columns.findIndex((one) => one.label === label) ?? -1;
    const byStratum = new Map<string, number[]>();
    for (const row of prints?.rows ?? []) {
      const name = String(row[at('artefact and material')]);
      byStratum.set(name, [...(byStratum.get(name) ?? []), Number(row[at('MAE mm')])]);
    }
    const mean = (values: readonly number[]) =>
      values.reduce((sum, value) => sum + value, 0) / values.length;
    const whole = mean([...byStratum.values()].map(mean));
    const figure = context.resultOf('accuracy')?.['B-stock']?.mae_mm.estimate;
    expect(whole).toBeCloseTo(figure ?? Number.NaN, 3);
  });

  it('of what is no figure is none', () => {
    expect(sectionOfFigure('nonsense:B-stock:x')).toBeNull();
    for (const figure of NO_FIGURES) {
      expect(evidenceOf(openContext(study), figure)).toBeNull();
    }
  });

  it('a reference that is no contender is refused', () => {
    expect(() => openContext(study, { reference: 'Z' })).toThrow(RangeError);
  });
});
