import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Soup } from './soup';
import { weld } from './weld';

const CORE = 'http://schemas.microsoft.com/3dmanufacturing/core/2015/02';
const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
const TYPES = 'http://schemas.openxmlformats.org/package/2006/content-types';
/** Packages of the same mesh are the same bytes, whenever they are written. */
const WHEN = new Date(1980, 0, 1);

const escaped = (text: string): string =>
  text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`).replace(/\p{Cc}/gu, ' ');

/**
 * A mesh as a 3MF package with one object, in millimetres.
 *
 * @see 3MF Core Specification 1.3
 */
export function writeThreeMf(soup: Soup, name: string): Uint8Array {
  const { places, triangles } = weld(soup);
  const lines = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<model unit="millimeter" xml:lang="en" xmlns="${CORE}">`,
    `<metadata name="Title">${escaped(name)}</metadata>`,
    `<resources><object id="1" type="model" name="${escaped(name)}"><mesh><vertices>`,
  ];
  for (let at = 0; at < places.length; at += 3) {
    const [x, y, z] = [0, 1, 2].map((axis) => Number((places[at + axis] ?? 0).toFixed(6)));
    lines.push(`<vertex x="${x}" y="${y}" z="${z}"/>`);
  }
  lines.push('</vertices><triangles>');
  for (let at = 0; at < triangles.length; at += 3) {
    const [a = 0, b = 0, c = 0] = triangles.subarray(at, at + 3);
    if (a !== b && b !== c && c !== a) lines.push(`<triangle v1="${a}" v2="${b}" v3="${c}"/>`);
  }
  lines.push(
    '</triangles></mesh></object></resources><build><item objectid="1"/></build></model>',
    '',
  );
  const files: Zippable = {
    '[Content_Types].xml': strToU8(
      `<?xml version="1.0" encoding="UTF-8"?><Types xmlns="${TYPES}"><Default Extension="rels" ` +
        'ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default ' +
        'Extension="model" ' +
        'ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      `<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="${RELATIONS}"><Relationship ` +
        'Id="rel0" Target="/3D/part.model" ' +
        'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
    ),
    '3D/part.model': strToU8(lines.join('\n')),
  };
  return zipSync(files, { mtime: WHEN, level: 6 });
}
