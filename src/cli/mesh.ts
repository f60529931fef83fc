import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { factsOfMesh, MeshError, type MeshFacts } from '../core/geometry/mesh';
import { InputError } from './input-error';

const LARGEST = 300 * 1024 * 1024;

/** `vergleich mesh`: what a mesh is, for people or as JSON. */
export async function runMesh(path: string, flags: { json?: boolean }): Promise<void> {
  const name = basename(path);
  const facts = await stat(path).catch(() => null);
  if (!facts) throw new InputError(`${name}: there is no such file`);
  if (!facts.isFile()) throw new InputError(`${name}: is not a file`);
  if (facts.size > LARGEST) throw new InputError(`${name}: is over 300 MB`);
  try {
    const found = factsOfMesh(await readFile(path), name);
    process.stdout.write(flags.json ? `${JSON.stringify(found)}\n` : renderMesh(name, found));
  } catch (error) {
    if (error instanceof MeshError) throw new InputError(`${name}: ${error.message}`);
    throw error;
  }
}

function renderMesh(name: string, facts: MeshFacts): string {
  const { min, max, size } = facts.bbox_mm;
  const triple = (values: readonly number[]) => values.map((value) => value.toFixed(3)).join(' ');
  const lines = [
    name,
    `  format     ${facts.format}${facts.unit === null ? '' : `, ${facts.unit}`}`,
    `  size       ${triple(size)} mm, from ${triple(min)} to ${triple(max)}`,
    `  triangles  ${facts.triangles}, ${facts.vertices} vertices, ${facts.shells} ` +
      `${facts.shells === 1 ? 'shell' : 'shells'}`,
    `  area       ${facts.area_mm2.toFixed(2)} mm²`,
    `  volume     ${facts.volume_mm3 === null ? 'not known: it is open' : `${facts.volume_mm3.toFixed(2)} mm³`}`,
    `  identity   ${facts.identity}`,
    ...facts.notes.map((note) => `  note       ${note}`),
  ];
  return `${lines.join('\n')}\n`;
}
