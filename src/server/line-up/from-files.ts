import * as z from 'zod';
import { idFrom, isKnownSetting } from '../../core/model/study';
import { listRows, listItems, itemsOfStudy, writeStudy, type Write } from '../../data';
import { afterwards, type App } from '../app';
import { queueUnread } from '../jobs';
import { insertChecked } from '../rows';
import { purposeIn } from '../sliced-files';
import { addIn } from './add';

const name = z.string().trim().min(1, 'say it, or leave the file out').max(200);

/** Files that were dropped on the line-up, each with what it is, as a person confirmed it. */
export const fromFilesSchema = z.strictObject({
  /** The material that is printed; null where the study has one. */
  material: name.nullable(),
  files: z
    .array(
      z.strictObject({
        path: z.string().min(1).max(500),
        machine: name,
        profile: name,
        kind: z.enum(['stock', 'tuned']),
        part: name,
        settings: z.record(z.string().max(100), z.string().max(2000)),
      }),
    )
    .min(1)
    .max(200),
});

type Asked = z.infer<typeof fromFilesSchema>;
type AskedFile = Asked['files'][number];

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Sets a line-up up from sliced files: machines, profiles with their settings, parts, a material and the plan.
 * What the study or the workshop has by that name is taken, the rest is new. One action, one transaction.
 */
export async function setUpFromFiles(
  app: App,
  studyId: string,
  { material, files }: Asked,
  who: string | null,
): Promise<{ contenders: number; parts: number }> {
  const made = await writeStudy(app.db, studyId, who, async (write) => {
    if (material !== null) await materialOf(write, material);
    const contenders = new Set<string>();
    const parts = new Set<string>();
    for (const file of files) {
      const contender = await contenderOf(write, file);
      const part = await partOf(write, file.part);
      contenders.add(contender);
      parts.add(part);
      await purposeIn(write, file.path, contender, part);
    }
    return { contenders: contenders.size, parts: parts.size };
  });
  // Files are read against the claim of their machine, which is known now.
  afterwards(app, () => queueUnread(app));
  return made;
}

/** A thing of the workshop by its name, else a new one. */
async function pickedByName(
  write: Write,
  kind: 'machine' | 'artefact' | 'material',
  called: string,
) {
  const here = new Set((await itemsOfStudy(write.db, write.studyId, kind)).map((one) => one.uid));
  const thing = (await listItems(write.db, kind)).find(
    (one) => same(one.name, called) && !here.has(one.uid),
  );
  return thing ? { uid: thing.uid } : { name: called };
}

async function materialOf(write: Write, called: string): Promise<void> {
  const materials = await listRows(write.db, write.studyId, 'materials');
  if (materials.some((row) => same(row.type, called))) return;
  const things = await itemsOfStudy(write.db, write.studyId, 'material');
  if (things.some((one) => same(one.name, called))) return;
  await addIn(write, { add: 'material', picked: await pickedByName(write, 'material', called) });
}

async function partOf(write: Write, called: string): Promise<string> {
  const parts = await listRows(write.db, write.studyId, 'artefacts');
  const known = parts.find((row) => same(row.name, called));
  if (known) return known.artefact_id;
  const picked = await pickedByName(write, 'artefact', called);
  return (await addIn(write, { add: 'artefact', picked })).id;
}

/** The contender of a file: its machine with its profile, which holds what the file states. */
async function contenderOf(write: Write, file: AskedFile): Promise<string> {
  const { db, studyId } = write;
  let machines = await listRows(db, studyId, 'machines');
  if (!machines.some((row) => same(row.name, file.machine))) {
    const picked = await pickedByName(write, 'machine', file.machine);
    await addIn(write, { add: 'machine', picked });
    machines = await listRows(db, studyId, 'machines');
  }
  const machine = machines.find((row) => same(row.name, file.machine));
  const contenders = (await listRows(db, studyId, 'contenders')).filter(
    (row) => row.machine_id === machine?.machine_id,
  );
  const profiles = await listRows(db, studyId, 'profiles');
  const profileOf = (id: string) => profiles.find((row) => row.profile_id === id);
  const stock = contenders.find((row) => profileOf(row.profile_id)?.kind === 'stock');
  const own = contenders.find((row) => same(profileOf(row.profile_id)?.name ?? '', file.profile));
  // The profile that came with a new machine is the stock one that the file names.
  const found = own ?? (file.kind === 'stock' ? stock : undefined);
  if (found) {
    await fillIn(write, found.profile_id, file.settings);
    return found.contender_id;
  }
  const profile_id = idFrom(
    file.profile,
    profiles.map((row) => row.profile_id),
    'profile',
  );
  await insertChecked(write, 'profiles', {
    profile_id,
    name: file.profile,
    kind: file.kind,
    parent_id: file.kind === 'tuned' ? (stock?.profile_id ?? null) : null,
  });
  await fillIn(write, profile_id, file.settings);
  const taken = (await listRows(db, studyId, 'contenders')).map((row) => row.contender_id);
  const label = `${file.machine}, ${file.profile}`;
  const contender_id = idFrom(`${file.machine} ${file.kind}`, taken, 'contender');
  await insertChecked(write, 'contenders', {
    contender_id,
    label,
    machine_id: machine?.machine_id ?? '',
    profile_id,
    change: null,
  });
  return contender_id;
}

/** Puts down what a profile does not say yet. */
async function fillIn(
  write: Write,
  profile_id: string,
  settings: Readonly<Record<string, string>>,
): Promise<void> {
  const rows = await listRows(write.db, write.studyId, 'profile_settings');
  const known = new Set(rows.filter((row) => row.profile_id === profile_id).map((row) => row.key));
  for (const [key, value] of Object.entries(settings)) {
    if (!isKnownSetting(key) || known.has(key) || value === '') continue;
    await insertChecked(write, 'profile_settings', { profile_id, key, value });
  }
}
