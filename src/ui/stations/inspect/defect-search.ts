import { DEFECTS, inWords } from '../../../core/model/study';

export type Defect = (typeof DEFECTS)[number];

/** The defects of which a word begins with what was typed; those that begin with it come first. */
export function defectsFor(typed: string): Defect[] {
  const wanted = typed.toLowerCase();
  const rank = (defect: Defect): number => {
    const words = inWords(defect);
    if (words.startsWith(wanted)) return 0;
    return words.split(/[ -]/).some((word) => word.startsWith(wanted)) ? 1 : 2;
  };
  return DEFECTS.filter((defect) => rank(defect) < 2).sort((a, b) => rank(a) - rank(b));
}
