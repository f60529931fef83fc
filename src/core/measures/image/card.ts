import { isOneOf } from '../../model/study';
import {
  areaRatio,
  fitHomography,
  inverted,
  project,
  type Point,
  type Projection,
} from './projection';

/** The scale card: a sheet with a code in each corner and a bracket where a part's lower left lies, mm. */
export const CARD = {
  width: 200,
  height: 140,
  /** Side of a code without its white border, and its distance from the card's edges. */
  code: 18,
  inset: 6,
  /** The corner of the bracket, from the card's lower left. */
  zero: { x: 34, y: 32 },
} as const;

export const CARD_CORNERS = ['TL', 'TR', 'BR', 'BL'] as const;

export type CardCorner = (typeof CARD_CORNERS)[number];

/** What the code in a corner of a card says. */
export const cardText = (
  corner: CardCorner,
  { width, height }: { width: number; height: number } = CARD,
): string => `VGL1 CARD ${corner} ${width}x${height}`;

/** A code in a photo: what it says, and its corners from its upper left on, clockwise, pixels. */
export interface CodeInPhoto {
  text: string;
  corners: readonly { u: number; v: number }[];
}

/** Where a scale card lies in a photo. */
export interface FoundCard {
  width: number;
  height: number;
  /** From the card's millimetres (from its lower left, y upwards) to pixels. */
  toPicture: Projection;
  /** How far its codes lie from where they should, mm, rms. */
  misfit_mm: number;
}

const TEXT = /^VGL1 CARD (TL|TR|BR|BL) (\d{2,4})x(\d{2,4})$/;

/** The corners of a card's code, clockwise from its upper left, mm from the card's lower left. */
function cornersOfCode(corner: CardCorner, width: number, height: number): Point[] {
  const { code, inset } = CARD;
  const left = corner.endsWith('L') ? inset : width - inset - code;
  const top = corner.startsWith('T') ? height - inset : inset + code;
  return [
    { x: left, y: top },
    { x: left + code, y: top },
    { x: left + code, y: top - code },
    { x: left, y: top - code },
  ];
}

/** Finds a scale card by its codes; at least two of the four must be seen. */
export function cardIn(codes: readonly CodeInPhoto[]): FoundCard | null {
  const found = codes.flatMap(({ text, corners }) => {
    const [, corner, width, height] = TEXT.exec(text) ?? [];
    if (!isOneOf(CARD_CORNERS, corner) || corners.length !== 4) return [];
    return [{ corner, width: Number(width), height: Number(height), corners }];
  });
  const [first] = found;
  if (!first) return null;
  const own = found.filter(
    (one, at) =>
      one.width === first.width &&
      one.height === first.height &&
      found.findIndex((other) => other.corner === one.corner) === at,
  );
  if (own.length < 2) return null;
  const { width, height } = first;
  const pairs = own.flatMap(({ corner, corners }) =>
    cornersOfCode(corner, width, height).map((from, at) => ({
      from,
      to: { x: corners[at]?.u ?? 0, y: corners[at]?.v ?? 0 },
    })),
  );
  const toPicture = fitHomography(pairs);
  const back = inverted(toPicture);
  const squares = pairs.map(({ from, to }) => {
    const { x, y } = project(back, to);
    return (x - from.x) ** 2 + (y - from.y) ** 2;
  });
  const misfit = Math.sqrt(squares.reduce((sum, one) => sum + one, 0) / squares.length);
  return { width, height, toPicture, misfit_mm: misfit };
}

/** Pixels a millimetre of a card at one of its points, mm. */
export const scaleOfCard = ({ toPicture }: FoundCard, at: Point): number =>
  Math.sqrt(Math.abs(areaRatio(toPicture, at)));
