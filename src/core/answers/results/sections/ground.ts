import { fairnessOfAll } from '../../fairness';
import { gaugeOfAll } from '../../../measures/gauge';
import { printValues, specimenErrors } from '../../../measures/metrology';
import { pooledScatter } from '../../plan';
import { logPrintTimes } from '../../../measures/speed';
import { contenderIds, LINE_UP, MEASURED, type Section } from '../section';

/** What differs between a contender and the reference besides what the study varies on purpose. */
export const fairness: Section<'fairness'> = {
  name: 'fairness',
  needs: [
    ...MEASURED,
    'materials',
    'profile_settings',
    'inspections',
    'accepted_differences',
    'sliced_files',
  ],
  usesReference: true,
  compute: ({ index, reference }) => fairnessOfAll(index, reference),
};

/** What was claimed, and what was found. */
export const claims: Section<'claims'> = {
  name: 'claims',
  needs: [...LINE_UP, 'claims'],
  usesReference: false,
  compute: ({ index, has }) =>
    has('claims')
      ? index.study.tables.claims.map(({ claim_id, machine_id, finding }) => ({
          claim_id,
          machine_id,
          finding,
        }))
      : null,
};

/** What each instrument is good for. */
export const gauge: Section<'gauge'> = {
  name: 'gauge',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, has }) => (has('readings') ? gaugeOfAll(index) : null),
};

/** How much prints of one contender and artefact scatter: what a plan of repeats is reckoned with. */
export const scatter: Section<'scatter'> = {
  name: 'scatter',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, measurements }) => {
    const measured = measurements();
    return {
      accuracy_mm:
        measured &&
        pooledScatter(
          contenderIds(index).map((contender) =>
            printValues(specimenErrors(measured.cellsOfContender.get(contender) ?? []), 'mae_mm'),
          ),
        ),
      ln_print_s: pooledScatter(
        contenderIds(index).map((contender) => logPrintTimes(index, contender)),
      ),
    };
  },
};
