import { useEffect, useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { BenchInstrument, BenchZero } from '../../../contract/measure';
import { localIso, readNumber } from '../../lib/entry';
import { signed } from '../../lib/format';
import { readOperator } from '../../lib/operator';
import { enqueue, sendWaiting } from '../../lib/outbox';

interface ZeroFieldProps {
  studyId: string;
  instrument: BenchInstrument;
  onKept: (zero: BenchZero) => void;
  onCancel: () => void;
}

/** Nothing that is called a zero is larger, mm. */
const FAR_MM = 0.5;

/** The zero check: jaws wiped and closed, what the instrument shows, Enter. */
export function ZeroField({ studyId, instrument, onKept, onCancel }: ZeroFieldProps) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  useEffect(() => input.current?.focus(), []);
  const keep = () => {
    const entry = readNumber(typed);
    if ('fault' in entry || entry.value === null) {
      setMessage('What does it show with its jaws closed? A number in mm.');
      return;
    }
    if (Math.abs(entry.value) > FAR_MM) {
      setMessage(`${typed} mm is no zero: wipe the jaws, close them, press its zero.`);
      return;
    }
    const zero = { instrument_id: instrument.id, at: localIso(new Date()), value_mm: entry.value };
    const row = { ...zero, zero_check_id: uuid(), operator: readOperator() || null };
    void enqueue({
      id: row.zero_check_id,
      method: 'POST',
      path: `/studies/${studyId}/rows/zero_checks`,
      content: row,
    }).then(sendWaiting);
    onKept(zero);
  };
  return (
    <section className="sheet p-4" aria-label="Zero check">
      <h2 className="text-base font-semibold">Zero of {instrument.name}</h2>
      <p className="text-xs text-ink-2">Wipe the jaws, close them: what does it show?</p>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <input
          ref={input}
          className="h-[60px] w-[190px] rounded-sm border-2 border-plum px-3 font-mono text-bench"
          aria-label={`Zero of ${instrument.name} in mm`}
          aria-describedby="zero-message"
          inputMode="decimal"
          autoComplete="off"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault();
              keep();
            } else if (event.key === 'Escape') onCancel();
          }}
        />
        <p className="text-xs text-ink-2">
          Enter saves, Esc cancels
          {instrument.zero_mm !== null &&
            ` · every reading of it is taken less ${signed(instrument.zero_mm, 2)}`}
        </p>
      </div>
      <p id="zero-message" role="alert" className="mt-1 min-h-5 text-warn">
        {message}
      </p>
    </section>
  );
}
