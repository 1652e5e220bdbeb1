// Type checks every part against its own settings.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root, run } from './ready.mjs';

const parts = [
  ...readdirSync(join(root, 'packages')).map((name) => `packages/${name}`),
  'e2e',
  'bench',
];
for (const part of parts) run('npx', ['tsc', '-p', part]);
