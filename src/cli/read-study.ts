import {
  FAULT_LIMIT,
  formatFault,
  readPackage,
  type FaultReport,
  type ReadPackage,
} from '../core/package';
import { openPackage } from '../server/packages';
import { packageSettings } from '../server/toolpaths';
import { InputError } from './input-error';

/**
 * Reads the package at a path; warnings go to stderr.
 *
 * @param withSliced whether the sliced files of its prints are read too, for their settings
 * @throws InputError with every fault, one a line
 */
export async function readStudy(
  path: string,
  { withSliced = false }: { withSliced?: boolean } = {},
): Promise<ReadPackage> {
  const files = await openPackage(path);
  try {
    const { content, ...report } = await readPackage(files);
    for (const warning of report.warnings) {
      process.stderr.write(`warning: ${formatFault(warning)}\n`);
    }
    if (!content) throw new InputError(faultLines(report));
    if (withSliced) {
      content.study.sliced = await packageSettings(content.study, files, (file, why) => {
        process.stderr.write(
          `warning: ${formatFault({ file, line: 1, column: '-', message: why })}\n`,
        );
      });
    }
    return content;
  } finally {
    await files.close();
  }
}

function faultLines({ faults, faultCount }: FaultReport): string {
  const more = faultCount - faults.length;
  const lines = faults.map(formatFault);
  if (more > 0) lines.push(`and ${more} more after the first ${FAULT_LIMIT}`);
  return lines.join('\n');
}
