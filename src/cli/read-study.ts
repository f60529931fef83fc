import {
  FAULT_LIMIT,
  formatFault,
  readPackage,
  type FaultReport,
  type ReadPackage,
} from '../core/package';
import { openPackage, type PackageFiles } from '../files/packages';
import { packageToolpaths, type PackageToolpaths } from '../files/sliced';
import { InputError } from './input-error';

/**
 * Reads the package at a path; warnings go to stderr.
 *
 * @param withSliced whether the sliced files of its prints are read too, for their settings and speeds;
 *   without it every file is read to its end, to find what is damaged
 * @throws InputError with every fault, one a line
 */
export async function readStudy(
  path: string,
  { withSliced = false }: { withSliced?: boolean } = {},
): Promise<ReadPackage & PackageToolpaths> {
  const files = await openPackage(path);
  try {
    const { content, ...report } = await readPackage(files);
    for (const warning of report.warnings) {
      process.stderr.write(`warning: ${formatFault(warning)}\n`);
    }
    if (!content) throw new InputError(faultLines(report));
    if (!withSliced) {
      await checkWhole(files, content);
      return { ...content, settings: new Map(), toolpaths: new Map() };
    }
    const read = await packageToolpaths(content.study, files, (file, why) => {
      process.stderr.write(
        `warning: ${formatFault({ file, line: 1, column: '-', message: why })}\n`,
      );
    });
    return { ...content, study: { ...content.study, sliced: read.settings }, ...read };
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
