import { addressesIn } from '../../core/answers/figure-address';
import { figureAt } from '../../core/answers/results';
import {
  caveatsOf,
  movedTies,
  proposalsOf,
  readinessOf,
  labelOf,
  textOf,
  tieOf,
  type Caveat,
  type Finding,
  type Proposal,
  type ReportContext,
} from '../../core/text/report';
import type { ReportSettings, Row } from '../../core/model/study';
import { findAddress, listRevisions, listRows, type ReportAddress } from '../../data';
import type { App } from '../app';
import { revisionSeen, type RevisionSeen } from './revisions';
import { reportContext } from './context';
import type { StudyFrame } from '../study/frame';

/** A figure that a sentence rests on, as it stands, and as it stood where it has moved since. */
export interface SeenTie {
  address: string;
  said: string;
  isDecided: boolean;
  moved: { then: string; why: 'verdict' | 'value' } | null;
  /** Whether there is such a figure at all. */
  isThere: boolean;
}

export interface SeenSentence {
  verdict_id: string;
  contender_id: string | null;
  kind: Row<'verdicts'>['kind'];
  text: string;
  row_version: number;
  citations: SeenTie[];
}

/** What the Report station shows. */
export interface ReportPage {
  sentences: SeenSentence[];
  proposals: (Proposal & { said: string[] })[];
  caveats: Caveat[];
  findings: Finding[];
  revisions: RevisionSeen[];
  address: ReportAddress | null;
  settings: ReportSettings;
  isStale: boolean;
}

/** The words of a study’s report, what is ready and what is missing, and its revisions. */
export async function reportPage(
  app: App,
  { studyId }: Pick<StudyFrame, 'studyId'>,
): Promise<ReportPage> {
  const { db } = app;
  const [{ context, isStale }, verdicts, revisions, address] = await Promise.all([
    reportContext(app, studyId),
    listRows(db, studyId, 'verdicts'),
    listRevisions(db, studyId),
    findAddress(db, studyId),
  ]);
  const { verdict_figures } = context.study.tables;
  const nowAt = (at: string) => figureAt(context.results, at);
  const sentences = [...verdicts]
    .sort((a, b) => a.order - b.order || (a.verdict_id < b.verdict_id ? -1 : 1))
    .map((row): SeenSentence => {
      const stamps = verdict_figures.filter((one) => one.verdict_id === row.verdict_id);
      const moved = movedTies(stamps, nowAt);
      return {
        verdict_id: row.verdict_id,
        contender_id: row.contender_id,
        kind: row.kind,
        text: row.text,
        row_version: row.row_version,
        citations: addressesIn(row.evidence).map((at): SeenTie => {
          const citation = tieOf(context, at);
          const change = moved.find((one) => one.address === at);
          return {
            address: at,
            said: saidOf(context, at),
            isDecided: citation?.isDecided ?? false,
            isThere: citation !== null,
            moved: change ? { then: describeThen(change.then), why: change.why } : null,
          };
        }),
      };
    });
  return {
    sentences,
    address,
    isStale,
    settings: context.settings,
    proposals: proposalsOf(context).map((one) => ({
      ...one,
      said: one.rests_on.map((at) => saidOf(context, at)),
    })),
    caveats: caveatsOf(context),
    findings: readinessOf(context),
    revisions: revisions.map(revisionSeen),
  };
}

/** A figure in a few words; what it would be, where there is none. */
function saidOf(context: ReportContext, address: string): string {
  const citation = tieOf(context, address);
  return citation ? textOf(citation.text, context.nameOf) : labelOf(context, address);
}

/** A figure as it stood, in short. */
function describeThen(then: { value: number | null; word: string | null }): string {
  const number = then.value === null ? '' : String(Number(then.value.toPrecision(3)));
  return [then.word?.replaceAll('_', ' '), number].filter(Boolean).join(' · ');
}
