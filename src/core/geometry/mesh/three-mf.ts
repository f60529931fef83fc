import { unzipSync, type UnzipFileInfo } from 'fflate';
import { SaxesParser, type SaxesAttributeNSIncomplete } from 'saxes';
import { MeshError, MOST_TRIANGLES, Soup } from './soup';

/** Millimetres of a unit of length. */
const UNITS: Readonly<Record<string, number>> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

const MOST_PART_BYTES = 256 * 1024 * 1024;
const RATIO_FROM = 16 * 1024 * 1024;
const MOST_RATIO = 200;
const DEEPEST = 32;

/** A row-major 4 × 3 matrix, as the format writes it: the last row moves. */
type Transform = readonly number[];

const IDENTITY: Transform = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];

interface Placed {
  path: string;
  objectId: string;
  transform: Transform;
}

interface MeshObject {
  vertices: Float64Array;
  triangles: Uint32Array;
  components: Placed[];
}

interface Model {
  unit: string;
  objects: Map<string, MeshObject>;
  items: Placed[];
}

export interface ThreeMf {
  soup: Soup;
  unit: string;
}

/**
 * Reads what a 3MF package builds: only its build items, their components put in place, in mm.
 *
 * @throws MeshError
 * @see 3MF Core Specification 1.3, chapters 2 to 4; Production Extension 1.1 for other parts
 */
export function readThreeMf(bytes: Uint8Array): ThreeMf {
  const parts = openParts(bytes);
  const start = startPart(parts);
  const models = new Map<string, Model>();
  const modelAt = (path: string): Model => {
    let model = models.get(path);
    if (!model) {
      const part = parts.get(path.toLowerCase());
      if (!part) throw new MeshError(`names a part ${path} that is not in the package`);
      model = readModel(part, path);
      models.set(path, model);
    }
    return model;
  };
  const root = modelAt(start);
  const scale = UNITS[root.unit];
  if (scale === undefined) throw new MeshError(`has a unit that is not known: ${root.unit}`);
  const soup = new Soup();
  for (const item of root.items) place(modelAt, item, [item.transform], soup, scale, 0);
  if (root.items.length === 0) throw new MeshError('builds nothing: it has no build item');
  return { soup, unit: root.unit };
}

function openParts(bytes: Uint8Array): Map<string, Uint8Array> {
  const isWanted = ({ name, size, originalSize }: UnzipFileInfo): boolean => {
    if (!/\.(?:model|rels)$/i.test(name)) return false;
    if (
      originalSize > MOST_PART_BYTES ||
      (originalSize > RATIO_FROM && originalSize > MOST_RATIO * Math.max(1, size))
    ) {
      throw new MeshError(`${name} unpacks to ${originalSize} bytes, far more than a mesh would`);
    }
    return true;
  };
  try {
    const entries = unzipSync(bytes, { filter: isWanted });
    return new Map(
      Object.entries(entries).map(([name, content]) => [`/${name}`.toLowerCase(), content]),
    );
  } catch (error) {
    if (error instanceof MeshError) throw error;
    const reason = error instanceof Error ? error.message : 'unknown';
    throw new MeshError(`is no package that can be opened (${reason})`);
  }
}

/** The part that the package's relationships name as its model. */
function startPart(parts: ReadonlyMap<string, Uint8Array>): string {
  const rels = parts.get('/_rels/.rels');
  let found: string | null = null;
  if (rels) {
    parse(rels, '/_rels/.rels', (name, attribute) => {
      if (name === 'Relationship' && attribute('Type')?.endsWith('/3dmodel') === true) {
        found ??= absolute(attribute('Target') ?? '');
      }
    });
  }
  const path = found ?? '/3D/3dmodel.model';
  if (!parts.has(path.toLowerCase())) throw new MeshError('holds no model');
  return path;
}

const absolute = (path: string): string => (path.startsWith('/') ? path : `/${path}`);

/** Reads one part's XML; a document type is refused, so that nothing can be expanded. */
function parse(
  content: Uint8Array,
  path: string,
  onOpen: (name: string, attribute: (name: string) => string | undefined) => void,
  onClose: (name: string) => void = () => undefined,
): void {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let attributes: Record<string, string | SaxesAttributeNSIncomplete> = {};
  const local = (name: string) => name.slice(name.indexOf(':') + 1);
  const attribute = (name: string): string | undefined => {
    const value = attributes[name];
    return typeof value === 'string' ? value : undefined;
  };
  parser.on('doctype', () => {
    throw new MeshError(`${path} has a document type, which a mesh has no need of`);
  });
  parser.on('error', (error) => {
    throw new MeshError(`${path} is no XML that can be read: ${error.message.split('\n')[0]}`);
  });
  parser.on('opentag', (tag) => {
    attributes = tag.attributes;
    onOpen(local(tag.name), attribute);
  });
  parser.on('closetag', (tag) => onClose(local(tag.name)));
  const decoder = new TextDecoder('utf-8');
  const PIECE = 1024 * 1024;
  for (let at = 0; at < content.length; at += PIECE) {
    parser.write(decoder.decode(content.subarray(at, at + PIECE), { stream: true }));
  }
  parser.close();
}

