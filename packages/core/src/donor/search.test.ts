import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { findDonors } from './search.js';

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

/** Means of 3x3, so that likeness falls off gently. */
function soft(values: Uint8Array): Uint8Array {
  return values.map((_, p) => {
    let sum = 0;
    for (const dy of [-W, 0, W])
      for (const dx of [-1, 0, 1]) sum += values[(p + dx + dy + W * H) % (W * H)]!;
    return sum / 9;
  });
}

describe('donor search', () => {
  test('keeps a pattern in phase: the shift is a whole number of periods', () => {
    const stripes = picture((x) => (x % 12 < 6 ? 60 : 190));
    const found = findDonors(stripes, site(), new Uint8Array(W * H), box, { reach: 32 })[0]!;
    expect(Math.abs(found.dx) % 12).toBe(0);
    expect(Math.hypot(found.dx, found.dy)).toBeLessThan(25);
    expect(found.misfit).toBeLessThan(2);
  });

  test('prefers the near one of equals', () => {
    const flat = picture(() => 128);
    const found = findDonors(flat, site(), new Uint8Array(W * H), box, { reach: 32 })[0]!;
    expect(Math.hypot(found.dx, found.dy)).toBeLessThan(24);
  });

  test('places that are too near can be left out', () => {
    const flat = picture(() => 128);
    const options = { reach: 40, least: 30 };
    for (const { dx, dy } of findDonors(flat, site(), new Uint8Array(W * H), box, options))
      expect(Math.max(Math.abs(dx), Math.abs(dy))).toBeGreaterThanOrEqual(29);
  });

  test('never overlaps the site, and never touches what is forbidden', () => {
    const random = seededRandom(2);
    const noisy = picture(() => random.between(0, 255));
    const banned = new Uint8Array(W * H);
    for (let y = 0; y < H; y++) banned.fill(1, y * W, y * W + 60);
    const found = findDonors(noisy, site(), banned, box, { reach: 48 })[0]!;
    expect(Math.max(Math.abs(found.dx), Math.abs(found.dy))).toBeGreaterThanOrEqual(9);
    expect(box.x + found.dx).toBeGreaterThanOrEqual(60);
  });

  test('offers nothing when there is no room', () => {
    const all = new Uint8Array(W * H).fill(1);
    expect(
      findDonors(
        picture(() => 9),
        site(),
        all,
        box,
        { reach: 48 },
      ),
    ).toEqual([]);
  });

  test('offers up to five places unlike each other, best first', () => {
    const random = seededRandom(5);
    const noisy = picture(() => random.between(90, 160));
    const offers = findDonors(noisy, site(), new Uint8Array(W * H), box, { reach: 40 });
    expect(offers).toHaveLength(5);
    offers.forEach((o, i) => {
      if (i) expect(o.misfit).toBeGreaterThanOrEqual(offers[i - 1]!.misfit);
      for (const other of offers.slice(0, i))
        expect(
          Math.max(Math.abs(o.dx - other.dx), Math.abs(o.dy - other.dy)),
        ).toBeGreaterThanOrEqual(2.5);
    });
  });

  test('rather takes pixels that were not copied yet', () => {
    const stripes = picture((x) => (x % 12 < 6 ? 60 : 190));
    const free = new Uint8Array(W * H);
    const [first] = findDonors(stripes, site(), free, box, { reach: 32 });
    const used = new Uint8Array(W * H);
    for (let y = 0; y < 9; y++)
      for (let x = 0; x < 9; x++) used[(box.y + first!.dy + y) * W + box.x + first!.dx + x] = 1;
    const [second] = findDonors(stripes, site(), free, box, { reach: 32, used });
    expect([second!.dx, second!.dy]).not.toEqual([first!.dx, first!.dy]);
    expect(Math.abs(second!.dx) % 12).toBe(0);
  });

  // Courses 7.5 px high: the next like phase lies half way between two pixels.
  test('settles between pixels where edges need it', () => {
    const wave = picture((_, y) => {
      const t = ((y / 7.5) % 1) * 2 * Math.PI;
      return Math.round(128 + 90 * Math.sin(t));
    });
    const high = site();
    const banned = new Uint8Array(W * H);
    // Only half-period places are left in reach: everything but the course right below is forbidden.
    for (let y = 0; y < H; y++)
      if (y < 40 || y > 62) for (let x = 0; x < W; x++) banned[y * W + x] = 1;
    const [found] = findDonors(wave, high, banned, box, { reach: 14 });
    const phase = Math.abs(found!.dy) / 7.5;
    expect(Math.abs(phase - Math.round(phase))).toBeLessThan(0.05);
  });

  test('finds a mirrored twin when asked to', () => {
    const random = seededRandom(9);
    const half = soft(new Uint8Array(W * H).map(() => random.between(0, 255)));
    const twin = picture((x, y) => half[y * W + (x <= 59 ? x : 119 - x)]!);
    const right = new Uint8Array(W * H);
    const at = { x: 70, y: 40, width: 9, height: 9 };
    for (let y = 40; y < 49; y++) right.fill(1, y * W + 70, y * W + 79);
    const [found] = findDonors(twin, right, new Uint8Array(W * H), at, { reach: 40, mirror: true });
    expect(found).toMatchObject({ mirrorX: true, dx: 45 - 74, dy: 0 });
    expect(found!.misfit).toBeLessThan(5);
  });
});
