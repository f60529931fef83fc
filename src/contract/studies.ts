export type { BinnedStudy, StudyAbout } from '../server/study/studies';
export type { Progress, StudyProgress } from '../server/study/progress';
