import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

test.each(['donor', 'fill', 'find', 'join', 'predict', 'register', 'repair', 'shape', 'solve'])(
  'the committed %s kernel is what its source compiles to',
  (name) => {
    const script = `import { compileKernel, modulePath } from './scripts/kernels.mjs';
      process.stdout.write(JSON.stringify([modulePath('${name}'), await compileKernel('${name}')]));`;
    const out = execFileSync(process.execPath, ['--input-type=module', '-e', script], {
      cwd: join(__dirname, '../../../..'),
      encoding: 'utf8',
    });
    const [path, made] = JSON.parse(out) as [string, string];
    expect(readFileSync(path, 'utf8')).toBe(made);
  },
  60_000,
);
