import type { BenchDimension } from '../../../contract/measure';
import type { SpecimenFacts } from '../../../contract/specimens';
import { fixed, signed } from '../../lib/format';
import { BenchDrawing } from './BenchDrawing';
import { BenchHead } from './BenchHead';
import { DimensionList } from './DimensionList';
import { MoveReadings } from './MoveReadings';
import { PastedColumn } from './PastedColumn';
import { ReadingField } from './ReadingField';
import { SpecimenStrip } from './SpecimenStrip';
import { ZeroField } from './ZeroField';
import { ZeroLine } from './ZeroLine';
import { useMeasuring, type Measuring, type MeasureBenchProps } from './use-measuring';
import type { BenchCell } from './use-specimen';

/** Measuring at the keyboard: a value, Enter, the next dimension, the next specimen. */
export function MeasureBench(props: MeasureBenchProps) {
  const { studyId, dimensions, instruments, drawings, readings: wanted } = props;
  const bench = useMeasuring(props);
  const { specimen, current, pasted } = bench;

  if (!specimen || !current) {
    return (
      <p className="sheet p-4">
        Nothing to measure yet: a specimen comes from a finished print of an artefact that has
        dimensions.
      </p>
    );
  }
  const cell = bench.readings.cellOf(current.id);
  const drawing = drawings[specimen.artefact_id];
  const pasteTargets = bench.list.slice(bench.list.findIndex((one) => one.id === current.id));
  const deviations = deviationsOf(bench);
  const shareOf = (one: SpecimenFacts) =>
    (bench.readings.measuredOf(one.specimen_id) ?? one.measured) /
    Math.max(1, dimensions[one.artefact_id]?.length ?? 1);
  return (
    <>
      <BenchHead
        studyId={studyId}
        specimen={specimen}
        mark={bench.markOf(specimen.contender_id)}
        isBlind={bench.isBlind}
        instruments={instruments}
        instrument={bench.chosenInstrument}
        onInstrument={bench.rememberInstrument}
        onCommand={bench.command}
      />
      {bench.instrument && (
        <ZeroLine
          studyId={studyId}
          instrument={bench.instrument}
          zeros={bench.zeros}
          sinceZero={bench.sinceZero}
          onCheck={() => bench.setZeroing(true)}
        />
      )}
      <div
        className={
          'grid grid-cols-1 items-start gap-3 lg:grid-rows-[auto_1fr] ' +
          `${drawing ? 'lg:grid-cols-[minmax(0,11fr)_minmax(0,10fr)]' : 'lg:grid-cols-2'}`
        }
      >
        {drawing && (
          <div className="order-2 min-w-0 lg:col-start-1 lg:row-span-2 lg:row-start-1">
            <BenchDrawing
              drawing={drawing}
              artefact={specimen.artefact}
              present={current.id}
              onChoose={bench.setChosen}
            />
          </div>
        )}
        <EntryColumn
          drawing={drawing}
          bench={bench}
          studyId={studyId}
          pasted={pasted}
          pasteTargets={pasteTargets}
          current={current}
          specimen={specimen}
          cell={cell}
          wanted={wanted}
          deviations={deviations}
        />
        <ReadColumn
          drawing={drawing}
          bench={bench}
          current={current}
          wanted={wanted}
          deviations={deviations}
          specimen={specimen}
          studyId={studyId}
        />
      </div>
      <OtherSpecimens bench={bench} specimen={specimen} shareOf={shareOf} />
    </>
  );
}

interface OtherSpecimensProps {
  bench: ReturnType<typeof useMeasuring>;
  specimen: SpecimenFacts;
  shareOf: (one: SpecimenFacts) => number;
}

/** The other specimens of the artefact, each with how much of it is measured. */
function OtherSpecimens({ bench, specimen, shareOf }: OtherSpecimensProps) {
  return (
    <section className="mt-3 sheet p-3" aria-label="Specimens">
      <SpecimenStrip
        specimens={bench.specimens.filter((one) => one.artefact_id === specimen.artefact_id)}
        current={bench.specimenId}
        markOf={bench.markOf}
        shareOf={shareOf}
        onChoose={bench.goTo}
      />
    </section>
  );
}

/** Deviations of the dimensions that are measured, mm: the mean of the readings of each, zero taken off. */
function deviationsOf(bench: Measuring): number[] {
  return bench.list.flatMap((one) => {
    const values = bench.readings.cellOf(one.id).readings;
    if (values.length === 0) return [];
    const total = values.reduce(
      (sum, row) => sum + row.value_mm - bench.zeroOf(row.instrument_id),
      0,
    );
    return [total / values.length - one.nominal_mm];
  });
}

interface EntryColumnProps {
  drawing: MeasureBenchProps['drawings'][string] | undefined;
  bench: Measuring;
  studyId: string;
  pasted: readonly number[] | null;
  pasteTargets: BenchDimension[];
  current: BenchDimension;
  specimen: SpecimenFacts;
  cell: BenchCell;
  wanted: number;
  deviations: number[];
}

