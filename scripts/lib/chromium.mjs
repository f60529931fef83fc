import { existsSync } from 'node:fs';
import { installDebian } from './project.mjs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** Debian's Chromium, installed where it is missing; its path. */
export async function ensureChromium() {
  const find = () => PLACES.find((path) => path && existsSync(path));
  const found = find();
  if (found) return found;
  await installDebian(['chromium'], 'Chromium is needed for the end-to-end tests.');
  const installed = find();
  if (!installed) throw new Error('Chromium was installed and cannot be found.');
  return installed;
}
