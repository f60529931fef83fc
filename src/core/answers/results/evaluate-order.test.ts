import { describe, expect, it } from 'vitest';
import { DEMO_SWEEP, demoFiles } from '../../../../tests/support/demo-files';
import { evaluate } from './evaluate';
import { memorySource, readPackage } from '../../model/package';
import { seededDraws, shuffled } from '../../statistics/stats';
import { TABLE_NAMES, type Study } from '../../model/study';

async function studyIn(folder?: string): Promise<Study> {
  const { content } = await readPackage(memorySource(demoFiles(folder)));
  if (!content) throw new Error('the demo has faults');
  return content.study;
}

/** The study with the rows of every table in another order. */
function inOtherOrder(study: Study, seed: number): Study {
  const draws = seededDraws(seed);
  const tables = { ...study.tables };
  for (const name of TABLE_NAMES) {
    (tables as Record<string, unknown>)[name] = shuffled(tables[name] as unknown[], draws);
  }
  return { ...study, tables };
}

/** A value with numbers to nine figures, keys and lists in an order of their own. */
function plain(value: unknown): unknown {
  if (typeof value === 'number') {
    return Math.abs(value) < 1e-12 ? 0 : Number(value.toPrecision(9));
  }
  if (Array.isArray(value)) {
    const isOrdered = value.every((one) => typeof one === 'number');
    const items = value.map(plain);
    return isOrdered
      ? items
      : items.sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
  }
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).map(([key, one]) => [key, plain(one)] as const);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
}

describe.each([
  ['the clip bench', undefined],
  ['the sweep', DEMO_SWEEP],
])('the results of %s', (_, folder) => {
  it('are the same however the rows of its tables are ordered', async () => {
    const study = await studyIn(folder);
    const found = evaluate(study) as unknown as Record<string, unknown>;
    const other = evaluate(inOtherOrder(study, 11)) as unknown as Record<string, unknown>;
    for (const section of Object.keys(found)) {
      expect(plain(other[section]), section).toEqual(plain(found[section]));
    }
  });
});
