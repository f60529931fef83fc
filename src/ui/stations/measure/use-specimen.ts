import {
  useCallback,
  useEffect,
  useRef,
  useState,
  type Dispatch,
  type RefObject,
  type SetStateAction,
} from 'react';
import { v7 as uuid } from 'uuid';
import type { SpecimenMeasurements } from '../../../contract/specimens';
import { asItStands, callApi } from '../../kit/request';
import { concerns, useStudyNews } from '../../lib/live';
import { localIso } from '../../lib/entry';
import { enqueue, listWaiting, OUTBOX_EVENT, sendWaiting } from '../../lib/outbox';
import { readOperator } from '../../lib/operator';

/** A reading at the bench. */
export interface BenchReading {
  reading_id: string;
  specimen_id: string;
  dimension_id: string;
  value_mm: number;
  instrument_id: string | null;
}

/** What is known of a dimension of the specimen at hand. */
export interface BenchCell {
  readings: readonly BenchReading[];
  isUnmeasurable: boolean;
}

type Step =
  | { kind: 'reading'; reading: BenchReading }
  | { kind: 'unmeasured'; specimen_id: string; dimension_id: string };

type Known = Readonly<Record<string, Readonly<Record<string, BenchCell>>>>;

const NOTHING: BenchCell = { readings: [], isUnmeasurable: false };

export interface SpecimenBench {
  cellOf: (dimensionId: string) => BenchCell;
  measuredOf: (specimenId: string) => number | null;
  /** Whether what was measured before could not be asked for. */
  isBlind: boolean;
  /** Entries that the server has not confirmed yet. */
  pending: ReadonlySet<string>;
  keep: (dimensionId: string, value_mm: number, instrumentId: string | null) => void;
  markUnmeasurable: (dimensionId: string) => void;
  /** Takes the last entry of this session back; says where it was. */
  /** Asks for all readings again. */
  refreshAll: () => void;
  undo: () => { specimenId: string; dimensionId: string } | null;
}

/** The specimen at hand: what was measured, what is kept now, and taking it back. */
export function useSpecimen(studyId: string, specimenId: string | null): SpecimenBench {
  const [known, setKnown] = useState<Known>({});
  /** The specimens of which it has come what was measured before: of others there may be more. */
  const [loaded, setLoaded] = useState<ReadonlySet<string>>(new Set());
  const [blind, setBlind] = useState<ReadonlySet<string>>(new Set());
  const [pending, setPending] = useState<ReadonlySet<string>>(new Set());
  const steps = useRef<Step[]>([]);
  const undone = useRef(new Set<string>());
  const base = `/studies/${studyId}`;

  const change = useCallback(
    (specimen: string, dimension: string, to: (cell: BenchCell) => BenchCell) =>
      setKnown((all) => {
        const cells = all[specimen] ?? {};
        return { ...all, [specimen]: { ...cells, [dimension]: to(cells[dimension] ?? NOTHING) } };
      }),
    [],
  );

  const isLoaded = specimenId !== null && loaded.has(specimenId);
  useEffect(() => {
    if (specimenId === null || isLoaded) return;
    let isStale = false;
    callApi<SpecimenMeasurements>('GET', `${base}/specimens/${specimenId}/measurements`).then(
      (found) => {
        if (isStale) return;
        const held = (all: Known) => cellsFrom(specimenId, found, all, undone.current);
        setKnown((all) => ({ ...all, [specimenId]: held(all) }));
        setLoaded((all) => new Set(all).add(specimenId));
      },
      () => !isStale && setBlind((all) => new Set(all).add(specimenId)),
    );
    return () => {
      isStale = true;
    };
  }, [base, specimenId, isLoaded]);

  const refreshAll = useRefreshing({
    specimenId,
    isLoaded,
    base,
    setKnown,
    undone,
    setLoaded,
    studyId,
  });

  useEffect(() => {
    const look = () =>
      void listWaiting().then((found) => setPending(new Set(found.map((entry) => entry.id))));
    look();
    window.addEventListener(OUTBOX_EVENT, look);
    return () => window.removeEventListener(OUTBOX_EVENT, look);
  }, []);

  const send = useCallback((entry: Parameters<typeof enqueue>[0]) => {
    void enqueue(entry).then(sendWaiting);
  }, []);

  const { keep, markUnmeasurable, undo } = useEntries({
    specimenId,
    known,
    change,
    steps,
    send,
    base,
    undone,
  });

  const cellOf = (dimensionId: string) =>
    (specimenId === null ? undefined : known[specimenId]?.[dimensionId]) ?? NOTHING;
  const measuredOf = (id: string) => {
    const cells = known[id];
    if (!cells || !loaded.has(id) || blind.has(id)) return null;
    return Object.values(cells).filter((cell) => cell.isUnmeasurable || cell.readings.length > 0)
      .length;
  };
  const isBlind = specimenId !== null && blind.has(specimenId);
  return { cellOf, measuredOf, isBlind, pending, keep, markUnmeasurable, undo, refreshAll };
}

