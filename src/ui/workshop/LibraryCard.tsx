import { counted } from '../../core/model/study/labels';
import type { LibraryArtefact } from '../../contract/workshop';
import { PartDrawing } from '../drawing/PartDrawing';

/** A part of the library as its drawing, with who printed it. */
export function LibraryCard({ artefact }: { artefact: LibraryArtefact }) {
  const { thing, sheet, version, prints, studies } = artefact;
  const box = sheet?.sides.front.box;
  const side = box !== undefined && box.height < box.width / 5 ? 'top' : 'front';
  const size = sheet?.facts.bbox_mm.size.map((each) => Math.round(each * 10) / 10).join(' × ');
  return (
    <a className="block p-3 no-underline hover:bg-plum-soft" href={`/artefacts/${thing.uid}`}>
      <span className="flex items-baseline gap-2">
        <b className="text-ink">{thing.name}</b>
        {version && <span className="text-xs text-ink-2">version {version}</span>}
      </span>
      {sheet ? (
        <span className="my-2 block">
          <PartDrawing
            sides={sheet.sides}
            dimensions={[]}
            shown={[side]}
            width={300}
            className="block h-36 w-full"
            label={`${thing.name}, ${side}`}
          />
        </span>
      ) : (
        <span className="my-2 flex h-36 items-center justify-center unknown text-xs text-ink-2">
          no mesh
        </span>
      )}
      <span className="block text-xs text-ink-2">
        {[
          size && `${size} mm`,
          prints > 0
            ? `${counted(prints, 'print')} in ${counted(studies, 'study', 'studies')}`
            : 'not printed yet',
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
    </a>
  );
}
