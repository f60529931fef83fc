export { abilitiesOf, type Ability as PanelAbility, type PairedBallot } from './paired';
export { panelsOfAll, type PairedPanel, type Panel, type TellingPanel } from './panels';
export { toldApart, type RightOrWrong, type ToldApart } from './told-apart';
