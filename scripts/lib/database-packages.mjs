import { fileURLToPath } from 'node:url';
import { runCompiled } from './compiled.mjs';

// It is packed with the command: what it takes is found from `dist/packed`.
const file = new URL('../cli/database-packages.cjs', import.meta.url);

export const { sequelize, pg } = runCompiled(fileURLToPath(file));
