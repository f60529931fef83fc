import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writePackage } from '../../src/core/package';
import { clipBench } from './clip-bench';

/** Writes the demo studies as packages under a folder. */
export function writeDemo(folder: string): void {
  const study = clipBench();
  const target = join(folder, study.meta.name);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  for (const [path, text] of writePackage(study)) writeFileSync(join(target, path), text);
}
