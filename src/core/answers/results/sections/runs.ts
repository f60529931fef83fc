import { reliabilityEvidence } from '../../evidence';
import { modesOfAll, reliabilityOfAll, survivalOfAll } from '../../../measures/reliability';
import { PRINTED, type Section } from '../section';

const RUNS = [...PRINTED, 'incidents'] as const;

/** Outcomes, incidents and standstill, with and without the operator's own mistakes. */
export const reliability: Section<'reliability'> = {
  name: 'reliability',
  needs: RUNS,
  usesReference: false,
  compute: ({ index, alpha }) => reliabilityOfAll(index, alpha),
  evidence: ({ index }, { contender, key }) =>
    /^(?:all|without_operator)\.[a-z_0-9]+$/.test(key)
      ? reliabilityEvidence(index, contender)
      : null,
};

/** What went wrong, the most frequent first. */
export const modes: Section<'modes'> = {
  name: 'modes',
  needs: RUNS,
  usesReference: false,
  compute: ({ index, has }) => (has('incidents') ? modesOfAll(index) : null),
};

/** How long machines run between incidents. */
export const survival: Section<'survival'> = {
  name: 'survival',
  needs: RUNS,
  usesReference: false,
  compute: ({ index, alpha, has }) => (has('incidents') ? survivalOfAll(index, alpha) : null),
};
