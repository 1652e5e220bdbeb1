import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { MATCH_KERNEL } from './match-kernel.js';

test('the committed kernel is what its source compiles to', () => {
  const root = join(__dirname, '../../../..');
  const made = execFileSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { compileKernel } from './scripts/kernels.mjs'; process.stdout.write(await compileKernel());`,
    ],
    { cwd: root, encoding: 'utf8' },
  );
  expect(made).toContain(MATCH_KERNEL);
}, 60_000);