interface RefreshingGiven {
  specimenId: string | null;
  isLoaded: boolean;
  base: string;
  setKnown: Dispatch<SetStateAction<Readonly<Record<string, Readonly<Record<string, BenchCell>>>>>>;
  undone: RefObject<Set<string>>;
  setLoaded: Dispatch<SetStateAction<ReadonlySet<string>>>;
  studyId: string;
}

/** Asks for the readings again when they change elsewhere. */
function useRefreshing({
  specimenId,
  isLoaded,
  base,
  setKnown,
  undone,
  setLoaded,
  studyId,
}: RefreshingGiven) {
  const refresh = async () => {
    if (specimenId === null || !isLoaded) return;
    const idsWaiting = async () => (await listWaiting()).map(({ id }) => id);
    const before = await idsWaiting();
    const path = `${base}/specimens/${specimenId}/measurements`;
    const found = await asItStands(() => callApi<SpecimenMeasurements>('GET', path));
    // What was entered here and had not arrived when the answer was made is not in it.
    const waiting = new Set([...before, ...(await idsWaiting())]);
    setKnown((all) => ({
      ...all,
      [specimenId]: cellsNow(specimenId, found, all[specimenId] ?? {}, {
        isOnItsWay: (id) => waiting.has(id),
        isUndone: (id) => undone.current.has(id),
      }),
    }));
  };
  /** Asks for the readings of all specimens again: the others when they come to hand. */
  const refreshAll = () => {
    if (specimenId !== null) {
      setKnown((all) => (all[specimenId] ? { [specimenId]: all[specimenId] } : {}));
      setLoaded((all) => new Set([...all].filter((id) => id === specimenId)));
    }
    refresh().catch(() => undefined);
  };
  useStudyNews(studyId, (news) => {
    if (concerns(news, 'readings', 'unmeasured')) refreshAll();
  });
  return refreshAll;
}

interface EntriesGiven {
  specimenId: string | null;
  known: Readonly<Record<string, Readonly<Record<string, BenchCell>>>>;
  change: (specimen: string, dimension: string, to: (cell: BenchCell) => BenchCell) => void;
  steps: RefObject<Step[]>;
  send: (entry: Parameters<typeof enqueue>[0]) => void;
  base: string;
  undone: RefObject<Set<string>>;
}

