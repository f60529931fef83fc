import { stepState, type StationKey } from '../../core/answers/checklist';
import type { StudyProgress } from '../../contract/studies';
import { VernierTicks } from '../marks/VernierTicks';
import { Checklist, CHECKLIST_ID } from './Checklist';
import { useProgress } from './use-progress';

const RAIL =
  'flex shrink-0 overflow-x-auto border-b border-line bg-sheet ' +
  'md:block md:w-[158px] md:overflow-visible md:border-r md:border-b-0 md:pt-2';
const COUNT =
  'min-h-[26px] min-w-[26px] cursor-pointer px-2 font-mono text-xs text-ink-2 ' +
  'hover:text-ink hover:underline md:absolute md:top-0.5 md:right-1';

interface StationRailProps {
  studyId: string;
  progress: StudyProgress;
  station: StationKey;
  query: string;
}

/** The stations of a study. A station's count opens the checklist. */
export function StationRail({ studyId, progress, station, query }: StationRailProps) {
  const { stations, steps } = useProgress(studyId, progress);
  const open = new Set(steps.flatMap((step) => (stepState(step) === 'open' ? [step.station] : [])));
  return (
    <nav aria-label="Stations" className={RAIL}>
      {stations.map(({ key, title, done, due }) => (
        <div
          key={key}
          className={`relative flex items-start border-b-2 hover:bg-plum-soft md:border-b-0 md:border-l-3 ${
            key === station ? 'border-plum bg-plum-soft' : 'border-transparent'
          }`}
        >
          <a
            href={`/studies/${studyId}/${key}${query}`}
            aria-current={key === station ? 'page' : undefined}
            className="min-w-0 flex-1 py-1.5 pl-3 no-underline md:pl-3.5"
          >
            <span className="font-medium whitespace-nowrap">{title}</span>
            <span className="hidden md:block">
              <VernierTicks done={done} due={due} />
            </span>
          </a>
          <button
            type="button"
            popoverTarget={CHECKLIST_ID}
            aria-label={`${done}/${due} ${title}${open.has(key) ? ', something is missing' : ''}: show the checklist`}
            className={COUNT}
          >
            {`${done}/${due}`}
          </button>
        </div>
      ))}
      <Checklist studyId={studyId} steps={steps} stations={stations} />
    </nav>
  );
}
