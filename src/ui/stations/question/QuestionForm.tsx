import { useEffect } from 'react';
import type { DifferenceProposal } from '../../../core/answers/plan';
import { FieldInput } from '../../records/FieldInput';
import type { FieldSpec } from '../../records/fields';
import { ConflictNote } from '../../records/RecordForm';
import { SaveNote } from '../../records/SaveNote';
import { field, SmallestDifferences, type PhotoFigure } from './SmallestDifferences';
import { useRecord, type Value, type Values } from '../../records/use-record';

interface QuestionFormProps {
  path: string;
  values: Values;
  version: number;
  contenders: readonly { value: string; label: string }[];
  /** Figures on photos that were measured, with what they are called and their unit. */
  photoFigures: readonly PhotoFigure[];
  /** Values for the smallest differences, with what they are taken from. */
  proposals: readonly DifferenceProposal[];
}

const SMALLEST = ['accuracy_mm', 'surface', 'time_pct', 'success_pct'];
const OF_PHOTOS = 'photo:';
/** Whether a field is a smallest difference of interest: of figures on photos there are many. */
const isSmallest = (name: string) => SMALLEST.includes(name) || name.startsWith(OF_PHOTOS);
const COST = ['currency', 'tariff_per_kwh', 'wage_per_h', 'lifetime_h'];

/** What a figure's value is multiplied by to be shown: a share of 0.01 is shown as 1 %. */
type Factors = Readonly<Record<string, number>>;

export const factorsOf = (figures: QuestionFormProps['photoFigures']): Factors =>
  Object.fromEntries(figures.map(({ key, factor }) => [key, factor]));

/** A value in another unit, without the digits that binary fractions add. */
const scaled = (value: Value, factor: number): Value =>
  typeof value === 'number' ? Number((value * factor).toPrecision(12)) : value;

const allScaled = (values: Values, factorOf: (name: string) => number): Values =>
  Object.fromEntries(
    Object.entries(values).map(([name, value]) => [name, scaled(value, factorOf(name))]),
  );

/** The study's record has objects in it; a form has fields, in the units that people type. */
export function flattenMeta(meta: Record<string, unknown>, factors: Factors): Values {
  const inner = (key: string) => (meta[key] ?? {}) as Record<string, Value>;
  const take = (names: readonly string[], from: Record<string, Value>) =>
    Object.fromEntries(names.map((name) => [name, from[name] ?? null]));
  return {
    ...take(['title', 'question', 'intent', 'factor', 'reference', 'description'], meta as Values),
    ...take(SMALLEST, inner('smallest_difference')),
    ...allScaled(inner('smallest_difference'), (name) => factors[name] ?? 1),
    ...take(COST, inner('cost')),
  };
}

const INTENTS = [
  { value: 'machines', label: 'machines: each at its own profile' },
  { value: 'same-settings', label: 'same settings: machines differ, settings must match' },
  { value: 'tuning', label: 'tuning: stock against tuned on the same machine' },
  { value: 'before-after', label: 'before and after: one machine, one change between' },
  { value: 'crossed', label: 'crossed: machines × profiles, or another factor' },
  { value: 'sweep', label: 'sweep: one setting in steps on one machine' },
];

/** Of a study that came from a package: its contenders name their materials there. */
const MATERIALS = { value: 'materials', label: 'materials: plastics differ, the machine is held' };

/** What a crossed study crosses machines with. */
const FACTORS = [
  { value: 'kind', label: 'the profile: stock or tuned' },
  { value: 'slicer', label: 'the slicing program' },
  { value: 'origin', label: 'where the profile comes from' },
  { value: 'material', label: 'the material' },
];

