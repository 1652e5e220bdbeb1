import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const NAMES = [
  'donor',
  'fill',
  'find',
  'join',
  'predict',
  'raster',
  'register',
  'repair',
  'shape',
  'solve',
];

/** By name: the module's path and the text that its source compiles to. */
let compiled: Record<string, [path: string, text: string]>;
beforeAll(() => {
  // All in one process: a compiler that has warmed up is several times as quick.
  const script = `import { compileKernel, KERNELS, modulePath } from './scripts/kernels.mjs';
    const compiled = {};
    for (const name of Object.keys(KERNELS)) compiled[name] = [modulePath(name), await compileKernel(name)];
    process.stdout.write(JSON.stringify(compiled));`;
  const out = execFileSync(process.execPath, ['--input-type=module', '-e', script], {
    cwd: join(__dirname, '../../../..'),
    encoding: 'utf8',
  });
  compiled = JSON.parse(out) as typeof compiled;
}, 120_000);

test('every kernel is looked at', () => {
  expect(Object.keys(compiled).sort()).toEqual(NAMES);
});

test.each(NAMES)('the committed %s kernel is what its source compiles to', (name) => {
  const [path, made] = compiled[name]!;
  expect(readFileSync(path, 'utf8')).toBe(made);
});
