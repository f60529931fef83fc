import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { writePackage } from '../../src/core/package';
import { clipBench } from './clip-bench';
import { slicedFiles } from './slicing';

/** Writes the demo studies as packages under a folder. */
export function writeDemo(folder: string): void {
  const sliced = slicedFiles();
  const study = clipBench(sliced);
  const target = join(folder, study.meta.name);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(join(target, 'sliced'), { recursive: true });
  for (const [path, text] of writePackage(study)) writeFileSync(join(target, path), text);
  for (const { path, text } of sliced.values()) {
    writeFileSync(join(target, path), gzipSync(text, { level: 9 }));
  }
}
