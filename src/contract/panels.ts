export type {
  Judging,
  PanelDraft,
  PanelPage,
  PanelResult,
  PanelState,
  SeenItem,
  SeenJudge,
} from '../server/panels';
