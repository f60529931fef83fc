import { useEffect, useState } from 'react';
import type { MeshSheet } from '../../core/geometry/mesh';
import { fixed } from '../lib/format';
import type { AskMesh } from './use-mesh-bench';

interface SectionLookProps {
  ask: AskMesh;
  sheet: Pick<MeshSheet, 'facts' | 'sides'>;
  name: string;
}

/** A cut through the part at a height: what a layer there is to be. */
export function SectionLook({ ask, sheet, name }: SectionLookProps) {
  const { min, max } = sheet.facts.bbox_mm;
  const [z, setZ] = useState((min[2] + max[2]) / 2);
  const [path, setPath] = useState('');
  useEffect(() => {
    let isStale = false;
    ask({ ask: 'section', z_mm: z }).then(
      (found) => !isStale && setPath(found),
      () => !isStale && setPath(''),
    );
    return () => {
      isStale = true;
    };
  }, [ask, z]);
  const { left, top, width, height } = sheet.sides.top.box;
  const rim = Math.max(width, height) * 0.05;
  return (
    <div className="p-1">
      <label className="flex items-center gap-2 text-xs text-ink-2">
        cut at z
        <input
          type="range"
          className="min-w-0 flex-1 accent-plum"
          min={min[2]}
          max={max[2]}
          step={(max[2] - min[2]) / 200}
          value={z}
          onChange={(event) => setZ(Number(event.target.value))}
        />
        <span className="w-20 text-right font-mono text-ink">{fixed(z, 2)} mm</span>
      </label>
      <svg
        viewBox={`${left - rim} ${top - rim} ${width + 2 * rim} ${height + 2 * rim}`}
        className="block max-h-64 w-full"
        role="img"
        aria-label={`${name}, cut at ${fixed(z, 2)} mm${path === '' ? ': nothing there' : ''}`}
      >
        <path
          d={path}
          fill="var(--band)"
          fillRule="evenodd"
          stroke="var(--ink)"
          strokeWidth={Math.max(width, height) / 300}
        />
      </svg>
    </div>
  );
}
