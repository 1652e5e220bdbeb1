// Type checks everything: what runs without a page, the pages, and the tools around them.
// The native compiler is several times as quick; the other one is there for what reads its syntax trees.
import { run } from './ready.mjs';

for (const project of ['tsconfig.engine.json', 'packages/web', 'tsconfig.tools.json'])
  run(process.execPath, ['node_modules/typescript-native/bin/tsc', '-p', project]);
