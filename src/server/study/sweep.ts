import * as z from 'zod';
import { columnLabel, sweepSchema, type StudyMeta } from '../../core/model/study';
import {
  findRow,
  findStudy,
  listRowsBy,
  rowOrNull,
  slicedFacts,
  updateStudy,
  writeStudy,
  type Stored,
  type Write,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { insertChecked } from '../rows';

/** More steps than this are no sweep that anybody prints. */
const MOST_STEPS = 30;

/** A setting to be taken in steps, from one contender. */
export const sweepSetUpSchema = z.strictObject({
  contender_id: z.string().min(1).max(64),
  setting: z.string().trim().min(1, 'say which setting').max(100),
  unit: z.string().trim().max(60).nullable(),
  values: z
    .array(z.number().finite())
    .min(3, 'a sweep needs at least three steps')
    .max(MOST_STEPS, `more than ${MOST_STEPS} steps are too many`),
});

/** What a set-up of steps has made. */
export interface SweepMade {
  steps: { contender_id: string; value: number }[];
  /** How many sliced files were matched by what they say. */
  files: number;
}

/**
 * Sets a sweep up from one contender: a profile and a contender for each step, planned like the first,
 * with the sliced files that state the step's value. One action, one transaction.
 *
 * @throws RequestError where the values neither ascend nor descend, or the contender is not there
 */
export const setSweepUp = (
  app: App,
  studyId: string,
  asked: z.infer<typeof sweepSetUpSchema>,
  who: string | null,
): Promise<SweepMade> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const { setting, unit, values } = asked;
    const base = await rowOrNull(db, studyId, 'contenders', { contender_id: asked.contender_id });
    if (!base) throw issue('contender_id', `${asked.contender_id} is no contender of this study`);
    const profile = await findRow(db, studyId, 'profiles', { profile_id: base.profile_id });
    const settings = await listRowsBy(
      db,
      studyId,
      'profile_settings',
      'profile_id',
      base.profile_id,
    );
    const own = settings.find((row) => row.key === setting)?.value;
    const steps: SweepMade['steps'] = [];
    for (const value of values) {
      const isBase = own !== undefined && Number(own) === value;
      const contender_id = isBase
        ? base.contender_id
        : await addStep(write, { base, profile, settings, setting, unit, value });
      steps.push({ contender_id, value });
    }
    const sweep = sweepSchema.safeParse({ setting, unit: unit || null, steps });
    if (!sweep.success) throw issue('values', sweep.error.issues[0]?.message ?? 'are no steps');
    const files = await planSteps(write, base.contender_id, setting, steps);
    const record = await findStudy(db, studyId);
    await updateStudy(
      write,
      { intent: 'sweep', sweep: sweep.data, reference: steps[0]?.contender_id ?? null },
      record.version,
    );
    return { steps, files };
  });

const issue = (path: string, message: string): RequestError =>
  new RequestError(422, `${path} ${message}`, { issues: [{ path, message }] });

interface NewStep {
  base: Stored<'contenders'>;
  profile: Stored<'profiles'>;
  settings: readonly Stored<'profile_settings'>[];
  setting: string;
  unit: string | null;
  value: number;
}

/** Makes the profile and the contender of a step; the same step asked for again is the one there is. */
async function addStep(write: Write, step: NewStep): Promise<string> {
  const { base, profile, settings, setting, unit, value } = step;
  const { db, studyId } = write;
  const tail = String(value).replace('-', 'm');
  const contender_id = `${base.contender_id.slice(0, 64 - tail.length - 1)}-${tail}`;
  if (await rowOrNull(db, studyId, 'contenders', { contender_id })) return contender_id;
  const profile_id = `${profile.profile_id.slice(0, 64 - tail.length - 1)}-${tail}`;
  const said = `${value}${unit ? ` ${unit}` : ''}`;
  if (!(await rowOrNull(db, studyId, 'profiles', { profile_id }))) {
    await insertChecked(write, 'profiles', {
      profile_id,
      name: `${profile.name}, ${columnLabel(setting).label} ${said}`,
      kind: 'tuned',
      slicer: profile.slicer,
      slicer_version: profile.slicer_version,
      parent_id: profile.kind === 'stock' ? profile.profile_id : profile.parent_id,
    });
    const others = settings.filter((row) => row.key !== setting);
    for (const { key, value: kept } of others) {
      await insertChecked(write, 'profile_settings', { profile_id, key, value: kept });
    }
    await insertChecked(write, 'profile_settings', {
      profile_id,
      key: setting,
      value: String(value),
    });
  }
  const { machine_id } = base;
  const machine = await findRow(db, studyId, 'machines', { machine_id });
  const label = `${machine.name} at ${said}`;
  await insertChecked(write, 'contenders', { contender_id, label, machine_id, profile_id });
  return contender_id;
}

/** Plans every step like the contender that it was made from, with the files that state its value. */
async function planSteps(
  { db, studyId, ...write }: Write,
  base: string,
  setting: string,
  steps: SweepMade['steps'],
): Promise<number> {
  const plan = await listRowsBy(db, studyId, 'planned', 'contender_id', base);
  const files = await slicedFacts(db, studyId);
  let matched = 0;
  for (const { contender_id, value } of steps) {
    if (contender_id === base) continue;
    for (const { artefact_id, material_id, repeats } of plan) {
      const key = { contender_id, artefact_id, material_id };
      if (await rowOrNull(db, studyId, 'planned', key)) continue;
      const file = files.find(
        (one) =>
          one.artefact_id === artefact_id &&
          one.facts !== null &&
          one.facts.settings[setting] !== undefined &&
          Number(one.facts.settings[setting]) === value,
      );
      if (file) matched += 1;
      await insertChecked({ db, studyId, ...write }, 'planned', {
        ...key,
        repeats,
        toolpath: file?.path ?? null,
      });
    }
  }
  return matched;
}

/**
 * Checks that a study that sweeps has its steps, and its first step as the reference.
 *
 * @throws RequestError with the field
 */
export function checkSweep({ intent, sweep, reference }: StudyMeta): void {
  if (intent !== 'sweep') return;
  const [first] = sweep?.steps ?? [];
  if (!first) {
    throw issue('intent', 'of a sweep needs its steps: set them up below, the intent follows');
  }
  if (reference !== first.contender_id) {
    throw issue('reference', `of a sweep is its first step, ${first.contender_id}`);
  }
}
