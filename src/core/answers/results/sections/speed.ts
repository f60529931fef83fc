import { speedEvidence } from '../../evidence';
import { speedOfAll } from '../../../measures/speed';
import { machineOf, reachOf, type ToolpathFacts } from '../../../toolpath';
import { LINE_UP, PRINTED, type Section } from '../section';

/** Printing times, against the reference and against the files' own estimates. */
export const speed: Section<'speed'> = {
  name: 'speed',
  needs: PRINTED,
  uses: ['pairs'],
  usesReference: true,
  compute: ({ index, reference, alpha, resultOf }) => {
    const rows = resultOf('pairs').ln_print_s ?? [];
    const differenceOf = (contender: string) =>
      rows.find((row) => row.contender === contender)?.difference ?? null;
    return speedOfAll(index, reference, differenceOf, alpha);
  },
  evidence: ({ index }, { contender, key }) => {
    const artefact = /^by_artefact\.(.+)\.[a-z_]+$/.exec(key)?.[1] ?? null;
    const isOfAll = ['time_index', 'estimate_ratio', 'median_print_s', 'prints'].includes(key);
    return artefact !== null || isOfAll ? speedEvidence(index, contender, artefact) : null;
  },
};

/** Claim, command and reach, from the files that the prints and the plan of a contender name. */
export const reach: Section<'reach'> = {
  name: 'reach',
  needs: [...LINE_UP, 'prints', 'planned', 'sliced_files'],
  usesReference: false,
  compute: ({ index, toolpaths }) => {
    const { tables } = index.study;
    if (!toolpaths) return null;
    return Object.fromEntries(
      tables.contenders.map(({ contender_id }) => {
        const paths = new Set(
          [...tables.prints, ...tables.planned].flatMap((row) =>
            row.contender_id === contender_id && row.toolpath !== null ? [row.toolpath] : [],
          ),
        );
        const own = [...paths].sort().flatMap((path): ToolpathFacts[] => {
          const facts = toolpaths.get(path);
          return facts ? [facts] : [];
        });
        return [contender_id, reachOf(own, machineOf(contender_id, tables))];
      }),
    );
  },
};
