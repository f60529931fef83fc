export type { ReportPage, SeenSentence } from '../server/report/page';
export type { RevisionSeen } from '../server/report/revisions';
