import { useMemo, useState } from 'react';
import type { ContenderMark } from '../../../core/model/study';
import type { SpecimenFacts } from '../../../data';
import type { MeasureBenchData } from '../../../server/measure/page';
import { askedSpecimen } from '../../lib/asked-specimen';
import { fixed, signed } from '../../lib/format';
import { callApi } from '../../kit/request';
import { concerns, useStudyNews } from '../../lib/live';
import { useRemembered } from '../../lib/remembered';
import { BenchDrawing } from './BenchDrawing';
import { BenchHead, NO_INSTRUMENT } from './BenchHead';
import { DimensionList } from './DimensionList';
import { MoveReadings } from './MoveReadings';
import { PastedColumn } from './PastedColumn';
import { focusReading, ReadingField, type BenchCommand } from './ReadingField';
import { SpecimenStrip } from './SpecimenStrip';
import { useSpecimen } from './use-specimen';
import { ZeroField } from './ZeroField';
import { ZeroLine } from './ZeroLine';

interface MeasureBenchProps extends MeasureBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  /** The specimen that the address asks for. */
  asked: string | null;
}

const INSTRUMENT_KEY = 'vergleich.instrument';
const BLIND_KEY = 'vergleich.blind';

/** Where to begin: what the address asks for, else the first specimen that is not all measured. */
function firstSpecimen(props: MeasureBenchProps, order: readonly SpecimenFacts[]): string | null {
  const { asked, dimensions } = props;
  const wanted = askedSpecimen(order, asked);
  const open = order.find((one) => one.measured < (dimensions[one.artefact_id]?.length ?? 0));
  return (wanted ?? open ?? order[0])?.specimen_id ?? null;
}

