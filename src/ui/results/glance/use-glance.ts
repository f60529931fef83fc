import { useRef, useState } from 'react';
import { addressOfCriterion } from '../../../core/answers/figure-address/criteria';
import { orderedBy, type GlanceRow } from '../../../core/answers/glance';
import type { ContenderMark } from '../../../core/model/study';
import { useKeys } from '../../kit/use-keys';
import { useRemembered } from '../../lib/remembered';
import { usePicked } from '../../report/picked';
import { firstOfGroups, groupedRows, movedWithin } from './glance-rows';

export interface GlanceTableProps {
  studyId: string;
  /** The view as the query of an address, kept on the way to other pages. */
  query: string;
  marks: readonly ContenderMark[];
  rows: readonly GlanceRow[];
  reference: string | null;
}

const words = (text: string): ReadonlySet<string> => new Set(text.split('\n').filter(Boolean));

/** Which rows are shown, in which order, which groups are folded: remembered for a study. */
function useGlanceRows({ studyId, rows }: GlanceTableProps) {
  const [foldedText, setFolded] = useRemembered(`glance folded ${studyId}`);
  const [leftText, setLeft] = useRemembered(`glance left out ${studyId}`);
  const [orderText, setOrder] = useRemembered(`glance order ${studyId}`);
  const [folded, left] = [words(foldedText), words(leftText)];
  const groups = groupedRows(rows, left, orderText.split('\n'));
  const toggle = (set: ReadonlySet<string>, item: string, keep: (text: string) => void) => {
    const next = new Set(set);
    if (!next.delete(item)) next.add(item);
    keep([...next].join('\n'));
  };
  return {
    folded,
    left,
    groups,
    shownRows: firstOfGroups(groups, folded),
    fold: (group: string) => toggle(folded, group, setFolded),
    leaveOut: (key: string) => toggle(left, key, setLeft),
    /** Moves a row within its group. */
    move: (key: string, by: number) => {
      const moved = movedWithin(groups, key, by);
      if (moved) setOrder(moved.join('\n'));
    },
  };
}

/** Who stands in which column: by the sorting row, and on a phone one beside the reference. */
function useGlanceColumns({ marks, rows, reference }: GlanceTableProps) {
  const [sortKey, setSortKey] = useState('');
  const [other, setOther] = useState('');
  const sorting = rows.find((row) => row.key === sortKey);
  const ids = sorting ? orderedBy(sorting) : marks.map((mark) => mark.contender_id);
  const columns = ids.flatMap((id) => marks.find((mark) => mark.contender_id === id) ?? []);
  const chosen =
    columns.find((mark) => mark.contender_id === other && other !== reference) ??
    columns.find((mark) => mark.contender_id !== reference);
  return {
    sortKey,
    sorting,
    /** Sorts by this row, or no longer where it was the one already. */
    sortBy: (key: string) => setSortKey(key === sortKey ? '' : key),
    columns,
    chosen,
    setOther,
    /** Whether a column is shown on a wide screen only. */
    isWide: (id: string) => id !== reference && id !== chosen?.contender_id,
  };
}

/** The figure that has the focus: its row and its contender. */
const focusedFigure = (): DOMStringMap | undefined => {
  const cell = document.activeElement;
  return cell instanceof HTMLElement && cell.dataset.cell ? cell.dataset : undefined;
};

/** All figures of all contenders: which are shown, in which order, and what the keys do. */
export function useGlance(props: GlanceTableProps) {
  const { studyId, query, marks, rows, reference } = props;
  const shown = useGlanceRows(props);
  const columns = useGlanceColumns(props);
  const [isChoosing, setChoosing] = useState(false);
  const table = useRef<HTMLTableElement>(null);
  const { pick } = usePicked(studyId);
  const [pickedNow, setPickedNow] = useState('');

  /** Moves the focus among the figures by so many rows and columns. */
  const go = (down: number, right: number) => {
    const cells = [...(table.current?.querySelectorAll<HTMLElement>('[data-cell]') ?? [])];
    const now = cells.find((cell) => cell === document.activeElement);
    if (!now) return cells[0]?.focus();
    const [row = 0, column = 0] = (now.dataset.cell ?? '0 0').split(' ').map(Number);
    cells.find((cell) => cell.dataset.cell === `${row + down} ${column + right}`)?.focus();
  };
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
  useKeys((event) => {
    const cell = focusedFigure();
    const key = event.key.toLowerCase();
    if (event.altKey && cell?.row && (key === 'arrowdown' || key === 'arrowup')) {
      return () => shown.move(cell.row ?? '', key === 'arrowdown' ? 1 : -1);
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
      s: () => columns.sortBy(cell?.row ?? columns.sortKey),
      h: () => {
        if (cell?.contender) location.assign(headToHead(cell.contender));
      },
      u: () => {
        if (cell?.row && cell.contender) pickFigure(cell.row, cell.contender);
      },
    };
    return keys[key] ?? null;
  });
  return { ...props, ...shown, ...columns, isChoosing, setChoosing, table, pickedNow, headToHead };
}

export type Glance = ReturnType<typeof useGlance>;
