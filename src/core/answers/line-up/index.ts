export { profileSettings, proposeFromFiles } from './from-files';
export { MACHINE_FACTS, type MachineFacts } from './facts';
export { changesOf, settingRows, type StatedFile } from './settings';
