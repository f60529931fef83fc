import type { ContenderMark } from '../../core/model/study';
import { Badge } from '../marks/Badge';

interface WhoseProps {
  marks: readonly ContenderMark[];
  value: string | null;
  onChange: (contender: string | null) => void;
}

/** Whom a sentence is about. */
export function Whose({ marks, value, onChange }: WhoseProps) {
  const mark = marks.find((one) => one.contender_id === value);
  return (
    <label className="flex items-center gap-1">
      {mark && <Badge mark={mark} isDecorative />}
      <span className="sr-only">about</span>
      <select
        className="field w-44"
        value={value ?? ''}
        onChange={(event) => onChange(event.target.value === '' ? null : event.target.value)}
      >
        <option value="">the study</option>
        {marks.map((one) => (
          <option key={one.contender_id} value={one.contender_id}>
            {one.label}
          </option>
        ))}
      </select>
    </label>
  );
}
