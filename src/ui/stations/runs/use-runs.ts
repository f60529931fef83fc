import type { Values } from '../../records/use-record';
import { useMemo, useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ContenderMark, PrintEventKind } from '../../../core/model/study';
import type { Stored } from '../../../contract/rows';
import type { RunsData, StudyLink } from '../../../contract/runs';
import { localIso } from '../../lib/entry';
import { unpackRows, type PackedRows } from '../../lib/packed-rows';
import { storedAs } from '../../records/stored-as';
import type { TableRow } from '../../records/RecordTable';
import { asItStands, callApi, failureText } from '../../kit/request';
import { concerns, useStudyNews } from '../../lib/live';
import { usePolling } from '../../kit/use-polling';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { readOperator } from '../../lib/operator';
import { sendOrKeep } from '../../lib/outbox';
import type { Deleted } from '../../records/DeleteWhole';
import { askedFor, type Opened } from './opened';
import { nextCell, runCells, tallied, turnOf, type AnyPrint, type RunCell } from './runs-model';
import { useKeys } from '../../kit/use-keys';
import type { FieldSpec } from '../../records/fields';
import { usualStart } from './usual';

export interface RunsBenchProps extends Omit<RunsData, 'prints' | 'incidents'> {
  prints: PackedRows<Stored<'prints'>>;
  incidents: PackedRows<Stored<'incidents'>>;
  studyId: string;
  marks: readonly ContenderMark[];
  reference: string | null;
  startFields: readonly FieldSpec[];
  endFields: readonly FieldSpec[];
  printFields: readonly FieldSpec[];
  incidentFields: readonly FieldSpec[];
  /** The fields of a lot that is made where a print asks for it. */
  lotFields: readonly FieldSpec[];
  machineNames: Readonly<Record<string, string>>;
  /** A print or place of the plan that the address asks for. */
  asked: string | null;
}

/** What was printed, what runs, what went wrong: kept in step with the server and the bench link. */
function useRunsData(props: RunsBenchProps) {
  const { studyId } = props;
  const [prints, setPrints] = useState(() => unpackRows(props.prints));
  const [tallies, setTallies] = useState(props.tallies);
  const [openPrints, setOpenPrints] = useState(props.openPrints);
  const [incidents, setIncidents] = useState(() => unpackRows(props.incidents));
  const [events, setEvents] = useState(props.events);
  const [codes, setCodes] = useState(props.codes);
  const [incomplete, setIncomplete] = useState(props.incomplete);
  const [machines, setMachines] = useState(props.machines);
  const [lots, setLots] = useState<readonly { id: string; name: string }[]>([]);
  const [deleted, setDeleted] = useState<Deleted | null>(null);
  const [link, setLink] = useState(props.link);
  const seen = useRef(props.link.revision);
  const [message, setMessage] = useState<string | null>(null);
  const { cells, opened, setOpened, next } = useRunPlaces({ props, prints, openPrints, tallies });
  const heard = new Map(link.machines.map((machine) => [machine.machine_id, machine]));

  const refresh = async () => {
    const found = await asItStands(() => callApi<RunsData>('GET', `/studies/${studyId}/runs`));
    seen.current = found.link.revision;
    setLink(found.link);
    setPrints(found.prints);
    setTallies(found.tallies);
    setOpenPrints(found.openPrints);
    setIncidents(found.incidents);
    setEvents(found.events);
    setCodes(found.codes);
    setIncomplete(found.incomplete);
    setMachines(found.machines);
  };
  const refreshQuietly = () => void refresh().catch(() => undefined);
  useStudyNews(studyId, (news) => {
    const isOurs = concerns(
      news,
      'prints',
      'open_prints',
      'print_events',
      'incidents',
      'specimens',
      'machine_changes',
    );
    if (isOurs) refreshQuietly();
  });
  usePolling(
    async () => {
      const now = await callApi<StudyLink>('GET', `/studies/${studyId}/link`);
      setLink(now);
      if (now.revision !== seen.current) await refresh();
    },
    LINK_EVERY_MS,
    link.isLinked,
  );
  return {
    prints,
    setPrints,
    tallies,
    setTallies,
    openPrints,
    setOpenPrints,
    incidents,
    setIncidents,
    events,
    setEvents,
    codes,
    setCodes,
    incomplete,
    machines,
    lots,
    setLots,
    deleted,
    setDeleted,
    link,
    message,
    setMessage,
    cells,
    opened,
    setOpened,
    next,
    heard,
    refreshQuietly,
  };
}

interface RunPlacesGiven {
  props: RunsBenchProps;
  prints: Stored<'prints'>[];
  openPrints: Stored<'open_prints'>[];
  tallies: {
    contender_id: string;
    artefact_id: string;
    success: number;
    rescued: number;
    failed: number;
    aborted: number;
  }[];
}

