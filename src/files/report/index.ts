export { cutFrames } from './frames';
export { writeCards, writePage } from './forms';
export { FrozenDataError, modelOf, readModel } from './model';
export type { FrameTask, ReportOutcome, ReportTask } from './task';
export { markWithdrawn } from './withdrawn';
export { FIGURES, sealed } from './seal';
