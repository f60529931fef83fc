import { memo } from 'react';
import { counted, fixed } from '../../lib/format';
import { IncidentList } from './IncidentList';
import { PrintingNow } from './PrintingNow';
import { RunMatrix } from './RunMatrix';
import { UndoDelete } from '../../records/DeleteWhole';
import { Incomplete } from './Incomplete';
import { LinkPanel } from './LinkPanel';
import { countOf } from './runs-model';
import { useRuns, type Runs, type RunsBenchProps } from './use-runs';
import { OpenedPanel } from './RunPanels';

/**
 * The bench while the machines print: the matrix, what runs now, what went wrong. A server that draws the
 * page tries a plain function first to learn whose component it is, and a memoised one not: what a farm
 * has printed is unpacked once.
 */
export const RunsBench = memo(function RunsBench(props: RunsBenchProps) {
  const runs = useRuns(props);
  const { studyId, marks, reference, artefacts, machineOf } = props;
  const { opened } = runs;
  const find = (id: string) => runs.prints.find((one) => one.print_id === id);
  const printingNow = (
    <PrintingNow
      openPrints={runs.openPrints}
      events={runs.events}
      heard={runs.heard}
      machineOf={machineOf}
      onEvent={(print, kind) => void runs.note(print, kind)}
      markOf={runs.markOf}
      nameOf={runs.nameOf}
      onIncident={(print) => runs.setOpened({ kind: 'incident', print })}
      onEnd={(print) => runs.setOpened({ kind: 'end', print })}
    />
  );
  return (
    <>
      <RunsHead runs={runs} />
      {runs.openPrints.length > 0 && <div className="mb-3">{printingNow}</div>}
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
          cells={runs.cells}
          tallies={runs.tallies}
          onOpen={(cell) =>
            runs.setOpened(
              cell.print === null
                ? { kind: 'start', cell }
                : { kind: cell.state === 'open' ? 'end' : 'print', print: cell.print },
            )
          }
        />
      )}
      {runs.message && (
        <p role="alert" className="mt-2 text-warn">
          {runs.message}
        </p>
      )}
      {runs.deleted && (
        <UndoDelete
          studyId={studyId}
          deleted={runs.deleted}
          onRestored={() => {
            runs.setDeleted(null);
            runs.refreshQuietly();
          }}
          onDismiss={() => runs.setDeleted(null)}
        />
      )}
      <Incomplete
        prints={runs.incomplete}
        titleOf={(id) => {
          const print = find(id);
          return print ? runs.titleOf(print) : id;
        }}
        onOpen={(id) => {
          const print = find(id);
          if (print) runs.setOpened({ kind: 'print', print });
        }}
      />
      <div className="mt-3 grid grid-cols-1 items-start gap-3 lg:grid-cols-2">
        {runs.openPrints.length === 0 && printingNow}
        <IncidentList
          incidents={runs.incidents}
          markOfMachine={(machine) =>
            marks.find((mark) => machineOf[mark.contender_id] === machine)
          }
          onOpen={(incident) => runs.setOpened({ kind: 'edit-incident', incident })}
        />
      </div>
      <LinkPanel studyId={studyId} link={runs.link} machines={props.machineNames} />
      {opened && <OpenedPanel runs={runs} opened={opened} />}
    </>
  );
});

/** How many prints ended how, and the key that starts the next one. */
function RunsHead({ runs }: { runs: Runs }) {
  const { tallies, prints, next } = runs;
  const timed = prints.flatMap(({ print_s }) => print_s ?? []);
  const hours = timed.reduce((sum, seconds) => sum + seconds, 0) / 3600;
  const untimed = prints.length - timed.length;
  const tally = (outcome: 'success' | 'rescued' | 'failed' | 'aborted') =>
    tallies.reduce((sum, one) => sum + one[outcome], 0);
  const endedCount = tallies.reduce((sum, one) => sum + countOf(one), 0);
  return (
    <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
      <div>
        <h1 className="text-lg font-semibold">Runs</h1>
        <p className="text-xs text-ink-2">
          {counted(endedCount, 'print')} ended · {tally('rescued')} rescued · {tally('failed')}{' '}
          failed · {tally('aborted')} aborted
          {hours > 0 && prints.length === endedCount && ` · ${fixed(hours, 1)} h printed`}
          {hours > 0 && untimed > 0 && ` (${untimed} without a time)`}
          {next && ` · next: ${runs.nextOf(next)}`}
        </p>
      </div>
      {next && (
        <button
          type="button"
          className="action action-main"
          data-keys="S"
          data-does="start the next print"
          onClick={() => runs.setOpened({ kind: 'start', cell: next })}
        >
          Start next print <kbd className="key">S</kbd>
        </button>
      )}
    </div>
  );
}
