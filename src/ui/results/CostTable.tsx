import { Explain } from '../marks/Explain';
import { addressOf } from '../../core/answers/figure-address/address';
import { ContenderHeads } from '../marks/ContenderHeads';
import { cheapestOf, withAfterWork, type Cost } from '../../core/measures/cost';
import type { Interval } from '../../core/statistics/stats';
import type { ContenderMark } from '../../core/model/study';
import { fixed } from '../lib/format';
import { Unknown } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface CostTableProps {
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  cost: Record<string, Record<string, Cost>>;
  reference: string | null;
  currency: string;
  /** Minutes of after-work by contender and artefact, and an hour's wage, where they are to count. */
  afterWork: {
    minutes: Record<string, Record<string, { minutes: Interval }>>;
    wage: number | null;
  } | null;
}

const PARTS = [
  ['material', 'var(--plum)'],
  ['energy', 'var(--large)'],
  ['machine', 'var(--small)'],
  ['upkeep', 'var(--line)'],
  ['hands', 'var(--ink-2)'],
] as const;
const AFTER_WORK = ['after_work', 'var(--ink)'] as const;

/** What a cell of the table shows. */
type ShownCost = Cost & { after_work: number | null };

/** What a good part costs, failed attempts included: every contender beside the others. */
export function CostTable(props: CostTableProps) {
  const { marks, artefacts, cost, reference, currency, afterWork } = props;
  const costOf = (contender: string, artefact: string): ShownCost | undefined => {
    const own = cost[contender]?.[artefact];
    if (!own) return undefined;
    if (!afterWork) return { ...own, after_work: null };
    const minutes = afterWork.minutes[contender]?.[artefact]?.minutes;
    return { ...own, ...withAfterWork(own, minutes, afterWork.wage) };
  };
  const parts = afterWork ? [...PARTS, AFTER_WORK] : PARTS;
  const shown = artefacts.filter((one) => marks.some((mark) => cost[mark.contender_id]?.[one.id]));
  return (
    <section className="min-w-0 sheet" aria-labelledby="good-part">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="good-part" className="font-semibold">
          Cost of a good part{currency && `, ${currency}`}
          <Explain term="cost" />
        </h2>
        <p className="flex flex-wrap gap-3 text-xs text-ink-2">
          failed attempts included{afterWork && ', post-processing included'}; interval below; the
          cheapest is bold where the difference is clear
          {parts.map(([part, colour]) => (
            <span key={part} className="inline-flex items-center gap-1">
              <svg width={10} height={10} aria-hidden="true">
                <rect width={10} height={10} fill={colour} />
              </svg>
              {part.replace('_', '-')}
            </span>
          ))}
        </p>
      </header>
      <Leaving isPicture>
        <table className="w-full min-w-[720px]">
          <ContenderHeads isFigure marks={marks} reference={reference} />
          <tbody>
            {shown.map((artefact) => {
              const own = marks.map((mark) => costOf(mark.contender_id, artefact.id));
              const cheapest = cheapestOf(
                Object.fromEntries(marks.map((mark, at) => [mark.contender_id, own[at]])),
              );
              const known = own.filter((one) => one?.per_good_part != null).length;
              const largest = Math.max(...own.map((one) => one?.per_good_part ?? 0), 1e-9);
              return (
                <CostRow
                  key={artefact.id}
                  artefact={artefact}
                  cheapest={cheapest}
                  known={known}
                  own={own}
                  marks={marks}
                  largest={largest}
                />
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

interface CostRowProps {
  artefact: { id: string; name: string };
  cheapest: string | null;
  known: number;
  own: (ShownCost | undefined)[];
  marks: CostTableProps['marks'];
  largest: number;
}

/** What a good part of one artefact costs each of them. */
function CostRow({ artefact, cheapest, known, own, marks, largest }: CostRowProps) {
  return (
    <tr className="border-b border-line-soft align-top">
      <th scope="row" className="px-2 py-1.5 text-left font-normal">
        {artefact.name}
        {cheapest === null && known > 1 && (
          <span className="block text-2xs whitespace-nowrap text-ink-2">too close to call</span>
        )}
      </th>
      {own.map((one, at) => {
        const mark = marks[at];
        if (!mark || one?.per_good_part == null) {
          return (
            <td key={mark?.contender_id ?? at} className="px-2 text-right">
              <Unknown why={one?.notes.join('; ') ?? 'not printed'} />
            </td>
          );
        }
        return (
          <td key={mark.contender_id} className="px-2 py-1 text-right">
            <button
              type="button"
              className={`figure ${mark.contender_id === cheapest ? 'font-bold underline' : ''}`}
              data-figure={addressOf('cost', mark.contender_id, `${artefact.id}.per_good_part`)}
            >
              {fixed(one.per_good_part, 2)}
            </button>
            <span className="block text-2xs text-ink-2">
              {one.per_good_part_low === null
                ? 'no interval'
                : `${fixed(one.per_good_part_low, 2)} … ` +
                  `${one.per_good_part_high === null ? 'open' : fixed(one.per_good_part_high, 2)}`}{' '}
              · {one.good_copies} good of {one.attempts === 1 ? '1 try' : `${one.attempts} tries`}
            </span>
            <Bar cost={one} largest={largest} />
          </td>
        );
      })}
    </tr>
  );
}

function Bar({ cost, largest }: { cost: ShownCost; largest: number }) {
  const goods = Math.max(1, cost.good_copies);
  const scale = 100 / (largest * goods);
  const parts = [...PARTS, AFTER_WORK];
  const widths = parts.map(([part]) =>
    part === 'after_work' ? scale * goods * (cost.after_work ?? 0) : scale * (cost[part] ?? 0),
  );
  return (
    <svg className="block w-full" height={6} aria-hidden="true">
      {parts.map(([part, colour], at) => {
        const width = widths[at] ?? 0;
        const x = widths.slice(0, at).reduce((sum, before) => sum + before, 0);
        return (
          <rect
            key={part}
            x={`${x.toFixed(2)}%`}
            width={`${width.toFixed(2)}%`}
            height={6}
            fill={colour}
          />
        );
      })}
    </svg>
  );
}
