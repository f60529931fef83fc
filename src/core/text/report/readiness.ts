import { describePrintsNeeded } from '../phrasing';
import { counted } from '../../model/study';
import type { ReportContext } from './context';

/** Something that is to be looked at before a report is published, and where it is mended. */
export interface Finding {
  key: string;
  /** Whether a report without it says less than its readers need. */
  weight: 'missing' | 'weak' | 'ready';
  text: string;
  /** The page of the study where it is mended, and what is done there. */
  page: string;
  link: string;
}

/** A check: what is said where it is ready, and where it is not. */
interface Check {
  key: string;
  isReady: boolean;
  otherwise: 'missing' | 'weak';
  ready: string;
  open: string;
  page: string;
  link: string;
}

/** Words by which a sentence speaks of a confounded pair. */
const SPOKEN = /confound|differ|unfair|not only|other (?:walls|infill|layer)/i;

/** What is ready for publishing, and what is missing. */
export const readinessOf = (context: ReportContext): Finding[] =>
  [...asked(context), ...written(context), ...tested(context)].map(
    ({ key, isReady, otherwise, ready, open, page, link }) => ({
      key,
      page,
      link,
      weight: isReady ? 'ready' : otherwise,
      text: isReady ? ready : open,
    }),
  );

function asked({ study, reference, nameOf }: ReportContext): Check[] {
  const unknown = study.tables.machines.filter((row) => row.obtained === null);
  return [
    {
      key: 'reference',
      isReady: reference !== null,
      otherwise: 'missing',
      ready: `The reference is ${nameOf(reference ?? '')}.`,
      open: 'Choose a reference first: verdicts compare every contender with it.',
      page: 'question',
      link: 'say who is the reference',
    },
    {
      key: 'question',
      isReady: (study.meta.question ?? '') !== '',
      otherwise: 'missing',
      ready: 'The question is asked.',
      open: 'No question is asked: a reader cannot know what is answered.',
      page: 'question',
      link: 'ask it',
    },
    {
      key: 'obtained',
      isReady: unknown.length === 0,
      otherwise: 'weak',
      ready: 'Of every machine it is known how it was obtained.',
      open: `How it was obtained is not stated for ${unknown.map((row) => row.name).join(', ')}.`,
      page: 'line-up',
      link: 'say how',
    },
  ];
}

function written(context: ReportContext): Check[] {
  const { study, settings, results, nameOf } = context;
  const silent = results.fairness
    .filter(({ result }) => result === 'confounded')
    .filter(({ contender }) => !isSpokenOf(context, contender));
  const pairs = [...new Set(silent.map(({ contender }) => nameOf(contender)))].join(', ');
  return [
    {
      key: 'answer',
      isReady: study.tables.verdicts.some((row) => row.kind === 'answer'),
      otherwise: 'missing',
      ready: 'The answer is written.',
      open: 'No sentence is the answer.',
      page: 'report#words-answer',
      link: 'write it',
    },
    {
      key: 'disclosure',
      isReady: (settings.disclosure ?? '') !== '',
      otherwise: 'missing',
      ready: 'The report says how the machines were obtained and who paid.',
      open: 'No disclosure: how the machines were obtained, and who paid for the work.',
      page: 'report#publishing',
      link: 'write it',
    },
    {
      key: 'confounded',
      isReady: silent.length === 0,
      otherwise: 'missing',
      ready: 'Unfair comparisons are mentioned in the text, or there are none.',
      open: `No caveat speaks of the confounded pair with ${pairs}.`,
      page: 'report#words-caveat',
      link: 'write a caveat',
    },
    {
      key: 'author',
      isReady: (settings.author ?? '') !== '',
      otherwise: 'weak',
      ready: `It is published by ${settings.author ?? ''}.`,
      open: 'It does not say who publishes it.',
      page: 'report#publishing',
      link: 'say who',
    },
  ];
}

function tested(context: ReportContext): Check[] {
  const { results, wordsOf, nameOf } = context;
  const single = Object.values(results.differences)
    .flat()
    .filter(({ verdict }) => verdict === 'one_print');
  const onePrint: Check = {
    key: 'one-print',
    isReady: single.length === 0,
    otherwise: 'weak',
    ready: 'No verdict rests on one print.',
    open:
      `${counted(single.length, 'verdict')} of ` +
      `${counted(new Set(single.map((row) => row.contender)).size, 'contender')} ` +
      `${single.length === 1 ? 'rests' : 'rest'} on one print a side: shown, not decided.`,
    page: 'plan',
    link: 'plan more prints',
  };
  const main = mainFigure(context);
  if (main === null) return [onePrint];
  const open = (results.differences[main] ?? []).filter((row) => row.verdict === 'unsettled');
  const who = open.map((row) => {
    const prints = describePrintsNeeded(row);
    return nameOf(row.contender) + (prints === null ? '' : ` (${prints})`);
  });
  const { label } = wordsOf(main);
  return [
    {
      key: 'settled',
      isReady: open.length === 0,
      otherwise: 'weak',
      ready: `The main figure, ${label}, is decided for every contender.`,
      open: `The main figure, ${label}, is too close to call for ${who.join(', ')}.`,
      page: 'plan',
      link: 'plan more prints',
    },
    onePrint,
  ];
}

/** The figure that the study asks for first: the heaviest of its card, else accuracy, else time. */
function mainFigure({ study, results }: ReportContext): string | null {
  const hasTest = (key: string) => (results.differences[key]?.length ?? 0) > 0;
  const weights = [...(study.meta.scorecard?.criteria ?? [])].sort((a, b) => b.weight - a.weight);
  return (
    weights.find(({ key }) => hasTest(key))?.key ??
    ['accuracy_mm', 'surface', 'time_index'].find(hasTest) ??
    null
  );
}

/** Whether a caveat of the study's own is about a contender, or rests on its fairness. */
const isSpokenOf = ({ study, nameOf }: ReportContext, contender: string): boolean =>
  study.tables.verdicts.some(
    (row) =>
      row.kind === 'caveat' &&
      (row.contender_id === contender ||
        (row.evidence ?? '').includes(`fairness:${contender}:`) ||
        (row.text.includes(nameOf(contender)) && SPOKEN.test(row.text))),
  ) || study.tables.accepted_differences.some((row) => row.contender_id === contender);