class Numbers<Kind extends Float64Array | Uint32Array> {
  #length = 0;
  #values: Kind;
  readonly #make: (length: number) => Kind;
  constructor(make: (length: number) => Kind) {
    this.#make = make;
    this.#values = make(384);
  }
  push(value: number): void {
    if (this.#length === this.#values.length) {
      const grown = this.#make(2 * this.#length);
      grown.set(this.#values);
      this.#values = grown;
    }
    this.#values[this.#length] = value;
    this.#length += 1;
  }
  get length(): number {
    return this.#length;
  }
  done(): Kind {
    return this.#values.subarray(0, this.#length) as Kind;
  }
}

function readModel(content: Uint8Array, path: string): Model {
  const model: Model = { unit: 'millimeter', objects: new Map(), items: [] };
  let id: string | null = null;
  let vertices = new Numbers((length) => new Float64Array(length));
  let triangles = new Numbers((length) => new Uint32Array(length));
  let components: Placed[] = [];
  parse(
    content,
    path,
    (name, attribute) => {
      const placed = (): Placed => ({
        path: pathOf(attribute) ?? path,
        objectId: attribute('objectid') ?? '',
        transform: readTransform(attribute('transform'), path),
      });
      if (name === 'model') model.unit = attribute('unit') ?? 'millimeter';
      else if (name === 'object') {
        id = attribute('id') ?? '';
        vertices = new Numbers((length) => new Float64Array(length));
        triangles = new Numbers((length) => new Uint32Array(length));
        components = [];
      } else if (name === 'vertex') {
        for (const axis of ['x', 'y', 'z']) {
          const value = Number(attribute(axis) ?? NaN);
          if (!Number.isFinite(value)) {
            throw new MeshError(
              `${path}: vertex ${vertices.length / 3} of object ${id} is no place (${axis} = ${attribute(axis)})`,
            );
          }
          vertices.push(value);
        }
      } else if (name === 'triangle') {
        for (const corner of ['v1', 'v2', 'v3']) {
          const index = Number(attribute(corner) ?? NaN);
          if (!Number.isInteger(index) || index < 0 || index >= vertices.length / 3) {
            throw new MeshError(
              `${path}: triangle ${triangles.length / 3} of object ${id} names no vertex (${corner} = ` +
                `${attribute(corner)})`,
            );
          }
          triangles.push(index);
        }
        if (triangles.length > 3 * MOST_TRIANGLES) {
          throw new MeshError(`has more than ${MOST_TRIANGLES} triangles: make it coarser`);
        }
      } else if (name === 'component') components.push(placed());
      else if (name === 'item') model.items.push(placed());
    },
    (name) => {
      if (name !== 'object' || id === null) return;
      model.objects.set(id, {
        vertices: vertices.done(),
        triangles: triangles.done(),
        components,
      });
      id = null;
    },
  );
  return model;
}

const pathOf = (attribute: (name: string) => string | undefined): string | undefined => {
  // The production extension's prefix is `p` by custom; any prefix may be declared.
  const path = attribute('p:path') ?? attribute('path');
  return path === undefined ? undefined : absolute(path);
};

function readTransform(text: string | undefined, path: string): Transform {
  if (text === undefined) return IDENTITY;
  const numbers = text.trim().split(/\s+/).map(Number);
  if (numbers.length !== 12 || !numbers.every(Number.isFinite)) {
    throw new MeshError(`${path}: a transform needs twelve numbers (${text.slice(0, 60)})`);
  }
  return numbers;
}

/** Puts an object and what it is made of in place; the innermost transform acts first. */
function place(
  modelAt: (path: string) => Model,
  { path, objectId }: Placed,
  transforms: readonly Transform[],
  soup: Soup,
  scale: number,
  depth: number,
): void {
  if (depth > DEEPEST) throw new MeshError('has objects that are made of themselves');
  const object = modelAt(path).objects.get(objectId);
  if (!object) throw new MeshError(`names an object ${objectId} that is not there (${path})`);
  const turned = [...transforms].reverse();
  // A mirrored object has its triangles run the other way round; they are turned back.
  const isMirrored = transforms.reduce((sign, t) => sign * determinant(t), 1) < 0;
  const { vertices, triangles } = object;
  for (let at = 0; at < triangles.length; at += 3) {
    for (const corner of isMirrored ? [0, 2, 1] : [0, 1, 2]) {
      const vertex = 3 * (triangles[at + corner] ?? 0);
      let [x, y, z] = [vertices[vertex] ?? 0, vertices[vertex + 1] ?? 0, vertices[vertex + 2] ?? 0];
      for (const t of turned) [x, y, z] = apply(t, x, y, z);
      soup.add(x * scale, y * scale, z * scale);
    }
  }
  for (const component of object.components) {
    place(modelAt, component, [...transforms, component.transform], soup, scale, depth + 1);
  }
}

const apply = (t: Transform, x: number, y: number, z: number): [number, number, number] => [
  x * (t[0] ?? 0) + y * (t[3] ?? 0) + z * (t[6] ?? 0) + (t[9] ?? 0),
  x * (t[1] ?? 0) + y * (t[4] ?? 0) + z * (t[7] ?? 0) + (t[10] ?? 0),
  x * (t[2] ?? 0) + y * (t[5] ?? 0) + z * (t[8] ?? 0) + (t[11] ?? 0),
];

function determinant(t: Transform): number {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 0] = t;
  return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
}
