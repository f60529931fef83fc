interface PlaceDiscProps {
  /** Where it lies on the plate, mm, y upwards. */
  x: number;
  y: number;
  deviation_mm: number;
  /** The deviation that is drawn largest and deepest, mm: one scale for all maps that stand together. */
  largest: number;
  /** Radius of the largest disc, mm. */
  radius: number;
  /** What the hint says of this place. */
  hint: string;
}

/** A place on the plate: the larger and deeper the more it is off; a ring is too small, full is too large. */
export function PlaceDisc({ x, y, deviation_mm, largest, radius, hint }: PlaceDiscProps) {
  const share = Math.min(1, Math.abs(deviation_mm) / largest);
  const isLarge = deviation_mm >= 0;
  const colour = isLarge ? 'var(--large)' : 'var(--small)';
  const r = radius * (0.15 + 0.85 * Math.sqrt(share));
  return (
    <circle
      cx={x}
      cy={-y}
      r={isLarge ? r : r * 0.85}
      fill={colour}
      fillOpacity={isLarge ? 0.25 + 0.75 * share : 0.05 + 0.2 * share}
      stroke={colour}
      strokeWidth={isLarge ? radius * 0.04 : radius * 0.3}
      strokeOpacity={0.35 + 0.65 * share}
      data-hint={hint}
    />
  );
}
