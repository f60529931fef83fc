export { courseSchema, takeStep } from './course';
export {
  answerQuestion,
  answerSchema,
  begin,
  beginSchema,
  judgeCookieHeader,
  judgingAt,
  pictureFor,
  stopJudging,
  type Judging,
} from './judging';
export {
  panelLines,
  panelPage,
  panelCards,
  panelSheets,
  type PanelPage,
  type PanelState,
  type SeenItem,
  type SeenJudge,
} from './page';
export { revealedResults, type PanelResult, type RevealedPanel } from './result';
export {
  addPanel,
  changePanel,
  dropPanel,
  panelDraftSchema,
  panelExample,
  type PanelDraft,
} from './setup';
