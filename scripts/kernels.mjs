// Compiles the WebAssembly kernels and writes them as modules that every bundler and runtime can load.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';
import { root } from './ready.mjs';

/** Each kernel's source in packages/core/kernels, and the folder of packages/core/src that uses it. */
export const KERNELS = {
  donor: 'donor',
  fill: 'fill',
  find: 'find',
  join: 'join',
  predict: 'predict',
  raster: 'raster',
  register: 'register',
  repair: 'repair',
  shape: 'shape',
  solve: 'solve',
};

/** Kernels that several threads run on one memory. */
const SHARED = new Set([
  'fill',
  'find',
  'join',
  'predict',
  'raster',
  'register',
  'repair',
  'solve',
]);

/** @returns the module's text */
export async function compileKernel(name) {
  const out = {};
  const { error, stderr } = await asc.main(
    [
      `${name}.ts`,
      '--outFile',
      'kernel.wasm',
      '-O3',
      '--enable',
      'simd',
      ...(SHARED.has(name)
        ? ['--enable', 'threads', '--sharedMemory', '--maximumMemory', '65536']
        : []),
      '--runtime',
      'stub',
      '--importMemory',
      '--noAssert',
      '--baseDir',
      join(root, 'packages/core/kernels'),
    ],
    { writeFile: (file, data) => (out[file] = data) },
  );
  if (error) throw new Error(`${error.message}\n${stderr}`);
  const text = Buffer.from(out['kernel.wasm']).toString('base64');
  return `// Written by scripts/kernels.mjs from kernels/${name}.ts; not to be edited.\nexport const ${name.toUpperCase()}_KERNEL =\n  '${text}';\n`;
}

/** Where a kernel's module lies. */
export const modulePath = (name) =>
  join(root, 'packages/core/src', KERNELS[name], `${name}-kernel.ts`);

if (process.argv[1]?.endsWith('kernels.mjs'))
  for (const name of Object.keys(KERNELS))
    writeFileSync(modulePath(name), await compileKernel(name));
