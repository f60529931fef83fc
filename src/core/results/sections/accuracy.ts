import { accuracyEvidence, fitEvidence, groupEvidence, toleranceEvidence } from '../../evidence';
import { accuracyOfAll } from '../../metrology';
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
    fit: ({ measurements }, contender, axis) => {
      const measured = measurements();
      const isAxis = (AXES as readonly string[]).includes(axis ?? '');
      return measured && isAxis ? fitEvidence(measured, contender, axis as Axis) : null;
    },
  },
};
