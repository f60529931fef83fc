import { glanceRows, type GlanceRow } from '../../answers/glance';
import { capital } from '../phrasing';
import type { ReportedResults } from '../../answers/results';
import { inUnit } from './figure';
import type { Chart } from './model';
import { addressOfCriterion } from '../../answers/figure-address';
import type { Printing } from './printing';

/** Every figure of everyone as a chart, by its criterion, in the order of everything at a glance. */
export function chartsOf(printing: Printing): Map<string, Chart> {
  const { results, study, marks, reference, names } = printing;
  const rows = glanceRows({
    contenders: marks.map((mark) => mark.contender_id),
    reference,
    names,
    criteria: results.criteria,
    differences: results.differences,
    // Classes are words: they stand in a table.
    classes: {},
    smallest: study.meta.smallest_difference,
  });
  return new Map(rows.map((row) => [row.key, chartOf(printing, row)]));
}

/** The figure of everyone that a row at a glance is, with a dot for each specimen where there are any. */
function chartOf(context: Printing, row: GlanceRow): Chart {
  const { key, words } = row;
  const format = inUnit('', words.digits, words.factor);
  const rows = row.cells.map((cell) => ({
    contender: cell.contender,
    figure:
      cell.value === null
        ? null
        : context.print(
            addressOfCriterion(key, cell.contender, context.machineOf(cell.contender)),
            format,
          ),
    instead: cell.value === null ? (cell.text ?? '') : '',
    dots: dotsOf(context.results, key, cell.contender),
    verdict: cell.verdict,
    prints_needed: cell.prints_needed,
    prints_as_seen: cell.prints_as_seen,
  }));
  const dots = rows.flatMap((own) => own.dots);
  const [from, to] = row.scale;
  return {
    id: chartId(key),
    criterion: key,
    title: words.label,
    unit: words.unit,
    rows,
    isLargerBetter: words.isLargerBetter,
    sentence: sentenceOf(context, row),
    scale: [Math.min(from, ...dots), Math.max(to, ...dots)],
    band: row.band,
  };
}

/** A name for files and addresses. */
export const chartId = (key: string): string => key.replace(/[^A-Za-z0-9]+/g, '-');

/** With more dots than this nothing is seen but dots: the interval stands alone. */
const MOST_DOTS = 80;

/** Each specimen's own value of a figure, where there are any and not too many. */
function dotsOf(results: ReportedResults, key: string, contender: string): number[] {
  const dots = allDots(results, key, contender);
  return dots.length > MOST_DOTS ? [] : dots;
}

function allDots(results: ReportedResults, key: string, contender: string): number[] {
  if (key === 'accuracy_mm') {
    return (results.accuracy?.[contender]?.by_specimen ?? []).flatMap((one) => one.mae_mm ?? []);
  }
  if (key === 'surface') {
    return (results.surface?.[contender]?.by_specimen ?? []).map((one) => one.index);
  }
  if (key.startsWith('photo:')) {
    const own = results.photo?.[contender]?.[key.slice('photo:'.length)];
    return (own?.by_specimen ?? []).map((one) => one.value);
  }
  return [];
}

function sentenceOf({ nameOf }: Printing, { words, cells }: GlanceRow): string {
  const known = cells.filter(({ value }) => value !== null);
  const sorted = [...known].sort((a, b) => (a.value ?? 0) - (b.value ?? 0));
  const [least, most] = [sorted[0], sorted.at(-1)];
  if (!least || !most) return `${capital(words.label)}: no contender has a number.`;
  const unit = words.unit === '' ? '' : ` ${words.unit}`;
  const missing = cells.length - known.length;
  const rest = missing > 0 ? ` Of ${missing} it is not known.` : '';
  if (least === most) {
    return `${capital(words.label)}: ${least.text}${unit} (${nameOf(least.contender)}).${rest}`;
  }
  return (
    `${capital(words.label)}: from ${least.text} (${nameOf(least.contender)}) to ` +
    `${most.text}${unit} (${nameOf(most.contender)}).${rest}`
  );
}
