export {
  profileSettings,
  proposeFromFiles,
  type DroppedFile,
  type ProposedFile,
} from './from-files';
export { MACHINE_FACTS, type MachineFact, type MachineFacts, type Written } from './facts';
export {
  changesOf,
  settingRows,
  type SettingCell,
  type SettingRow,
  type ShownProfile,
  type StatedFile,
} from './settings';
