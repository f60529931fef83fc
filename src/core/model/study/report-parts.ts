/** The parts of a report, in the order in which they stand unless they are moved. */
export const REPORT_PARTS = [
  'answer',
  'glance',
  'line-up',
  'method',
  'accuracy',
  'surface',
  'limits',
  'speed',
  'reliability',
  'cost',
  'machine-or-profile',
  'panels',
  'handling',
  'scorecard',
  'not-known',
  'data',
] as const;
export type ReportPart = (typeof REPORT_PARTS)[number];

/** What the parts are called. */
export const PART_TITLES: Readonly<Record<ReportPart, string>> = {
  answer: 'The answer',
  glance: 'At a glance',
  'line-up': 'Line-up',
  method: 'How it was tested',
  accuracy: 'Accuracy',
  surface: 'Surface',
  limits: 'Limits',
  speed: 'Speed',
  reliability: 'Reliability',
  cost: 'Cost, waste, noise',
  'machine-or-profile': 'Machine or profile',
  panels: 'Blind panels',
  handling: 'Set-up, handling, claims',
  scorecard: 'Scorecard',
  'not-known': 'What is not known',
  data: 'The data',
};