/** Keeps readings and what cannot be measured, and takes the last entry of this session back. */
function useEntries({ specimenId, known, change, steps, send, base, undone }: EntriesGiven) {
  const keep = (dimensionId: string, value_mm: number, instrument_id: string | null) => {
    if (specimenId === null) return;
    const reading: BenchReading = {
      reading_id: uuid(),
      specimen_id: specimenId,
      dimension_id: dimensionId,
      value_mm,
      instrument_id,
    };
    const before = known[specimenId]?.[dimensionId]?.readings.length ?? 0;
    change(specimenId, dimensionId, (cell) => ({ ...cell, readings: [...cell.readings, reading] }));
    steps.current.push({ kind: 'reading', reading });
    send({
      id: reading.reading_id,
      method: 'POST',
      path: `${base}/readings`,
      content: {
        ...reading,
        trial: before + 1,
        operator: readOperator() || null,
        at: localIso(new Date()),
      },
    });
  };

  const markUnmeasurable = (dimensionId: string) => {
    if (specimenId === null) return;
    change(specimenId, dimensionId, (cell) => ({ ...cell, isUnmeasurable: true }));
    steps.current.push({ kind: 'unmeasured', specimen_id: specimenId, dimension_id: dimensionId });
    send({
      id: uuid(),
      method: 'POST',
      path: `${base}/rows/unmeasured`,
      content: {
        specimen_id: specimenId,
        dimension_id: dimensionId,
        reason: null,
        operator: readOperator() || null,
        at: localIso(new Date()),
      },
    });
  };

  const undo = () => {
    const step = steps.current.pop();
    if (!step) return null;
    if (step.kind === 'reading') {
      const { reading_id, specimen_id, dimension_id } = step.reading;
      undone.current.add(reading_id);
      change(specimen_id, dimension_id, (cell) => ({
        ...cell,
        readings: cell.readings.filter((reading) => reading.reading_id !== reading_id),
      }));
      send({
        id: uuid(),
        method: 'DELETE',
        path: `${base}/readings/${reading_id}`,
        content: { at: localIso(new Date()) },
      });
      return { specimenId: specimen_id, dimensionId: dimension_id };
    }
    const { specimen_id, dimension_id } = step;
    change(specimen_id, dimension_id, (cell) => ({ ...cell, isUnmeasurable: false }));
    send({
      id: uuid(),
      method: 'DELETE',
      path: `${base}/rows/unmeasured/${encodeURIComponent(specimen_id)}/${encodeURIComponent(dimension_id)}`,
      content: { version: 1 },
    });
    return { specimenId: specimen_id, dimensionId: dimension_id };
  };
  return { keep, markUnmeasurable, undo };
}

/** The cells of a specimen as the server knows them, with what was entered here meanwhile. */
function cellsFrom(
  specimenId: string,
  found: SpecimenMeasurements,
  all: Known,
  undone: ReadonlySet<string>,
): Record<string, BenchCell> {
  const cells: Record<string, BenchCell> = { ...all[specimenId] };
  const ownIds = new Set(
    Object.values(cells).flatMap((cell) => cell.readings.map((r) => r.reading_id)),
  );
  for (const reading of found.readings) {
    if (ownIds.has(reading.reading_id) || undone.has(reading.reading_id)) continue;
    const cell = cells[reading.dimension_id] ?? NOTHING;
    const known: BenchReading = { ...reading, specimen_id: specimenId };
    cells[reading.dimension_id] = { ...cell, readings: [...cell.readings, known] };
  }
  for (const { dimension_id } of found.unmeasured) {
    cells[dimension_id] = { ...(cells[dimension_id] ?? NOTHING), isUnmeasurable: true };
  }
  return cells;
}

interface Own {
  /** Whether an entry of this browser may not have arrived yet. */
  isOnItsWay: (id: string) => boolean;
  /** Whether a reading was taken back here. */
  isUndone: (id: string) => boolean;
}

/**
 * The cells of a specimen as the server knows them now, after somebody else has changed them: with what is
 * on its way from here, and without what was taken back here.
 *
 * @param held the cells as they are shown
 */
export function cellsNow(
  specimenId: string,
  found: SpecimenMeasurements,
  held: Readonly<Record<string, BenchCell>>,
  { isOnItsWay, isUndone }: Own,
): Record<string, BenchCell> {
  const cells: Record<string, BenchCell> = {};
  const add = (id: string, reading: BenchReading) => {
    const cell = cells[id] ?? NOTHING;
    cells[id] = { ...cell, readings: [...cell.readings, reading] };
  };
  const there = new Set(found.readings.map(({ reading_id }) => reading_id));
  for (const reading of found.readings) {
    if (!isUndone(reading.reading_id)) {
      add(reading.dimension_id, { ...reading, specimen_id: specimenId });
    }
  }
  for (const [id, cell] of Object.entries(held)) {
    for (const reading of cell.readings) {
      if (!there.has(reading.reading_id) && isOnItsWay(reading.reading_id)) add(id, reading);
    }
  }
  for (const { dimension_id } of found.unmeasured) {
    cells[dimension_id] = { ...(cells[dimension_id] ?? NOTHING), isUnmeasurable: true };
  }
  return cells;
}
