export { cutFrames } from './frames';
export { writeCards, writePage } from './forms';
export { computeFrozen, FrozenDataError, modelOf, readModel, type ComputedStudy } from './model';
export type { FrameTask, ReportOutcome, ReportTask } from './task';
export { ReportError, verifyReport } from './verify';
export { markWithdrawn, WITHDRAWN_FILE } from './withdrawn';
export { FIGURES, sealed } from './seal';
