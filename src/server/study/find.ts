import { findStudy, listRows, printOfId, specimenOfCode } from '../../data';
import type { App } from '../app';

/** Where something is. */
export interface Found {
  kind: 'specimen' | 'print' | 'place';
  href: string;
}

/** The code of a planned print's sticker: what the plan knows before there is a specimen. */
export const placeCode = (contender: string, artefact: string, repeat: number): string =>
  `${contender}/${artefact}/${repeat}`;

/**
 * Finds what a sticker's code, or an id, stands for; case does not matter.
 *
 * @returns null where nothing carries it
 * @throws NotFoundError for an unknown study
 */
export async function findByCode(app: App, studyId: string, code: string): Promise<Found | null> {
  const { db } = app;
  await findStudy(db, studyId);
  const base = `/studies/${studyId}`;
  const specimen = await specimenOfCode(db, studyId, code);
  if (specimen !== null) {
    return { kind: 'specimen', href: `${base}/measure?specimen=${encodeURIComponent(specimen)}` };
  }
  const print = await printOfId(db, studyId, code);
  if (print !== null) {
    return { kind: 'print', href: `${base}/runs?open=${encodeURIComponent(print)}` };
  }
  const wanted = code.toLowerCase();
  for (const row of await listRows(db, studyId, 'planned')) {
    const stem = placeCode(row.contender_id, row.artefact_id, 1).slice(0, -1);
    if (!wanted.startsWith(stem.toLowerCase())) continue;
    const repeat = Number(wanted.slice(stem.length));
    if (!Number.isInteger(repeat) || repeat < 1 || repeat > row.repeats) continue;
    const place = `${stem}${repeat}`;
    return { kind: 'place', href: `${base}/runs?open=${encodeURIComponent(place)}` };
  }
  return null;
}
