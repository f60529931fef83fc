import type { SurfaceAgreement } from '../../measures/surface';

/** From here on conclusions can rest on the grades. */
const RELIABLE = 0.8;
/** From here on they can be drawn with care. */
const TENTATIVE = 0.667;

/**
 * How well inspectors agree, in a sentence.
 *
 * @see Krippendorff, Content Analysis, 4th edition, 2018, chapter 12 (0.800 and 0.667)
 */
export function describeAgreement({ alpha, units, inspectors, notes }: SurfaceAgreement): string {
  if (alpha === null)
    return `${notes.join('; ')}: how well grades agree is not known.`.replace(/^./, (first) =>
      first.toUpperCase(),
    );
  const worth =
    alpha >= RELIABLE
      ? 'conclusions can rest on the grades'
      : alpha >= TENTATIVE
        ? 'conclusions can be drawn from the grades with care'
        : 'the grades differ too much to conclude from: talk the worst of them over';
  return (
    `${inspectors} inspectors graded ${units} zones alike to α = ${alpha.toFixed(2)} (1 is ` +
    `full agreement, 0 is chance): ${worth}.`
  );
}
