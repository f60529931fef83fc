import { MeshError, MOST_TRIANGLES, Soup } from './soup';

const HEADER = 84;
const RECORD = 50;

/** Whether bytes are a binary STL: their length is what their count of triangles says. */
export function isBinaryStl(bytes: Uint8Array): boolean {
  if (bytes.length < HEADER) return false;
  const count = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  return bytes.length === HEADER + RECORD * count;
}

/** Whether bytes begin as the text form of an STL does. */
export function looksLikeAsciiStl(bytes: Uint8Array): boolean {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  return /^\s*solid\b/i.test(head) && (/\bfacet\b/i.test(head) || /\bendsolid\b/i.test(head));
}

/**
 * Reads a binary STL.
 *
 * @throws MeshError where it is cut off or claims what is not there
 */
export function readBinaryStl(bytes: Uint8Array): Soup {
  if (bytes.length < HEADER) throw new MeshError('is too short for an STL');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(80, true);
  const there = Math.floor((bytes.length - HEADER) / RECORD);
  if (count > there) {
    throw new MeshError(
      `claims ${count} triangles and has room for ${there}: it is cut off, or no STL`,
    );
  }
  if (count > MOST_TRIANGLES) {
    throw new MeshError(`has more than ${MOST_TRIANGLES} triangles: make it coarser`);
  }
  const soup = new Soup(Math.max(1, count), true);
  for (let triangle = 0; triangle < count; triangle += 1) {
    let at = HEADER + RECORD * triangle + 12;
    for (let corner = 0; corner < 3; corner += 1, at += 12) {
      soup.add(
        view.getFloat32(at, true),
        view.getFloat32(at + 4, true),
        view.getFloat32(at + 8, true),
      );
    }
  }
  return soup;
}

/**
 * Reads an STL in its text form.
 *
 * @throws MeshError with the line at fault
 */
export function readAsciiStl(text: string): Soup {
  const soup = new Soup();
  const lines = text.split(/\r\n|\r|\n/);
  let inLoop = 0;
  let isEnded = false;
  for (const [at, line] of lines.entries()) {
    const words = line.trim().split(/\s+/);
    const keyword = words[0]?.toLowerCase() ?? '';
    if (keyword === 'vertex') {
      const [x, y, z] = words.slice(1, 4).map(Number);
      if (words.length < 4 || x === undefined || y === undefined || z === undefined) {
        throw new MeshError(`line ${at + 1}: a vertex needs three numbers`);
      }
      if (![x, y, z].every(Number.isFinite)) {
        throw new MeshError(`line ${at + 1}: a vertex is no place (${words.slice(1).join(' ')})`);
      }
      inLoop += 1;
      if (inLoop > 3) throw new MeshError(`line ${at + 1}: a facet has more than three vertices`);
      soup.add(x, y, z);
    } else if (keyword === 'endloop' || keyword === 'endfacet') {
      if (inLoop !== 3 && keyword === 'endloop') {
        throw new MeshError(`line ${at + 1}: a facet has ${inLoop} vertices, not three`);
      }
      inLoop = 0;
    } else if (keyword === 'endsolid') isEnded = true;
  }
  if (inLoop !== 0 || !isEnded) throw new MeshError('is cut off: its end is missing');
  return soup;
}
