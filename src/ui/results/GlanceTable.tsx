import { useRef, useState } from 'react';
import { orderedBy, type GlanceCell, type GlanceRow } from '../../core/answers/glance';
import type { ContenderMark } from '../../core/model/study';
import { VERDICT_SIGNS } from '../../core/text/phrasing';
import { FIGURE_GROUPS, type FigureGroup } from '../../core/answers/figure-names';
import { addressOf } from '../../core/answers/figure-address/address';
import {
  addressOfCriterion,
  addressOfDifference,
} from '../../core/answers/figure-address/criteria';
import { usePicked } from '../report/picked';
import { Leaving } from '../kit/Leaving';
import { useKeys } from '../kit/use-keys';
import { useRemembered } from '../lib/remembered';
import { Badge } from '../marks/Badge';
import { VerdictGlyph } from '../marks/VerdictGlyph';
import { GlanceStrip } from './GlanceStrip';

interface GlanceTableProps {
  studyId: string;
  /** The view as the query of an address, kept on the way to other pages. */
  query: string;
  marks: readonly ContenderMark[];
  rows: readonly GlanceRow[];
  reference: string | null;
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

const words = (text: string): ReadonlySet<string> => new Set(text.split('\n').filter(Boolean));

/** Everything of everyone: a row a figure, one scale a row, walked through by keys. */
export function GlanceTable({ studyId, query, marks, rows, reference }: GlanceTableProps) {
  const [foldedText, setFolded] = useRemembered(`glance folded ${studyId}`);
  const [leftText, setLeft] = useRemembered(`glance left out ${studyId}`);
  const [orderText, setOrder] = useRemembered(`glance order ${studyId}`);
  const [sortKey, setSortKey] = useState('');
  const [other, setOther] = useState('');
  const [isChoosing, setChoosing] = useState(false);
  const table = useRef<HTMLTableElement>(null);
  const [folded, left] = [words(foldedText), words(leftText)];
  const order = orderText.split('\n');
  const place = (key: string) => {
    const at = order.indexOf(key);
    return at < 0 ? order.length : at;
  };
  const { pick } = usePicked(studyId);
  const [pickedNow, setPickedNow] = useState('');
  const sorting = rows.find((row) => row.key === sortKey);
  const ids = sorting ? orderedBy(sorting) : marks.map((mark) => mark.contender_id);
  const columns = ids.flatMap((id) => marks.find((mark) => mark.contender_id === id) ?? []);
  // On a phone: one contender against the reference.
  const chosen =
    columns.find((mark) => mark.contender_id === other && other !== reference) ??
    columns.find((mark) => mark.contender_id !== reference);
  const isWide = (id: string) => id !== reference && id !== chosen?.contender_id;
  const groups = FIGURE_GROUPS.map((group) => ({
    group,
    rows: rows
      .filter((row) => row.words.group === group && !left.has(row.key))
      .sort((a, b) => place(a.key) - place(b.key)),
  })).filter((one) => one.rows.length > 0);
  const shownRows = groups.flatMap((one) =>
    folded.has(one.group) ? one.rows.slice(0, 1) : one.rows,
  );

  /** Moves the focus among the figures by so many rows and columns. */
  const go = (down: number, right: number) => {
    const cells = [...(table.current?.querySelectorAll<HTMLElement>('[data-cell]') ?? [])];
    const now = cells.find((cell) => cell === document.activeElement);
    const [row = 0, column = 0] = (now?.dataset.cell ?? '0 0').split(' ').map(Number);
    if (!now) return cells[0]?.focus();
    const [toRow, toColumn] = [row + down, column + right];
    const next = cells.find((cell) => cell.dataset.cell === `${toRow} ${toColumn}`);
    next?.focus();
  };
  /** Moves the row of the focused figure within its group. */
  const move = (key: string, by: number) => {
    const own = groups.find((one) => one.rows.some((row) => row.key === key));
    if (!own) return;
    const keys = own.rows.map((row) => row.key);
    const from = keys.indexOf(key);
    const to = from + by;
    if (to < 0 || to >= keys.length) return;
    keys.splice(to, 0, ...keys.splice(from, 1));
    setOrder(
      groups.flatMap((one) => (one === own ? keys : one.rows.map((row) => row.key))).join('\n'),
    );
  };
  const focused = () => {
    const cell = document.activeElement as HTMLElement | null;
    return cell?.dataset.cell ? cell.dataset : undefined;
  };
  useKeys((event) => {
    const cell = focused();
    const key = event.key.toLowerCase();
    if (event.altKey && cell?.row && (key === 'arrowdown' || key === 'arrowup')) {
      return () => move(cell.row ?? '', key === 'arrowdown' ? 1 : -1);
    }
    if (event.altKey) return null;
    const keys: Record<string, () => void> = {
      j: () => go(1, 0),
      k: () => go(-1, 0),
      ...(cell && {
        arrowdown: () => go(1, 0),
        arrowup: () => go(-1, 0),
        arrowleft: () => go(0, -1),
        arrowright: () => go(0, 1),
      }),
      s: () => setSortKey(cell?.row === undefined || cell.row === sortKey ? '' : cell.row),
      h: () => {
        if (cell?.contender) location.assign(headToHead(cell.contender));
      },
      u: () => {
        if (cell?.row && cell.contender) pickFigure(cell.row, cell.contender);
      },
    };
    return keys[key] ?? null;
  });
  /** Picks a figure for the report. */
  const pickFigure = (key: string, contender: string) => {
    const row = rows.find((one) => one.key === key);
    const mark = marks.find((one) => one.contender_id === contender);
    if (!row || !mark || key === 'it_grade') return;
    const address = addressOfCriterion(key, contender, null);
    const title = `${mark.machineName} ${mark.variant}: ${row.words.label}`;
    pick({ address, title });
    setPickedNow(title);
  };
  const headToHead = (id: string): string => {
    const search = new URLSearchParams(query);
    search.set('of', id);
    if (reference !== null && id !== reference) search.set('with', reference);
    return `/studies/${studyId}/results/head-to-head?${search}`;
  };
  const toggle = (set: ReadonlySet<string>, item: string, keep: (text: string) => void) => {
    const next = new Set(set);
    if (!next.delete(item)) next.add(item);
    keep([...next].join('\n'));
  };

  return (
    <section className="min-w-0 sheet" aria-label="Every figure of everyone">
      <div className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2 text-xs text-ink-2">
        <span className="hidden sm:inline">
          <kbd className="key">J</kbd> <kbd className="key">K</kbd> rows{' '}
          <kbd className="key">←</kbd> <kbd className="key">→</kbd> contenders{' '}
          <kbd className="key">↵</kbd> evidence <kbd className="key">S</kbd> sort by the row{' '}
          <kbd className="key">H</kbd> head to head <kbd className="key">U</kbd> use in report{' '}
          <kbd className="key">Alt ↓</kbd> move the row
        </span>
        <label className="sm:hidden">
          beside the reference{' '}
          <select
            className="field w-auto"
            value={chosen?.contender_id ?? ''}
            onChange={(event) => setOther(event.target.value)}
          >
            {columns
              .filter((mark) => mark.contender_id !== reference)
              .map((mark) => (
                <option key={mark.contender_id} value={mark.contender_id}>
                  {mark.label}
                </option>
              ))}
          </select>
        </label>
        <button
          type="button"
          className="ml-auto action"
          aria-expanded={isChoosing}
          onClick={() => setChoosing(!isChoosing)}
        >
          Choose figures
        </button>
        {pickedNow !== '' && (
          <span role="status">
            {pickedNow} is picked for the <a href={`/studies/${studyId}/report`}>report</a>
          </span>
        )}
        {sorting && (
          <button type="button" className="action" onClick={() => setSortKey('')}>
            In the order of the line-up
          </button>
        )}
      </div>
      {isChoosing && (
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1 border-b border-line px-3 py-2 text-xs">
          <legend className="sr-only">Which figures</legend>
          {rows.map((row) => (
            <label key={row.key} className="flex min-h-[24px] items-center gap-1">
              <input
                type="checkbox"
                className="m-[5px]"
                checked={!left.has(row.key)}
                onChange={() => toggle(left, row.key, setLeft)}
              />
              {row.words.label}
            </label>
          ))}
        </fieldset>
      )}
      <Leaving isPicture name="at a glance">
        <table ref={table} className="w-full border-collapse sm:min-w-[860px]">
          <thead>
            <tr className="border-b border-line">
              <th className="w-[92px] th max-sm:hidden">group</th>
              <th className="w-[168px] th">figure</th>
              {columns.map((mark) => (
                <th
                  key={mark.contender_id}
                  className={`th ${isWide(mark.contender_id) ? 'max-sm:hidden' : ''}`}
                >
                  <a
                    href={headToHead(mark.contender_id)}
                    className="flex items-center gap-1.5 no-underline"
                  >
                    <Badge mark={mark} isReference={mark.contender_id === reference} />
                    <span className="leading-tight">
                      {mark.machineName}
                      <small className="block font-normal text-ink-2">{mark.variant}</small>
                    </span>
                  </a>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {groups.map(({ group, rows: own }) =>
              (folded.has(group) ? own.slice(0, 1) : own).map((row, at) => (
                <tr key={row.key} className="border-b border-line-soft">
                  <th
                    scope="rowgroup"
                    className="px-2 text-left align-top max-sm:hidden"
                    data-figure-text={group}
                  >
                    {at === 0 && (
                      <button
                        type="button"
                        className="min-h-[28px] font-semibold"
                        aria-expanded={!folded.has(group)}
                        disabled={own.length === 1}
                        onClick={() => toggle(folded, group, setFolded)}
                      >
                        {group}
                        {own.length > 1 && (
                          <span className="ml-1 text-xs font-normal text-ink-2" aria-hidden="true">
                            {folded.has(group) ? `▸ ${own.length}` : '▾'}
                          </span>
                        )}
                      </button>
                    )}
                  </th>
                  <th scope="row" className="px-2 py-0.5 text-left text-xs font-normal text-ink-2">
                    <button
                      type="button"
                      className={`min-h-[24px] text-left ${row.key === sortKey ? 'font-semibold text-plum' : ''}`}
                      aria-pressed={row.key === sortKey}
                      data-hint="sorts the contenders by this figure"
                      onClick={() => setSortKey(row.key === sortKey ? '' : row.key)}
                    >
                      {row.words.label}
                      {row.words.unit && `, ${row.words.unit}`}
                    </button>
                  </th>
                  {columns.map((mark, column) => {
                    const cell = row.cells.find((one) => one.contender === mark.contender_id);
                    return (
                      <Cell
                        key={mark.contender_id}
                        studyId={studyId}
                        query={query}
                        row={row}
                        cell={cell}
                        mark={mark}
                        isReference={mark.contender_id === reference}
                        isWide={isWide(mark.contender_id)}
                        place={`${shownRows.indexOf(row)} ${column}`}
                      />
                    );
                  })}
                </tr>
              )),
            )}
          </tbody>
        </table>
      </Leaving>
      <p className="flex flex-wrap gap-x-4 px-3 pb-2 text-2xs text-ink-2">
        {(['better', 'worse', 'indistinguishable', 'unsettled', 'one_print'] as const).map(
          (one) => (
            <span key={one}>
              {VERDICT_SIGNS[one][0]}{' '}
              {one === 'indistinguishable'
                ? 'cannot be told or does not matter'
                : VERDICT_SIGNS[one][1]}{' '}
            </span>
          ),
        )}
        <span>pale band: what does not matter, about the reference</span>
        <span>dashed: the interval goes on beyond the scale</span>
        <span>hatched: not known</span>
      </p>
    </section>
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
