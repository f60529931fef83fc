import type { ContenderMark, LADDER_RESULTS } from '../../../core/model/study';
import type { LadderBenchData } from '../../../contract/measure';
import { STEP_RESULTS } from './results';
import { useState } from 'react';
import { callApi, failureText } from '../../kit/request';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { useKeys } from '../../kit/use-keys';
import { useLatest } from '../../kit/use-latest';
import { askedSpecimen } from '../../lib/asked-specimen';
import { sendOrKeep } from '../../lib/outbox';

/** A result is of one step of one ladder of one specimen. */
const keyOf = (row: { specimen_id: string; ladder_id: string; step: number }): string =>
  `${row.specimen_id} ${row.ladder_id} ${row.step}`;

/** The specimen at hand, the step at hand, and its result. */
export function useLadders(props: LadderBenchProps) {
  const { specimens, ladders, studyId } = props;
  const [results, setResults] = useState(props.results);
  const functions = useLatest<readonly LadderBenchProps['functions'][number][]>(props.functions);
  const inTurn = useSerialQueue();
  const [specimenId, setSpecimenId] = useState(() => firstSpecimen(props));
  const [place, setPlace] = useState(0);
  const [message, setMessage] = useState('');
  const specimen = specimens.find((one) => one.specimen_id === specimenId);
  const own = specimen ? (ladders[specimen.artefact_id] ?? []) : [];
  const places = own.flatMap((ladder) =>
    ladder.steps.map((step) => ({ ladder: ladder.ladder_id, ...step })),
  );
  const resultOf = (ladder: string, step: number) =>
    results.find(
      (row) => row.specimen_id === specimenId && row.ladder_id === ladder && row.step === step,
    );
  const go = (by: number) => {
    const at = specimens.findIndex((one) => one.specimen_id === specimenId);
    const next = specimens[at + by];
    if (!next) return setMessage(by > 0 ? 'That was the last specimen.' : 'This is the first one.');
    setSpecimenId(next.specimen_id);
    setPlace(0);
    setMessage('');
  };
  const keep = async (result: (typeof LADDER_RESULTS)[number]) => {
    const current = places[place];
    if (!current || !specimenId) return;
    const row = {
      specimen_id: specimenId,
      ladder_id: current.ladder,
      step: current.step,
      result,
    };
    const before = resultOf(current.ladder, current.step);
    const base = `/studies/${studyId}/rows/ladder_results`;
    // The hand does not wait: the next step is ready at once, the result is sent behind it.
    const row_version = before ? before.row_version + 1 : 1;
    setResults((known) => [...known.filter((one) => one !== before), { ...row, row_version }]);
    if (place + 1 < places.length) setPlace(place + 1);
    setMessage(
      place + 1 < places.length
        ? ''
        : 'All steps of this specimen are done. PgDn goes to the next one.',
    );
    try {
      // What was said of the step before is there when it is changed.
      await inTurn<unknown>(() => {
        if (!before) return sendOrKeep(base, row);
        const key = [specimenId, current.ladder, current.step].map(encodeURIComponent).join('/');
        const change = { version: before.row_version, change: { result } };
        return callApi('PATCH', `${base}/${key}`, change);
      });
    } catch (error) {
      setResults((known) => [
        ...known.filter((one) => keyOf(one) !== keyOf(row)),
        ...(before ? [before] : []),
      ]);
      setMessage(`${current.value} was not saved: ${failureText(error)}`);
    }
  };
  useKeys((event) => {
    if (event.altKey) return null;
    const said = STEP_RESULTS.find((one) => one.key === event.key.toLowerCase());
    if (said) return () => void keep(said.result);
    const keys: Record<string, () => void> = {
      ArrowRight: () => setPlace(Math.min(places.length - 1, place + 1)),
      ArrowLeft: () => setPlace(Math.max(0, place - 1)),
      PageDown: () => go(1),
      PageUp: () => go(-1),
    };
    return keys[event.key] ?? null;
  });
  return {
    functions,
    inTurn,
    setSpecimenId,
    place,
    setPlace,
    message,
    setMessage,
    specimen,
    own,
    places,
    resultOf,
    go,
    keep,
  };
}

/** Where to begin: what the address asks for, else the first specimen that has a step without a result. */
function firstSpecimen({ specimens, asked, ladders, results }: LadderBenchProps): string | null {
  const said = new Map<string, number>();
  for (const { specimen_id } of results) said.set(specimen_id, (said.get(specimen_id) ?? 0) + 1);
  const open = specimens.find(({ specimen_id, artefact_id }) => {
    const own = ladders[artefact_id] ?? [];
    const steps = own.reduce((sum, ladder) => sum + ladder.steps.length, 0);
    return (said.get(specimen_id) ?? 0) < steps;
  });
  return (askedSpecimen(specimens, asked) ?? open ?? specimens[0])?.specimen_id ?? null;
}

export interface LadderBenchProps extends LadderBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  asked: string | null;
}
