import * as z from 'zod';
import { asJson, execute, query, type Database } from '../database';

/** What was found in a mesh, kept by its content and by the edition of what found it. */
export async function findMeshSheet<Sheet>(
  db: Database,
  sha256: string,
  edition: string,
): Promise<Sheet | null> {
  const [found] = await query(
    db,
    z.strictObject({ content: z.custom<Sheet>() }),
    'select content from mesh_sheets where sha256 = $1 and edition = $2',
    [sha256, edition],
  );
  return found?.content ?? null;
}

/** Stores what was found in a mesh. */
export const storeMeshSheet = (
  db: Database,
  sha256: string,
  edition: string,
  sheet: object,
): Promise<void> =>
  execute(
    db,
    `insert into mesh_sheets (sha256, edition, content) values ($1, $2, $3)
     on conflict (sha256, edition) do nothing`,
    [sha256, edition, asJson(sheet)],
  );
