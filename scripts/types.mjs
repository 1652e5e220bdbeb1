// Type checks everything: what runs without a page, the pages, and the tools around them.
import { run } from './ready.mjs';

for (const project of ['tsconfig.engine.json', 'packages/web', 'tsconfig.tools.json'])
  run('npx', ['tsc', '-p', project]);
