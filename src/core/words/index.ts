export { fewestPrintsAsked, saidPrints, type PrintsAsked } from './prints-needed';
export { beforeAfterSentence } from './before-after';
export { capital, listed } from './lists';
export { saidAgreement } from './agreement';
export { saidAdvice, type SaidAdvice } from './advice';
export {
  FIGURE_GROUPS,
  figureNamesOf,
  figureText,
  figureWords,
  namesOf,
  type FigureGroup,
  type FigureNames,
  type FigureWords,
} from './criteria';
export { saidEffects, type EffectsResponse } from './effects';
export { readingsFor, saidGauge } from './gauge';
export { saidGlance } from './glance';
export { saidHeadToHead, type ComparedFigure } from './head-to-head';
export { preferencesOf, saidHabits, saidPanel, type Preference } from './panels';
export { saidRestsOn } from './rests-on';
export { saidScorecard, saidShare } from './scorecard';
export { saidSweep } from './sweep';
export { saidVerdict, VERDICT_SIGNS, verdictInWords } from './verdict';
export { toggled, viewOf, viewQuery, withReference, type View } from './view';
