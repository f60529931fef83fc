import { keysOf } from '../../model/study';
import { parseAddress } from '../figure-address';
import type { SectionName } from './results';
import type { Section, StudyPart } from './section';
import { accuracy } from './sections/accuracy';
import { cost, noise, waste } from './sections/cost';
import { criteria } from './sections/criteria';
import { differences } from './sections/differences';
import { ability, marks, setup, trials } from './sections/dossier';
import { effects } from './sections/effects';
import { claims, fairness, gauge, scatter } from './sections/ground';
import { functions, ladders } from './sections/limits';
import { pairs } from './sections/pairs';
import { panels } from './sections/panels';
import { by_place, drivers, instruments, plate, squareness } from './sections/places';
import { modes, reliability, survival } from './sections/runs';
import { scorecard } from './sections/scorecard';
import { reach, speed } from './sections/speed';
import { sweep } from './sections/sweep';
import { aftercare, defects, photo, surface, surface_agreement } from './sections/surface';

/** Every section of the results, in the order in which they are printed. */
export const SECTIONS: { readonly [Name in SectionName]: Section<Name> } = {
  accuracy,
  pairs,
  plate,
  squareness,
  ladders,
  functions,
  speed,
  reliability,
  modes,
  survival,
  waste,
  cost,
  noise,
  surface,
  defects,
  surface_agreement,
  photo,
  aftercare,
  panels,
  effects,
  claims,
  gauge,
  drivers,
  by_place,
  instruments,
  fairness,
  setup,
  trials,
  ability,
  marks,
  differences,
  criteria,
  scorecard,
  sweep,
  scatter,
  reach,
};

export const SECTION_NAMES = keysOf(SECTIONS);

/** A section, seen without its type. */
const sectionOf = (name: SectionName): Section => SECTIONS[name];

/**
 * All parts of a study that a section hangs on, through the sections that it uses too.
 *
 * @param known sections that need not be computed
 */
export function needsOf(
  name: SectionName,
  known: ReadonlySet<SectionName> = new Set(),
): ReadonlySet<StudyPart> {
  const { needs, uses = [] } = sectionOf(name);
  const unknown = uses.filter((other) => !known.has(other));
  return new Set([...needs, ...unknown.flatMap((other) => [...needsOf(other, known)])]);
}

/** The sections that a section is computed from. */
export const usesOf = (name: SectionName): readonly SectionName[] => sectionOf(name).uses ?? [];

/** Whether a section is another one for another reference, through the sections that it uses too. */
export function hangsOnReference(name: SectionName): boolean {
  const { usesReference, uses = [] } = sectionOf(name);
  return usesReference || uses.some(hangsOnReference);
}

/** The section that an address belongs to, where it says what its figures were computed from; else null. */
export const sectionOfFigure = (address: string): SectionName | null => {
  const section = parseAddress(address)?.section;
  return SECTION_NAMES.find((name) => name === section && sectionOf(name).evidence) ?? null;
};

export type { SectionName };
