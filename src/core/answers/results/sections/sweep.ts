import { accuracyPair } from '../../../measures/metrology';
import type { Interval, PrintValues } from '../../../statistics/stats';
import { smallestDifference } from '../../../model/study';
import { surfaceValues } from '../../../measures/surface';
import { sweepOf, type SweepFigure } from '../../../measures/sweep';
import { MEASURED, type Section, type SectionContext } from '../section';
import { photoValues } from './photo-values';
import { INSPECTED } from './surface';

/** How far a setting can be taken before something is lost; of studies that ask that only. */
export const sweep: Section<'sweep'> = {
  name: 'sweep',
  needs: [...MEASURED, ...INSPECTED],
  uses: ['accuracy', 'surface', 'reliability', 'photo', 'speed'],
  usesReference: true,
  compute: (context) => {
    const { alpha, index, reference, resultOf } = context;
    const { intent, sweep: swept } = index.study.meta;
    if (intent !== 'sweep' || !swept) return null;
    const [first] = swept.steps;
    const figures = [
      ...accuracyFigure(context),
      ...surfaceFigure(context),
      successFigure(context),
      ...photoFigures(context),
    ];
    return sweepOf(
      { setting: swept.setting, unit: swept.unit ?? null, steps: swept.steps },
      figures,
      (id) =>
        reference === first?.contender_id ? (resultOf('speed')[id]?.time_index ?? null) : null,
      alpha,
    );
  },
};

/** An interval that has an estimate. */
const known = (interval: Interval | undefined): Interval | null =>
  interval?.estimate == null ? null : interval;

function accuracyFigure({ index, measurements, resultOf }: SectionContext): SweepFigure[] {
  const measured = measurements();
  if (!measured) return [];
  return [
    {
      key: 'accuracy_mm',
      isLargerBetter: false,
      delta: smallestDifference(index.study.meta.smallest_difference, 'accuracy_mm'),
      estimateOf: (id) => known(resultOf('accuracy')?.[id]?.mae_mm),
      comparison: {
        kind: 'values',
        of: (contender, reference) => ({
          contender,
          ...accuracyPair(measured, contender, reference),
        }),
      },
    },
  ];
}

function surfaceFigure({ index, has, resultOf }: SectionContext): SweepFigure[] {
  if (!has('inspections')) return [];
  const valuesOf = surfaceValues(index);
  return [
    {
      key: 'surface',
      isLargerBetter: true,
      delta: smallestDifference(index.study.meta.smallest_difference, 'surface'),
      estimateOf: (id) => known(resultOf('surface')?.[id]?.index),
      comparison: { kind: 'values', of: pairsOf(valuesOf) },
    },
  ];
}

function successFigure({ index, resultOf }: SectionContext): SweepFigure {
  const runsOf = (id: string) => resultOf('reliability')[id]?.without_operator;
  return {
    key: 'success',
    isLargerBetter: true,
    delta: smallestDifference(index.study.meta.smallest_difference, 'success'),
    estimateOf: (id) => known(runsOf(id)?.success),
    comparison: {
      kind: 'shares',
      of: (id) => ({ good: runsOf(id)?.good ?? 0, prints: runsOf(id)?.prints ?? 0 }),
    },
  };
}

/** The figures on photos that have a smallest difference. */
function photoFigures(context: SectionContext): SweepFigure[] {
  const { index, resultOf } = context;
  return Object.entries(index.study.meta.smallest_difference).flatMap(
    ([key, delta]): SweepFigure[] => {
      if (!key.startsWith('photo:') || delta == null) return [];
      const name = key.slice('photo:'.length);
      const figureOf = (id: string) => resultOf('photo')?.[id]?.[name];
      const valuesOf = photoValues(context, name);
      return [
        {
          key,
          isLargerBetter: false,
          delta,
          estimateOf: (id) => known(figureOf(id)?.figure),
          comparison: { kind: 'values', of: pairsOf(valuesOf) },
        },
      ];
    },
  );
}

const pairsOf =
  (valuesOf: (contender: string) => PrintValues) => (contender: string, reference: string) => ({
    contender,
    contenderValues: valuesOf(contender),
    referenceValues: valuesOf(reference),
  });
