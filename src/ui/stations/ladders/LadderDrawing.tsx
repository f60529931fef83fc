import type { BenchLadder, DrawnSides } from '../../../contract/measure';
import { onSheet, sideOfLadder, type ShownSide } from '../../drawing/layout';
import { PartDrawing } from '../../drawing/PartDrawing';

interface LadderDrawingProps {
  artefact: string;
  sides: DrawnSides;
  ladders: readonly BenchLadder[];
  /** The step that is tried now. */
  present: { ladder: string; step: number } | null;
  /** The sign of what a step turned out as. */
  signOf: (ladder: string, step: number) => string | undefined;
  onChoose: (ladder: string, step: number) => void;
}

const NO_DIMENSIONS = [] as const;

/** The side of the part on which the present ladder is: its steps where they are, as they turned out. */
export function LadderDrawing(props: LadderDrawingProps) {
  const { artefact, sides, ladders, present, signOf, onChoose } = props;
  const current = ladders.find((ladder) => ladder.ladder_id === present?.ladder);
  const side = sideOfLadder(current?.quantity ?? '');
  const marks = (shown: ShownSide, unit: number) => (
    <>
      {ladders
        .filter((ladder) => sideOfLadder(ladder.quantity) === shown)
        .flatMap((ladder) =>
          ladder.steps.map(({ step, value, place }) => {
            if (!place) return null;
            const [u, v] = onSheet(shown, place);
            const isPresent = ladder.ladder_id === present?.ladder && step === present.step;
            const sign = signOf(ladder.ladder_id, step);
            return (
              <g
                key={`${ladder.ladder_id} ${step}`}
                className="cursor-pointer"
                data-step={`${ladder.ladder_id} ${step}`}
                data-present={isPresent || undefined}
                onClick={() => onChoose(ladder.ladder_id, step)}
              >
                {isPresent && (
                  <circle
                    cx={u}
                    cy={v - unit * 4}
                    r={unit * 15}
                    fill="var(--plum-soft)"
                    stroke="var(--plum)"
                    strokeWidth={unit * 1.6}
                  />
                )}
                <text
                  x={u}
                  y={v}
                  fontSize={unit * 11}
                  fontWeight={isPresent ? 700 : 400}
                  textAnchor="middle"
                  className="font-mono"
                  fill={isPresent ? 'var(--plum)' : 'var(--ink)'}
                  stroke="var(--sheet)"
                  strokeWidth={isPresent ? 0 : unit * 3}
                  paintOrder="stroke"
                >
                  {value}
                  {sign && <tspan fontSize={unit * 8}>{sign}</tspan>}
                </text>
              </g>
            );
          }),
        )}
    </>
  );
  const own = {
    sides,
    dimensions: NO_DIMENSIONS,
    over: marks,
    label: `${artefact}, marked: ${current ? `${current.name}, step ${present?.step ?? ''}` : 'nothing'}`,
  };
  return (
    <div className="sheet p-2">
      <PartDrawing {...own} shown={[side]} width={416} className="block max-h-[46vh] w-full" />
    </div>
  );
}
