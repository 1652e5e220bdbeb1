import { createRaster } from '../raster/raster.js';
import type { Raster } from '../raster/raster.js';
import { blurred } from '../raster/plane.js';
import { seededRandom } from '../random/random.js';
import { changedBetween, sitesOf, tellsOf } from './proof.js';
import { TELL_LIMITS } from './tell.js';

const [width, height] = [260, 220];

/** A made-up photograph: slow light, a few things with sharp edges, texture and grain. */
function photograph(): Raster {
  const picture = createRaster(width, height, 1);
  const random = seededRandom(12);
  const rough = Float32Array.from({ length: width * height }, () => random.between(-60, 60));
  const texture = blurred({ width, height, values: rough }, 1.6).values;
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      let v = 90 + 0.25 * x + 0.1 * y + 1.6 * texture[p]! + random.between(-3, 3);
      // A pole that runs down the picture.
      if (Math.abs(x - 80 - 0.2 * y) < 6) v = 190 + random.between(-3, 3);
      picture.data[p] = Math.max(0, Math.min(255, v));
    }
  return picture;
}

const photo = photograph();
/** A round site on texture, and one across the pole. */
const disc = (cx: number, cy: number, r: number): Uint8Array =>
  Uint8Array.from({ length: width * height }, (_, p) =>
    Math.hypot((p % width) - cx, Math.floor(p / width) - cy) <= r ? 1 : 0,
  );
const ground = disc(180, 110, 32);
const across = disc(102, 110, 26);

function changed(mask: Uint8Array, by: (p: number) => number): Raster {
  const data = photo.data.slice();
  for (let p = 0; p < mask.length; p++)
    if (mask[p]) data[p] = Math.max(0, Math.min(255, Math.round(by(p))));
  return { ...photo, data };
}

const kinds = (picture: Raster, mask: Uint8Array): string[] =>
  tellsOf(picture, sitesOf(mask, width)).map((t) => t.kind);

test('an untouched photograph tells nothing', () => {
  expect(kinds(photo, ground)).toEqual([]);
  expect(kinds(photo, across)).toEqual([]);
});

test('a step of tone of about 4 CIEDE2000 is told with its size', () => {
  // 11 codes of grey at this tone are about 4.2 L*, hence about 3.5 to 4.5 CIEDE2000.
  const tells = tellsOf(
    changed(ground, (p) => photo.data[p]! + 11),
    sitesOf(ground, width),
  );
  const tone = tells.find((t) => t.kind === 'tone');
  expect(tone!.value).toBeGreaterThan(3);
  expect(tone!.value).toBeLessThan(5);
  expect(tone!.limit).toBe(TELL_LIMITS.tone);
  expect(tone!.box).toEqual({ x: 148, y: 78, width: 65, height: 65 });
});

test('a blur of 1.5 px is soft', () => {
  const soft = blurred({ width, height, values: Float32Array.from(photo.data) }, 1.5).values;
  expect(
    kinds(
      changed(ground, (p) => soft[p]!),
      ground,
    ),
  ).toContain('softness');
});

test('a line that jumps by 3 px is broken where it crosses the border', () => {
  const shifted = changed(across, (p) => photo.data[p - 3]!);
  const tell = tellsOf(shifted, sitesOf(across, width)).find((t) => t.kind === 'broken-line');
  expect(tell!.value).toBeGreaterThan(2);
  expect(tell!.value).toBeLessThan(4);
});

test('what was copied from nearby is seen twice, and its twin is shown', () => {
  const copied = changed(ground, (p) => photo.data[p - 66 - 20 * width]!);
  const tell = tellsOf(copied, sitesOf(ground, width)).find((t) => t.kind === 'repeat');
  expect(tell!.value).toBeGreaterThan(30);
  expect(tell!.twin!.x - tell!.box.x).toBe(-66);
  expect(tell!.twin!.y - tell!.box.y).toBe(-20);
});

test('grain that was copied is told, and that nothing but grain is the same', () => {
  const random = seededRandom(4);
  const plain = createRaster(width, height, 1);
  for (let p = 0; p < plain.data.length; p++) plain.data[p] = 150 + random.between(-2, 2);
  const data = plain.data.slice();
  for (let p = 0; p < ground.length; p++) if (ground[p]) data[p] = plain.data[p - 70 - 8 * width]!;
  const sites = sitesOf(ground, width);
  const tell = tellsOf({ ...plain, data }, sites).find((t) => t.kind === 'repeat');
  expect([tell!.twin!.x - tell!.box.x, tell!.twin!.y - tell!.box.y]).toEqual([-70, -8]);
  expect(tell!.faint).toBe(true);
  expect(tellsOf(plain, sites)).toEqual([]);
});

test('only pictures of one size are compared; equal ones have no site', () => {
  expect(() => changedBetween(photo, createRaster(10, 10, 1))).toThrow(/one size/);
  expect(sitesOf(changedBetween(photo, photo), width)).toEqual([]);
});
