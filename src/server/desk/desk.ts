import { deskTasks, type DeskStudy, type DeskTask } from '../../core/answers/desk';
import { USUAL_ORDER } from '../../core/answers/plan';
import { contenderMarks, type ContenderMark } from '../../core/model/study';
import {
  activeStudies,
  findStudy,
  incompletePrints,
  linkState,
  listTables,
  printedPlaces,
  type ActiveStudy,
  type LinkMachine,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { orderedPrints } from '../plan/page';
import { progressOf, type Progress, type StudyProgress } from '../study/progress';

/** So many studies are on the desk, the ones changed last. */
const MOST_STUDIES = 20;

/** A print that is running in one of the studies. */
export interface RunningPrint {
  study_id: string;
  title: string;
  mark: ContenderMark | null;
  artefact: string;
  print: Stored<'open_prints'>;
  events: Stored<'print_events'>[];
  /** What the bench link reports of this print; null where it reports nothing. */
  link: LinkMachine | null;
}

/** A study on the desk. */
export interface DeskLine {
  study_id: string;
  title: string;
  progress: Progress[];
  /** Which steps of the guide are done, in a study for practice. */
  guide: StudyProgress['guide'];
  isPublished: boolean;
}

/** A task with what a person calls its study, contender and artefact. */
export interface ShownTask {
  task: DeskTask;
  title: string;
  mark: ContenderMark | null;
  artefact: string | null;
}

/** What the desk shows. */
export interface DeskPage {
  tasks: ShownTask[];
  running: RunningPrint[];
  studies: DeskLine[];
}

/** What is read of one study. */
interface Read {
  study: ActiveStudy;
  desk: DeskStudy;
  line: DeskLine;
  marks: ContenderMark[];
  artefacts: Record<string, string>;
  running: RunningPrint[];
  /** The lasting ids of its machines that are printing. */
  busy: string[];
}

/** Reads what the desk shows. @param today the day, `2026-12-01` */
export async function deskPage(app: App, today: string): Promise<DeskPage> {
  const studies = await activeStudies(app.db, MOST_STUDIES);
  const read = await Promise.all(studies.map((study) => readStudy(app, study)));
  const byStudy = new Map(read.map((one) => [one.study.study_id, one]));
  const busy = new Set(read.flatMap((one) => one.busy));
  const tasks = deskTasks(
    read.map(({ desk }) => desk),
    busy,
    today,
  );
  return {
    tasks: tasks.map((task) => shown(task, byStudy.get(task.study_id))),
    running: read.flatMap((one) => one.running),
    studies: read.map(({ line }) => line),
  };
}

function shown(task: DeskTask, from: Read | undefined): ShownTask {
  const contender = task.kind === 'start' ? task.print.contender_id : null;
  const artefact = task.kind === 'start' ? task.print.artefact_id : null;
  return {
    task,
    title: from?.study.title ?? '',
    mark: from?.marks.find((mark) => mark.contender_id === contender) ?? null,
    artefact: artefact === null ? null : (from?.artefacts[artefact] ?? artefact),
  };
}

async function readStudy({ db }: App, study: ActiveStudy): Promise<Read> {
  const { study_id, title } = study;
  const record = await findStudy(db, study_id);
  const [tables, places, incomplete, { stations, guide }] = await Promise.all([
    listTables(db, study_id, [
      'contenders',
      'machines',
      'profiles',
      'artefacts',
      'planned',
      'open_prints',
    ]),
    printedPlaces(db, study_id),
    incompletePrints(db, study_id),
    progressOf(db, record),
  ]);
  const { contenders, machines, profiles, open_prints } = tables;
  const lastingId = new Map(machines.map((row) => [row.machine_id, row.uid ?? row.machine_id]));
  const machineOf = Object.fromEntries(
    contenders.map((row) => [row.contender_id, lastingId.get(row.machine_id) ?? row.machine_id]),
  );
  const order = orderedPrints(tables.planned, places, open_prints, record.plan ?? USUAL_ORDER);
  const marks = contenderMarks(contenders, machines, profiles);
  const artefacts = Object.fromEntries(
    tables.artefacts.map(({ artefact_id, name }) => [artefact_id, name]),
  );
  const left = (key: Progress['key']) => {
    const one = stations.find((station) => station.key === key);
    return one ? Math.max(0, one.due - one.done) : 0;
  };
  return {
    study,
    marks,
    artefacts,
    line: { study_id, title, progress: stations, guide, isPublished: study.published > 0 },
    busy: open_prints.flatMap((row) => machineOf[row.contender_id] ?? []),
    desk: {
      study_id,
      machineOf,
      due: order.filter(({ state }) => state === 'due'),
      readingsLeft: left('measure'),
      zonesLeft: left('inspect'),
      photosLeft: study.photos_left,
      incomplete: incomplete.length,
      loans: machines.flatMap(({ machine_id, name, obtained, return_by }) =>
        obtained === 'loaned' && return_by !== null
          ? [{ machine: lastingId.get(machine_id) ?? machine_id, name, returnBy: return_by }]
          : [],
      ),
    },
    running: await runningOf(db, study, { open_prints, contenders }, marks, artefacts),
  };
}

async function runningOf(
  db: App['db'],
  { study_id, title }: ActiveStudy,
  { open_prints, contenders }: OpenTables,
  marks: readonly ContenderMark[],
  artefacts: Readonly<Record<string, string>>,
): Promise<RunningPrint[]> {
  if (open_prints.length === 0) return [];
  const [{ machines }, { print_events }] = await Promise.all([
    linkState(db, study_id),
    listTables(db, study_id, ['print_events']),
  ]);
  return open_prints.map((print) => {
    const contender = contenders.find((row) => row.contender_id === print.contender_id);
    const heard = machines.find((one) => one.machine_id === contender?.machine_id);
    return {
      study_id,
      title,
      print,
      mark: marks.find((one) => one.contender_id === print.contender_id) ?? null,
      artefact: artefacts[print.artefact_id] ?? print.artefact_id,
      events: print_events.filter((event) => event.print_id === print.print_id),
      link: heard?.print_id === print.print_id ? heard : null,
    };
  });
}

interface OpenTables {
  open_prints: readonly Stored<'open_prints'>[];
  contenders: readonly Stored<'contenders'>[];
}
