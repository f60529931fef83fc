export type { BinnedStudy, StudyAbout } from '../server/study/studies';
