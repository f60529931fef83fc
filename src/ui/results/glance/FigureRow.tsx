import type { Glance } from './use-glance';
import type { GlanceCell, GlanceRow } from '../../../core/answers/glance';
import type { ContenderMark } from '../../../core/model/study';
import type { FigureGroup } from '../../../core/answers/figure-names';
import { addressOf } from '../../../core/answers/figure-address/address';
import {
  addressOfCriterion,
  addressOfDifference,
} from '../../../core/answers/figure-address/criteria';
import { VerdictGlyph } from '../../marks/VerdictGlyph';
import { GlanceStrip } from './GlanceStrip';

interface FigureRowProps {
  row: GlanceRow;
  group: 'Accuracy' | 'Surface' | 'Limits' | 'Speed' | 'Reliability' | 'Cost' | 'Handling';
  at: number;
  glance: Glance;
  own: readonly GlanceRow[];
}

/** One figure, contender by contender. */
export function FigureRow({ row, group, at, glance, own }: FigureRowProps) {
  return (
    <tr className="border-b border-line-soft">
      <GroupHead group={group} at={at} glance={glance} own={own} />
      <th scope="row" className="px-2 py-0.5 text-left text-xs font-normal text-ink-2">
        <button
          type="button"
          className={`min-h-[24px] text-left ${row.key === glance.sortKey ? 'font-semibold text-plum' : ''}`}
          aria-pressed={row.key === glance.sortKey}
          data-hint="sorts the contenders by this figure"
          onClick={() => glance.sortBy(row.key)}
        >
          {row.words.label}
          {row.words.unit && ` (${row.words.unit})`}
        </button>
      </th>
      {glance.columns.map((mark, column) => {
        const cell = row.cells.find((one) => one.contender === mark.contender_id);
        return (
          <Cell
            key={mark.contender_id}
            studyId={glance.studyId}
            query={glance.query}
            row={row}
            cell={cell}
            mark={mark}
            isReference={mark.contender_id === glance.reference}
            isWide={glance.isWide(mark.contender_id)}
            place={`${glance.shownRows.indexOf(row)} ${column}`}
          />
        );
      })}
    </tr>
  );
}

/** The name of a group: folds and unfolds it. */
function GroupHead({ group, at, glance, own }: GroupHeadProps) {
  return (
    <th
      scope="rowgroup"
      className="px-2 text-left align-top max-sm:hidden"
      data-figure-text={group}
    >
      {at === 0 && (
        <button
          type="button"
          className="min-h-[28px] font-semibold"
          aria-expanded={!glance.folded.has(group)}
          disabled={own.length === 1}
          onClick={() => glance.fold(group)}
        >
          {group}
          {own.length > 1 && (
            <span className="ml-1 text-xs font-normal text-ink-2" aria-hidden="true">
              {glance.folded.has(group) ? `▸ ${own.length}` : '▾'}
            </span>
          )}
        </button>
      )}
    </th>
  );
}

interface GroupHeadProps {
  group: 'Accuracy' | 'Surface' | 'Limits' | 'Speed' | 'Reliability' | 'Cost' | 'Handling';
  at: number;
  glance: Glance;
  own: readonly GlanceRow[];
}

/** One figure of one contender; Enter opens what it was computed from. */
function Cell({ studyId, query, row, cell, mark, isReference, isWide, place }: CellProps) {
  const hidden = isWide ? 'max-sm:hidden' : '';
  const where = { 'data-cell': place, 'data-row': row.key, 'data-contender': mark.contender_id };
  if (!cell?.text) {
    return (
      <td className={`unknown ${hidden}`} tabIndex={0} {...where} data-hint="not known">
        <span className="sr-only">not known</span>
      </td>
    );
  }
  const figure = evidenceAt(row.key, mark.contender_id, isReference);
  const content = (
    <>
      <span className="flex items-baseline justify-between gap-1">
        <span className="text-2xs">
          {isReference ? (
            <span className="text-plum">ref</span>
          ) : (
            cell.verdict && <VerdictGlyph {...cell} verdict={cell.verdict} />
          )}
          {(cell.fairness === 'confounded' || cell.fairness === 'noted') && (
            <span
              className={`ml-0.5 font-mono ${cell.fairness === 'confounded' ? 'text-warn' : 'text-ink-2'}`}
              data-hint={
                cell.fairness === 'confounded'
                  ? 'confounded: more differs than what is compared'
                  : 'noted: something differs that need not be equal'
              }
            >
              <span aria-hidden="true">{cell.fairness === 'confounded' ? '≠' : '∼'}</span>
              <span className="sr-only">{cell.fairness}</span>
            </span>
          )}
        </span>
        <span className="font-mono" data-figure-text={cell.text}>
          {cell.text}
        </span>
      </span>
      <GlanceStrip cell={cell} row={row} hue={mark.hue} />
    </>
  );
  const looks = 'block w-full px-2 py-0.5 text-ink no-underline hover:bg-plum-soft';
  return (
    <td className={`p-0 align-top ${hidden}`}>
      {figure ? (
        <button type="button" className={looks} data-figure={figure} {...where}>
          {content}
        </button>
      ) : (
        <a
          className={looks}
          href={`/studies/${studyId}/results/${PAGES[row.words.group]}${query}`}
          {...where}
        >
          {content}
        </a>
      )}
    </td>
  );
}

interface CellProps {
  studyId: string;
  query: string;
  row: GlanceRow;
  cell: GlanceCell | undefined;
  mark: ContenderMark;
  isReference: boolean;
  isWide: boolean;
  place: string;
}

/** What opens when a figure is asked: its evidence, or the page that it stands on. */
function evidenceAt(key: string, contender: string, isReference: boolean): string | null {
  if (key === 'it_grade') return addressOf('accuracy', contender, key);
  if (key === 'time_index' && !isReference) return addressOfDifference(key, contender);
  return OPENED.has(key) ? addressOfCriterion(key, contender, null) : null;
}

/** Figures whose evidence is opened where they stand; the others lead to their page. */
const OPENED: ReadonlySet<string> = new Set([
  'accuracy_mm',
  'worst_mm',
  'surface',
  'time_index',
  'success',
  'incidents_per_100_h',
  'standstill',
  'hands_min_per_100_h',
]);

const PAGES: Readonly<Record<FigureGroup, string>> = {
  Accuracy: 'accuracy',
  Surface: 'surface',
  Limits: 'limits',
  Speed: 'speed',
  Reliability: 'reliability',
  Cost: 'cost',
  Handling: 'cost',
};
