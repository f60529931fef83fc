export { abilityOfAll, type Ability } from './ability';
export { marksOfAll, type Mark } from './remarks';
export { setupOfAll, stateOf, type CheckState, type Setup } from './setup';
export { trialsOfAll, type Trials } from './trials';
