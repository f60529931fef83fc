import { functionsOfAll, laddersOfAll } from '../../../measures/ladders';
import { PRINTED, type Section } from '../section';

/** How far each contender gets on each ladder. */
export const ladders: Section<'ladders'> = {
  name: 'ladders',
  needs: [...PRINTED, 'ladders', 'ladder_steps', 'ladder_results'],
  usesReference: false,
  compute: ({ index, has }) =>
    has('ladders') && has('ladder_results') ? laddersOfAll(index) : null,
};

/** How often the parts do their job. */
export const functions: Section<'functions'> = {
  name: 'functions',
  needs: [...PRINTED, 'function_results'],
  usesReference: false,
  compute: ({ index, has }) => (has('function_results') ? functionsOfAll(index) : null),
};
