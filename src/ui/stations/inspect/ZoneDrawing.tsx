import type { BenchZone } from '../../../contract/inspect';
import type { DrawnSides } from '../../../contract/measure';
import { SHOWN_SIDES, type ShownSide } from '../../drawing/layout';
import { PartDrawing } from '../../drawing/PartDrawing';

interface ZoneDrawingProps {
  artefact: string;
  sides: DrawnSides;
  zones: readonly BenchZone[];
  present: string | null;
  onChoose: (zone: string) => void;
}

const NO_DIMENSIONS = [] as const;

const sideOf = (zone: BenchZone | undefined): ShownSide | null =>
  SHOWN_SIDES.find((side) => side === zone?.place?.side) ?? null;

/** The side of the part on which the present zone lies, with the zones outlined. */
export function ZoneDrawing({ artefact, sides, zones, present, onChoose }: ZoneDrawingProps) {
  const current = zones.find((zone) => zone.zone_id === present);
  const shown = sideOf(current) ?? 'front';
  const marks = (side: ShownSide, unit: number) =>
    zones
      .filter((zone) => sideOf(zone) === side)
      .map(({ zone_id, name, place }) => {
        if (!place) return null;
        const isPresent = zone_id === present;
        return (
          <rect
            key={zone_id}
            data-zone={zone_id}
            data-present={isPresent || undefined}
            className="cursor-pointer"
            x={Math.min(place.u1_mm, place.u2_mm)}
            y={-Math.max(place.v1_mm, place.v2_mm)}
            width={Math.abs(place.u2_mm - place.u1_mm)}
            height={Math.abs(place.v2_mm - place.v1_mm)}
            fill="var(--plum)"
            fillOpacity={isPresent ? 0.22 : 0.05}
            stroke="var(--plum)"
            strokeWidth={unit * (isPresent ? 2.4 : 0.8)}
            onClick={() => onChoose(zone_id)}
          >
            <title>{name}</title>
          </rect>
        );
      });
  return (
    <div className="sheet p-2">
      <PartDrawing
        sides={sides}
        dimensions={NO_DIMENSIONS}
        shown={[shown]}
        width={416}
        over={marks}
        label={`${artefact}, ${shown}; outlined: ${current?.name ?? 'nothing'}`}
        className="block max-h-[34vh] w-full"
      />
    </div>
  );
}
