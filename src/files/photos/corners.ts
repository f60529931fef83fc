import {
  CARD,
  cardIn,
  cornersBeforePlain,
  inverted,
  project,
  type CodeInPhoto,
  type FoundCard,
} from '../../core/measures/image';
import { openPicture, pictureSize, describeFault } from './pictures';
import type { FoundCorners } from './task';

/** A part's outline is looked for in a picture whose longer side is this, pixels. */
const LOOKED_AT = 1400;
/** So far from a card's edge and its codes nothing is looked at, mm. */
const MARGIN_MM = 3;

/**
 * Where a part's outline has its corners, pixels of the photo: on the scale card where one is seen,
 * else before a plain background.
 *
 * @throws PictureError
 */
export async function cornersOfPart(
  path: string,
  codes: readonly CodeInPhoto[],
): Promise<FoundCorners> {
  const { width } = await pictureSize(path);
  const card = cardIn(codes);
  try {
    const { data, info } = await openPicture(path)
      .resize({ width: LOOKED_AT, height: LOOKED_AT, fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .flatten({ background: '#ffffff' })
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const factor = width / info.width;
    const pixels = { data, width: info.width, height: info.height, channels: info.channels };
    const corners =
      info.channels < 3 ? null : cornersBeforePlain(pixels, card && onCard(card, factor));
    return {
      card,
      corners: corners && corners.map(({ x, y }) => ({ u: x * factor, v: y * factor })),
    };
  } catch (error) {
    throw describeFault(error);
  }
}

/** Whether a pixel of the smaller picture shows the card between its codes. */
function onCard({ toPicture, width, height }: FoundCard, factor: number) {
  const back = inverted(toPicture);
  const band = CARD.inset + CARD.code + MARGIN_MM;
  return (px: number, py: number): boolean => {
    const { x, y } = project(back, { x: px * factor, y: py * factor });
    const [besideX, besideY] = [Math.min(x, width - x), Math.min(y, height - y)];
    return besideX > MARGIN_MM && besideY > MARGIN_MM && (besideX > band || besideY > band);
  };
}
