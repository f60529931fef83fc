export { ANNOTATIONS, extendAnnotations } from './annotations';
export { NoMotionError, ToolpathAnalysis, type AnalysisOptions } from './analysis';
export { describeClaim } from './claim';
export { type ToolpathFacts } from './facts';
export { machineRecordSchema, type MachineRecord } from './machine';
export { differencesOf, type ToolpathDifference } from './differences';
export { StatedSettings } from './stated-settings';
export { guessPurpose, machineOf, type LineUp, type Purpose } from './purpose';
export { reachOf, type Reach } from './reach';
