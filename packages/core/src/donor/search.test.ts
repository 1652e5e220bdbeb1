import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { findDonor } from './search.js';

const W = 120;
const H = 90;
const box = { x: 54, y: 40, width: 9, height: 9 };

function site(): Uint8Array {
  const mask = new Uint8Array(W * H);
  for (let y = box.y; y < box.y + 9; y++) mask.fill(1, y * W + box.x, y * W + box.x + 9);
  return mask;
}

function picture(colour: (x: number, y: number) => number): Raster {
  const raster = createRaster(W, H, 1);
  for (let p = 0; p < W * H; p++) raster.data[p] = colour(p % W, Math.floor(p / W));
  return raster;
}

describe('donor search', () => {
  test('keeps a pattern in phase: the shift is a whole number of periods', () => {
    const stripes = picture((x) => (x % 12 < 6 ? 60 : 190));
    const found = findDonor(stripes, site(), new Uint8Array(W * H), box, 48)!;
    expect(Math.abs(found.dx) % 12).toBe(0);
    expect(Math.hypot(found.dx, found.dy)).toBeLessThan(25);
    expect(found.misfit).toBeLessThan(2);
  });

  test('prefers the near one of equals', () => {
    const flat = picture(() => 128);
    const found = findDonor(flat, site(), new Uint8Array(W * H), box, 48)!;
    expect(Math.hypot(found.dx, found.dy)).toBeLessThan(24);
  });

  test('never overlaps the site, and never touches what is forbidden', () => {
    const random = seededRandom(2);
    const noisy = picture(() => random.between(0, 255));
    const banned = new Uint8Array(W * H);
    for (let y = 0; y < H; y++) banned.fill(1, y * W, y * W + 60);
    const found = findDonor(noisy, site(), banned, box, 48)!;
    expect(Math.max(Math.abs(found.dx), Math.abs(found.dy))).toBeGreaterThanOrEqual(9);
    expect(box.x + found.dx).toBeGreaterThanOrEqual(60);
  });

  test('says null when there is no room', () => {
    const all = new Uint8Array(W * H).fill(1);
    expect(
      findDonor(
        picture(() => 9),
        site(),
        all,
        box,
        48,
      ),
    ).toBeNull();
  });
});
