import type { ContenderMark } from '../../../core/model/study';
import type { BenchDimension, BenchInstrument, MeasureBenchData } from '../../../contract/measure';
import type { SpecimenFacts } from '../../../contract/specimens';
import { useMemo, useState, type SetStateAction, type Dispatch } from 'react';
import { askedSpecimen } from '../../lib/asked-specimen';
import { callApi } from '../../kit/request';
import { concerns, useStudyNews } from '../../lib/live';
import { useRemembered } from '../../lib/remembered';
import { NO_INSTRUMENT } from './BenchHead';
import { focusReading } from './ReadingField';
import type { BenchCommand } from './use-reading-field';
import { useSpecimen, type SpecimenBench } from './use-specimen';

/** The dimension at hand: the one that was chosen, else the first that needs a reading. */
function useCellAtHand(
  props: MeasureBenchProps,
  specimen: SpecimenFacts | null,
  readings: SpecimenBench,
  announce: (text: string) => void,
) {
  const { dimensions, readings: wanted } = props;
  const list = useMemo(
    () => (specimen ? (dimensions[specimen.artefact_id] ?? []) : []),
    [dimensions, specimen],
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const [last, setLast] = useState<string | null>(null);
  const isOpen = (id: string) => {
    const cell = readings.cellOf(id);
    return cell.readings.length < wanted && !cell.isUnmeasurable;
  };
  return {
    list,
    last,
    setChosen,
    isOpen,
    current: list.find((one) => one.id === chosen) ?? list.find((one) => isOpen(one.id)) ?? list[0],
    /** Another specimen is at hand, with a dimension that is asked for or none. */
    begin: (dimension: string | null) => {
      setChosen(dimension);
      setLast(null);
    },
    /** On to the next dimension that needs a reading; after the last one, stay on the list's end. */
    advance: (from: string, isOwedMore: boolean) => {
      setLast(from);
      if (isOwedMore) return setChosen(from);
      const at = list.findIndex((one) => one.id === from);
      const after = [...list.slice(at + 1), ...list.slice(0, at)].find((one) => isOpen(one.id));
      setChosen((after ?? list[at + 1] ?? list[at])?.id ?? null);
      if (!after) announce('All dimensions of this specimen are measured: Ctrl Enter goes on.');
    },
  };
}

/** The specimen and the dimension at hand, with which instrument, and what the keys do. */
export function useMeasuring(props: MeasureBenchProps) {
  const { studyId, instruments, marks } = props;
  const [blindness, rememberBlindness] = useRemembered(BLIND_KEY);
  const isBlind = blindness === 'blind';
  const specimens = useSpecimens(props, isBlind);
  const [specimenId, setSpecimenId] = useState(() => firstSpecimen(props, props.specimens));
  const specimen = specimens.find((one) => one.specimen_id === specimenId) ?? null;
  const hand = useInstrument(props);
  const { instrument } = hand;
  const [isZeroing, setZeroing] = useState(false);
  const [pasted, setPasted] = useState<readonly number[] | null>(null);
  const [announcement, setAnnouncement] = useState('');
  const readings = useSpecimen(studyId, specimenId);

  const cell = useCellAtHand(props, specimen, readings, setAnnouncement);
  const { list, current, setChosen } = cell;
  const zeroOf = (id: string | null) => instruments.find((one) => one.id === id)?.zero_mm ?? 0;
  const markOf = (id: string) =>
    isBlind ? undefined : marks.find((mark) => mark.contender_id === id);

  const { goTo, step } = goingOf({
    specimenId,
    setSpecimenId,
    cell,
    setPasted,
    specimens,
    setAnnouncement,
  });
  const keep = (dimensionId: string, value: number) => {
    readings.keep(dimensionId, value, instrument?.id ?? null);
    hand.setSinceZero((count) => count + 1);
  };
  const command = commandsOf({
    setAnnouncement,
    current,
    list,
    step,
    setChosen,
    isOpen: cell.isOpen,
    last: cell.last,
    instrument,
    setZeroing,
    rememberBlindness,
    isBlind,
    readings,
    advance: cell.advance,
    specimenId,
    goTo,
  });
  const onCode = (text: string): boolean => {
    const found = specimens.find(
      (one) => one.code?.toLowerCase() === text.toLowerCase() || one.specimen_id === text,
    );
    if (!found) return false;
    goTo(found.specimen_id);
    return true;
  };
  return {
    isBlind,
    specimens,
    specimenId,
    specimen,
    ...cell,
    ...hand,
    isZeroing,
    setZeroing,
    pasted,
    setPasted,
    announcement,
    setAnnouncement,
    readings,
    zeroOf,
    markOf,
    goTo,
    keep,
    command,
    onCode,
  };
}

interface GoingOfGiven {
  specimenId: string | null;
  setSpecimenId: Dispatch<SetStateAction<string | null>>;
  cell: ReturnType<typeof useCellAtHand>;
  setPasted: Dispatch<SetStateAction<readonly number[] | null>>;
  specimens: ReturnType<typeof useSpecimens>;
  setAnnouncement: Dispatch<SetStateAction<string>>;
}

/** On to another specimen. */
function goingOf({
  specimenId,
  setSpecimenId,
  cell,
  setPasted,
  specimens,
  setAnnouncement,
}: GoingOfGiven) {
  const goTo = (id: string | null, dimension: string | null = null) => {
    if (id === null) return;
    // What is half typed stays where it is.
    if (id === specimenId && dimension === null) return focusReading();
    setSpecimenId(id);
    cell.begin(dimension);
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
  return { goTo, step };
}

interface CommandsOfGiven {
  setAnnouncement: Dispatch<SetStateAction<string>>;
  current: BenchDimension | undefined;
  list: BenchDimension[];
  step: (by: number) => void;
  setChosen: Dispatch<SetStateAction<string | null>>;
  isOpen: (id: string) => boolean;
  last: string | null;
  instrument: BenchInstrument | null;
  setZeroing: Dispatch<SetStateAction<boolean>>;
  rememberBlindness: (value: string) => void;
  isBlind: boolean;
  readings: SpecimenBench;
  advance: (from: string, isOwedMore: boolean) => void;
  specimenId: string | null;
  goTo: (id: string | null, dimension?: string | null) => void;
}

/** What each command of the reading field does. */
function commandsOf({
  setAnnouncement,
  current,
  list,
  step,
  setChosen,
  isOpen,
  last,
  instrument,
  setZeroing,
  rememberBlindness,
  isBlind,
  readings,
  advance,
  specimenId,
  goTo,
}: CommandsOfGiven) {
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
            : 'Shuffled; contenders stay hidden.',
        );
      case 'unmeasurable':
        readings.markUnmeasurable(current.id);
        setAnnouncement(`${current.name}: cannot be measured.`);
        return advance(current.id, false);
      case 'undo': {
        const undone = readings.undo();
        if (!undone) return setAnnouncement('Nothing to undo in this session.');
        if (undone.specimenId !== specimenId) goTo(undone.specimenId, undone.dimensionId);
        else setChosen(undone.dimensionId);
        return setAnnouncement('The last entry was taken back.');
      }
    }
  };
  return command;
}