/** Measuring at the keyboard: a value, Enter, the next dimension, the next specimen. */
export function MeasureBench(props: MeasureBenchProps) {
  const { studyId, dimensions, instruments, marks, drawings, readings: wanted } = props;
  const [blindness, rememberBlindness] = useRemembered(BLIND_KEY);
  const isBlind = blindness === 'blind';
  const [facts, setFacts] = useState(props.specimens);
  useStudyNews(studyId, (news) => {
    if (!concerns(news, 'readings', 'unmeasured', 'specimens', 'prints')) return;
    const shown = new Set(props.specimens.map((one) => one.specimen_id));
    callApi<SpecimenFacts[]>('GET', `/studies/${studyId}/specimens`).then(
      (found) => setFacts(found.filter((one) => shown.has(one.specimen_id))),
      () => undefined,
    );
  });
  const specimens = useMemo(() => {
    const place = new Map(props.shuffled.map((id, at) => [id, at]));
    const placeOf = (one: SpecimenFacts) => place.get(one.specimen_id) ?? 0;
    return isBlind ? [...facts].sort((a, b) => placeOf(a) - placeOf(b)) : facts;
  }, [facts, props.shuffled, isBlind]);
  const [specimenId, setSpecimenId] = useState(() => firstSpecimen(props, props.specimens));
  const specimen = specimens.find((one) => one.specimen_id === specimenId) ?? null;
  const list = useMemo(
    () => (specimen ? (dimensions[specimen.artefact_id] ?? []) : []),
    [dimensions, specimen],
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const [last, setLast] = useState<string | null>(null);
  const [remembered, rememberInstrument] = useRemembered(INSTRUMENT_KEY);
  const isOffered =
    remembered === NO_INSTRUMENT || instruments.some((one) => one.id === remembered);
  const chosenInstrument = isOffered ? remembered : (instruments[0]?.id ?? NO_INSTRUMENT);
  const instrument = instruments.find((one) => one.id === chosenInstrument) ?? null;
  const [zeros, setZeros] = useState(props.zeros);
  const [sinceZero, setSinceZero] = useState(0);
  const [isZeroing, setZeroing] = useState(false);
  const [pasted, setPasted] = useState<readonly number[] | null>(null);
  const [announcement, setAnnouncement] = useState('');
  const bench = useSpecimen(studyId, specimenId);

  const isOpen = (id: string) => {
    const cell = bench.cellOf(id);
    return cell.readings.length < wanted && !cell.isUnmeasurable;
  };
  const current =
    list.find((one) => one.id === chosen) ?? list.find((one) => isOpen(one.id)) ?? list[0];
  const zeroOf = (id: string | null) => instruments.find((one) => one.id === id)?.zero_mm ?? 0;
  const markOf = (id: string) =>
    isBlind ? undefined : marks.find((mark) => mark.contender_id === id);

  const goTo = (id: string | null, dimension: string | null = null) => {
    if (id === null) return;
    // What is half typed stays where it is.
    if (id === specimenId && dimension === null) return focusReading();
    setSpecimenId(id);
    setChosen(dimension);
    setLast(null);
    setPasted(null);
    const url = new URL(location.href);
    url.searchParams.set('specimen', id);
    history.replaceState(null, '', url);
  };
  const step = (by: number) => {
    const at = specimens.findIndex((one) => one.specimen_id === specimenId);
    const next = specimens[at + by];
    if (next) goTo(next.specimen_id);
    else {
      setAnnouncement(
        by > 0
          ? 'That was the last specimen: check the zero once more (Z).'
          : 'This is the first specimen.',
      );
    }
  };
  /** On to the next dimension that needs a reading; after the last one, stay on the list's end. */
  const advance = (from: string, isOwedMore: boolean) => {
    setLast(from);
    if (isOwedMore) return setChosen(from);
    const at = list.findIndex((one) => one.id === from);
    const after = [...list.slice(at + 1), ...list.slice(0, at)].find((one) => isOpen(one.id));
    setChosen((after ?? list[at + 1] ?? list[at])?.id ?? null);
    if (!after)
      setAnnouncement('All dimensions of this specimen are measured: Ctrl Enter goes on.');
  };
  const keep = (dimensionId: string, value: number) => {
    bench.keep(dimensionId, value, instrument?.id ?? null);
    setSinceZero((count) => count + 1);
  };
  const command = (asked: BenchCommand) => {
    setAnnouncement('');
    if (!current) return;
    const at = list.findIndex((one) => one.id === current.id);
    switch (asked) {
      case 'next':
        return step(1);
      case 'previous':
        return step(-1);
      case 'up':
        return setChosen(list[Math.max(0, at - 1)]?.id ?? null);
      case 'down':
        return setChosen(list[Math.min(list.length - 1, at + 1)]?.id ?? null);
      case 'skip':
        return list.some((one) => isOpen(one.id))
          ? setChosen(list[(at + 1) % list.length]?.id ?? null)
          : step(1);
      case 'again':
        return setChosen(last ?? current.id);
      case 'zero':
        return instrument
          ? setZeroing(true)
          : setAnnouncement('Choose an instrument first: a zero is of an instrument.');
      case 'blind':
        rememberBlindness(isBlind ? '' : 'blind');
        return setAnnouncement(
          isBlind
            ? 'The order of the prints, contenders shown.'
            : 'Shuffled, and whose part it is stays hidden.',
        );
      case 'unmeasurable':
        bench.markUnmeasurable(current.id);
        setAnnouncement(`${current.name}: cannot be measured.`);
        return advance(current.id, false);
      case 'undo': {
        const undone = bench.undo();
        if (!undone) return setAnnouncement('Nothing to undo in this session.');
        if (undone.specimenId !== specimenId) goTo(undone.specimenId, undone.dimensionId);
        else setChosen(undone.dimensionId);
        return setAnnouncement('The last entry was taken back.');
      }
    }
  };
  const onCode = (text: string): boolean => {
    const found = specimens.find(
      (one) => one.code?.toLowerCase() === text.toLowerCase() || one.specimen_id === text,
    );
    if (!found) return false;
    goTo(found.specimen_id);
    return true;
  };

  if (!specimen || !current) {
    return (
      <p className="sheet p-4">
        Nothing to measure yet: a specimen comes from a finished print of an artefact that has
        dimensions.
      </p>
    );
  }
  const cell = bench.cellOf(current.id);
  const drawing = drawings[specimen.artefact_id];
  const pasteTargets = list.slice(list.findIndex((one) => one.id === current.id));
  const deviations = list.flatMap((one) => {
    const values = bench.cellOf(one.id).readings;
    if (values.length === 0) return [];
    const total = values.reduce((sum, row) => sum + row.value_mm - zeroOf(row.instrument_id), 0);
    return [total / values.length - one.nominal_mm];
  });
  const shareOf = (one: SpecimenFacts) =>
    (bench.measuredOf(one.specimen_id) ?? one.measured) /
    Math.max(1, dimensions[one.artefact_id]?.length ?? 1);
  return (
    <>
      <BenchHead
        studyId={studyId}
        specimen={specimen}
        mark={markOf(specimen.contender_id)}
        isBlind={isBlind}
        instruments={instruments}
        instrument={chosenInstrument}
        onInstrument={rememberInstrument}
        onCommand={command}
      />
      {instrument && (
        <ZeroLine
          studyId={studyId}
          instrument={instrument}
          zeros={zeros}
          sinceZero={sinceZero}
          onCheck={() => setZeroing(true)}
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
              onChoose={setChosen}
            />
          </div>
        )}
        <div
          className={`order-1 grid min-w-0 grid-cols-1 gap-2 lg:row-start-1 ${drawing ? 'lg:col-start-2' : ''}`}
        >
          {isZeroing && instrument ? (
            <ZeroField
              studyId={studyId}
              instrument={instrument}
              onKept={(zero) => {
                setZeros((all) => [...all, zero]);
                setSinceZero(0);
                setZeroing(false);
              }}
              onCancel={() => setZeroing(false)}
            />
          ) : pasted ? (
            <PastedColumn
              values={pasted}
              targets={pasteTargets}
              zero_mm={zeroOf(instrument?.id ?? null)}
              onKeep={() => {
                pasted.forEach((value, at) => keep(pasteTargets[at]?.id ?? current.id, value));
                setAnnouncement(`${pasted.length} readings kept.`);
                setPasted(null);
                setChosen(null);
              }}
              onCancel={() => setPasted(null)}
            />
          ) : (
            <ReadingField
              dimension={current}
              key={`${specimen.specimen_id}/${current.id}`}
              earlier={cell.readings.map((row) => row.value_mm - zeroOf(row.instrument_id))}
              zero_mm={zeroOf(instrument?.id ?? null)}
              onKeep={(value) => {
                setAnnouncement('');
                keep(current.id, value);
                advance(current.id, cell.readings.length + 1 < wanted);
              }}
              onTyping={() => setChosen(current.id)}
              onCommand={command}
              onCode={onCode}
              onPaste={setPasted}
            />
          )}
          <BenchKeys />
          <p role="status" className="min-h-5 px-1">
            {announcement}
            {bench.isBlind && ' The server does not answer: earlier readings are not shown.'}
          </p>
          {!drawing && <SpecimenSummary deviations={deviations} count={list.length} />}
        </div>
        <div
          className={`order-3 min-w-0 lg:col-start-2 ${drawing ? 'lg:row-start-2' : 'lg:row-span-2 lg:row-start-1'}`}
        >
          <div className="overflow-x-auto sheet">
            <DimensionList
              dimensions={list}
              current={current.id}
              cellOf={bench.cellOf}
              zeroOf={zeroOf}
              wanted={wanted}
              pending={bench.pending}
              onChoose={setChosen}
            />
          </div>
          {drawing && <SpecimenSummary deviations={deviations} count={list.length} />}
          <MoveReadings
            key={specimen.specimen_id}
            studyId={studyId}
            specimen={specimen}
            others={specimens.filter(
              (one) =>
                one.artefact_id === specimen.artefact_id &&
                one.specimen_id !== specimen.specimen_id,
            )}
            readingIds={list.flatMap((one) =>
              bench.cellOf(one.id).readings.map((row) => row.reading_id),
            )}
            onMoved={bench.refreshAll}
          />
        </div>
      </div>
      <section className="mt-3 sheet p-3" aria-label="Specimens">
        <SpecimenStrip
          specimens={specimens.filter((one) => one.artefact_id === specimen.artefact_id)}
          current={specimenId}
          markOf={markOf}
          shareOf={shareOf}
          onChoose={goTo}
        />
      </section>
    </>
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
  ['Enter', 'keeps it and goes on'],
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
    <ul className="flex flex-wrap gap-x-3 gap-y-1 px-1 text-xs text-ink-2">
      {BENCH_KEYS.map(([keys, does]) => (
        <li key={keys} data-keys={keys} data-does={does}>
          <kbd className="key">{keys}</kbd> {does}
        </li>
      ))}
      <li>or scan a sticker</li>
    </ul>
  );
}
