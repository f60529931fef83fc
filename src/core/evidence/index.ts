import { measure } from '../metrology';
import { AXES, indexStudy, type Axis, type Study } from '../study';
import {
  accuracyEvidence,
  accuracyPairEvidence,
  fitEvidence,
  groupEvidence,
  toleranceEvidence,
} from './accuracy';
import type { Evidence } from './evidence';
import { costEvidence, reliabilityEvidence, speedEvidence, timePairEvidence } from './runs';

export type { Evidence, EvidenceTable } from './evidence';

/**
 * What a figure was computed from. A figure is named by a path: `accuracy/<contender>`,
 * `group/<contender>/<axis, kind or range of size>`, `tolerance/<contender>`, `fit/<contender>/<axis>`,
 * `pair/<contender>`, `speed/<contender>[/<artefact>]`, `time/<contender>`,
 * `reliability/<contender>`, `incidents/<contender>`, `cost/<contender>/<artefact>`.
 *
 * @returns null where there is no such figure
 */
export function evidenceOf(
  study: Study,
  figure: string,
  reference: string | null,
  alpha: number,
): Evidence | null {
  const index = indexStudy(study);
  const [name, contender = '', part] = figure.split('/');
  const row = index.contenders.get(contender);
  if (!row) return null;
  const evidence = pick(index, name ?? '', contender, part, reference, alpha);
  return evidence && { ...evidence, title: `${row.label}: ${evidence.title}` };
}

function pick(
  index: ReturnType<typeof indexStudy>,
  name: string,
  contender: string,
  part: string | undefined,
  reference: string | null,
  alpha: number,
): Evidence | null {
  switch (name) {
    case 'accuracy':
      return accuracyEvidence(index, measure(index), contender, alpha);
    case 'group':
      return groupEvidence(index, measure(index), contender, part ?? '');
    case 'tolerance':
      return toleranceEvidence(index, measure(index), contender);
    case 'fit':
      return (AXES as readonly string[]).includes(part ?? '')
        ? fitEvidence(measure(index), contender, part as Axis)
        : null;
    case 'pair':
      return reference === null
        ? null
        : accuracyPairEvidence(index, measure(index), contender, reference);
    case 'speed':
      return speedEvidence(index, contender, part ?? null);
    case 'time':
      return reference === null ? null : timePairEvidence(index, contender, reference);
    case 'cost':
      return costEvidence(index, contender, part ?? '');
    case 'incidents':
    case 'reliability':
      return reliabilityEvidence(index, contender);
    default:
      return null;
  }
}
