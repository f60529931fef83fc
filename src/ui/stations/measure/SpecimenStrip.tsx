import type { ContenderMark } from '../../../core/model/study';
import type { SpecimenFacts } from '../../../contract/specimens';
import { Badge } from '../../marks/Badge';

interface SpecimenStripProps {
  specimens: readonly SpecimenFacts[];
  current: string | null;
  markOf: (contenderId: string) => ContenderMark | undefined;
  shareOf: (specimen: SpecimenFacts) => number;
  onChoose: (specimenId: string) => void;
}

/** The specimens of the study, each with how much of it is measured. */
export function SpecimenStrip(props: SpecimenStripProps) {
  const { specimens, current, markOf, shareOf, onChoose } = props;
  return (
    <ol className="flex flex-wrap gap-1.5">
      {specimens.map((specimen) => {
        const mark = markOf(specimen.contender_id);
        const share = shareOf(specimen);
        const isCurrent = specimen.specimen_id === current;
        const name = specimen.code ?? specimen.specimen_id;
        return (
          <li key={specimen.specimen_id}>
            <button
              type="button"
              tabIndex={-1}
              data-hint={[name, specimen.artefact, mark?.label].filter(Boolean).join(' · ')}
              aria-label={[
                name,
                specimen.artefact,
                mark?.label,
                `${Math.round(100 * share)} % measured`,
              ]
                .filter(Boolean)
                .join(', ')}
              aria-current={isCurrent ? 'true' : undefined}
              className={`rounded-sm p-1 ${isCurrent ? 'bg-plum-soft outline-2 outline-plum' : 'hover:bg-plum-soft'}`}
              onClick={() => onChoose(specimen.specimen_id)}
            >
              {mark ? <Badge mark={mark} /> : <span className="font-mono text-xs">{name}</span>}
              <svg width={20} height={4} className="mt-1 block" aria-hidden="true">
                <rect width={20} height={4} fill="var(--line)" />
                <rect width={20 * share} height={4} fill="var(--plum)" />
              </svg>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
