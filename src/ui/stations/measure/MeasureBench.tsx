import { useMemo, useState } from 'react';
import type { ContenderMark } from '../../../core/study';
import type { SpecimenFacts } from '../../../data';
import type { MeasureBenchData } from '../../../server/measure-page';
import { Badge } from '../../marks/Badge';
import { fixed, signed } from '../../lib/format';
import { useRemembered } from '../../lib/remembered';
import { DimensionList } from './DimensionList';
import { ReadingField, type BenchCommand } from './ReadingField';
import { SpecimenStrip } from './SpecimenStrip';
import { useSpecimen } from './use-specimen';

interface MeasureBenchProps extends MeasureBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  /** The specimen that the address asks for. */
  asked: string | null;
}

const INSTRUMENT_KEY = 'vergleich.instrument';
const NO_INSTRUMENT = '-';

/** Where to begin: what the address asks for, else the first specimen that is not all measured. */
function firstSpecimen(props: MeasureBenchProps): string | null {
  const { specimens, asked, dimensions } = props;
  const wanted = specimens.find((one) => one.specimen_id === asked || one.code === asked);
  const open = specimens.find((one) => one.measured < (dimensions[one.artefact_id]?.length ?? 0));
  return (wanted ?? open ?? specimens[0])?.specimen_id ?? null;
}

/** Measuring at the keyboard: a value, Enter, the next dimension, the next specimen. */
export function MeasureBench(props: MeasureBenchProps) {
  const { studyId, specimens, dimensions, instruments, marks } = props;
  const [specimenId, setSpecimenId] = useState(() => firstSpecimen(props));
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
  const instrument = chosenInstrument === NO_INSTRUMENT ? null : chosenInstrument;
  const [announcement, setAnnouncement] = useState('');
  const bench = useSpecimen(studyId, specimenId);

  const isOpen = (id: string) => {
    const cell = bench.cellOf(id);
    return cell.readings.length === 0 && !cell.isUnmeasurable;
  };
  const current =
    list.find((one) => one.id === chosen) ?? list.find((one) => isOpen(one.id)) ?? list[0];
  const zeroOf = (id: string | null) => instruments.find((one) => one.id === id)?.zero_mm ?? 0;
  const markOf = (id: string) => marks.find((mark) => mark.contender_id === id);

  const goTo = (id: string | null, dimension: string | null = null) => {
    if (id === null) return;
    setSpecimenId(id);
    setChosen(dimension);
    setLast(null);
    const url = new URL(location.href);
    url.searchParams.set('specimen', id);
    history.replaceState(null, '', url);
  };
  const step = (by: number) => {
    const at = specimens.findIndex((one) => one.specimen_id === specimenId);
    const next = specimens[at + by];
    if (next) goTo(next.specimen_id);
    else setAnnouncement(by > 0 ? 'That was the last specimen.' : 'This is the first specimen.');
  };
  /** On to the next dimension that has no reading; after the last one, stay on the list's end. */
  const advance = (from: string) => {
    setLast(from);
    const at = list.findIndex((one) => one.id === from);
    const after = [...list.slice(at + 1), ...list.slice(0, at)].find((one) => isOpen(one.id));
    setChosen((after ?? list[at + 1] ?? list[at])?.id ?? null);
    if (!after)
      setAnnouncement('All dimensions of this specimen are measured: Ctrl Enter goes on.');
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
      case 'unmeasurable':
        bench.markUnmeasurable(current.id);
        setAnnouncement(`${current.name}: cannot be measured.`);
        return advance(current.id);
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
  const mark = markOf(specimen.contender_id);
  const cell = bench.cellOf(current.id);
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
      <div className="mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
        <h1 className="text-lg font-semibold">Measure</h1>
        <span className="rounded-full border border-line bg-sheet px-2">{specimen.artefact}</span>
        {mark && <Badge mark={mark} />}
        <b className="font-mono">{specimen.code ?? specimen.specimen_id}</b>
        <span className="text-xs text-ink-2">
          print {specimen.print_id}
          {specimen.copy !== null && `, copy ${specimen.copy}`}, repeat {specimen.repeat}
        </span>
        <span className="flex flex-wrap items-center gap-2 md:ml-auto">
          <label className="flex items-center gap-1.5 text-xs text-ink-2">
            instrument
            <select
              className="field w-auto"
              value={chosenInstrument}
              onChange={(event) => rememberInstrument(event.target.value)}
            >
              <option value={NO_INSTRUMENT}>not named</option>
              {instruments.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                  {one.resolution_mm !== null && ` · ${one.resolution_mm} mm`}
                  {one.zero_mm !== null && ` · zero ${signed(one.zero_mm, 2)}`}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="action" onClick={() => step(1)}>
            Next specimen <kbd className="hidden key md:inline">Ctrl ↵</kbd>
          </button>
        </span>
      </div>
      <div className="grid grid-cols-1 items-start gap-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="grid grid-cols-1 gap-3">
          <ReadingField
            dimension={current}
            key={`${specimen.specimen_id}/${current.id}/${cell.readings.length}`}
            earlier={cell.readings.map((row) => row.value_mm - zeroOf(row.instrument_id))}
            zero_mm={zeroOf(instrument)}
            onKeep={(value) => {
              setAnnouncement('');
              bench.keep(current.id, value, instrument);
              advance(current.id);
            }}
            onCommand={command}
            onCode={onCode}
          />
          <BenchKeys />
          <p role="status" className="min-h-5 px-1">
            {announcement}
            {bench.isBlind && ' The server does not answer: earlier readings are not shown.'}
          </p>
          {deviations.length > 0 && (
            <p className="px-1 text-ink-2" data-mark="specimen-summary">
              This specimen so far: mean absolute deviation{' '}
              <b className="font-mono text-ink">
                {fixed(
                  deviations.reduce((sum, one) => sum + Math.abs(one), 0) / deviations.length,
                  3,
                )}
              </b>{' '}
              mm, bias{' '}
              <b className="font-mono text-ink">
                {signed(deviations.reduce((sum, one) => sum + one, 0) / deviations.length, 3)}
              </b>{' '}
              mm, {deviations.length} of {list.length} dimensions.
            </p>
          )}
        </div>
        <div className="overflow-x-auto sheet">
          <DimensionList
            dimensions={list}
            current={current.id}
            cellOf={bench.cellOf}
            zeroOf={zeroOf}
            pending={bench.pending}
            onChoose={setChosen}
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

const BENCH_KEYS = [
  ['Enter', 'keeps it and goes on'],
  ['R', 'read again'],
  ['U', 'undo'],
  ['X', 'cannot be measured'],
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
