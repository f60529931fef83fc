import { bendOf, facetsOf, placeOf, type Edge, type Facets } from './facets';
import { pathOf, tidy, without, type Piece } from './line-work';
import { Occluders, type Seen } from './occluders';
import { MeshError, type Soup } from './soup';
import { surfaceOf } from './surface';
import { dot } from './vector';
import type { View } from './view';
import { weld } from './weld';

/** A part seen from one side: SVG paths in mm, u to the right and v downwards as on a screen. */
export interface Drawing {
  visible: string;
  hidden: string;
  /** Least and largest u and v of the part on the sheet, v downwards. */
  box: { left: number; top: number; width: number; height: number };
}

/** An edge is drawn where the surface bends by more than this. */
const FEATURE_ANGLE_DEG = 25;
/** More triangles than this are not drawn. */
const MOST_DRAWN = 600_000;

/** A mesh made ready to be drawn from several sides. */
export interface Drawable {
  facets: Facets;
  isClosed: boolean;
}

/** @throws MeshError where it is too fine to be drawn */
export function drawableOf(soup: Soup): Drawable {
  if (soup.triangles > MOST_DRAWN) {
    throw new MeshError(`has more than ${MOST_DRAWN} triangles: too fine to be drawn`);
  }
  const welded = weld(soup);
  return { facets: facetsOf(welded), isClosed: surfaceOf(welded).isWatertight };
}

/**
 * Draws a part from one side: edges where its surface bends sharply or ends, and the outlines of
 * what is round; each line cut where a nearer face hides it.
 */
export function drawFrom({ facets, isClosed }: Drawable, view: View): Drawing {
  const { welded, edges } = facets;
  const seen: Seen[] = Array.from({ length: welded.places.length / 3 }, (_, vertex) => {
    const place = placeOf(welded, vertex);
    return [dot(place, view.right), dot(place, view.up), dot(place, view.toward)] as const;
  });
  const occluders = new Occluders(facets, seen, view, isClosed);
  const visible: Piece[] = [];
  const hidden: Piece[] = [];
  const sharp = Math.cos((FEATURE_ANGLE_DEG * Math.PI) / 180);
  for (const edge of edges) {
    if (!isDrawn(facets, edge, view, sharp)) continue;
    const [from, to] = [seen[edge.from], seen[edge.to]];
    if (!from || !to) continue;
    const at = (t: number): [number, number] => [
      from[0] + t * (to[0] - from[0]),
      from[1] + t * (to[1] - from[1]),
    ];
    const piece = ([low, high]: [number, number]): Piece => [...at(low), ...at(high)];
    const spans = occluders.hiddenSpans(from, to);
    visible.push(...without([0, 1], spans).map(piece));
    hidden.push(...spans.map(piece));
  }
  const lines = tidy(visible, hidden);
  return { visible: pathOf(lines.visible), hidden: pathOf(lines.hidden), box: boxOnSheet(seen) };
}

function isDrawn(facets: Facets, edge: Edge, view: View, sharp: number): boolean {
  const bend = bendOf(facets, edge);
  if (bend === null || bend < sharp) return true;
  if (bend > 1 - 1e-9) return false;
  // The outline of something round: one side looks at the eye, the other does not.
  const left = dot(facets.normals[edge.left] ?? [0, 0, 0], view.toward);
  const right = dot(facets.normals[edge.right] ?? [0, 0, 0], view.toward);
  const looks = (value: number) => (value > 1e-6 ? 1 : value < -1e-6 ? -1 : 0);
  return looks(left) !== looks(right) && (looks(left) > 0 || looks(right) > 0);
}

function boxOnSheet(seen: readonly Seen[]): Drawing['box'] {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [u, v] of seen) {
    left = Math.min(left, u);
    right = Math.max(right, u);
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  return { left, top: -high, width: right - left, height: high - low };
}