/** The places of the plan and what was printed in them, which is open, and which comes next. */
function useRunPlaces({ props, prints, openPrints, tallies }: RunPlacesGiven) {
  const { artefacts, marks, machineOf } = props;
  const cells = useMemo(
    () =>
      runCells(
        artefacts.map((one) => one.id),
        marks.map((mark) => mark.contender_id),
        prints,
        openPrints,
        props.planned,
        tallies,
      ),
    [artefacts, marks, prints, openPrints, props.planned, tallies],
  );
  const all = [...cells.values()].flat();
  const [opened, setOpened] = useState<Opened | null>(() => askedFor(props.asked, all));
  const busy = new Set(openPrints.map((row) => machineOf[row.contender_id]));
  const next = nextCell(all, props.order, (contender) => busy.has(machineOf[contender]));
  return { cells, opened, setOpened, next };
}

type RunsKept = ReturnType<typeof useRunsData>;

const LINK_EVERY_MS = 2000;

/** Notes what happens to a print that runs, at once. */
function useNoting(runs: RunsKept, studyId: string) {
  const inTurn = useSerialQueue();
  return async (print: AnyPrint, kind: PrintEventKind) => {
    const event = {
      event_id: uuid(),
      print_id: print.print_id,
      at: localIso(new Date()),
      kind,
      source: 'person' as const,
      operator: readOperator() || null,
    };
    // It stands at once: the same key means its opposite from then on.
    runs.setEvents((known) => [...known, { ...event, row_version: 1 }]);
    try {
      runs.setMessage(null);
      await inTurn(() => sendOrKeep(`/studies/${studyId}/rows/print_events`, event));
    } catch (error) {
      runs.setEvents((known) => known.filter((one) => one.event_id !== event.event_id));
      runs.setMessage(failureText(error, 'It could not be saved.'));
    }
  };
}

/** What follows when a print has ended or is deleted. */
function endingsOf(runs: RunsKept, close: () => void) {
  const ended = (answer: TableRow, stickers: readonly string[]) => {
    const row = storedAs<'prints'>(answer);
    runs.setCodes((known) => [...stickers, ...known]);
    runs.setMessage(stickers.length === 0 ? null : `Saved. ${stickerWords(stickers)}`);
    runs.refreshQuietly();
    runs.setPrints((known) => [...known.filter((one) => one.print_id !== row.print_id), row]);
    runs.setTallies((known) => tallied(known, row));
    runs.setOpenPrints((known) => known.filter((one) => one.print_id !== row.print_id));
    close();
  };
  const gone = (what: Deleted) => {
    runs.setDeleted(what);
    close();
    runs.refreshQuietly();
  };
  return { ended, gone };
}

const stickerWords = (codes: readonly string[]): string =>
  codes.length === 1 ? `Sticker ${codes[0]}.` : `Stickers ${codes[0]} to ${codes.at(-1)}.`;

/** The fields of a start, with the lots that were added here among the materials. */
const withLots = (
  fields: readonly FieldSpec[],
  lots: readonly { id: string; name: string }[],
): FieldSpec[] =>
  fields.map((field) =>
    field.name === 'material_id'
      ? {
          ...field,
          options: [
            ...(field.options ?? []),
            ...lots.map(({ id, name }) => ({ value: id, label: name })),
          ],
        }
      : field,
  );

/** The bench's model: what there is, what is open, what each key and form does. */
export function useRuns(props: RunsBenchProps) {
  const runs = useRunsData(props);
  const { studyId, artefacts, marks, machineOf } = props;
  const { opened, next, openPrints, events } = runs;
  const note = useNoting(runs, studyId);
  const nameOf = (id: string) => artefacts.find((one) => one.id === id)?.name ?? id;
  const markOf = (id: string) => marks.find((mark) => mark.contender_id === id);
  const close = () => runs.setOpened(null);
  useKeys((event) => {
    if (opened || event.altKey) return null;
    const digit = /^Digit([1-9])$/.exec(event.code)?.[1];
    const running = openPrints[Number(digit) - 1];
    if (running && event.shiftKey) return () => void note(running, turnOf(running, events));
    if (running) return () => runs.setOpened({ kind: 'incident', print: running });
    return event.key === 's' && next ? () => runs.setOpened({ kind: 'start', cell: next }) : null;
  });
  const usualOf = (cell: RunCell): Values =>
    usualStart(cell, {
      prints: runs.prints,
      planned: props.planned,
      files: props.files,
      materials: [...props.materials, ...runs.lots],
      machineOf,
      machines: runs.machines,
    });
  const titleOf = (row: Pick<AnyPrint, 'artefact_id' | 'contender_id' | 'repeat'>) =>
    `${nameOf(row.artefact_id)} · ${markOf(row.contender_id)?.label ?? ''} · repeat ${row.repeat}`;
  const nextOf = (cell: RunCell) =>
    `${nameOf(cell.artefact)} on ${markOf(cell.contender)?.label ?? ''}, repeat ${cell.repeat}`;
  return {
    ...runs,
    ...endingsOf(runs, close),
    given: props,
    studyId,
    startFields: withLots(props.startFields, runs.lots),
    note,
    nameOf,
    markOf,
    titleOf,
    nextOf,
    usualOf,
    close,
  };
}

export type Runs = ReturnType<typeof useRuns>;
