import { pathOf, tidy, type Piece } from './line-work';
import type { Soup } from './soup';

/**
 * The outline of a cut at a height, as an SVG path in mm (y downwards as on a screen); empty where
 * there is nothing. A face that lies in the height itself counts to what is below it.
 */
export function sectionAt({ corners }: Soup, z_mm: number): string {
  const pieces: Piece[] = [];
  for (let at = 0; at < corners.length; at += 9) {
    const cut: number[] = [];
    for (let side = 0; side < 3; side += 1) {
      const a = at + 3 * side;
      const b = at + 3 * ((side + 1) % 3);
      const [za, zb] = [corners[a + 2]!, corners[b + 2]!];
      if (za > z_mm === zb > z_mm) continue;
      const t = (z_mm - za) / (zb - za);
      cut.push(
        corners[a]! + t * (corners[b]! - corners[a]!),
        corners[a + 1]! + t * (corners[b + 1]! - corners[a + 1]!),
      );
    }
    const [x1, y1, x2, y2, more] = cut;
    if (x1 === undefined || y1 === undefined || x2 === undefined || y2 === undefined) continue;
    if (more === undefined) pieces.push([x1, y1, x2, y2]);
  }
  return pathOf(tidy(pieces, []).visible);
}
