import type { ContenderMark } from '../../core/study';
import { Badge } from './Badge';

interface ContenderNameProps {
  mark: ContenderMark;
  isReference: boolean;
}

/** A contender's badge with its machine's name and what tells it from the machine's others. */
export function ContenderName({ mark, isReference }: ContenderNameProps) {
  return (
    <span className="flex items-center gap-1.5">
      <Badge mark={mark} isReference={isReference} />
      <span className="truncate">
        {mark.machineName} <small className="text-ink-2">{mark.variant}</small>
      </span>
    </span>
  );
}
