import type { ContenderMark } from '../../core/model/study';
import { Badge } from './Badge';

interface ContenderNameProps {
  mark: ContenderMark;
  isReference: boolean;
  /** Whether a phone shows the badge alone: where there is more to be seen beside it. */
  isShortOnPhone?: boolean;
}

/** A contender's badge with its machine's name and what tells it from the machine's others. */
export function ContenderName({ mark, isReference, isShortOnPhone }: ContenderNameProps) {
  return (
    <span className="flex items-center gap-1.5">
      <Badge mark={mark} isReference={isReference} />
      <span className={isShortOnPhone ? 'truncate max-sm:sr-only' : 'truncate'}>
        {mark.machineName} <small className="text-ink-2">{mark.variant}</small>
      </span>
    </span>
  );
}