/** The instrument in the hand, and its zero. */
function useInstrument(props: MeasureBenchProps) {
  const { instruments } = props;
  const [remembered, rememberInstrument] = useRemembered(INSTRUMENT_KEY);
  const isOffered =
    remembered === NO_INSTRUMENT || instruments.some((one) => one.id === remembered);
  const chosenInstrument = isOffered ? remembered : (instruments[0]?.id ?? NO_INSTRUMENT);
  const instrument = instruments.find((one) => one.id === chosenInstrument) ?? null;
  const [zeros, setZeros] = useState(props.zeros);
  const [sinceZero, setSinceZero] = useState(0);
  return {
    rememberInstrument,
    chosenInstrument,
    instrument,
    zeros,
    setZeros,
    sinceZero,
    setSinceZero,
  };
}

/** The specimens in their order, or shuffled while their names are hidden. */
function useSpecimens(props: MeasureBenchProps, isBlind: boolean) {
  const { studyId } = props;
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
  return specimens;
}

export type Measuring = ReturnType<typeof useMeasuring>;

const BLIND_KEY = 'vergleich.blind';

/** Where to begin: what the address asks for, else the first specimen that is not all measured. */
function firstSpecimen(props: MeasureBenchProps, order: readonly SpecimenFacts[]): string | null {
  const { asked, dimensions } = props;
  const wanted = askedSpecimen(order, asked);
  const open = order.find((one) => one.measured < (dimensions[one.artefact_id]?.length ?? 0));
  return (wanted ?? open ?? order[0])?.specimen_id ?? null;
}

const INSTRUMENT_KEY = 'vergleich.instrument';

export interface MeasureBenchProps extends MeasureBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  /** The specimen that the address asks for. */
  asked: string | null;
}
