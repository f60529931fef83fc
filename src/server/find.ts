import { listRows } from '../data';
import { app } from './app';

/** Where something is. */
export interface Found {
  kind: 'specimen' | 'print' | 'place';
  href: string;
}

/** The code of a planned print's sticker: what the plan knows before there is a specimen. */
export const placeCode = (contender: string, artefact: string, repeat: number): string =>
  `${contender}/${artefact}/${repeat}`;

/** Finds what a sticker's code, or an id, stands for. */
export async function findByCode(studyId: string, code: string): Promise<Found | null> {
  const { db } = app();
  const base = `/studies/${studyId}`;
  const same = (value: unknown) => String(value).toLowerCase() === code.toLowerCase();
  const specimens = await listRows(db, studyId, 'specimens');
  const specimen = specimens.find((row) => same(row.code) || same(row.specimen_id));
  if (specimen) {
    return {
      kind: 'specimen',
      href: `${base}/measure?specimen=${encodeURIComponent(String(specimen.specimen_id))}`,
    };
  }
  for (const table of ['prints', 'open_prints'] as const) {
    const print = (await listRows(db, studyId, table)).find((row) => same(row.print_id));
    if (print) {
      return {
        kind: 'print',
        href: `${base}/runs?open=${encodeURIComponent(String(print.print_id))}`,
      };
    }
  }
  const planned = await listRows(db, studyId, 'planned');
  for (const row of planned) {
    for (let repeat = 1; repeat <= Number(row.repeats); repeat += 1) {
      const place = placeCode(String(row.contender_id), String(row.artefact_id), repeat);
      if (same(place))
        return { kind: 'place', href: `${base}/runs?open=${encodeURIComponent(place)}` };
    }
  }
  return null;
}
