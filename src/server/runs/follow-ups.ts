import * as z from 'zod';
import { itemWords, formatValue } from '../../core/answers/fairness';
import { chainsOf, compareRuns, thingsChanged, type Changed } from '../../core/answers/follow-ups';
import {
  CAUSES,
  tableSpec,
  type Print,
  type Row,
  type Study,
  type TableName,
  readRow,
} from '../../core/model/study';
import { findRow, findStudy, loadStudy, updateRow, writeStudy } from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { insertChecked } from '../rows';

/** A print as a chain shows it. */
export interface ChainPrint {
  print_id: string;
  name: string;
  outcome: Print['outcome'];
  at: string | null;
}

/** A cause that was followed, as the page shows it. */
export interface ShownChain {
  first: ChainPrint;
  steps: {
    follow_up: Row<'follow_ups'>;
    after: ChainPrint;
    /** What really differed, each as `nozzle temp 215 → 205`. */
    changed: string[];
    things: number;
  }[];
}

/** What the page of followed causes shows. */
export interface FollowUpsPage {
  chains: ShownChain[];
  /** Prints to be followed, those that went wrong first. */
  prints: (ChainPrint & { incident: { incident_id: string; cause: string } | null })[];
  /** Planned prints, to be looked at before they are started. */
  planned: { id: string; name: string }[];
}

/** What follow-ups are computed from. */
const TABLES: readonly TableName[] = [
  'machines',
  'profiles',
  'profile_settings',
  'materials',
  'contenders',
  'artefacts',
  'planned',
  'prints',
  'incidents',
  'specimens',
  'inspections',
  'readings',
  'follow_ups',
];

/** Names a planned print that has no id yet. */
const PLANNED = 'planned:';

const describeChange = ({ key, before, after }: Changed): string =>
  `${itemWords(key)} ${formatValue(before)} → ${formatValue(after)}`;

function naming({ tables }: Study) {
  const labels = new Map(tables.contenders.map((row) => [row.contender_id, row.label]));
  const parts = new Map(tables.artefacts.map((row) => [row.artefact_id, row.name]));
  return (row: { contender_id: string; artefact_id: string }) =>
    `${labels.get(row.contender_id) ?? ''}, ${parts.get(row.artefact_id) ?? ''}`;
}

/** The causes that were followed in a study, and what can be followed. @throws NotFoundError */
export async function followUpsPage(app: App, studyId: string): Promise<FollowUpsPage> {
  const { study } = await loadStudy(app.db, studyId, TABLES);
  const nameOf = naming(study);
  const shown = (print: Print): ChainPrint => ({
    print_id: print.print_id,
    outcome: print.outcome,
    at: print.started_at,
    name: `${print.print_id}: ${nameOf(print)}`,
  });
  const incidents = new Map(study.tables.incidents.map((row) => [row.print_id, row]));
  const wrong = (print: Print) => print.outcome !== 'success' || incidents.has(print.print_id);
  return {
    chains: chainsOf(study).map(({ first, steps }) => ({
      first: shown(first),
      steps: steps.map((step) => ({
        follow_up: step.follow_up,
        after: shown(step.after),
        things: step.things,
        changed: step.changed.map(describeChange),
      })),
    })),
    prints: [...study.tables.prints]
      .sort((a, b) => Number(wrong(b)) - Number(wrong(a)))
      .map((print) => {
        const incident = incidents.get(print.print_id);
        return {
          ...shown(print),
          incident: incident ? { incident_id: incident.incident_id, cause: incident.cause } : null,
        };
      }),
    planned: study.tables.planned.map((row) => ({
      id: `${PLANNED}${row.contender_id}/${row.artefact_id}/${row.material_id}`,
      name: nameOf(row),
    })),
  };
}

/** A planned print as if it had been made. */
function plannedPrint({ tables }: Study, id: string): Print | null {
  const [contender_id, artefact_id, material_id] = id.slice(PLANNED.length).split('/');
  const row = tables.planned.find(
    (one) =>
      one.contender_id === contender_id &&
      one.artefact_id === artefact_id &&
      one.material_id === material_id,
  );
  if (!row) return null;
  const { contender_id: contender, toolpath } = row;
  return readRow('prints', {
    print_id: 'planned',
    contender_id: contender,
    artefact_id,
    material_id,
    toolpath,
    repeat: 1,
    outcome: 'success',
  });
}

/** What differs between a print and one that is to follow it up, printed or only planned. @throws RequestError */
export async function changedBetween(
  app: App,
  studyId: string,
  before: string,
  after: string,
): Promise<{ changed: string[]; things: number }> {
  const { study } = await loadStudy(app.db, studyId, TABLES);
  const find = (id: string) =>
    id.startsWith(PLANNED)
      ? plannedPrint(study, id)
      : (study.tables.prints.find((one) => one.print_id === id) ?? null);
  const [own, other] = [find(before), find(after)];
  if (!own || !other) throw new RequestError(404, 'There is no such print in this study.');
  const changed = compareRuns(study)(own, other);
  return { changed: changed.map(describeChange), things: thingsChanged(changed) };
}

/** A print that was followed up, and where its incident is to be booked from now on. */
export const followUpSchema = z.strictObject({
  follow_up: tableSpec('follow_ups').row.strict(),
  booking: z.strictObject({ incident_id: z.string().max(64), cause: z.enum(CAUSES) }).optional(),
});

/**
 * Adds a follow-up; where its cause was found, the incident is booked on it: the history keeps what it was
 * booked on before. One action, one transaction.
 */
export const addFollowUp = (
  app: App,
  studyId: string,
  { follow_up, booking }: z.infer<typeof followUpSchema>,
  who: string | null,
): Promise<object> =>
  writeStudy(app.db, studyId, who, async (write) => {
    await findStudy(write.db, studyId);
    const row = follow_up as Row<'follow_ups'>;
    if (row.print_before === row.print_after) {
      throw new RequestError(422, 'A print does not follow itself: choose the one after it.');
    }
    const added = await insertChecked(write, 'follow_ups', row);
    if (booking) {
      const { incident_id, cause } = booking;
      const incident = await findRow(write.db, studyId, 'incidents', { incident_id });
      if (incident.cause !== cause) {
        await updateRow(write, 'incidents', { incident_id }, { cause }, incident.row_version);
      }
    }
    return added;
  });
