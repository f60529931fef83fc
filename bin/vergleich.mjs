#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const built = new URL('../dist/cli/main.js', import.meta.url);
if (!existsSync(fileURLToPath(built))) {
  process.stderr.write('The command is not built yet: run npm run build in the project folder.\n');
  process.exit(2);
}
// What works on a database works on the one that `npm start` uses, where no other is named. A backup is put into
// one that is named only.
const ON_DATABASE = new Set(['backup', 'check', 'export', 'import', 'owner-link']);
if (!process.env.DATABASE_URL && ON_DATABASE.has(process.argv[2])) {
  const { runningDatabase } = await import('../scripts/lib/own-database.mjs');
  const found = runningDatabase();
  if (found) process.env.DATABASE_URL = found;
}
const { main } = await import(built.href);
process.exitCode = await main(process.argv.slice(2));
