export { FAULT_LIMIT, formatFault, warningLines, type Fault, type FaultReport } from './fault';
export { readPackage, type ReadPackage, type ReadResult } from './read';
export { memorySource, type PackageSource } from './source';
export { lackingIn, writePackage } from './write';
export { breachesOf } from './rules';
export { type HistoryEntry } from './history';
