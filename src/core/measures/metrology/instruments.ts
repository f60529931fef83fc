import type { StudyIndex } from '../../model/study';
import type { Measurements } from './cells';

/** What an instrument did in a study. */
export interface InstrumentUse {
  /** Readings taken with it that count. */
  readings: number;
  /** Places that it read twice or more: what its repeatability is seen from. */
  repeated: number;
  /** Pooled standard deviation of readings of one place, mm; null where none was read twice. */
  repeatability_mm: number | null;
}

/** What every instrument of a study did, by its id; readings that name none are left out. */
export function instrumentsOfAll(
  index: StudyIndex,
  { readBy, repeatability }: Measurements,
): Record<string, InstrumentUse> {
  return Object.fromEntries(
    index.study.tables.instruments.map(({ instrument_id }) => {
      const own = readBy.get(instrument_id) ?? [];
      return [
        instrument_id,
        {
          readings: own.reduce((sum, { values }) => sum + values.length, 0),
          repeated: own.filter(({ values }) => values.length > 1).length,
          repeatability_mm: repeatability.get(instrument_id) ?? null,
        },
      ];
    }),
  );
}
