import { useEffect, useState } from 'react';
import { keepOperator, readOperator } from '../lib/operator';

/** Who works at the bench: initials that go with every reading and change. */
export function Operator() {
  const [name, setName] = useState('');
  useEffect(() => setName(readOperator()), []);
  return (
    <label className="flex items-center gap-1.5 text-xs text-ink-2">
      at the bench
      <input
        className="field w-16 py-0.5 text-xs"
        value={name}
        placeholder="initials"
        maxLength={20}
        autoComplete="off"
        onChange={(event) => {
          setName(event.target.value);
          keepOperator(event.target.value);
        }}
      />
    </label>
  );
}
