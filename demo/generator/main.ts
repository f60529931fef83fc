import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { writePackage } from '../../src/core/model/package';
import { TABLE_NAMES, type Study, type Tables } from '../../src/core/model/study';
import { demoParts, type DemoPart } from './artefacts';
import { clipBench } from './clip-bench';
import { CLIP_BENCH_SESSION, demoPhotos } from './photos';
import { slicedFiles, type Sliced } from './slicing';
import { spokeKeys } from './spoke-keys';
import { gannetSpeeds, speedFiles, speedSession } from './speeds';
import { gannetUpdate } from './update';
import { winterStock } from './winter-stock';
import { withWords } from './words';

/** Writes the demo studies as packages under a folder. */
export async function writeDemo(folder: string): Promise<void> {
  const sliced = slicedFiles();
  const parts = await demoParts();
  const bench = clipBench(sliced, parts);
  const photos = await demoPhotos(bench.tables, CLIP_BENCH_SESSION);
  const answered = withWords(withTables(bench, photos.tables));
  writeStudy(folder, answered, sliced, parts, photos.files);
  writeStudy(folder, gannetUpdate(sliced, parts), sliced, parts);
  writeStudy(folder, spokeKeys(parts), sliced, parts);
  writeStudy(folder, winterStock(parts), sliced, parts);
  const files = speedFiles();
  const speeds = gannetSpeeds(files, parts);
  const walls = await demoPhotos(speeds.tables, speedSession);
  writeStudy(folder, withTables(speeds, walls.tables), files, parts, walls.files);
}

/** A study with more tables. */
function withTables(study: Study, more: Partial<Tables>): Study {
  const tables = { ...study.tables, ...more };
  return {
    ...study,
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}

/** Writes a study with the meshes and sliced files that its rows name. */
function writeStudy(
  folder: string,
  study: Study,
  sliced: ReadonlyMap<string, Sliced>,
  parts: readonly DemoPart[],
  photos: ReadonlyMap<string, Uint8Array> = new Map(),
): void {
  const { artefacts, prints, planned } = study.tables;
  const target = join(folder, study.meta.name);
  rmSync(target, { recursive: true, force: true });
  const write = (path: string, content: string | Uint8Array) => {
    mkdirSync(dirname(join(target, path)), { recursive: true });
    writeFileSync(join(target, path), content);
  };
  for (const [path, text] of writePackage(study)) write(path, text);
  for (const [path, bytes] of photos) write(path, bytes);
  for (const { mesh } of parts) {
    if (artefacts.some((row) => row.mesh === mesh.path)) write(mesh.path, mesh.bytes);
  }
  const named = new Set([...prints, ...planned].map((row) => row.toolpath));
  for (const { path, text } of sliced.values()) {
    if (named.has(path)) write(path, gzipSync(text, { level: 9 }));
  }
}
