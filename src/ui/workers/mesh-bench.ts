import solids from 'manifold-3d';
import solidsUrl from 'manifold-3d/manifold.wasm?url';
import {
  drawableOf,
  drawFrom,
  MeshError,
  readMesh,
  sectionAt,
  sheetOfSoup,
  Soup,
  viewFrom,
  writeStl,
  writeThreeMf,
  type Drawable,
  type Drawing,
  type MeshSheet,
} from '../../core/geometry/mesh';
import {
  PART_DESIGNS,
  realise,
  type Kernel,
  type Part,
  type PartValues,
} from '../../core/geometry/parts';

/** What is asked of the worker; it works on one mesh at a time, the last that was made or read. */
export type MeshRequest =
  | { ask: 'make'; design: string; values: PartValues }
  | { ask: 'read'; name: string; bytes: Uint8Array }
  /** Makes the mesh larger: by 25.4 where it was drawn in inches. */
  | { ask: 'scale'; by: number }
  | { ask: 'turn'; azimuth: number; elevation: number }
  | { ask: 'section'; z_mm: number }
  | { ask: 'stl' }
  | { ask: '3mf'; name: string };

export interface MeshAnswers {
  make: { part: Part; sheet: MeshSheet };
  read: { sheet: MeshSheet };
  scale: { sheet: MeshSheet };
  turn: Drawing;
  section: string;
  stl: Uint8Array;
  '3mf': Uint8Array;
}

export type MeshReply =
  { id: number; answer: MeshAnswers[keyof MeshAnswers] } | { id: number; fault: string };

interface Held {
  soup: Soup;
  format: MeshSheet['facts']['format'];
  unit: string | null;
  drawable?: Drawable;
}

let kernel: Promise<Kernel> | undefined;
let held: Held | undefined;

async function startKernel(): Promise<Kernel> {
  const modeller = await solids({ locateFile: () => solidsUrl });
  modeller.setup();
  return modeller;
}

const sheetOfHeld = ({ soup, format, unit }: Held): MeshSheet => sheetOfSoup(soup, format, unit);

function scaled(soup: Soup, by: number): Soup {
  const larger = new Soup(soup.triangles);
  const { corners } = soup;
  for (let at = 0; at < corners.length; at += 3) {
    larger.add((corners[at] ?? 0) * by, (corners[at + 1] ?? 0) * by, (corners[at + 2] ?? 0) * by);
  }
  return larger;
}

async function answer(request: MeshRequest): Promise<MeshAnswers[keyof MeshAnswers]> {
  if (request.ask === 'make') {
    const design = PART_DESIGNS.find(({ key }) => key === request.design);
    if (!design) throw new RangeError(`there is no part ${request.design}`);
    const part = design.make(request.values);
    kernel ??= startKernel();
    held = { soup: realise(await kernel, part.solid), format: 'stl-binary', unit: null };
    return { part, sheet: sheetOfHeld(held) };
  }
  if (request.ask === 'read') {
    held = readMesh(request.bytes, request.name);
    return { sheet: sheetOfHeld(held) };
  }
  if (!held) throw new RangeError('there is no mesh yet');
  switch (request.ask) {
    case 'scale':
      held = { soup: scaled(held.soup, request.by), format: held.format, unit: held.unit };
      return { sheet: sheetOfHeld(held) };
    case 'turn':
      held.drawable ??= drawableOf(held.soup);
      return drawFrom(held.drawable, viewFrom(request.azimuth, request.elevation));
    case 'section':
      return sectionAt(held.soup, request.z_mm);
    case 'stl':
      return writeStl(held.soup);
    case '3mf':
      return writeThreeMf(held.soup, request.name);
  }
}

/** Web worker: makes parts from numbers, reads meshes, draws and writes them. */
self.onmessage = (event: MessageEvent<{ id: number; request: MeshRequest }>) => {
  const { id, request } = event.data;
  answer(request).then(
    (found) => self.postMessage({ id, answer: found } satisfies MeshReply),
    (error: unknown) => {
      const isInput = error instanceof MeshError;
      const fault = error instanceof Error ? error.message : 'unknown';
      self.postMessage({ id, fault: isInput ? `The mesh ${fault}.` : fault } satisfies MeshReply);
    },
  );
};
