import { inWords } from '../../../core/model/study';
import type { BenchZone } from '../../../contract/inspect';
import { GradeDisc } from '../../marks/GradeDisc';
import type { Word } from './use-words';

interface ZoneListProps {
  zones: readonly BenchZone[];
  present: number;
  wordOf: (zone: string) => Word;
  onChoose: (at: number) => void;
}

/** The zones of a specimen, each with the worst that was said of it. */
export function ZoneList({ zones, present, wordOf, onChoose }: ZoneListProps) {
  return (
    <ul className="sheet" aria-label="Zones">
      {zones.map((zone, at) => {
        const word = wordOf(zone.zone_id);
        const worst = word?.reduce((grade, one) => Math.max(grade, one.grade), 0) ?? 0;
        const said =
          word === undefined
            ? 'not looked at'
            : word.length === 0
              ? 'clean'
              : word.map((one) => `${inWords(one.defect)} ${one.grade}`).join(', ');
        return (
          <li key={zone.zone_id}>
            <button
              type="button"
              aria-current={at === present ? 'step' : undefined}
              className={`flex w-full items-center gap-2 border-b border-line-soft px-3 py-1.5 text-left ${
                at === present ? 'bg-plum-soft' : ''
              }`}
              onClick={() => onChoose(at)}
            >
              {word === undefined ? (
                <span className="h-5 w-5 shrink-0 rounded-full unknown" />
              ) : (
                <GradeDisc grade={worst} />
              )}
              <span className="flex-1">
                {zone.name} <span className="block text-xs text-ink-2">{said}</span>
              </span>
              <span className="font-mono text-xs text-ink-2">×{zone.weight}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
