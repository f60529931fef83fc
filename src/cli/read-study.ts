import {
  FAULT_LIMIT,
  formatFault,
  readPackage,
  warningLines,
  type FaultReport,
  type ReadPackage,
} from '../core/model/package';
import type { MeshKnown } from '../core/answers/standings';
import { openPackage, type PackageFiles } from '../files/packages';
import { packageMeshes } from '../files/package-meshes';
import { packageSettings, packageToolpaths, type PackageToolpaths } from '../files/sliced';
import { InputError } from './input-error';

/** A package that was read, with what its sliced files say as far as that was asked for. */
export type StudyOnDisk = ReadPackage & {
  toolpaths?: PackageToolpaths['toolpaths'];
  meshes?: ReadonlyMap<string, MeshKnown>;
};

/**
 * Reads the package at a path; warnings go to stderr.
 *
 * @param depth how far the files beside the tables are looked into: `whole` reads each to its end to
 *   find what is damaged, `settings` and `toolpaths` read the sliced files of its prints, `meshes` the
 *   meshes of its artefacts too
 * @param isEach whether each warning is named; else those of one kind in one file are said once
 * @throws InputError with every fault, one a line
 */
export async function readStudy(
  path: string,
  depth: 'whole' | 'settings' | 'toolpaths' | 'meshes',
  isEach = false,
): Promise<StudyOnDisk> {
  const files = await openPackage(path);
  try {
    const { content, ...report } = await readPackage(files);
    for (const line of warningLines(report, isEach)) process.stderr.write(`${line}\n`);
    if (!content) throw new InputError(faultLines(report));
    if (depth === 'whole') {
      await checkWhole(files, content);
      return content;
    }
    const onUnreadable = (file: string, message: string) =>
      process.stderr.write(`warning: ${formatFault({ file, line: 1, column: '-', message })}\n`);
    if (depth !== 'toolpaths') {
      const sliced = await packageSettings(content.study, files, onUnreadable);
      const read = { ...content, study: { ...content.study, sliced } };
      if (depth === 'settings') return read;
      return { ...read, meshes: await packageMeshes(content.study, files, onUnreadable) };
    }
    const { settings: sliced, toolpaths } = await packageToolpaths(
      content.study,
      files,
      onUnreadable,
    );
    return { ...content, study: { ...content.study, sliced }, toolpaths };
  } finally {
    await files.close();
  }
}

/** Reads the files beside the tables to their ends: one that is damaged is found. */
async function checkWhole(files: PackageFiles, { extraFiles }: ReadPackage): Promise<void> {
  for (const path of extraFiles) {
    try {
      for await (const chunk of await files.stream(path)) void chunk;
    } catch (error) {
      const reason = error instanceof Error ? error.message : 'unknown';
      throw new InputError(`${path}:1:-: cannot be read: ${reason}`);
    }
  }
}

function faultLines({ faults, faultCount }: FaultReport): string {
  const more = faultCount - faults.length;
  const lines = faults.map(formatFault);
  if (more > 0) lines.push(`and ${more} more after the first ${FAULT_LIMIT}`);
  return lines.join('\n');
}
