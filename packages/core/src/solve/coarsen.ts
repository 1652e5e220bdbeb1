import type { System } from './system.js';
import { runsOf } from './system.js';

/**
 * The system of half the resolution: 2x2 cells make one, which is an unknown when any of them is. A coarse
 * edge stands for two fine ones over twice the distance, so fine weights are added and halved; ties to known
 * values go over about 3/2 of the fine distance, so theirs are added, halved and taken 4/3 times.
 */
export function coarsen(fine: System): System {
  const { stride, unknown, right, below, own } = fine;
  const rows = fine.cells / stride;
  const wide = ((stride - 1) >> 1) + 2;
  const cells = wide * (((rows - 1) >> 1) + 2);
  const coarse: System = {
    stride: wide,
    cells,
    unknown: new Uint8Array(cells),
    runs: new Int32Array(0),
    right: new Float64Array(cells),
    below: new Float64Array(cells),
    own: new Float64Array(cells),
  };
  for (let row = 1; row < rows - 1; row++) {
    const parentRow = ((row + 1) >> 1) * wide;
    for (let column = 1, i = row * stride + 1; column < stride - 1; column++, i++) {
      if (!unknown[i]) continue;
      const c = parentRow + ((column + 1) >> 1);
      coarse.unknown[c] = 1;
      coarse.own[c]! += own[i]! * (2 / 3);
      // Odd columns are the left halves of their parents: only even ones have an edge to the next parent.
      if (!(column & 1)) coarse.right[c]! += right[i]! / 2;
      if (!(row & 1)) coarse.below[c]! += below[i]! / 2;
    }
  }
  return { ...coarse, runs: runsOf(coarse.unknown, wide) };
}
