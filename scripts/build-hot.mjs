import { writeFileSync } from 'node:fs';
import { codeOf, compileHot, HOT_LOOPS } from './lib/hot.mjs';

for (const loop of Object.keys(HOT_LOOPS)) writeFileSync(codeOf(loop), await compileHot(loop));
