import { abilityOfAll, marksOfAll, setupOfAll, trialsOfAll } from '../../../measures/dossier';
import { LINE_UP, type Section } from '../section';
import { INSPECTED } from './surface';

const LOGS = ['setup_steps', 'checks', 'heat_ups'] as const;

/** What it took until each machine's first print, and how it was found. */
export const setup: Section<'setup'> = {
  name: 'setup',
  needs: [...LINE_UP, ...LOGS],
  usesReference: false,
  compute: ({ index, has }) => (LOGS.some(has) ? setupOfAll(index) : null),
};

/** How each machine answered to faults provoked and features used on purpose. */
export const trials: Section<'trials'> = {
  name: 'trials',
  needs: [...LINE_UP, 'trials'],
  usesReference: false,
  compute: ({ index, alpha, has }) => (has('trials') ? trialsOfAll(index, alpha) : null),
};

/** What each machine does with each type of material. */
export const ability: Section<'ability'> = {
  name: 'ability',
  needs: [...INSPECTED, 'materials', 'incidents'],
  usesReference: false,
  compute: ({ index, alpha }) => abilityOfAll(index, alpha),
};

/** What hands and eyes gave each machine. */
export const marks: Section<'marks'> = {
  name: 'marks',
  needs: [...LINE_UP, 'marks'],
  usesReference: false,
  compute: ({ index, has }) => (has('marks') ? marksOfAll(index) : null),
};
