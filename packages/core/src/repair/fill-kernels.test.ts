import { openTiles } from '../predict/tile.js';
import { deepestOf } from '../shape/depth.js';
import { compileFillKernels } from './fill-kernels.js';

const { WebAssembly } = globalThis as unknown as {
  WebAssembly: Record<'Module' | 'compile', () => unknown>;
};

test('what was compiled ahead is not compiled when it is asked for', async () => {
  const compile = jest.spyOn(WebAssembly, 'Module');
  await compileFillKernels();
  expect(deepestOf(Uint8Array.of(0, 1, 0), 3, 1)).toBe(1);
  openTiles(40, 40, 1);
  expect(compile).not.toHaveBeenCalled();
  // A second time there is nothing left to do.
  const again = jest.spyOn(WebAssembly, 'compile');
  await compileFillKernels();
  expect(again).not.toHaveBeenCalled();
});
