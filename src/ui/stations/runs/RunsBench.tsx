import { memo, useMemo, useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ContenderMark, PrintEventKind } from '../../../core/model/study';
import type { Stored } from '../../../data';
import type { StudyLink } from '../../../server/runs/link';
import type { RunsData } from '../../../server/runs/page';
import { counted, fixed } from '../../lib/format';
import { localIso } from '../../lib/entry';
import { unpackRows, type PackedRows } from '../../lib/packed-rows';
import type { FieldSpec } from '../../records/fields';
import { NewRecord } from '../../records/NewRecord';
import { RecordForm } from '../../records/RecordForm';
import { storedAs } from '../../records/stored-as';
import type { TableRow } from '../../records/RecordTable';
import type { Values } from '../../records/use-record';
import { asItStands, callApi, failureText } from '../../kit/request';
import { concerns, useStudyNews } from '../../lib/live';
import { usePolling } from '../../kit/use-polling';
import { useInTurn } from '../../kit/use-in-turn';
import { useKeys } from '../../kit/use-keys';
import { readOperator } from '../../lib/operator';
import { sendOrKeep } from '../../lib/outbox';
import { CompareFiles } from './CompareFiles';
import { EndPrint } from './EndPrint';
import { IncidentPhotos } from './IncidentPhotos';
import { IncidentList } from './IncidentList';
import { Panel } from '../../kit/Panel';
import { PrintingNow } from './PrintingNow';
import { RunMatrix } from './RunMatrix';
import { timesAtEnd } from './times-at-end';
import { DeleteWhole, UndoDelete, type Deleted } from '../../records/DeleteWhole';
import { Incomplete } from './Incomplete';
import { filamentFollows, filamentOf, fromFile } from './print-file';
import { PrintParts } from './PrintParts';
import { usualStart } from './usual';
import { LinkPanel } from './LinkPanel';
import { askedFor, type Opened } from './opened';
import { PrintHistory } from './PrintHistory';
import {
  countOf,
  nextCell,
  runCells,
  tallied,
  turnOf,
  type AnyPrint,
  type RunCell,
} from './runs-model';
import { StartPrint } from './StartPrint';

