import { panelEvidence } from '../../evidence';
import { panelsOfAll } from '../../../measures/panels';
import { PRINTED, type Section } from '../section';

/** What people said who saw parts without knowing whose they are. */
export const panels: Section<'panels'> = {
  name: 'panels',
  needs: [...PRINTED, 'panels', 'ballots'],
  usesReference: true,
  compute: ({ index, reference, alpha, has }) =>
    has('panels') ? panelsOfAll(index, reference, alpha) : null,
  // `panels:<panel>:abilities.<contender>.log_ability`
  evidence: ({ index }, { contender, who }) => panelEvidence(index, contender, who),
};
