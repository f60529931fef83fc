import { accuracyEvidence, fitEvidence, groupEvidence, toleranceEvidence } from '../../evidence';
import { accuracyOfAll, cellsOfType } from '../../metrology';
import { AXES, type Axis } from '../../study';
import { MEASURED, type Section } from '../section';

/** How true each contender's parts are to their nominal sizes. */
export const accuracy: Section<'accuracy'> = {
  name: 'accuracy',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, alpha, measurements }) => {
    const measured = measurements();
    return measured && accuracyOfAll(index, measured, alpha);
  },
  evidence: {
    accuracy: ({ index, alpha, measurements }, contender) => {
      const measured = measurements();
      return measured && accuracyEvidence(index, measured, contender, alpha);
    },
    group: ({ index, measurements }, contender, group) => {
      const measured = measurements();
      return measured && groupEvidence(index, measured, contender, group ?? '');
    },
    tolerance: ({ index, measurements }, contender) => {
      const measured = measurements();
      return measured && toleranceEvidence(index, measured, contender);
    },
    fit: ({ index, measurements }, contender, of) => {
      const measured = measurements();
      // An axis, or an axis and a type of material: `x`, `x.PETG`.
      const [axis = '', ...type] = (of ?? '').split('.');
      if (!measured || !(AXES as readonly string[]).includes(axis)) return null;
      const cells = measured.cellsOfContender.get(contender) ?? [];
      const own = type.length === 0 ? cells : cellsOfType(index, cells, type.join('.'));
      return fitEvidence(own, axis as Axis);
    },
  },
};
