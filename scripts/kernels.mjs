// Compiles the WebAssembly kernels and writes them as modules that every bundler and runtime can load.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';
import { root } from './ready.mjs';

/** @returns the module's text */
export async function compileKernel() {
  const out = {};
  const { error, stderr } = await asc.main(
    [
      'match.ts',
      '--outFile',
      'match.wasm',
      '-O3',
      '--enable',
      'simd',
      '--runtime',
      'stub',
      '--importMemory',
      '--noAssert',
      '--baseDir',
      join(root, 'packages/core/kernels'),
    ],
    { writeFile: (name, data) => (out[name] = data) },
  );
  if (error) throw new Error(`${error.message}\n${stderr}`);
  const text = Buffer.from(out['match.wasm']).toString('base64');
  return `// Written by scripts/kernels.mjs from kernels/match.ts; not to be edited.\nexport const MATCH_KERNEL =\n  '${text}';\n`;
}

if (process.argv[1]?.endsWith('kernels.mjs'))
  writeFileSync(join(root, 'packages/core/src/fill/match-kernel.ts'), await compileKernel());
