import {
  accuracyEvidence,
  fitEvidence,
  groupEvidence,
  toleranceEvidence,
  type Evidence,
} from '../../evidence';
import { accuracyOfAll, cellsOfType, type Cell } from '../../../measures/metrology';
import { AXES, type Axis, isOneOf } from '../../../model/study';
import { MEASURED, type Section } from '../section';

/** How true each contender's parts are to their nominal sizes. */
export const accuracy: Section<'accuracy'> = {
  name: 'accuracy',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, alpha, measurements }) => {
    const measured = measurements();
    return measured && accuracyOfAll(index, measured, alpha);
  },
  evidence: ({ index, alpha, measurements }, { contender, key }) => {
    const measured = measurements();
    if (!measured) return null;
    const cells = measured.cellsOfContender.get(contender) ?? [];
    const [what = '', ...rest] = key.split('.');
    switch (what) {
      case 'tolerance':
      case 'max_abs_mm':
        return toleranceEvidence(index, measured, contender);
      case 'by_axis':
      case 'by_kind':
      case 'by_size':
        return groupEvidence(index, measured, contender, rest[0] ?? '');
      case 'fit':
        return fitOf(cells, rest[0]);
      case 'fit_by_type': {
        // `fit_by_type.PETG.x.scale`
        const [type, axis] = [rest.slice(0, -2).join('.'), rest.at(-2)];
        return fitOf(cellsOfType(index, cells, type), axis);
      }
      default:
        return WHOLE.has(what) ? accuracyEvidence(index, measured, contender, alpha) : null;
    }
  },
};

/** What is of all a contender's parts together. */
const WHOLE: ReadonlySet<string> = new Set([
  'bias_mm',
  'mae_mm',
  'rmse_mm',
  'mean_abs_pct',
  'repeatability_mm',
  'systematic_mm',
  'it_grade',
  'it_value',
  'prints',
  'specimens',
  'dimensions',
  'readings',
]);

const isAxis = (text: string | undefined): text is Axis => isOneOf(AXES, text);

const fitOf = (cells: readonly Cell[], axis: string | undefined): Evidence | null =>
  isAxis(axis) ? fitEvidence(cells, axis) : null;
