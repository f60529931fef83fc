import { readFile } from 'node:fs/promises';
import {
  differencesOf,
  machineRecordSchema,
  NoMotionError,
  type MachineRecord,
  type ToolpathFacts,
} from '../core/toolpath';
import { analyseFile, SlicedFileError } from '../files/sliced';
import { InputError } from './input-error';
import { renderDifferences, renderToolpath } from './render-toolpath';

export interface ToolpathFlags {
  json?: boolean;
  machine?: string;
}

/** `vergleich toolpath`: what sliced files ask for, and what can be reached of it. */
export async function runToolpath(paths: readonly string[], flags: ToolpathFlags): Promise<void> {
  const machine = flags.machine === undefined ? {} : await readMachine(flags.machine);
  const all: ToolpathFacts[] = [];
  for (const path of paths) {
    try {
      all.push(await analyseFile(path, { machine }, showProgress(path)));
    } catch (error) {
      if (error instanceof SlicedFileError || error instanceof NoMotionError) {
        throw new InputError(error.message);
      }
      throw error;
    }
  }
  const [first] = all;
  const differences = differencesOf(all);
  if (flags.json) {
    const answer = all.length === 1 ? first : { files: all, differences };
    await write(`${JSON.stringify(answer)}\n`);
  } else {
    const parts = all.map(renderToolpath);
    if (all.length > 1) parts.push(renderDifferences(all, differences));
    await write(parts.join('\n'));
  }
}

async function readMachine(path: string): Promise<MachineRecord> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new InputError(`${path}: the machine's record cannot be read`);
  });
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new InputError(`${path}: is not JSON`);
  }
  const parsed = machineRecordSchema.safeParse(json);
  if (parsed.success) return parsed.data;
  const said = parsed.error.issues.map(
    (issue) => `${path}: ${issue.path.join('.') || 'the record'}: ${issue.message}`,
  );
  throw new InputError(said.join('\n'));
}

/** Progress on a terminal, for files that take a while. */
function showProgress(path: string): (read: number, stored: number) => void {
  let shown = 0;
  return (read, stored) => {
    if (!process.stderr.isTTY || stored < 20e6 || read - shown < 10e6) return;
    shown = read;
    const end = read >= stored ? '\n' : '';
    process.stderr.write(`\r${path}: ${(read / 1e6).toFixed(0)} MB read${end}`);
  };
}

const write = (text: string): Promise<void> =>
  new Promise((resolve, reject) => {
    process.stdout.write(text, (error) => (error ? reject(error) : resolve()));
  });