/** The change for the API from a field's value: groups are sent whole. */
const changeOf =
  (factors: Factors) =>
  (name: string, value: Value, saved: Values): Record<string, unknown> => {
    const isOfCost = COST.includes(name);
    if (!isOfCost && !isSmallest(name)) return { [name]: value };
    const isOfGroup = isOfCost ? (each: string) => COST.includes(each) : isSmallest;
    const known = Object.fromEntries(Object.entries(saved).filter(([each]) => isOfGroup(each)));
    const group = allScaled({ ...known, [name]: value }, (each) => 1 / (factors[each] ?? 1));
    return { [isOfCost ? 'cost' : 'smallest_difference']: group };
  };

/** Puts the cursor into the field that the address names, `#reference`. */
function useAskedField() {
  useEffect(() => {
    const focus = () => {
      const asked = document.getElementById(decodeURIComponent(location.hash.slice(1)));
      asked?.querySelector<HTMLElement>('input, select, textarea')?.focus();
    };
    focus();
    window.addEventListener('hashchange', focus);
    return () => window.removeEventListener('hashchange', focus);
  }, []);
}

/** What is asked, by which intent, against which reference, and what difference would matter. */
export function QuestionForm(props: QuestionFormProps) {
  const { path, values, version, contenders, photoFigures, proposals } = props;
  const factors = factorsOf(photoFigures);
  const record = useRecord(
    {
      path,
      toChange: changeOf(factors),
      fromAnswer: (answer) => flattenMeta(answer, factors),
    },
    values,
    version,
  );
  useAskedField();
  const show = (spec: FieldSpec) => (
    <div key={spec.name} id={spec.name} className="scroll-mt-3">
      <FieldInput
        field={spec}
        value={record.values[spec.name] ?? null}
        issue={record.issues[spec.name]}
        onCommit={(value) => record.commit(spec.name, value)}
      />
    </div>
  );
  return (
    <form
      onSubmit={(event) => event.preventDefault()}
      className="grid grid-cols-1 gap-3 lg:grid-cols-[3fr_2fr]"
    >
      <section className="grid content-start gap-3 sheet p-4">
        <h2 className="font-semibold">What is asked</h2>
        {show(field('title', 'title', 'text', null, { required: true }))}
        {show(field('question', 'question, as your readers would ask it', 'long'))}
        {show(
          field('intent', 'what varies on purpose', 'choice', null, {
            required: true,
            options: record.values.intent === 'materials' ? [...INTENTS, MATERIALS] : INTENTS,
          }),
        )}
        {record.values.intent === 'crossed' &&
          show(field('factor', 'second factor', 'choice', null, { options: FACTORS }))}
        {show(
          field('reference', 'reference, compared with all others', 'choice', null, {
            options: contenders,
          }),
        )}
        {contenders.length === 0 && (
          <p className="text-xs text-ink-2">
            <a className="underline" href={`${path}/line-up`}>
              Add contenders
            </a>{' '}
            first, then choose the reference here.
          </p>
        )}
        {show(field('description', 'description', 'long'))}
      </section>
      <div className="grid content-start gap-3">
        <SmallestDifferences
          show={show}
          photoFigures={photoFigures}
          proposals={proposals}
          values={record.values}
          onTake={({ field: name, value }) => record.commit(name, value)}
        />
        <section className="grid grid-cols-2 gap-3 sheet p-4">
          <h2 className="col-span-full font-semibold">Costs</h2>
          {show(field('currency', 'currency', 'text', 'ISO 4217'))}
          {show(field('tariff_per_kwh', 'electricity price', 'number', 'per kWh'))}
          {show(field('wage_per_h', 'hourly wage', 'number', 'per h'))}
          {show(field('lifetime_h', 'machine lifetime', 'number', 'h'))}
        </section>
        <div>
          <SaveNote state={record.state} />
          {record.changedByOthers.length > 0 && (
            <p role="alert" className="text-xs text-warn">
              Someone else changed {record.changedByOthers.join(', ')}. You see the newer value.
            </p>
          )}
          <ConflictNote record={record} nameOf={(name) => name.replaceAll('_', ' ')} />
        </div>
      </div>
    </form>
  );
}
