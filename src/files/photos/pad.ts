import { randomFillSync } from 'node:crypto';

const MARKER = 0xff;
const COMMENT = 0xfe;
const SEGMENT = { head: 4, most: 65_537 };

/** So many bytes are wanted at least to pad a picture at all. */
export const LEAST_PADDING = SEGMENT.head;

/**
 * A JPEG of so many bytes: comments of noise, which no decoder shows, stand behind its first segment.
 *
 * @param to at least `LEAST_PADDING` bytes more than the picture has
 * @see ITU-T T.81, B.2.4.5 (comment)
 * @throws RangeError where it is too large for that, or no JPEG
 */
export function paddedJpeg(picture: Uint8Array, to: number): Uint8Array {
  let missing = to - picture.length;
  if (missing < LEAST_PADDING || picture[0] !== MARKER || picture[1] !== 0xd8) {
    throw new RangeError('it is no JPEG that can be padded to this size');
  }
  const isApplication = picture[2] === MARKER && ((picture[3] ?? 0) & 0xf0) === 0xe0;
  const at = isApplication ? 4 + ((picture[4] ?? 0) << 8) + (picture[5] ?? 0) : 2;
  const out = new Uint8Array(to);
  out.set(picture.subarray(0, at));
  let place = at;
  while (missing > 0) {
    // The last one must not be left with less than a head.
    const size = missing <= SEGMENT.most ? missing : Math.min(SEGMENT.most, missing - SEGMENT.head);
    out.set([MARKER, COMMENT, (size - 2) >> 8, (size - 2) & 0xff], place);
    randomFillSync(out, place + SEGMENT.head, size - SEGMENT.head);
    place += size;
    missing -= size;
  }
  out.set(picture.subarray(at), place);
  return out;
}
