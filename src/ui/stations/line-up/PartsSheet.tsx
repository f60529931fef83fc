import { counted } from '../../../core/model/study/labels';
import type { LineUpPage } from '../../../contract/line-up';
import { PartDrawing } from '../../drawing/PartDrawing';
import { AddBy } from './AddBy';

/** The benchmark parts as drawings; more from the library, from a mesh, or made. */
export function PartsSheet(props: {
  studyId: string;
  parts: LineUpPage['parts'];
  offered: LineUpPage['offered']['artefact'];
}) {
  const { studyId, parts, offered } = props;
  const base = `/studies/${studyId}/artefacts`;
  return (
    <section className="min-w-0 sheet p-3" aria-labelledby="parts">
      <h2 id="parts" className="mb-2 font-semibold">
        Benchmark parts
      </h2>
      <ul className="flex flex-wrap gap-2">
        {parts.map(({ artefact_id, name, sheet, ...looked }) => {
          const box = sheet?.sides.front.box;
          const side = box !== undefined && box.height < box.width / 5 ? 'top' : 'front';
          return (
            <li key={artefact_id}>
              <a
                href={`${base}/${artefact_id}`}
                className="block w-28 text-center text-xs no-underline hover:text-plum"
              >
                <span className="block h-16 border border-line p-1">
                  {sheet ? (
                    <PartDrawing
                      sides={sheet.sides}
                      dimensions={[]}
                      shown={[side]}
                      width={110}
                      className="block h-full w-full"
                      label={`${name}, ${side}`}
                    />
                  ) : (
                    <span className="block h-full unknown" />
                  )}
                </span>
                <span className="mt-0.5 block">{name}</span>
                <span className="block text-2xs text-ink-2">{describeLooked(looked)}</span>
              </a>
            </li>
          );
        })}
        <li className="flex w-56 flex-col gap-1.5">
          <AddBy
            studyId={studyId}
            kind="artefact"
            placeholder="+ a part: of the library, or its name"
            offered={offered}
            className="w-full"
          />
          <span className="flex gap-2 text-xs">
            <a className="action" href={`${base}/new`}>
              Make artefact
            </a>
            <a className="action" href={`${base}/import`}>
              Import a mesh
            </a>
          </span>
        </li>
      </ul>
    </section>
  );
}

/** What is looked at on a part, the most telling of it. */
function describeLooked({
  dimensions,
  steps,
  zones,
}: Pick<LineUpPage['parts'][number], 'dimensions' | 'steps' | 'zones'>): string {
  const all = [
    ...(dimensions > 0 ? [counted(dimensions, 'dimension')] : []),
    ...(steps > 0 ? [counted(steps, 'step')] : []),
    ...(zones > 0 ? [counted(zones, 'zone')] : []),
  ];
  return all.slice(0, 2).join(', ') || 'nothing looked at yet';
}
