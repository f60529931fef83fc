import { groupBy, type TableName } from '../../model/study';
import { listed } from '../phrasing';
import type { ReportContext } from './context';
import type { MadeSentence } from './model';

/** Something that holds an answer back, and where it is mended. */
export interface Caveat extends MadeSentence {
  kind:
    | 'confounded'
    | 'noted'
    | 'accepted'
    | 'one-print'
    | 'firmware'
    | 'certificate'
    | 'untested'
    | 'borrowed';
  /** The page of the study where it is looked into. */
  page: string;
}

/** What holds an answer back, collected from the study by itself. */
export function caveatsOf(context: ReportContext): Caveat[] {
  return [
    ...unfairPairs(context),
    ...onePrint(context),
    ...olderFirmware(context),
    ...withoutCertificate(context),
    ...untested(context),
    ...borrowed(context),
  ];
}

const artefactName = ({ names }: ReportContext, id: string) => names.artefacts[id] ?? id;

/** Pairs that may not be compared, or only with a word; and what somebody accepted. */
function unfairPairs(context: ReportContext): Caveat[] {
  const { results, nameOf, study } = context;
  const of = (result: 'confounded' | 'noted') =>
    groupBy(
      results.fairness.filter((row) => row.result === result),
      (row) => row.contender,
    );
  const confounded = [...of('confounded')].map(([contender, own]): Caveat => {
    const artefacts = listed([
      ...new Set(own.map((row) => artefactName(context, row.artefact_id))),
    ]);
    return {
      kind: 'confounded',
      name: `confounded:${contender}`,
      page: 'line-up',
      text:
        `${nameOf(contender)} against ${nameOf(own[0]?.reference ?? '')} on ${artefacts} is ` +
        'confounded: more differs than what is compared, so that what is seen there is not of that ' +
        'alone.',
    };
  });
  const noted = [...of('noted').keys()];
  const reference = results.study.reference ?? '';
  const others = study.tables.contenders.length - 1;
  const who = noted.length === others ? 'everyone' : listed(noted.map(nameOf));
  const accepted = study.tables.accepted_differences.map((row): Caveat => ({
    kind: 'accepted',
    page: 'line-up',
    name: `accepted:${row.contender_id}:${row.artefact_id}:${row.item}`,
    text:
      `Accepted: ${nameOf(row.contender_id)} on ${artefactName(context, row.artefact_id)} ` +
      `differs in ${row.item.replaceAll('_', ' ')}. ${row.reason}`,
  }));
  return [
    ...confounded,
    ...(noted.length === 0
      ? []
      : [
          {
            ...({ kind: 'noted', name: 'noted', page: 'line-up' } as const),
            text:
              `Between ${who} and ${nameOf(reference)} something differs beside what is compared that ` +
              'need not be equal; it is noted under “How it was tested”.',
          },
        ]),
    ...accepted,
  ];
}

/** More figures than this are counted, not named. */
const NAMED = 3;

function onePrint({ results, nameOf, wordsOf }: ReportContext): Caveat[] {
  const rows = Object.entries(results.differences).flatMap(([criterion, own]) =>
    own.filter((row) => row.verdict === 'one_print').map((row) => ({ criterion, row })),
  );
  const what = [...groupBy(rows, (one) => one.row.contender)].map(([contender, own]) => {
    const labels = own.map(({ criterion }) => wordsOf(criterion).label);
    return { contender, what: labels.length > NAMED ? `${labels.length} figures` : listed(labels) };
  });
  return [...groupBy(what, (one) => one.what)].map(([figures, own]): Caveat => {
    const ids = own.map(({ contender }) => contender);
    return {
      kind: 'one-print',
      name: `one-print:${ids.join(':')}`,
      page: 'plan',
      text: `On one print a side, shown and not decided: ${figures} of ${listed(ids.map(nameOf))}.`,
    };
  });
}

/** Machines whose firmware changed since some of their prints. */
function olderFirmware({ study, index }: ReportContext): Caveat[] {
  return study.tables.machines.flatMap((machine): Caveat[] => {
    const own = study.tables.prints.filter(
      (print) => index.contenders.get(print.contender_id)?.machine_id === machine.machine_id,
    );
    const older = new Set(
      own.flatMap(({ firmware }) =>
        firmware !== null && machine.firmware !== null && firmware !== machine.firmware
          ? [firmware]
          : [],
      ),
    );
    if (older.size === 0) return [];
    const count = own.filter(
      (print) => print.firmware !== null && older.has(print.firmware),
    ).length;
    return [
      {
        kind: 'firmware',
        name: `firmware:${machine.machine_id}`,
        page: 'line-up',
        text:
          `${machine.name}: ${count} of ${own.length} prints are of firmware ` +
          `${listed([...older].sort())}; it runs ${machine.firmware} now.`,
      },
    ];
  });
}

function withoutCertificate({ study, results }: ReportContext): Caveat[] {
  const bare = study.tables.instruments.filter(
    (row) =>
      row.expanded_uncertainty_mm === null &&
      (results.instruments?.[row.instrument_id]?.readings ?? 0) > 0,
  );
  return bare.map((row): Caveat => ({
    kind: 'certificate',
    name: `certificate:${row.instrument_id}`,
    page: 'measure',
    text: `${row.name} has no certificate: its own error is not part of the intervals.`,
  }));
}

/** Subjects of which a study has nothing at all. */
const SUBJECTS: readonly (readonly [table: TableName, what: string])[] = [
  ['readings', 'dimensions'],
  ['inspections', 'surface'],
  ['ladder_results', 'limits'],
  ['incidents', 'incidents'],
  ['noise', 'noise'],
  ['panels', 'blind panels'],
  ['setup_steps', 'set-up'],
  ['trials', 'features and faults'],
  ['claims', 'claims'],
];

function untested({ study }: ReportContext): Caveat[] {
  const none = SUBJECTS.filter(([table]) => !study.present.has(table));
  return none.length === 0
    ? []
    : [
        {
          kind: 'untested',
          name: 'untested',
          page: 'plan',
          text: `Not tested: ${listed(none.map(([, what]) => what))}.`,
        },
      ];
}

function borrowed({ study, machineName }: ReportContext): Caveat[] {
  const machines = new Set(study.tables.borrowed.map((row) => row.machine_id));
  return machines.size === 0
    ? []
    : [
        {
          kind: 'borrowed',
          name: 'borrowed',
          page: 'line-up',
          text:
            `Statements from elsewhere about ${listed([...machines].map(machineName))} are shown and ` +
            'not computed with.',
        },
      ];
}

/** Figures that some have and others have not, in sentences. */
export function missingFrom({ charts, nameOf }: ReportContext): string[] {
  const missing = [...charts.values()].flatMap(({ title, rows }) => {
    const who = rows.filter((row) => row.figure === null && row.instead === '');
    return who.map((row) => ({ title, contender: row.contender }));
  });
  return [...groupBy(missing, (one) => one.contender)].map(([contender, own]) => {
    const titles = own.map(({ title }) => title);
    const most = 4;
    const more = titles.length > most ? [`${titles.length - most} more figures`] : [];
    return `Not known of ${nameOf(contender)}: ${listed([...titles.slice(0, most), ...more])}.`;
  });
}
