import { SpecimenPicker } from '../../lib/SpecimenPicker';
import type { SetStateAction, Dispatch } from 'react';
import type { ContenderMark, LADDER_RESULTS } from '../../../core/model/study';
import type { BenchLadder } from '../../../contract/measure';
import type { Stored } from '../../../contract/rows';
import { Badge } from '../../marks/Badge';
import { FunctionChecks } from './FunctionChecks';
import { LadderDrawing } from './LadderDrawing';
import { STEP_RESULTS } from './results';
import { useLadders, type LadderBenchProps } from './use-ladders';
import type { InTurn } from '../../kit/use-serial-queue';
import type { Latest } from '../../kit/use-latest';

/** Ladders at the bench: a key for each step, then the next one, then the next specimen. */
export function LadderBench(props: LadderBenchProps) {
  const { studyId, marks, specimens, checks } = props;
  const {
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
  } = useLadders(props);

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
      <LadderHead
        mark={mark}
        specimen={specimen}
        setSpecimenId={setSpecimenId}
        setPlace={setPlace}
        setMessage={setMessage}
        specimens={specimens}
        go={go}
      />
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
        <LaddersAtHand
          numbered={numbered}
          resultOf={resultOf}
          place={place}
          setPlace={setPlace}
          keep={keep}
          message={message}
          specimen={specimen}
          studyId={studyId}
          checks={checks}
          functions={functions}
          inTurn={inTurn}
        />
      </div>
    </>
  );
}

interface LaddersAtHandProps {
  numbered: { ladder: BenchLadder; steps: { place: number; step: number; value: number }[] }[];
  resultOf: (ladder: string, step: number) => Stored<'ladder_results'> | undefined;
  place: number;
  setPlace: Dispatch<SetStateAction<number>>;
  keep: (result: (typeof LADDER_RESULTS)[number]) => Promise<void>;
  message: string;
  specimen: LadderBenchProps['specimens'][number];
  studyId: string;
  checks: LadderBenchProps['checks'];
  functions: Latest<readonly Stored<'function_results'>[]>;
  inTurn: InTurn;
}

/** The ladders of the specimen at hand. */
function LaddersAtHand({
  numbered,
  resultOf,
  place,
  setPlace,
  keep,
  message,
  specimen,
  studyId,
  checks,
  functions,
  inTurn,
}: LaddersAtHandProps) {
  return (
    <div className="grid gap-3">
      {numbered.map(({ ladder, steps }) => (
        <LadderSteps
          key={ladder.ladder_id}
          ladder={ladder}
          steps={steps}
          resultOf={resultOf}
          place={place}
          setPlace={setPlace}
        />
      ))}
      <StepKeys keep={keep} />
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
  );
}

interface StepKeysProps {
  keep: (result: (typeof LADDER_RESULTS)[number]) => Promise<void>;
}

/** What can be said of a step. */
function StepKeys({ keep }: StepKeysProps) {
  return (
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
  );
}

interface LadderStepsProps {
  ladder: BenchLadder;
  steps: { place: number; step: number; value: number }[];
  resultOf: (ladder: string, step: number) => Stored<'ladder_results'> | undefined;
  place: number;
  setPlace: Dispatch<SetStateAction<number>>;
}

/** One ladder, step by step. */
function LadderSteps({ ladder, steps, resultOf, place, setPlace }: LadderStepsProps) {
  return (
    <section className="sheet p-3" aria-label={ladder.name}>
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
              aria-label={`${ladder.name} ${step.value}: ${said?.word ?? 'no result'}`}
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
  );
}

interface LadderHeadProps {
  mark: ContenderMark | undefined;
  specimen: LadderBenchProps['specimens'][number];
  setSpecimenId: Dispatch<SetStateAction<string | null>>;
  setPlace: Dispatch<SetStateAction<number>>;
  setMessage: Dispatch<SetStateAction<string>>;
  specimens: LadderBenchProps['specimens'];
  go: (by: number) => void;
}

/** Which specimen is at hand. */
function LadderHead({
  mark,
  specimen,
  setSpecimenId,
  setPlace,
  setMessage,
  specimens,
  go,
}: LadderHeadProps) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3">
      <h1 className="text-lg font-semibold">Ladders and checks</h1>
      {mark && <Badge mark={mark} />}
      <SpecimenPicker
        specimens={specimens}
        value={specimen.specimen_id}
        onChoose={(id) => {
          setSpecimenId(id);
          setPlace(0);
          setMessage('');
        }}
      />
      <button type="button" className="action md:ml-auto" onClick={() => go(1)}>
        Next specimen <kbd className="key">PgDn</kbd>
      </button>
    </div>
  );
}
