import { useState } from 'react';
import { counted, inWords, type ContenderMark } from '../../core/model/study';
import type { PlacedFinding } from '../../core/measures/surface';
import type { DefectSide } from '../../contract/results';
import { ContenderName } from '../marks/ContenderName';

interface DefectHeatProps {
  marks: readonly ContenderMark[];
  reference: string | null;
  sides: readonly DefectSide[];
}

/** Where defects sit: findings of all specimens of a contender, laid on the artefact's drawing. */
export function DefectHeat({ marks, reference, sides }: DefectHeatProps) {
  const [at, setAt] = useState(0);
  const [defect, setDefect] = useState('');
  const shown = sides[at] ?? sides[0];
  if (!shown) return null;
  const defects = [...new Set(shown.findings.map((one) => one.defect))].sort();
  const isAsked = (one: PlacedFinding) => defect === '' || one.defect === defect;
  return (
    <section className="min-w-0 sheet" aria-labelledby="defect-heat">
      <header className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2">
        <h2 id="defect-heat" className="font-semibold">
          Where it sits
        </h2>
        <select
          className="field w-auto"
          aria-label="Side of an artefact"
          value={at}
          onChange={(event) => {
            setAt(Number(event.target.value));
            setDefect('');
          }}
        >
          {sides.map((side, place) => (
            <option key={`${side.artefact_id}/${side.side}`} value={place}>
              {side.artefact}, {side.side} ({counted(side.findings.length, 'finding')})
            </option>
          ))}
        </select>
        <select
          className="field w-auto"
          aria-label="Defect"
          value={defect}
          onChange={(event) => setDefect(event.target.value)}
        >
          <option value="">all defects</option>
          {defects.map((one) => (
            <option key={one} value={one}>
              {inWords(one)}
            </option>
          ))}
        </select>
        <p className="text-xs text-ink-2">
          darker: graded worse, or found more often; a dashed frame is the whole zone, nobody has
          said where in it
        </p>
      </header>
      <div className="grid gap-2 p-2 sm:grid-cols-2 xl:grid-cols-3">
        {marks.map((mark) => {
          const own = shown.findings.filter(
            (one) => one.contender_id === mark.contender_id && isAsked(one),
          );
          return (
            <figure key={mark.contender_id} className="min-w-0 border border-line-soft p-2">
              <figcaption className="mb-1 flex items-center justify-between gap-2 text-xs">
                <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                <span className="text-ink-2">{counted(own.length, 'finding')}</span>
              </figcaption>
              <HeatDrawing side={shown} findings={own} name={mark.contender_id} />
            </figure>
          );
        })}
      </div>
    </section>
  );
}

interface HeatDrawingProps {
  side: DefectSide;
  findings: readonly PlacedFinding[];
  name: string;
}

function HeatDrawing({ side, findings, name }: HeatDrawingProps) {
  const { left, top, width, height } = side.drawing.box;
  const pad = Math.max(width, height) / 30;
  const unit = Math.max(width, height) / 240;
  return (
    <svg
      className="block max-h-44 w-full"
      viewBox={`${left - pad} ${top - pad} ${width + 2 * pad} ${height + 2 * pad}`}
      role="img"
      aria-label={`${side.artefact}, ${side.side}, ${name}: ${counted(findings.length, 'finding')}`}
    >
      {findings.map(({ box, grade, isBoxed, defect }, at) => (
        <rect
          key={at}
          x={box.x}
          y={-(box.y + box.h)}
          width={box.w}
          height={box.h}
          fill="var(--plum)"
          fillOpacity={0.07 * grade}
          stroke="var(--plum)"
          strokeOpacity={0.5}
          strokeWidth={unit}
          {...(!isBoxed && { strokeDasharray: `${3 * unit} ${3 * unit}` })}
        >
          <title>{`${inWords(defect)} ${grade}`}</title>
        </rect>
      ))}
      <path d={side.drawing.visible} fill="none" stroke="var(--ink)" strokeWidth={unit} />
    </svg>
  );
}
