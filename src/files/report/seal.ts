import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { ReportModel, RevisionFigures } from '../../core/text/report';

/** The file of a report in which all its other files are listed with their hashes. */
export const FIGURES = 'figures.json';
/** Files that are not listed: what lists them, and what holds them once more. */
export const UNLISTED: ReadonlySet<string> = new Set([FIGURES, 'report.zip']);

/** A report's figures with the hashes of all its files, as text: its last file, and the one that stands for it. */
export function sealed(
  figures: RevisionFigures,
  since: ReportModel['since'],
  files: Readonly<Record<string, string>>,
): { figures: RevisionFigures; text: string } {
  const whole = { ...figures, since, files, maker: makerHash() };
  return { figures: whole, text: `${JSON.stringify(whole, null, 1)}\n` };
}

/** SHA-256 of the code that writes reports: of the same code, the same data make the same bytes. */
export function makerHash(): string {
  const folder = readerFolder();
  const hash = createHash('sha256');
  for (const path of ['report.css', 'report.js', join('..', 'threads', 'report.js')]) {
    hash.update(readFileSync(join(folder, path)));
  }
  return hash.digest('hex');
}

/** Where the style and the script of the page lie: beside what was built. */
export function readerFolder(): string {
  let folder = dirname(new URL(import.meta.url).pathname);
  while (!existsSync(join(folder, 'dist', 'report', 'report.css'))) {
    const above = dirname(folder);
    if (above === folder) throw new Error('the style of reports is not built: npm run build');
    folder = above;
  }
  return join(folder, 'dist', 'report');
}
