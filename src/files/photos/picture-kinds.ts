/** The kinds of picture that are taken and given back, known by their first bytes. */
const KINDS = [
  {
    type: 'image/jpeg',
    ending: '.jpg',
    isOne: (head: Uint8Array) => starts(head, 0xff, 0xd8, 0xff),
  },
  {
    type: 'image/png',
    ending: '.png',
    isOne: (head: Uint8Array) => starts(head, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a),
  },
  {
    type: 'image/webp',
    ending: '.webp',
    isOne: (head: Uint8Array) =>
      starts(head, 0x52, 0x49, 0x46, 0x46) && starts(head.subarray(8), 0x57, 0x45, 0x42, 0x50),
  },
] as const;

const starts = (bytes: Uint8Array, ...head: number[]): boolean =>
  head.every((byte, at) => bytes[at] === byte);

export type PictureKind = Pick<(typeof KINDS)[number], 'type' | 'ending'>;

/** What kind of picture some bytes are; null where they are none that is taken. */
export const kindOfPicture = (content: Uint8Array): PictureKind | null =>
  KINDS.find(({ isOne }) => isOne(content)) ?? null;

/** The kind that a stored picture's path says; null for any other file. */
export const kindOfPath = (path: string): PictureKind | null =>
  KINDS.find(({ ending }) => path.toLowerCase().endsWith(ending)) ?? null;

/** Whether bytes are a picture as some phones keep them, which few programs read. */
export const isHeic = (content: Uint8Array): boolean =>
  starts(content.subarray(4), 0x66, 0x74, 0x79, 0x70) &&
  /^(?:heic|heix|hevc|heim|heis|mif1|msf1|avif)$/.test(
    String.fromCharCode(...content.subarray(8, 12)),
  );
