import { planDifferences, unequalTo } from '../../core/answers/fairness';
import type { MeshSheet } from '../../core/geometry/mesh';
import type { StatedFile } from '../../core/answers/line-up';
import { factDifferences, factsOf, type FactDifference } from '../../core/answers/workshop';
import {
  listSlicedFiles,
  listItems,
  loadStudy,
  itemsOfStudy,
  type Stored,
  listTables,
} from '../../data';
import type { App } from '../app';
import { artefactsOf } from '../artefacts';

/** The tables that the line-up is made of. */
const LINE_UP_TABLES = [
  'contenders',
  'machines',
  'profiles',
  'profile_settings',
  'materials',
  'spools',
  'instruments',
] as const;

export type LineUpTable = (typeof LINE_UP_TABLES)[number];

/** Something of the workshop that can be added. */
export interface Offered {
  uid: string;
  name: string;
  /** What tells it from another of that name. */
  about: string;
}

/** A part of the study as its card shows it. */
export interface LineUpPart {
  artefact_id: string;
  name: string;
  version: string | null;
  sheet: MeshSheet | null;
  /** How much is looked at on it. */
  dimensions: number;
  steps: number;
  zones: number;
}

/** What the Line-up page shows. */
export interface LineUpPage {
  rows: { [Name in LineUpTable]: Stored<Name>[] };
  /** What sliced files state, by contender and part. */
  stated: StatedFile[];
  /** Contenders whose planned files differ from the reference's in what must be equal. */
  unequal: string[];
  /** Firmware that prints of a machine name, the first first. */
  firmware: Record<string, string[]>;
  parts: LineUpPart[];
  /** Paths of sliced files that were read. */
  files: string[];
  /** What the workshop has and the study has not. */
  offered: Record<'machine' | 'artefact' | 'material' | 'instrument', Offered[]>;
  /** What of the study's machines is another today, by machine. */
  today: Record<string, FactDifference[]>;
}

/** What the Line-up page shows. @throws NotFoundError */
export async function lineUpPage(app: App, studyId: string): Promise<LineUpPage> {
  const { db } = app;
  const [rows, { study }, files, artefacts, offered, today] = await Promise.all([
    listTables(db, studyId, LINE_UP_TABLES),
    loadStudy(db, studyId, ['contenders', 'prints', 'planned', 'artefacts']),
    listSlicedFiles(db, studyId),
    artefactsOf(app, studyId),
    offeredTo(app, studyId),
    machinesToday(app, studyId),
  ]);
  const { contenders, prints, planned, artefacts: parts } = study.tables;
  const names = new Map(parts.map((row) => [row.artefact_id, row.name]));
  const machineOf = new Map(contenders.map((row) => [row.contender_id, row.machine_id]));
  const stated = new Map<string, StatedFile>();
  for (const { contender_id, artefact_id, toolpath } of [...planned, ...prints]) {
    const settings = study.sliced?.get(toolpath ?? '');
    if (!settings) continue;
    stated.set(`${contender_id} ${toolpath}`, {
      contender_id,
      settings,
      artefact: names.get(artefact_id) ?? artefact_id,
    });
  }
  const firmware: Record<string, string[]> = {};
  const timed = [...prints].sort((a, b) => ((a.started_at ?? '') < (b.started_at ?? '') ? -1 : 1));
  for (const print of timed) {
    if (print.firmware === null) continue;
    const own = (firmware[machineOf.get(print.contender_id) ?? ''] ??= []);
    if (!own.includes(print.firmware)) own.push(print.firmware);
  }
  return {
    rows,
    firmware,
    offered,
    today,
    stated: [...stated.values()],
    unequal: unequalTo(
      study.meta.reference,
      planDifferences(
        planned,
        study.sliced ?? new Map(),
        study.meta.intent,
        study.meta.sweep?.setting,
      ),
    ),
    files: files.filter((file) => file.state === 'read').map((file) => file.path),
    parts: artefacts.map(({ artefact, sheet, dimensions, retired, steps, zones }) => ({
      artefact_id: artefact.artefact_id,
      name: artefact.name,
      version: artefact.version,
      sheet,
      dimensions: dimensions.length - retired.length,
      steps: steps.length,
      zones: zones.length,
    })),
  };
}

/** What the workshop has of a kind and a study has not. */
async function offeredTo(app: App, studyId: string): Promise<LineUpPage['offered']> {
  const { db } = app;
  const of = async (kind: keyof LineUpPage['offered']): Promise<Offered[]> => {
    const here = new Set((await itemsOfStudy(db, studyId, kind)).map((one) => one.uid));
    return (await listItems(db, kind))
      .filter((one) => !here.has(one.uid))
      .map(({ uid, name, facts }) => ({
        uid,
        name,
        about: [
          facts.maker,
          facts.firmware,
          facts.version && `version ${facts.version}`,
          facts.serial,
        ]
          .filter((one) => typeof one === 'string' && one !== '' && !name.includes(one))
          .join(', '),
      }));
  };
  const [machine, artefact, material, instrument] = await Promise.all([
    of('machine'),
    of('artefact'),
    of('material'),
    of('instrument'),
  ]);
  return {
    machine: machine ?? [],
    artefact: artefact ?? [],
    material: material ?? [],
    instrument: instrument ?? [],
  };
}

/** What of a study's machines is another in the workshop today. */
async function machinesToday(app: App, studyId: string): Promise<LineUpPage['today']> {
  const { db } = app;
  const [things, { machines }] = await Promise.all([
    itemsOfStudy(db, studyId, 'machine'),
    listTables(db, studyId, ['machines']),
  ]);
  return Object.fromEntries(
    machines.flatMap((row) => {
      const thing = things.find((one) => one.id === row.machine_id);
      if (!thing) return [];
      const differences = factDifferences('machine', factsOf('machine', { ...row }), thing.facts);
      return differences.length > 0 ? [[row.machine_id, differences] as const] : [];
    }),
  );
}
