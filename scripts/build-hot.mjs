import { writeFileSync } from 'node:fs';
import { compileHot, HOT_CODE } from './lib/hot.mjs';

writeFileSync(HOT_CODE, await compileHot());
