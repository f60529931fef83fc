import { v7 as uuid } from 'uuid';
import { localIso } from '../../lib/entry';
import { NewRecord } from '../../records/NewRecord';
import { RecordForm } from '../../records/RecordForm';
import { storedAs } from '../../records/stored-as';
import type { Values } from '../../records/use-record';
import { CompareFiles } from './CompareFiles';
import { EndPrint } from './EndPrint';
import { IncidentPhotos } from './IncidentPhotos';
import { Panel } from '../../kit/Panel';
import { timesAtEnd } from './times-at-end';
import { DeleteWhole } from '../../records/DeleteWhole';
import { filamentFollows, filamentOf, fromFile } from './print-file';
import { PrintParts } from './PrintParts';
import { PrintHistory } from './PrintHistory';
import { StartPrint } from './StartPrint';
import type { Opened } from './opened';
import type { Runs } from './use-runs';

interface PanelOf<Kind extends Opened['kind']> {
  runs: Runs;
  opened: Extract<Opened, { kind: Kind }>;
}

/** A place of the plan: its print is started, or entered as it ended. */
function StartPanel({ runs, opened }: PanelOf<'start'>) {
  return (
    <Panel
      title={runs.titleOf({
        artefact_id: opened.cell.artefact,
        contender_id: opened.cell.contender,
        repeat: opened.cell.repeat,
      })}
      onClose={runs.close}
    >
      <StartPrint
        studyId={runs.studyId}
        cell={opened.cell}
        startFields={runs.startFields}
        endFields={runs.given.endFields}
        usual={runs.usualOf(opened.cell)}
        warning={runs.given.warnings[opened.cell.artefact] ?? null}
        derive={(name, value) => (name === 'toolpath' ? fromFile(runs.given.files, value) : {})}
        deriveEnd={(name, value, values) =>
          name === 'toolpath'
            ? fromFile(runs.given.files, value)
            : filamentFollows(runs.given.files, ofFile(values), name, values)
        }
        lotFields={runs.given.lotFields}
        onLot={(lot) => runs.setLots((known) => [...known, lot])}
        places={runs.given.copyPlaces[opened.cell.artefact] ?? []}
        codes={runs.codes}
        onStarted={(row) => {
          runs.setOpenPrints((known) => [...known, storedAs<'open_prints'>(row)]);
          runs.close();
        }}
        onEnded={runs.ended}
        onCancel={runs.close}
      />
    </Panel>
  );
}

/** What a form's values say of the sliced file and the filament. */
const ofFile = (values: Values) => ({
  toolpath: typeof values.toolpath === 'string' ? values.toolpath : null,
  filament_g: null,
  filament_m: null,
});

/** A print that runs: how it ended. */
function EndPanel({ runs, opened }: PanelOf<'end'>) {
  return (
    <Panel title={runs.titleOf(opened.print)} onClose={runs.close}>
      <EndPrint
        studyId={runs.studyId}
        print={{
          ...opened.print,
          ...filamentOf(runs.given.files, opened.print),
          ...timesAtEnd(opened.print, runs.events, localIso(new Date())),
          ended_at: localIso(new Date()),
        }}
        fields={runs.given.endFields}
        derive={(name, _, values) => filamentFollows(runs.given.files, opened.print, name, values)}
        places={runs.given.copyPlaces[opened.print.artefact_id] ?? []}
        codes={runs.codes}
        onEnded={runs.ended}
        onCancel={runs.close}
      />
    </Panel>
  );
}

/** A print that has ended: its facts, parts, history. */
function PrintPanel({ runs, opened }: PanelOf<'print'>) {
  return (
    <Panel
      title={runs.titleOf(
        runs.prints.find((one) => one.print_id === opened.print.print_id) ?? opened.print,
      )}
      onClose={runs.close}
    >
      <RecordForm
        path={`/studies/${runs.studyId}/rows/prints/${encodeURIComponent(opened.print.print_id)}`}
        fields={runs.given.printFields}
        values={opened.print}
        version={opened.print.row_version}
        label="Print"
        onSaved={(saved) => {
          runs.setPrints((known) =>
            known.map((one) =>
              one.print_id === opened.print.print_id ? { ...one, ...saved } : one,
            ),
          );
          runs.refreshQuietly();
        }}
      />
      <PrintParts
        studyId={runs.studyId}
        printId={opened.print.print_id}
        onDeleted={runs.setDeleted}
      />
      <p className="mt-2">
        <button
          type="button"
          className="action"
          onClick={() => runs.setOpened({ kind: 'incident', print: opened.print })}
        >
          Note an incident of this print
        </button>
      </p>
      <CompareFiles
        studyId={runs.studyId}
        print={opened.print}
        prints={runs.prints}
        titleOf={runs.titleOf}
      />
      <PrintHistory studyId={runs.studyId} printId={opened.print.print_id} />
      <DeleteWhole
        studyId={runs.studyId}
        table="prints"
        rowKey={[opened.print.print_id]}
        noun="print"
        onDeleted={runs.gone}
      />
    </Panel>
  );
}

/** What went wrong in a print. */
function IncidentPanel({ runs, opened }: PanelOf<'incident'>) {
  return (
    <Panel title={`Incident · ${runs.titleOf(opened.print)}`} onClose={runs.close}>
      <NewRecord
        path={`/studies/${runs.studyId}/rows/incidents`}
        fields={runs.given.incidentFields}
        initial={{
          incident_id: uuid(),
          machine_id: runs.given.machineOf[opened.print.contender_id] ?? null,
          print_id: opened.print.print_id,
          at: 'outcome' in opened.print ? null : localIso(new Date()),
        }}
        isKept
        label="Incident"
        action="Note it"
        onAdded={(row) => {
          runs.setIncidents((known) => [...known, storedAs<'incidents'>(row)]);
          runs.setMessage('Noted. Open it in the list to add a photo.');
          runs.close();
        }}
        onCancel={runs.close}
      />
    </Panel>
  );
}

/** An incident that was noted: changed, shown, deleted. */
function NotedIncident({ runs, opened }: PanelOf<'edit-incident'>) {
  return (
    <Panel title="Incident" onClose={runs.close}>
      <RecordForm
        path={`/studies/${runs.studyId}/rows/incidents/${encodeURIComponent(opened.incident.incident_id)}`}
        fields={runs.given.incidentFields}
        values={opened.incident}
        version={opened.incident.row_version}
        label="Incident"
        onSaved={(saved) =>
          runs.setIncidents((known) =>
            known.map((one) =>
              one.incident_id === opened.incident.incident_id ? { ...one, ...saved } : one,
            ),
          )
        }
      />
      <IncidentPhotos
        studyId={runs.studyId}
        incidentId={opened.incident.incident_id}
        photos={runs.given.photos}
      />
      <DeleteWhole
        studyId={runs.studyId}
        table="incidents"
        rowKey={[opened.incident.incident_id]}
        noun="incident"
        onDeleted={runs.gone}
      />
    </Panel>
  );
}

/** What was opened: a place to start, a print, an incident. */
export function OpenedPanel({ runs, opened }: { runs: Runs; opened: Opened }) {
  if (opened.kind === 'start') return <StartPanel runs={runs} opened={opened} />;
  if (opened.kind === 'end') return <EndPanel runs={runs} opened={opened} />;
  if (opened.kind === 'print') return <PrintPanel runs={runs} opened={opened} />;
  if (opened.kind === 'incident') return <IncidentPanel runs={runs} opened={opened} />;
  return <NotedIncident runs={runs} opened={opened} />;
}
