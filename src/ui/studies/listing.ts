/** A study as the list shows it. */
export interface ListedStudy {
  study_id: string;
  title: string;
  intent: string;
  question: string | null;
  /** The day of its last change. */
  changed: string;
  isArchived: boolean;
  isDemo: boolean;
  labels: readonly string[];
  contenders: number;
  prints: number;
  readings: number;
}

/** What a list of studies can be sorted by. */
export const STUDY_ORDERS = {
  changed: 'last change',
  title: 'title',
  prints: 'number of prints',
} as const;

export type StudyOrder = keyof typeof STUDY_ORDERS;

/** What is asked of the list. */
export interface StudyFilter {
  /** Words that all must appear in the title, the question or a label. */
  text: string;
  label: string | null;
  /** Whether archived studies are shown instead of the others. */
  isArchived: boolean;
  order: StudyOrder;
}

const COMPARE: Readonly<Record<StudyOrder, (a: ListedStudy, b: ListedStudy) => number>> = {
  // They come with the last change first.
  changed: () => 0,
  title: (a, b) => a.title.localeCompare(b.title, 'en'),
  prints: (a, b) => b.prints - a.prints,
};

/** The studies that are asked for, in their order. */
export function filteredStudies(
  studies: readonly ListedStudy[],
  { text, label, isArchived, order }: StudyFilter,
): ListedStudy[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return studies
    .filter((study) => {
      if (study.isArchived !== isArchived) return false;
      if (label !== null && !study.labels.includes(label)) return false;
      const found = [study.title, study.question ?? '', ...study.labels].join(' ').toLowerCase();
      return words.every((word) => found.includes(word));
    })
    .sort(COMPARE[order]);
}

/** All labels of some studies, in the order of the alphabet. */
export const labelsOf = (studies: readonly ListedStudy[]): string[] =>
  [...new Set(studies.flatMap(({ labels }) => labels))].sort((a, b) => a.localeCompare(b, 'en'));

/** Labels as somebody types them, separated by commas. */
export const readLabels = (typed: string): string[] => [
  ...new Set(
    typed
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean),
  ),
];

/** A title for a copy that no study has yet: `Clips (2)`. */
export function titleOfCopy(title: string, taken: readonly string[]): string {
  const [, stem = title] = /^(.*) \(\d+\)$/.exec(title) ?? [];
  let number = 2;
  while (taken.includes(`${stem} (${number})`)) number += 1;
  return `${stem} (${number})`;
}
