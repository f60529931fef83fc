import type { ReactNode } from 'react';
import { Explain } from '../../marks/Explain';
import type { DifferenceProposal } from '../../../core/answers/plan';
import { groupBy } from '../../../core/model/study';
import { reasonInWords } from '../../../core/text/phrasing';
import type { FieldSpec } from '../../records/fields';
import type { Values } from '../../records/use-record';

/** A figure on photos; `group` is the artefact that shows it. */
export interface PhotoFigure {
  key: string;
  label: string;
  unit: string;
  factor: number;
  group: string;
}

/** A field of the question, by its name, label and unit. */
export const field = (
  name: string,
  label: string,
  kind: FieldSpec['kind'],
  unit: string | null = null,
  more: Partial<FieldSpec> = {},
): FieldSpec => ({ name, label, kind, unit, required: false, ...more });

interface SmallestDifferencesProps {
  show: (spec: FieldSpec) => ReactNode;
  photoFigures: readonly PhotoFigure[];
  proposals: readonly DifferenceProposal[];
  values: Values;
  onTake: (proposal: DifferenceProposal) => void;
}

/** The smallest difference that matters, of each figure, with proposed values. */
export function SmallestDifferences(props: SmallestDifferencesProps) {
  const { show, photoFigures, proposals, values, onTake } = props;
  return (
    <section className="grid grid-cols-3 gap-3 sheet p-4">
      <h2 className="col-span-full font-semibold">
        What difference would matter
        <Explain term="smallest-difference" />
      </h2>
      <p className="col-span-full text-xs text-ink-2">
        A verdict calls smaller differences trivial. Without these values no two contenders can be
        shown to be equal.
      </p>
      {show(field('accuracy_mm', 'accuracy', 'number', 'mm'))}
      {show(field('surface', 'surface index', 'number', 'points'))}
      {show(field('time_pct', 'print time', 'number', '%'))}
      {show(field('success_pct', 'success rate', 'number', 'points'))}
      <Proposals proposals={proposals} values={values} onTake={onTake} />
      {[...groupBy(photoFigures, ({ group }) => group)].map(([group, figures]) => (
        <fieldset key={group} className="col-span-full grid grid-cols-2 gap-3">
          <legend className="mb-1 text-xs font-semibold">Photos of {group}</legend>
          {figures.map(({ key, label, unit }) => show(field(key, label, 'number', unit)))}
        </fieldset>
      ))}
    </section>
  );
}

/** Which unit a proposed value is in. */
const PROPOSED_IN = { accuracy_mm: 'mm', time_pct: '%' } as const;

interface ProposalsProps {
  proposals: readonly DifferenceProposal[];
  values: Values;
  onTake: (proposal: DifferenceProposal) => void;
}

/** Values for the smallest differences, each with its reason; one click fills the field. */
function Proposals({ proposals, values, onTake }: ProposalsProps) {
  if (proposals.length === 0) return null;
  return (
    <ul aria-label="Proposed values" className="col-span-full grid gap-1">
      {proposals.map((proposal) => {
        const text = `${proposal.value} ${PROPOSED_IN[proposal.field]}`;
        const reason = reasonInWords(proposal);
        const isTaken = values[proposal.field] === proposal.value;
        return (
          <li key={reason} className="flex items-baseline gap-2 text-xs">
            <button
              type="button"
              className="action shrink-0 font-mono"
              disabled={isTaken}
              aria-label={`Use ${text}: ${reason}`}
              onClick={() => onTake(proposal)}
            >
              {isTaken ? `✓ ${text}` : text}
            </button>
            <span className="text-ink-2">{reason}</span>
          </li>
        );
      })}
    </ul>
  );
}
