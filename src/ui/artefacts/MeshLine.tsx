import type { MeshSheet } from '../../core/geometry/mesh';
import { fixed } from '../lib/format';

/** What a mesh is, in one line, and what is doubtful about it. */
export function MeshLine({ sheet }: { sheet: MeshSheet }) {
  const { bbox_mm, volume_mm3, triangles, shells, watertight, notes } = sheet.facts;
  return (
    <>
      <p className="text-xs text-ink-2">
        <b className="font-mono text-ink">
          {bbox_mm.size.map((value) => fixed(value, value < 10 ? 2 : 1)).join(' × ')}
        </b>{' '}
        mm · {volume_mm3 === null ? 'no volume' : `${fixed(volume_mm3 / 1000, 2)} cm³`} ·{' '}
        {triangles.toLocaleString('en')} triangles · {shells} {shells === 1 ? 'piece' : 'pieces'} ·{' '}
        {watertight ? 'closed' : 'open'}
      </p>
      {notes.length > 0 && (
        <ul className="mt-1 text-xs text-warn">
          {notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
    </>
  );
}
