import type { Plane } from '../../raster/plane.js';
import type { FamilyLine } from './lines.js';
import { SPACING } from './lines.js';
import type { WireLook } from './wires.js';
import { trackedOffsets, wireAlong } from './wires.js';

const [W, H, MIDDLE] = [900, 80, 40];
const LOOK: WireLook = { width: 8, soft: 1, tone: 150, stray: 45 };
const n = Math.floor(W / SPACING);
const LINE: FamilyLine = {
  index: 0,
  x: Float32Array.from({ length: n }, (_, i) => i * SPACING),
  y: new Float32Array(n).fill(MIDDLE),
  nx: new Float32Array(n),
  ny: new Float32Array(n).fill(1),
};

/** A level wire 8 px broad, lit from above: before the sky, from 400 to 500, it is as bright as that in the mean. */
function litWire(): Plane {
  const values = new Float32Array(W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const behind = x >= 400 && x < 500 ? 176 : 40;
      const wire = y < MIDDLE ? 240 : 110;
      values[y * W + x] = Math.abs(y + 0.5 - MIDDLE) < 4 ? wire : behind;
    }
  return { width: W, height: H, values };
}

test('where only the shaded half of a wire is followed, its usual place is covered too', () => {
  const plane = litWire();
  const offsets = trackedOffsets(plane, LINE, LOOK, 8);
  const { ys, widths } = wireAlong(plane, LINE, offsets, LOOK, 0);
  const upper = ys.map((y, i) => y - widths[i]! / 2);
  const lower = ys.map((y, i) => y + widths[i]! / 2);
  const over = (from: number, to: number, values: Float32Array): Float32Array =>
    values.slice(Math.ceil(from / SPACING), Math.floor(to / SPACING));
  // Only its shaded half is followed there, yet all of it is covered.
  expect(Math.max(...over(430, 470, offsets))).toBeGreaterThan(1);
  expect(Math.max(...over(30, 870, upper))).toBeLessThan(MIDDLE - 2);
  expect(Math.min(...over(30, 870, lower))).toBeGreaterThan(MIDDLE + 2);
});
