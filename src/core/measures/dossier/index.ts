export { abilityOfAll, type Ability } from './ability';
export { proposeFinding, provenBy, type ClaimFigures, type ProposedFinding } from './claims';
export { marksOfAll, type Mark } from './remarks';
export { setupOfAll, stateOf, type Setup } from './setup';
export { trialsOfAll, type Trials } from './trials';
export { toTestAgain, type Again } from './again';
export { dossierEntries, timeScale, type DossierEntry } from './time-line';
export { wearOf, type Wear } from './wear';
