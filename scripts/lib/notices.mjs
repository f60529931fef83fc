import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './project.mjs';

const LICENCE = /^(?:licen[cs]e|copying|notice)(?:[.-].*)?$/i;

/** The packages that are installed to run the application: those that are only for its making are left out. */
function runtimePackages() {
  const { packages } = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
  return Object.entries(packages).filter(
    ([path, facts]) =>
      path.startsWith('node_modules/') &&
      !facts.dev &&
      !facts.devOptional &&
      existsSync(join(ROOT, path)),
  );
}

/** The texts of a package's licence and notices. */
const textsOf = (folder) =>
  readdirSync(folder)
    .filter((name) => LICENCE.test(name))
    .sort()
    .map((name) => readFileSync(join(folder, name), 'utf8').trim())
    .join('\n\n');

/** Writes the list of what others have made that runs in the application, with its licences. */
export function writeNotices(file) {
  const parts = runtimePackages()
    .map(([path]) => {
      const folder = join(ROOT, path);
      const { name, version, license, licenses } = JSON.parse(
        readFileSync(join(folder, 'package.json'), 'utf8'),
      );
      const said = license ?? licenses;
      const words = typeof said === 'string' ? said : (said?.type ?? 'see its text');
      return { title: `${name} ${version}: ${words}`, text: textsOf(folder) };
    })
    .sort((a, b) => (a.title < b.title ? -1 : 1));
  const unique = parts.filter(({ title }, at) => title !== parts[at - 1]?.title);
  const list = unique.map(({ title }) => `- ${title}`).join('\n');
  const texts = unique
    .filter(({ text }) => text !== '')
    .map(({ title, text }) => `${'='.repeat(72)}\n${title}\n${'='.repeat(72)}\n\n${text}\n`)
    .join('\n');
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(
    file,
    `Vergleich runs with the following packages of others, under their own licences.\n\n${list}\n\n${texts}`,
  );
}
