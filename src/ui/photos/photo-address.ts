import type { ShownPhoto } from '../../contract/photos';

/** What tells a photo's pictures apart from those of every other one. */
export type Addressed = Pick<ShownPhoto, 'path' | 'version'>;

/** The address of a photo, halved some times: never the file itself, always a picture made of it. */
export const levelAddress = (
  studyId: string,
  { path, version }: Addressed,
  level: number,
): string =>
  `/api/v1/studies/${studyId}/photos/part?path=${encodeURIComponent(path)}&of=${version}&level=${level}`;

/** The address of a tile of a photo's view. */
export const tileAddress = (
  studyId: string,
  photo: Addressed,
  edition: string,
  { level, column, row }: { level: number; column: number; row: number },
): string =>
  `${levelAddress(studyId, photo, level)}&column=${column}&row=${row}&edition=${edition}`;

/** The level of a photo whose longer side is not over some pixels; none is smaller than the last. */
export function levelFor(width: number, height: number, most: number): number {
  let level = 0;
  for (let side = Math.max(width, height); side > most && side > 512; side /= 2) level += 1;
  return level;
}
