import { groupBy, type ReportSettings, type Study } from '../../model/study';
import { restsOn } from '../../answers/figure-address';
import type { ReportedResults } from '../../answers/results';
import { chartsOf } from './charts';
import type { Chart, PhotoRow, ReportSentence } from './model';
import { photoRows } from './photo-rows';
import { openPrinting, type Printing } from './printing';
import { tieOf } from './citations';

/** What the parts of a report are made from. */
export interface ReportContext extends Printing {
  settings: ReportSettings;
  /** Charts of the parts, by their criterion. */
  charts: ReadonlyMap<string, Chart>;
  photos: readonly PhotoRow[];
  /** The study's sentences of a kind, in their order. */
  sentences: (kind: string) => ReportSentence[];
}

/** Opens a study and its results for a report. */
export function openReport(study: Study, results: ReportedResults): ReportContext {
  const printing = openPrinting(study, results);
  const ordered = [...study.tables.verdicts].sort(
    (a, b) => a.order - b.order || (a.verdict_id < b.verdict_id ? -1 : 1),
  );
  const ofKind = groupBy(ordered, (row): string => row.kind);
  return {
    ...printing,
    settings: study.meta.report ?? {},
    charts: chartsOf(printing),
    photos: photoRows(printing),
    sentences: (kind) =>
      (ofKind.get(kind) ?? []).map(({ verdict_id, contender_id, text, evidence }) => ({
        verdict_id,
        text,
        contender: contender_id,
        citations: restsOn(evidence).flatMap((address) => tieOf(printing, address) ?? []),
      })),
  };
}
