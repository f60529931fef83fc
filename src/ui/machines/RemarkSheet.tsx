import { inWords } from '../../core/model/study/labels';
import type { MachineDossier } from '../../contract/workshop';
import { Sheet } from './Sheet';

const SIGNS = { plus: '+', minus: '−', neutral: '·' } as const;

/** What is said for and against the machine. */
export function RemarkSheet({ remarks }: Pick<MachineDossier, 'remarks'>) {
  const ordered = [...remarks].sort((a, b) => ORDER.indexOf(a.sign) - ORDER.indexOf(b.sign));
  return (
    <Sheet title="Remarks" isEmpty={remarks.length === 0} empty="No remarks yet.">
      <ul className="px-3 py-1.5">
        {ordered.map((row, at) => (
          <li key={at} className="flex gap-2 py-0.5">
            <span className="w-3 font-mono">
              <span aria-hidden="true">{SIGNS[row.sign]}</span>
              <span className="sr-only">{row.sign}:</span>
            </span>
            <span className="min-w-0 flex-1" data-hint={row.evidence ?? undefined}>
              {row.text}{' '}
              <span className="text-2xs text-ink-2">
                {inWords(row.aspect)} {row.value}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

const ORDER = ['plus', 'minus', 'neutral'];
