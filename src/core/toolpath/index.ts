export { ANNOTATIONS, extendAnnotations, type AnnotationTable } from './annotations';
export { NoMotionError, ToolpathAnalysis, type AnalysisOptions } from './analysis';
export { sayClaim } from './claim';
export { type ClaimFacts, type ToolpathFacts } from './facts';
export { machineRecordSchema, type MachineRecord } from './machine';
export { differencesOf, type ToolpathDifference } from './differences';
