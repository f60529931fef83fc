import { keysOf } from '../../core/model/study';
import { chosenOf } from '../kit/chosen';
import { useState } from 'react';
import type { Gate } from '../../core/answers/scorecard';
import { readNumber } from '../lib/entry';
import { figureText, type FigureWords } from '../../core/answers/figure-names';

interface GatesProps {
  gates: readonly Gate[];
  /** Everything that a condition can be about, with its words. */
  known: readonly { key: string; words: FigureWords }[];
  onChange: (gates: Gate[]) => void;
}

const OPS = { '>=': 'at least', '<=': 'at most' } as const;

/** Conditions: who fails one is out, whatever the score. */
export function Gates({ gates, known, onChange }: GatesProps) {
  const [isAdding, setAdding] = useState(false);
  const wordsOf = (key: string) => known.find((one) => one.key === key)?.words;
  return (
    <div className="px-3 py-2">
      <p className="flex flex-wrap items-center gap-2">
        <b className="font-semibold">Must</b>
        {gates.map((gate, at) => {
          const words = wordsOf(gate.key);
          const text = words
            ? `${words.label} ${OPS[gate.op]} ${figureText(words, gate.value)}`
            : `${gate.key} ${OPS[gate.op]} ${gate.value}`;
          return (
            <span
              key={at}
              className="inline-flex items-center rounded-sm border border-line pl-2 text-xs"
            >
              {text}
              <button
                type="button"
                className="min-h-[26px] min-w-[26px] text-ink-2 hover:text-plum"
                aria-label={`No longer: ${text}`}
                onClick={() => onChange(gates.filter((_, place) => place !== at))}
              >
                ×
              </button>
            </span>
          );
        })}
        <button
          type="button"
          className="action"
          aria-expanded={isAdding}
          onClick={() => setAdding(!isAdding)}
        >
          + condition
        </button>
      </p>
      {isAdding && (
        <NewGate
          known={known}
          onAdd={(gate) => {
            onChange([...gates, gate]);
            setAdding(false);
          }}
        />
      )}
    </div>
  );
}

function NewGate({ known, onAdd }: Pick<GatesProps, 'known'> & { onAdd: (gate: Gate) => void }) {
  const [key, setKey] = useState(known[0]?.key ?? '');
  const words = known.find((one) => one.key === key)?.words;
  const [asked, setOp] = useState<Gate['op'] | null>(null);
  const op = asked ?? (words?.isLargerBetter === false ? '<=' : '>=');
  const [text, setText] = useState('');
  const entry = readNumber(text, { asks: true });
  const value =
    'value' in entry && entry.value !== null ? entry.value / (words?.factor ?? 1) : null;
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-2 text-xs"
      onSubmit={(event) => {
        event.preventDefault();
        if (value !== null) onAdd({ key, op, value });
      }}
    >
      <label className="text-ink-2">
        figure
        <select
          className="block field w-52"
          value={key}
          onChange={(event) => setKey(event.target.value)}
        >
          {known.map((one) => (
            <option key={one.key} value={one.key}>
              {one.words.label}
            </option>
          ))}
        </select>
      </label>
      <label className="text-ink-2">
        is
        <select
          className="block field w-24"
          value={op}
          onChange={(event) => setOp(chosenOf(event, keysOf(OPS)))}
        >
          {Object.entries(OPS).map(([one, said]) => (
            <option key={one} value={one}>
              {said}
            </option>
          ))}
        </select>
      </label>
      <label className="text-ink-2">
        {words?.unit || 'value'}
        <input
          className="block field w-24 text-right font-mono"
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" className="action action-main" disabled={value === null}>
        Add
      </button>
      {'fault' in entry && (
        <p role="alert" className="w-full text-warn">
          {entry.fault}
        </p>
      )}
    </form>
  );
}
