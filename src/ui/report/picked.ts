import { remembered, useRemembered } from '../lib/remembered';

/** A figure that was picked on a page of results, to be written about. */
export interface PickedFigure {
  address: string;
  /** What it is, as the page said it. */
  title: string;
}

const keyOf = (studyId: string): string => `vergleich:picked:${studyId}`;
const MOST = 30;

/** The figures in a remembered text; what is none is left out. */
export function pickedIn(text: string): PickedFigure[] {
  return text.split('\n').flatMap((line) => {
    const [address, title] = line.split('\t');
    return address !== undefined && title !== undefined && /^\S+:\S+:\S+$/.test(address)
      ? [{ address, title }]
      : [];
  });
}

/** A remembered text with one figure more, the latest last and each once. */
export const withPicked = (text: string, figure: PickedFigure): string => {
  const others = pickedIn(text).filter(({ address }) => address !== figure.address);
  const title = figure.title.replace(/[\t\n]+/g, ' ');
  return [...others, { ...figure, title }]
    .slice(-MOST)
    .map((one) => `${one.address}\t${one.title}`)
    .join('\n');
};

/** Figures picked for the report of a study, kept in this browser until they are written about. */
export function usePicked(studyId: string): {
  picked: PickedFigure[];
  pick: (figure: PickedFigure) => void;
  drop: (address: string | null) => void;
} {
  const [text, keep] = useRemembered(keyOf(studyId));
  return {
    picked: pickedIn(text),
    // Several islands pick on one page: what is remembered now counts, not what was rendered.
    pick: (figure) => keep(withPicked(remembered(keyOf(studyId)), figure)),
    drop: (address) =>
      keep(
        pickedIn(remembered(keyOf(studyId)))
          .filter((one) => address !== null && one.address !== address)
          .map((one) => `${one.address}\t${one.title}`)
          .join('\n'),
      ),
  };
}
