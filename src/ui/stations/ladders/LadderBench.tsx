import { useState } from 'react';
import type { ContenderMark } from '../../../core/model/study';
import type { LadderBenchData } from '../../../server/measure/ladder-page';
import type { LADDER_RESULTS } from '../../../core/model/study';
import { callApi, failureText } from '../../kit/request';
import { useInTurn } from '../../kit/use-in-turn';
import { useKeys } from '../../kit/use-keys';
import { useLatest } from '../../kit/use-latest';
import { askedSpecimen } from '../../lib/asked-specimen';
import { sendOrKeep } from '../../lib/outbox';
import { Badge } from '../../marks/Badge';
import { FunctionChecks } from './FunctionChecks';
import { LadderDrawing } from './LadderDrawing';
import { STEP_RESULTS } from './results';

interface LadderBenchProps extends LadderBenchData {
  studyId: string;
  marks: readonly ContenderMark[];
  asked: string | null;
}

/** Where to begin: what the address asks for, else the first specimen of which not every step is said. */
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

/** Ladders at the bench: a key for each step, then the next one, then the next specimen. */
export function LadderBench(props: LadderBenchProps) {
  const { studyId, marks, specimens, ladders, checks } = props;
  const [results, setResults] = useState(props.results);
  const functions = useLatest<readonly LadderBenchProps['functions'][number][]>(props.functions);
  const inTurn = useInTurn();
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
    // The hand does not wait: the next step is ready at once, what is said is sent behind it.
    const row_version = before ? before.row_version + 1 : 1;
    setResults((known) => [...known.filter((one) => one !== before), { ...row, row_version }]);
    if (place + 1 < places.length) setPlace(place + 1);
    setMessage(
      place + 1 < places.length ? '' : 'All steps of this specimen are said: PgDn goes on.',
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
        ...known.filter(
          (one) =>
            one.specimen_id !== specimenId ||
            one.ladder_id !== current.ladder ||
            one.step !== current.step,
        ),
        ...(before ? [before] : []),
      ]);
      setMessage(`${current.value} was not kept: ${failureText(error)}`);
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

  if (!specimen) {
    return (
      <p className="sheet p-4">
        Nothing to try yet: a specimen comes from a finished print of an artefact that has a ladder.
      </p>
    );
  }
  const mark = marks.find((one) => one.contender_id === specimen.contender_id);
  const placeOf = (ladder: string, step: number) =>
    places.findIndex((one) => one.ladder === ladder && one.step === step);
  const sides = own.some((ladder) => ladder.steps.some((step) => step.place))
    ? props.drawings[specimen.artefact_id]
    : undefined;
  const signOf = (ladder: string, step: number) =>
    STEP_RESULTS.find((one) => one.result === resultOf(ladder, step)?.result)?.sign;
  const numbered = own.map((ladder) => ({
    ladder,
    steps: ladder.steps.map((step) => ({ ...step, place: placeOf(ladder.ladder_id, step.step) })),
  }));
  return (
    <>
      <p className="text-xs">
        <a href={`/studies/${studyId}/measure`}>Dimensions</a>
      </p>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-lg font-semibold">Ladders and checks</h1>
        {mark && <Badge mark={mark} />}
        <select
          className="field w-auto"
          aria-label="Specimen"
          value={specimen.specimen_id}
          onChange={(event) => {
            setSpecimenId(event.target.value);
            setPlace(0);
            setMessage('');
          }}
        >
          {specimens.map((one) => (
            <option key={one.specimen_id} value={one.specimen_id}>
              {one.code ?? one.specimen_id} · {one.artefact}
            </option>
          ))}
        </select>
        <button type="button" className="action md:ml-auto" onClick={() => go(1)}>
          Next specimen <kbd className="key">PgDn</kbd>
        </button>
      </div>
      <div
        className={sides ? 'grid items-start gap-3 xl:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]' : ''}
      >
        {sides && (
          <LadderDrawing
            artefact={specimen.artefact}
            sides={sides}
            ladders={own}
            present={places[place] ?? null}
            signOf={signOf}
            onChoose={(ladder, step) => setPlace(placeOf(ladder, step))}
          />
        )}
        <div className="grid gap-3">
          {numbered.map(({ ladder, steps }) => (
            <section key={ladder.ladder_id} className="sheet p-3" aria-label={ladder.name}>
              <h2 className="mb-2 font-semibold">
                {ladder.name} <span className="font-normal text-ink-2">{ladder.unit}</span>
              </h2>
              <div className="flex flex-wrap gap-1.5">
                {steps.map((step) => {
                  const said = STEP_RESULTS.find(
                    (one) => one.result === resultOf(ladder.ladder_id, step.step)?.result,
                  );
                  return (
                    <button
                      key={step.step}
                      type="button"
                      aria-pressed={step.place === place}
                      aria-label={`${ladder.name} ${step.value}: ${said?.word ?? 'nothing said'}`}
                      className={`min-w-16 rounded-sm border px-2 py-1.5 text-center ${
                        step.place === place ? 'border-plum bg-plum-soft' : 'border-line'
                      } ${said ? '' : 'unknown'}`}
                      onClick={() => setPlace(step.place)}
                    >
                      <span className="block font-mono text-lg">{step.value}</span>
                      <span className="block text-2xs text-ink-2">
                        {said ? `${said.sign} ${said.word}` : ' '}
                      </span>
                    </button>
                  );
                })}
              </div>
            </section>
          ))}
          <div
            className="flex flex-wrap gap-1.5 max-md:sticky max-md:bottom-0 max-md:z-10 max-md:bg-desk max-md:py-2"
            role="group"
            aria-label="How the step went"
          >
            {STEP_RESULTS.map((one) => (
              <button
                key={one.result}
                type="button"
                className="action min-h-[44px]"
                data-keys={one.key.toUpperCase()}
                data-does={`the step is ${one.word}`}
                onClick={() => void keep(one.result)}
              >
                {one.sign} {one.word} <kbd className="key">{one.key.toUpperCase()}</kbd>
              </button>
            ))}
          </div>
          <p role="status" className="min-h-5">
            {message}
          </p>
          <FunctionChecks
            key={specimen.specimen_id}
            studyId={studyId}
            specimenId={specimen.specimen_id}
            known={checks[specimen.artefact_id] ?? []}
            functions={functions}
            inTurn={inTurn}
          />
        </div>
      </div>
    </>
  );
}
