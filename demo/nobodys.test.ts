import { readdirSync, readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { expect, it } from 'vitest';

/** Numbers and names that the demo had once: some were too near to machines that there are. */
const GONE = /(?<![\d.])420(?!\d)|400 mm\/s|\bD30\b|Fulmar 42|\bX26\b|Auklet 23/;

/** Every text of a folder with the name of its file; meshes and pictures are not read. */
function* textsUnder(folder: string): Generator<[name: string, text: string]> {
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    const name = `${entry.parentPath}/${entry.name}`;
    if (!entry.isFile() || /\.(?:jpg|png|3mf|woff2|ico)$/.test(name) || name === SELF) continue;
    const bytes = readFileSync(name);
    yield [name, (name.endsWith('.gz') ? gunzipSync(bytes) : bytes).toString()];
  }
}

const SELF = 'demo/nobodys.test.ts';

it.each(['demo', 'docs', 'src'])(
  'nothing in %s is of the machines that the demo had once',
  (folder) => {
    const found = [...textsUnder(folder)].flatMap(([name, text]) => {
      // Of a sliced file only what it says of itself: its coordinates are any numbers.
      const words = name.endsWith('.gz')
        ? text
            .split('\n')
            .filter((line) => line.startsWith(';'))
            .join('\n')
        : text;
      const match = GONE.exec(words);
      return match ? [`${name}: ${match[0]}`] : [];
    });
    expect(found).toEqual([]);
  },
);
