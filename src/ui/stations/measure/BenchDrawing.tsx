import { useMemo } from 'react';
import type { BenchDrawing as Drawn } from '../../../contract/measure';
import { drawnDimensions } from '../../drawing/drawn';
import { sideOf, SHOWN_SIDES } from '../../drawing/layout';
import { PartDrawing } from '../../drawing/PartDrawing';

interface BenchDrawingProps {
  drawing: Drawn;
  artefact: string;
  present: string;
  onChoose: (dimensionId: string) => void;
}

/** The part with the place that is measured now; on a phone only the side on which it is. */
export function BenchDrawing({ drawing, artefact, present, onChoose }: BenchDrawingProps) {
  const dimensions = useMemo(() => drawnDimensions(drawing.dimensions, drawing.places), [drawing]);
  const marked = dimensions.find(({ id }) => id === present);
  const sides = SHOWN_SIDES.filter((side) => dimensions.some((one) => sideOf(one) === side));
  const side = marked ? sideOf(marked) : (sides[0] ?? 'front');
  const label = `${artefact}${marked ? `, marked: ${marked.label}` : ', the present dimension has no place on it'}`;
  const own = { sides: drawing.sides, dimensions, present, onChoose, label };
  return (
    <div className="sheet p-2">
      <div className="hidden md:block">
        <PartDrawing {...own} shown={sides.length > 0 ? sides : ['front']} width={520} />
      </div>
      <div className="md:hidden">
        <PartDrawing {...own} shown={[side]} width={340} className="block max-h-[34vh] w-full" />
      </div>
    </div>
  );
}
