import { costOfAll, noiseOfAll, wasteOfAll } from '../../../measures/cost';
import { costEvidence } from '../../evidence';
import { LINE_UP, PRINTED, type Section } from '../section';

/** What left the spool and is no part. */
export const waste: Section<'waste'> = {
  name: 'waste',
  needs: PRINTED,
  usesReference: false,
  compute: ({ index }) => wasteOfAll(index),
};

/** What a good part costs, failed attempts counted. */
export const cost: Section<'cost'> = {
  name: 'cost',
  needs: [...PRINTED, 'incidents', 'equipment'],
  usesReference: false,
  compute: ({ index, alpha, seed }) => costOfAll(index, alpha, seed),
  evidence: ({ index }, { contender, key }) =>
    // `cost:<contender>:<artefact>.per_good_part`
    costEvidence(index, contender, key.replace(/\.[a-z_]+$/, '')),
};

/** Sound levels, brought to 1 m. */
export const noise: Section<'noise'> = {
  name: 'noise',
  needs: [...LINE_UP, 'noise'],
  usesReference: false,
  compute: ({ index, has }) => (has('noise') ? noiseOfAll(index) : null),
};
