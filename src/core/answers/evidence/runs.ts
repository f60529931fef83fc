import { printHours } from '../../measures/reliability';
import { timedPrints } from '../../measures/speed';
import { counted, inWords, type Print, type StudyIndex } from '../../model/study';
import { byStratum } from './strata';
import { evidenceTable, type Evidence, type EvidenceTable } from './evidence';

const minutes = (seconds: number | null): string | null =>
  seconds === null ? null : (seconds / 60).toFixed(1);

function timesTable(index: StudyIndex, title: string, prints: readonly Print[]): EvidenceTable {
  return evidenceTable(
    title,
    [
      'artefact and material',
      'print',
      ['repeat'],
      ['printing min'],
      ['estimated min'],
      ['actual/estimate'],
      'outcome',
    ],
    byStratum(index, prints, (print) => print.print_id).map(({ item: print, stratum }) => [
      stratum,
      print.print_id,
      print.repeat,
      minutes(print.print_s),
      minutes(print.estimate_s),
      print.print_s !== null && print.estimate_s !== null
        ? (print.print_s / print.estimate_s).toFixed(3)
        : null,
      print.outcome,
    ]),
  );
}

/** Evidence of a contender's printing times, of all artefacts or one. */
export function speedEvidence(
  index: StudyIndex,
  contenderId: string,
  artefactId: string | null,
): Evidence {
  const prints = timedPrints(index, contenderId).filter(
    (print) => artefactId === null || print.artefact_id === artefactId,
  );
  const artefact = artefactId === null ? null : index.artefacts.get(artefactId);
  return {
    title: artefact ? `Printing time, ${artefact.name}` : 'Printing time',
    sentence:
      `${counted(prints.length, 'finished print')} with a known printing time. Heating and ` +
      'pauses are listed separately.',
    formula: 'Median of the printing times of prints that ended as success or rescued.',
    tables: [timesTable(index, 'Prints', prints)],
    notes: [],
  };
}

/** Evidence of the time index against the reference. */
export function timePairEvidence(
  index: StudyIndex,
  contenderId: string,
  reference: string,
): Evidence {
  return {
    title: 'Time index',
    sentence:
      'The ratio of geometric mean printing times, over the artefacts, each in one material, that both have finished.',
    formula:
      'exp of the difference of the logarithms of printing times, averaged over the artefacts ' +
      'and materials in common; interval from t with Satterthwaite’s degrees of freedom, shared ' +
      'out over the comparisons after Šidák.',
    tables: [
      timesTable(index, 'Prints of the contender', timedPrints(index, contenderId)),
      timesTable(index, 'Prints of the reference', timedPrints(index, reference)),
    ],
    notes: [],
  };
}

/** Evidence of a contender's share of successes. */
export function reliabilityEvidence(index: StudyIndex, contenderId: string): Evidence {
  const prints = index.printsOfContender.get(contenderId) ?? [];
  const incidents = prints.flatMap((print) => index.incidentsOfPrint.get(print.print_id) ?? []);
  return {
    title: 'Share of successes',
    sentence:
      `${prints.filter((print) => print.outcome === 'success').length} of ${prints.length} ` +
      'prints ended as a success.',
    formula:
      'Successes over attempts with the exact interval of Clopper and Pearson. Without the ' +
      'operator’s mistakes: prints that are no success and all of whose incidents have cause ' +
      'operator are left out.',
    tables: [
      evidenceTable(
        'Incidents',
        ['print', 'mode', 'cause', ['downtime min'], { label: 'note', isList: true }],
        incidents.map((row) => [
          row.print_id,
          inWords(row.mode),
          inWords(row.cause),
          minutes(row.downtime_s),
          row.note,
        ]),
      ),
      evidenceTable(
        'Prints',
        ['print', 'artefact', ['repeat'], 'outcome', ['hours']],
        prints.map((print) => {
          const hours = printHours(print);
          return [
            print.print_id,
            index.artefacts.get(print.artefact_id)?.name ?? print.artefact_id,
            print.repeat,
            print.outcome,
            hours === null ? null : hours.toFixed(2),
          ];
        }),
      ),
    ],
    notes: [],
  };
}

/** Evidence of what a contender's good part of an artefact costs. */
export function costEvidence(
  index: StudyIndex,
  contenderId: string,
  artefactId: string,
): Evidence | null {
  const artefact = index.artefacts.get(artefactId);
  if (!artefact) return null;
  const attempts = (index.printsOfContender.get(contenderId) ?? []).filter(
    (print) => print.artefact_id === artefactId,
  );
  const hands = (print: Print): number | null => {
    const incidents = index.incidentsOfPrint.get(print.print_id) ?? [];
    return incidents.length === 0
      ? null
      : incidents.reduce((sum, row) => sum + (row.hands_s ?? 0), 0);
  };
  return {
    title: `Cost of a good part, ${artefact.name}`,
    sentence:
      `${counted(attempts.length, 'attempt')}, the failed ones included, over the good parts ` +
      'that came of them.',
    formula:
      '(filament g · price per kg/1000 + energy Wh/1000 · tariff + hours · price paid/lifetime + ' +
      'hands s/3600 · wage) summed over all attempts, over the good copies. Interval: bootstrap ' +
      'over prints.',
    tables: [
      evidenceTable(
        'Attempts',
        ['print', 'outcome', ['filament g'], ['energy Wh'], ['hours'], ['hands-on min'], ['parts']],
        attempts.map((print) => [
          print.print_id,
          print.outcome,
          print.filament_g,
          print.energy_wh,
          printHours(print)?.toFixed(2) ?? null,
          minutes(hands(print)),
          index.specimensOfPrint.get(print.print_id)?.length ?? 0,
        ]),
      ),
    ],
    notes: [],
  };
}
