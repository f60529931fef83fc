#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const built = new URL('../dist/cli/main.js', import.meta.url);
if (!existsSync(fileURLToPath(built))) {
  process.stderr.write('The command is not built yet: run npm run build in the project folder.\n');
  process.exit(2);
}
const { main } = await import(built.href);
process.exitCode = await main(process.argv.slice(2));
