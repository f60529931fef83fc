import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import * as z from 'zod';
import { KNOWN_MIGRATIONS } from '../../data';
import { BackupError } from './fault';

/** What lies beside a dump: from what it was made, and what it must come to. */
export const manifestSchema = z.object({
  format: z.literal(1),
  version: z.string(),
  made_at: z.string(),
  migrations: z.array(z.string()),
  dump: z.object({ bytes: z.number(), sha256: z.string() }),
  tables: z.record(z.string(), z.object({ rows: z.number(), sha256: z.string() })),
});
export type Manifest = z.infer<typeof manifestSchema>;

/** Where what a backup says of itself lies. */
export const beside = (file: string): string => `${file}.json`;

/** The size and SHA-256 of a file. */
export async function hashOfFile(path: string): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return { bytes: (await stat(path)).size, sha256: hash.digest('hex') };
}

/** What a backup says of itself. @throws BackupError where it says nothing that can be read */
export async function readManifest(file: string): Promise<Manifest> {
  const text = await readFile(beside(file), 'utf8').catch(() => {
    throw new BackupError(
      `${beside(file)} is missing: it belongs to the backup and holds its checksums.`,
    );
  });
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch {
    throw new BackupError(`${beside(file)} is not JSON.`);
  }
  const parsed = manifestSchema.safeParse(content);
  if (!parsed.success) throw new BackupError(`${beside(file)} is not the description of a backup.`);
  const newer = parsed.data.migrations.filter((name) => !KNOWN_MIGRATIONS.includes(name));
  if (newer.length > 0) {
    throw new BackupError(
      `The backup is of a newer program (${parsed.data.version}): it has ${newer.join(', ')}. ` +
        'Restore it with that one.',
    );
  }
  return parsed.data;
}
