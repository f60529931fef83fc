import { keysOf } from '../../core/model/study';
import type { Effect, Effects, Term } from '../../core/statistics/effects';
import { describeEffects, describeVerdict, type EffectsResponse } from '../../core/text/phrasing';
import { Leaving } from '../kit/Leaving';
import { percent } from '../lib/format';
import { Unknown } from '../marks/Unknown';
import { VerdictGlyph } from '../marks/VerdictGlyph';
import { EffectLines } from './EffectLines';

interface EffectSheetProps {
  response: EffectsResponse;
  effects: Effects;
  machines: Readonly<Record<string, { letter: string; hue: number; name: string }>>;
  /** The labels of the contenders. */
  labels: Readonly<Record<string, string>>;
  alpha: number;
}

/** How a response is headed, drawn and judged. */
const WAYS = {
  ln_mae: {
    title: 'Accuracy',
    unit: 'mean deviation, mm',
    digits: 3,
    verdict: 'mm' as const,
    through: Math.exp,
  },
  surface_index: {
    title: 'Surface',
    unit: 'index',
    digits: 0,
    verdict: 'points' as const,
    through: (value: number) => value,
  },
  ln_print_s: {
    title: 'Time',
    unit: 'printing time, h',
    digits: 1,
    verdict: 'time' as const,
    through: (value: number) => Math.exp(value) / 3600,
  },
} as const;

const TERMS = {
  artefact: 'artefact and material (block)',
  machine: 'machine',
  profile: 'profile',
  'machine:profile': 'machine × profile',
} as const;

/** Machine or profile, of one response: in words, as crossing lines, and the table for who wants it. */
export function EffectSheet({ response, effects, machines, labels, alpha }: EffectSheetProps) {
  const way = WAYS[response];
  const id = `effects-${response}`;
  const nameOf = (machine: string) => machines[machine]?.name ?? machine;
  const labelOf = (contender: string) => labels[contender] ?? contender;
  const said = describeEffects(response, effects, labelOf, alpha);
  return (
    <section className="min-w-0 sheet" aria-labelledby={id}>
      <h2 id={id} className="border-b border-line px-3 py-2 font-semibold">
        {way.title}
      </h2>
      <div className="grid gap-3 px-3 py-2 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
        <div>
          {said.map((sentence, at) => (
            <p key={sentence} className={at === 0 ? 'mb-1 font-medium' : 'text-ink-2'}>
              {sentence}
            </p>
          ))}
          <ul className="mt-2">
            {Object.entries(effects.verdicts).map(([contender, row]) => (
              <li key={contender} className="flex items-baseline gap-2 text-xs">
                <span className="min-w-28">{labelOf(contender)} against its stock</span>
                {row ? (
                  <>
                    <VerdictGlyph {...row} />
                    {describeVerdict(row, way.verdict)}
                  </>
                ) : (
                  <Unknown why="no stock contender that it comes from, or nothing in common" />
                )}
              </li>
            ))}
          </ul>
          {effects.notes.map((note) => (
            <p key={note} className="mt-1 text-xs text-ink-2">
              {describeNote(note, nameOf)}
            </p>
          ))}
        </div>
        {Object.keys(effects.cells).length > 0 && (
          <Leaving
            isPicture
            name={`${way.title}, by machine and ${effects.factor === 'kind' ? 'profile' : effects.factor}`}
            figures={figuresOf(effects, nameOf, way.through)}
          >
            {' '}
            <EffectLines
              effects={effects}
              machines={machines}
              through={way.through}
              digits={way.digits}
              unit={way.unit}
              label={`${way.title} by machine, ${effects.levels.join(' and ')}. ${said[0] ?? ''}`}
            />
          </Leaving>
        )}
      </div>
      {effects.terms !== null && effects.residual !== null && (
        <VarianceTable effects={effects} residual={effects.residual} />
      )}
    </section>
  );
}

interface VarianceTableProps {
  effects: Effects;
  residual: NonNullable<Effects['residual']>;
}

/** The analysis of variance as a table. */
function VarianceTable({ effects, residual }: VarianceTableProps) {
  return (
    <details className="border-t border-line-soft px-3 py-1.5">
      <summary className="min-h-[28px] cursor-pointer text-xs text-ink-2">
        Analysis of variance, type II, {effects.n} prints
      </summary>
      <Leaving>
        <table className="w-full text-xs">
          <thead>
            <tr className="border-b border-line">
              {['term', 'df', 'sum of squares', 'F', 'p', 'partial ω²'].map((head, at) => (
                <th key={head} className={`th ${at > 0 ? 'text-right' : ''}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {keysOf(TERMS).map((name) => {
              const term = effects.terms?.[name];
              return term && <TermRow key={name} name={termName(name, effects)} term={term} />;
            })}
            <tr>
              <th scope="row" className="px-2 py-1 text-left font-normal">
                residual
              </th>
              <td className="px-2 text-right font-mono">{residual.df}</td>
              <td className="px-2 text-right font-mono">{residual.ss.toPrecision(4)}</td>
              <td colSpan={3} />
            </tr>
          </tbody>
        </table>
      </Leaving>
      <p className="mt-1 text-2xs text-ink-2">
        Each term over and above all that do not hold it; of logarithms for accuracy and time.
      </p>
    </details>
  );
}

/** A term by what machines are crossed with. */
const termName = (name: keyof typeof TERMS, { factor }: Effects): string =>
  factor === 'kind' ? TERMS[name] : TERMS[name].replace('profile', factor);

function TermRow({ name, term }: { name: string; term: Term | Effect }) {
  const size = 'partial_omega2' in term ? term.partial_omega2 : null;
  const cells = [
    term.df?.toString() ?? null,
    term.ss?.toPrecision(4) ?? null,
    term.f?.toFixed(2) ?? null,
    term.p === null ? null : term.p < 0.0005 ? '< 0.0005' : term.p.toFixed(4),
    size === null ? null : percent(size),
  ];
  return (
    <tr className="border-b border-line-soft">
      <th scope="row" className="px-2 py-1 text-left font-normal">
        {name}
      </th>
      {cells.map((cell, at) => (
        <td key={at} className="px-2 text-right font-mono">
          {cell ?? (at === 4 && !('partial_omega2' in term) ? '' : <Unknown />)}
        </td>
      ))}
    </tr>
  );
}

/** A note with a machine's id said by its name. */
function describeNote(note: string, nameOf: (machine: string) => string): string {
  const [first = '', ...rest] = note.split(' is left out');
  return rest.length > 0 ? `${nameOf(first)} is left out${rest.join('')}` : note;
}

function figuresOf(
  { cells }: Effects,
  nameOf: (machine: string) => string,
  through: (value: number) => number,
): (string | number | null)[][] {
  const value = (number: number | null) => (number === null ? null : through(number));
  return [
    ['machine', 'level', 'mean', 'low', 'high'],
    ...Object.entries(cells).flatMap(([machine, own]) =>
      Object.entries(own).map(([level, { estimate, low, high }]) => [
        nameOf(machine),
        level,
        value(estimate),
        value(low),
        value(high),
      ]),
    ),
  ];
}