interface RunsBenchProps extends Omit<RunsData, 'prints' | 'incidents'> {
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

/**
 * The bench while the machines print: the matrix, what runs now, what went wrong. A server that draws the
 * page tries a plain function first to learn whose component it is, and a memoised one not: what a farm
 * has printed is unpacked once.
 */
export const RunsBench = memo(function RunsBench(props: RunsBenchProps) {
  const { studyId, marks, reference, artefacts, machineOf } = props;
  const [prints, setPrints] = useState(() => unpackRows(props.prints));
  const [tallies, setTallies] = useState(props.tallies);
  const [openPrints, setOpenPrints] = useState(props.openPrints);
  const [incidents, setIncidents] = useState(() => unpackRows(props.incidents));
  const [events, setEvents] = useState(props.events);
  const inTurn = useInTurn();
  const [codes, setCodes] = useState(props.codes);
  const [incomplete, setIncomplete] = useState(props.incomplete);
  const [machines, setMachines] = useState(props.machines);
  const [lots, setLots] = useState<readonly { id: string; name: string }[]>([]);
  const [deleted, setDeleted] = useState<Deleted | null>(null);
  const [link, setLink] = useState(props.link);
  const seen = useRef(props.link.revision);
  const [message, setMessage] = useState<string | null>(null);
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

  const note = async (print: AnyPrint, kind: PrintEventKind) => {
    const event = {
      event_id: uuid(),
      print_id: print.print_id,
      at: localIso(new Date()),
      kind,
      source: 'person' as const,
      operator: readOperator() || null,
    };
    // It stands at once: the same key means its opposite from then on.
    setEvents((known) => [...known, { ...event, row_version: 1 }]);
    try {
      setMessage(null);
      await inTurn(() => sendOrKeep(`/studies/${studyId}/rows/print_events`, event));
    } catch (error) {
      setEvents((known) => known.filter((one) => one.event_id !== event.event_id));
      setMessage(failureText(error, 'It could not be kept.'));
    }
  };
  const nameOf = (id: string) => artefacts.find((one) => one.id === id)?.name ?? id;
  const markOf = (id: string) => marks.find((mark) => mark.contender_id === id);
  const close = () => setOpened(null);

  useKeys((event) => {
    if (opened || event.altKey) return null;
    const digit = /^Digit([1-9])$/.exec(event.code)?.[1];
    const running = openPrints[Number(digit) - 1];
    if (running && event.shiftKey) return () => void note(running, turnOf(running, events));
    if (running) return () => setOpened({ kind: 'incident', print: running });
    return event.key === 's' && next ? () => setOpened({ kind: 'start', cell: next }) : null;
  });

  const materials = [...props.materials, ...lots];
  const usualOf = (cell: RunCell): Values =>
    usualStart(cell, {
      prints,
      planned: props.planned,
      files: props.files,
      materials,
      machineOf,
      machines,
    });
  const startFields = withLots(props.startFields, lots);
  const ended = (answer: TableRow, stickers: readonly string[]) => {
    const row = storedAs<'prints'>(answer);
    setCodes((known) => [...stickers, ...known]);
    setMessage(stickers.length === 0 ? null : `Saved. ${stickerWords(stickers)}`);
    refreshQuietly();
    setPrints((known) => [...known.filter((one) => one.print_id !== row.print_id), row]);
    setTallies((known) => tallied(known, row));
    setOpenPrints((known) => known.filter((one) => one.print_id !== row.print_id));
    close();
  };
  const gone = (what: Deleted) => {
    setDeleted(what);
    close();
    refreshQuietly();
  };
  const printingNow = (
    <PrintingNow
      openPrints={openPrints}
      events={events}
      heard={heard}
      machineOf={machineOf}
      onEvent={(print, kind) => void note(print, kind)}
      markOf={markOf}
      nameOf={nameOf}
      onIncident={(print) => setOpened({ kind: 'incident', print })}
      onEnd={(print) => setOpened({ kind: 'end', print })}
    />
  );
  const titleOf = (row: Pick<AnyPrint, 'artefact_id' | 'contender_id' | 'repeat'>) =>
    `${nameOf(row.artefact_id)} · ${markOf(row.contender_id)?.label ?? ''} · repeat ${row.repeat}`;

  const hours = prints.reduce((sum, row) => sum + (row.print_s ?? 0) / 3600, 0);
  const tally = (outcome: 'success' | 'rescued' | 'failed' | 'aborted') =>
    tallies.reduce((sum, one) => sum + one[outcome], 0);
  const endedCount = tallies.reduce((sum, one) => sum + countOf(one), 0);
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-lg font-semibold">Runs</h1>
          <p className="text-xs text-ink-2">
            {counted(endedCount, 'print')} ended · {tally('rescued')} rescued · {tally('failed')}{' '}
            failed · {tally('aborted')} aborted
            {hours > 0 && prints.length === endedCount && ` · ${fixed(hours, 1)} h printed`}
            {next &&
              ` · next: ${nameOf(next.artefact)} on ${markOf(next.contender)?.label ?? ''}, repeat ${next.repeat}`}
          </p>
        </div>
        {next && (
          <button
            type="button"
            className="action action-main"
            data-keys="S"
            data-does="start the next print"
            onClick={() => setOpened({ kind: 'start', cell: next })}
          >
            Start next print <kbd className="key">S</kbd>
          </button>
        )}
      </div>
      {openPrints.length > 0 && <div className="mb-3">{printingNow}</div>}
      {artefacts.length === 0 || marks.length === 0 ? (
        <p className="sheet p-4">
          A print needs a contender, an artefact and a material:{' '}
          <a href={`/studies/${studyId}/line-up`}>enter them in the line-up</a>.
        </p>
      ) : (
        <RunMatrix
          marks={marks}
          reference={reference}
          artefacts={artefacts}
          cells={cells}
          tallies={tallies}
          onOpen={(cell) =>
            setOpened(
              cell.print === null
                ? { kind: 'start', cell }
                : { kind: cell.state === 'open' ? 'end' : 'print', print: cell.print },
            )
          }
        />
      )}
      {message && (
        <p role="alert" className="mt-2 text-warn">
          {message}
        </p>
      )}
      {deleted && (
        <UndoDelete
          studyId={studyId}
          deleted={deleted}
          onRestored={() => {
            setDeleted(null);
            refreshQuietly();
          }}
          onDismiss={() => setDeleted(null)}
        />
      )}
      <Incomplete
        prints={incomplete}
        titleOf={(id) => {
          const print = prints.find((one) => one.print_id === id);
          return print ? titleOf(print) : id;
        }}
        onOpen={(id) => {
          const print = prints.find((one) => one.print_id === id);
          if (print) setOpened({ kind: 'print', print });
        }}
      />
      <div className="mt-3 grid grid-cols-1 items-start gap-3 lg:grid-cols-2">
        {openPrints.length === 0 && printingNow}
        <IncidentList
          incidents={incidents}
          markOfMachine={(machine) =>
            marks.find((mark) => machineOf[mark.contender_id] === machine)
          }
          onOpen={(incident) => setOpened({ kind: 'edit-incident', incident })}
        />
      </div>
      <LinkPanel studyId={studyId} link={link} machines={props.machineNames} />
      {opened?.kind === 'start' && (
        <Panel
          title={titleOf({
            artefact_id: opened.cell.artefact,
            contender_id: opened.cell.contender,
            repeat: opened.cell.repeat,
          })}
          onClose={close}
        >
          <StartPrint
            studyId={studyId}
            cell={opened.cell}
            startFields={startFields}
            endFields={props.endFields}
            usual={usualOf(opened.cell)}
            warning={props.warnings[opened.cell.artefact] ?? null}
            derive={(name, value) => (name === 'toolpath' ? fromFile(props.files, value) : {})}
            deriveEnd={(name, value, values) =>
              name === 'toolpath'
                ? fromFile(props.files, value)
                : filamentFollows(props.files, ofFile(values), name, values)
            }
            lotFields={props.lotFields}
            onLot={(lot) => setLots((known) => [...known, lot])}
            places={props.copyPlaces[opened.cell.artefact] ?? []}
            codes={codes}
            onStarted={(row) => {
              setOpenPrints((known) => [...known, storedAs<'open_prints'>(row)]);
              close();
            }}
            onEnded={ended}
            onCancel={close}
          />
        </Panel>
      )}
      {opened?.kind === 'end' && (
        <Panel title={titleOf(opened.print)} onClose={close}>
          <EndPrint
            studyId={studyId}
            print={{
              ...opened.print,
              ...filamentOf(props.files, opened.print),
              ...timesAtEnd(opened.print, events, localIso(new Date())),
              ended_at: localIso(new Date()),
            }}
            fields={props.endFields}
            derive={(name, _, values) => filamentFollows(props.files, opened.print, name, values)}
            places={props.copyPlaces[opened.print.artefact_id] ?? []}
            codes={codes}
            onEnded={ended}
            onCancel={close}
          />
        </Panel>
      )}
      {opened?.kind === 'print' && (
        <Panel
          title={titleOf(
            prints.find((one) => one.print_id === opened.print.print_id) ?? opened.print,
          )}
          onClose={close}
        >
          <RecordForm
            path={`/studies/${studyId}/rows/prints/${encodeURIComponent(opened.print.print_id)}`}
            fields={props.printFields}
            values={opened.print}
            version={opened.print.row_version}
            label="Print"
            onSaved={(saved) => {
              setPrints((known) =>
                known.map((one) =>
                  one.print_id === opened.print.print_id ? { ...one, ...saved } : one,
                ),
              );
              refreshQuietly();
            }}
          />
          <PrintParts studyId={studyId} printId={opened.print.print_id} onDeleted={setDeleted} />
          <p className="mt-2">
            <button
              type="button"
              className="action"
              onClick={() => setOpened({ kind: 'incident', print: opened.print })}
            >
              Note an incident of this print
            </button>
          </p>
          <CompareFiles studyId={studyId} print={opened.print} prints={prints} titleOf={titleOf} />
          <PrintHistory studyId={studyId} printId={opened.print.print_id} />
          <DeleteWhole
            studyId={studyId}
            table="prints"
            rowKey={[opened.print.print_id]}
            noun="print"
            onDeleted={gone}
          />
        </Panel>
      )}
      {opened?.kind === 'incident' && (
        <Panel title={`Incident · ${titleOf(opened.print)}`} onClose={close}>
          <NewRecord
            path={`/studies/${studyId}/rows/incidents`}
            fields={props.incidentFields}
            initial={{
              incident_id: uuid(),
              machine_id: machineOf[opened.print.contender_id] ?? null,
              print_id: opened.print.print_id,
              at: 'outcome' in opened.print ? null : localIso(new Date()),
            }}
            isKept
            label="Incident"
            action="Note it"
            onAdded={(row) => {
              setIncidents((known) => [...known, storedAs<'incidents'>(row)]);
              setMessage('Noted. Open it in the list to add a photo.');
              close();
            }}
            onCancel={close}
          />
        </Panel>
      )}
      {opened?.kind === 'edit-incident' && (
        <Panel title="Incident" onClose={close}>
          <RecordForm
            path={`/studies/${studyId}/rows/incidents/${encodeURIComponent(opened.incident.incident_id)}`}
            fields={props.incidentFields}
            values={opened.incident}
            version={opened.incident.row_version}
            label="Incident"
            onSaved={(saved) =>
              setIncidents((known) =>
                known.map((one) =>
                  one.incident_id === opened.incident.incident_id ? { ...one, ...saved } : one,
                ),
              )
            }
          />
          <IncidentPhotos
            studyId={studyId}
            incidentId={opened.incident.incident_id}
            photos={props.photos}
          />
          <DeleteWhole
            studyId={studyId}
            table="incidents"
            rowKey={[opened.incident.incident_id]}
            noun="incident"
            onDeleted={gone}
          />
        </Panel>
      )}
    </>
  );
});

const LINK_EVERY_MS = 2000;

/** What a form's values say of the sliced file and the filament. */
const ofFile = (values: Values) => ({
  toolpath: typeof values.toolpath === 'string' ? values.toolpath : null,
  filament_g: null,
  filament_m: null,
});

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