/** The field for the reading, or what stands in its place: a zero check, a pasted column. */
function EntryColumn({
  drawing,
  bench,
  studyId,
  pasted,
  pasteTargets,
  current,
  specimen,
  cell,
  wanted,
  deviations,
}: EntryColumnProps) {
  return (
    <div
      className={`order-1 grid min-w-0 grid-cols-1 gap-2 lg:row-start-1 ${drawing ? 'lg:col-start-2' : ''}`}
    >
      {bench.isZeroing && bench.instrument ? (
        <ZeroField
          studyId={studyId}
          instrument={bench.instrument}
          onKept={(zero) => {
            bench.setZeros((all) => [...all, zero]);
            bench.setSinceZero(0);
            bench.setZeroing(false);
          }}
          onCancel={() => bench.setZeroing(false)}
        />
      ) : pasted ? (
        <PastedColumn
          values={pasted}
          targets={pasteTargets}
          zero_mm={bench.zeroOf(bench.instrument?.id ?? null)}
          onKeep={() => {
            pasted.forEach((value, at) => bench.keep(pasteTargets[at]?.id ?? current.id, value));
            bench.setAnnouncement(`${pasted.length} readings saved.`);
            bench.setPasted(null);
            bench.setChosen(null);
          }}
          onCancel={() => bench.setPasted(null)}
        />
      ) : (
        <ReadingField
          dimension={current}
          key={`${specimen.specimen_id}/${current.id}`}
          earlier={cell.readings.map((row) => row.value_mm - bench.zeroOf(row.instrument_id))}
          zero_mm={bench.zeroOf(bench.instrument?.id ?? null)}
          onKeep={(value) => {
            bench.setAnnouncement('');
            bench.keep(current.id, value);
            bench.advance(current.id, cell.readings.length + 1 < wanted);
          }}
          onTyping={() => bench.setChosen(current.id)}
          onCommand={bench.command}
          onCode={bench.onCode}
          onPaste={bench.setPasted}
        />
      )}
      <BenchKeys />
      <p role="status" className="min-h-5 px-1">
        {bench.announcement}
        {bench.readings.isBlind && ' The server does not answer: earlier readings are not shown.'}
      </p>
      {!drawing && <SpecimenSummary deviations={deviations} count={bench.list.length} />}
    </div>
  );
}

interface ReadColumnProps {
  drawing: MeasureBenchProps['drawings'][string] | undefined;
  bench: Measuring;
  current: BenchDimension;
  wanted: number;
  deviations: number[];
  specimen: SpecimenFacts;
  studyId: string;
}

/** What has been read of the specimen. */
function ReadColumn({
  drawing,
  bench,
  current,
  wanted,
  deviations,
  specimen,
  studyId,
}: ReadColumnProps) {
  return (
    <div
      className={`order-3 min-w-0 lg:col-start-2 ${drawing ? 'lg:row-start-2' : 'lg:row-span-2 lg:row-start-1'}`}
    >
      <div className="overflow-x-auto sheet">
        <DimensionList
          dimensions={bench.list}
          current={current.id}
          cellOf={bench.readings.cellOf}
          zeroOf={bench.zeroOf}
          wanted={wanted}
          pending={bench.readings.pending}
          onChoose={bench.setChosen}
        />
      </div>
      {drawing && <SpecimenSummary deviations={deviations} count={bench.list.length} />}
      <MoveReadings
        key={specimen.specimen_id}
        studyId={studyId}
        specimen={specimen}
        others={bench.specimens.filter(
          (one) =>
            one.artefact_id === specimen.artefact_id && one.specimen_id !== specimen.specimen_id,
        )}
        readingIds={bench.list.flatMap((one) =>
          bench.readings.cellOf(one.id).readings.map((row) => row.reading_id),
        )}
        onMoved={bench.readings.refreshAll}
      />
    </div>
  );
}

interface SpecimenSummaryProps {
  /** Deviations of the dimensions that are measured, mm. */
  deviations: readonly number[];
  /** Dimensions of the specimen. */
  count: number;
}

/** How far off the specimen at hand is so far. */
function SpecimenSummary({ deviations, count }: SpecimenSummaryProps) {
  if (deviations.length === 0) return null;
  const mean = (values: readonly number[]) =>
    values.reduce((sum, one) => sum + one, 0) / values.length;
  return (
    <p className="mt-2 px-1 text-ink-2" data-mark="specimen-summary">
      This specimen so far: mean absolute deviation{' '}
      <b className="font-mono text-ink">{fixed(mean(deviations.map(Math.abs)), 3)}</b> mm, bias{' '}
      <b className="font-mono text-ink">{signed(mean(deviations), 3)}</b> mm, {deviations.length} of{' '}
      {count} dimensions.
    </p>
  );
}

const BENCH_KEYS = [
  ['Enter', 'saves and goes on'],
  ['R', 'read again'],
  ['U', 'undo'],
  ['X', 'cannot be measured'],
  ['Z', 'zero check'],
  ['B', 'shuffled and hidden'],
  ['↑ ↓', 'another dimension'],
  ['PgDn', 'next specimen'],
] as const;

function BenchKeys() {
  return (
    <ul className="flex keys-only flex-wrap gap-x-3 gap-y-1 px-1 text-xs text-ink-2">
      {BENCH_KEYS.map(([keys, does]) => (
        <li key={keys} data-keys={keys} data-does={does}>
          <kbd className="key">{keys}</kbd> {does}
        </li>
      ))}
      <li>or scan a sticker</li>
    </ul>
  );
}
