export { idOfPanel } from './id';
export { chosenOf, panelHabits, type PanelHabits } from './habits';
export {
  ballotsNeeded,
  chanceOf,
  fewestRight,
  powerOfPanels,
  usualAim,
  type PanelAim,
} from './needed';
export {
  checkPlan,
  couplesOf,
  PanelPlanError,
  questionsOf,
  type PanelPlan,
  type PanelQuestion,
} from './order';
export { HASTY_S, paceFrom, paceOf, type Pace } from './pace';
export { abilitiesOf, FEW_JUDGES, type PairedBallot } from './paired';
export {
  isRightAnswer,
  panelsOfAll,
  type PairedPanel,
  type Panel,
  type TellingPanel,
} from './panels';
export { toldApart, type RightOrWrong } from './told-apart';
