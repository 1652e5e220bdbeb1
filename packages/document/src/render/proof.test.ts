import type { Raster } from '@tersum/core';
import { createRaster, crop, seededRandom } from '@tersum/core';
import type { Patch } from './patch.js';
import { sealPatch } from './patch.js';
import { proofBands, proofNames, proofOf } from './proof.js';

const [width, height] = [900, 300];
const frame = { x: 0, y: 0, width, height };

/** Squares of all sizes, so that a copy is known again. */
function scene(): Raster {
  const random = seededRandom(7);
  const picture = createRaster(width, height, 3);
  picture.data.fill(120);
  for (let k = 0; k < 2600; k++) {
    const [x0, y0] = [random.between(0, width - 1), random.between(0, height - 1)];
    const size = random.between(4, 18);
    const colour = [0, 1, 2].map(() => random.between(60, 190));
    for (let y = y0; y < Math.min(height, y0 + size); y++)
      for (let x = x0; x < Math.min(width, x0 + size); x++)
        picture.data.set(colour, 3 * (y * width + x));
  }
  return picture;
}
const photo = scene();

/** A square copied from elsewhere. */
function copied(x: number, y: number, dx: number, dy: number, side = 48): Patch {
  const rect = { x, y, width: side, height: side };
  const samples = crop(photo, { ...rect, x: x + dx, y: y + dy });
  return sealPatch(rect, samples, new Uint8Array(side * side).fill(1));
}

const patches = [copied(60, 60, 90, 80), copied(760, 60, -20, 120), copied(80, 200, 120, -90, 40)];

test('one at a time they tell what they tell together, in the picture’s places', () => {
  const together = proofOf(photo, patches, [0, 1, 2]);
  expect(together).toHaveLength(3);
  const kinds = together.map((tells) => tells.map((t) => t.kind));
  expect(kinds[0]).toContain('repeat');
  const repeat = together[0]!.find((t) => t.kind === 'repeat')!;
  expect([repeat.twin!.x - repeat.box.x, repeat.twin!.y - repeat.box.y]).toEqual([90, 80]);
  expect(repeat.box.x).toBeGreaterThanOrEqual(60);
  patches.forEach((_, k) => {
    const [alone] = proofOf(photo, patches, [k]);
    expect(alone!.map((t) => [t.kind, t.box])).toEqual(together[k]!.map((t) => [t.kind, t.box]));
    alone!.forEach((t, i) => expect(t.value).toBeCloseTo(together[k]![i]!.value, 2));
  });
});

test('a name changes with what is in sight of a repair, and with nothing further away', () => {
  const names = proofNames(patches, 'photo', frame);
  expect(new Set(names).size).toBe(3);
  const moved = [...patches.slice(0, 2), copied(80, 200, 130, -90, 40)];
  const after = proofNames(moved, 'photo', frame);
  // The third lies beside the first and out of sight of the second, 680 px away.
  expect(after[0]).not.toBe(names[0]);
  expect(after[1]).toBe(names[1]);
  expect(after[2]).not.toBe(names[2]);
  expect(proofNames(patches, 'another photo', frame)[0]).not.toBe(names[0]);
});

test('work is cut into bands from top to bottom, none empty, all there', () => {
  expect(proofBands(patches, [0, 1, 2], 2)).toEqual([[0, 1], [2]]);
  expect(proofBands(patches, [2, 0], 1)).toEqual([[0, 2]]);
  expect(proofBands(patches, [1], 4)).toEqual([[1]]);
  expect(proofBands(patches, [], 2)).toEqual([]);
});
