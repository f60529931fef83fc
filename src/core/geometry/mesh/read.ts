import { meshFacts, type MeshFacts, type MeshFormat } from './facts';
import { readObj } from './obj';
import { MeshError, type Soup } from './soup';
import { isBinaryStl, looksLikeAsciiStl, readAsciiStl, readBinaryStl } from './stl';
import { readThreeMf } from './three-mf';

/** A mesh as it was read: its triangles, in mm. */
export interface ReadMesh {
  format: MeshFormat;
  unit: string | null;
  soup: Soup;
}

/** The largest mesh file that is read. */
const LARGEST_MESH = 300 * 1024 * 1024;

/**
 * Reads a mesh by what its bytes are; the name only decides between text forms.
 *
 * @throws MeshError
 */
export function readMesh(bytes: Uint8Array, name: string): ReadMesh {
  if (bytes.length === 0) throw new MeshError('is empty');
  if (bytes.length > LARGEST_MESH) throw new MeshError('is over 300 MB');
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    return { format: '3mf', ...readThreeMf(bytes) };
  }
  if (isBinaryStl(bytes)) return { format: 'stl-binary', unit: null, soup: readBinaryStl(bytes) };
  if (looksLikeAsciiStl(bytes)) {
    return { format: 'stl-ascii', unit: null, soup: readAsciiStl(textOf(bytes)) };
  }
  const isText = !bytes.subarray(0, 4096).includes(0);
  if (isText && (/\.obj$/i.test(name) || /^\s*(?:#|v |o |g |mtllib )/m.test(head(bytes)))) {
    return { format: 'obj', unit: null, soup: readObj(textOf(bytes)) };
  }
  if (/\.stl$/i.test(name)) {
    return { format: 'stl-binary', unit: null, soup: readBinaryStl(bytes) };
  }
  throw new MeshError('is no STL, OBJ or 3MF');
}

/** Reads a mesh and tells what it is. @throws MeshError */
export function factsOfMesh(bytes: Uint8Array, name: string): MeshFacts {
  const { soup, format, unit } = readMesh(bytes, name);
  return meshFacts(soup, format, unit);
}

const textOf = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes);
const head = (bytes: Uint8Array): string => textOf(bytes.subarray(0, 4096));
