import { placesOf, placesText } from '../core/statistics/compare';
import {
  plainStandings,
  standingsOf,
  type ArtefactStandings,
  type MeshKnown,
  type StandingStudy,
} from '../core/answers/standings';
import type { Study } from '../core/model/study';
import { itemWords } from '../core/answers/fairness';
import { InputError } from './input-error';
import { readStudy } from './read-study';
import { ends, fixed, table } from './text-table';

export interface StandingsFlags {
  json?: boolean;
  /** Id of the artefact in one of the studies; all where it is not said. */
  artefact?: string;
  alpha?: number;
  /** Whether each warning is named, in place of once for those of one kind. */
  all?: boolean;
}

/** `vergleich standings`: everyone who printed an artefact, over several packages. */
export async function runStandings(paths: readonly string[], flags: StandingsFlags): Promise<void> {
  const studies: StandingStudy[] = [];
  for (const path of paths) {
    const { study, meshes = new Map<string, MeshKnown>() } = await readStudy(
      path,
      'meshes',
      flags.all,
    );
    studies.push({ study, meshes });
  }
  const all = standingsOf(studies, flags.alpha);
  const asked = all.filter(({ members }) =>
    members.some(
      ({ artefact }) => artefact.artefact_id === (flags.artefact ?? artefact.artefact_id),
    ),
  );
  if (flags.artefact !== undefined && asked.length === 0) {
    const known = all.flatMap(({ members }) => members.map((one) => one.artefact.artefact_id));
    throw new InputError(
      `no study has an artefact ${flags.artefact}; there are ${[...new Set(known)].join(', ')}`,
    );
  }
  const text = flags.json
    ? `${JSON.stringify({ artefacts: plainStandings(asked) })}\n`
    : asked
        .map((one) =>
          render(
            one,
            studies.map(({ study }) => study),
          ),
        )
        .join('\n');
  await new Promise<void>((resolve, reject) => {
    process.stdout.write(text, (error) => (error ? reject(error) : resolve()));
  });
}

function render({ name, identity, rows }: ArtefactStandings, studies: readonly Study[]): string {
  const labelOf = (study: string, contender: string) =>
    studies
      .filter(({ meta }) => meta.name === study)
      .flatMap(({ tables }) => tables.contenders)
      .find((row) => row.contender_id === contender)?.label ?? contender;
  const places = placesOf(
    rows.map(({ mae_mm }) => mae_mm),
    false,
  );
  const lines = [
    `${name}${identity === null ? '' : `, mesh ${identity.slice(0, 8)}`}`,
    ...table(
      [
        'place',
        'contender',
        'study',
        'MAE, mm',
        'interval',
        'time, s',
        'success',
        'surface',
        'prints',
        'not as the first',
      ],
      rows.map((row, at) => [
        places[at] ? placesText(places[at]) : '',
        labelOf(row.study, row.contender),
        row.study,
        fixed(row.mae_mm.estimate, 3),
        ends(row.mae_mm, 3),
        fixed(row.print_s.estimate, 0),
        fixed(row.success.estimate, 2),
        fixed(row.surface.estimate, 1),
        String(row.prints),
        row.differs.map(itemWords).join(', '),
      ]),
    ),
  ];
  return `${lines.join('\n')}\n`;
}
