import { seededRandom } from '../random/random.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { blurred } from '../raster/plane.js';
import { leftoversOf } from './leftovers.js';
import { pullsLeft } from './pulls-left.js';
import { isBeyond, STRICTEST_LIMITS, TELL_KINDS, TELL_LIMITS, TELL_RANGES } from './tell.js';

const [width, height] = [240, 200];

/** A plain wall with slow light and fine grain. */
function wall(): Raster {
  const picture = createRaster(width, height, 3);
  const random = seededRandom(4);
  const grain = Float32Array.from({ length: width * height }, () => random.between(-12, 12));
  const soft = blurred({ width, height, values: grain }, 0.8).values;
  for (let p = 0; p < width * height; p++) {
    const tone = 120 + 0.2 * (p % width) + soft[p]!;
    picture.data.set([tone + 6, tone, tone - 8], 3 * p);
  }
  return picture;
}

function disc(cx: number, cy: number, r: number): Int32Array {
  const pixels: number[] = [];
  for (let y = cy - r; y <= cy + r; y++)
    for (let x = cx - r; x <= cx + r; x++)
      if (Math.hypot(x - cx, y - cy) <= r) pixels.push(y * width + x);
  return Int32Array.from(pixels);
}

function painted(picture: Raster, places: Iterable<number>, colour: readonly number[]): Raster {
  const data = picture.data.slice();
  for (const p of places) data.set(colour, 3 * p);
  return { ...picture, data };
}

const clean = wall();
const sites = [disc(70, 90, 20), disc(170, 120, 24)];

describe('damage left in sites', () => {
  test('nothing is told of clean ground', () => {
    expect(leftoversOf(clean, sites)).toEqual([]);
  });

  test('a speck is told with its place and its site, once, though windows overlap', () => {
    const tells = leftoversOf(painted(clean, disc(172, 118, 3), [30, 28, 26]), [
      ...sites,
      disc(190, 120, 3),
    ]);
    expect(tells).toHaveLength(1);
    expect(tells[0]).toMatchObject({ kind: 'leftover', site: 1, limit: TELL_LIMITS.leftover });
    const { x, y, width: w, height: h } = tells[0]!.box;
    expect(x).toBeGreaterThanOrEqual(167);
    expect(x + w).toBeLessThanOrEqual(178);
    expect(y + h / 2).toBeCloseTo(118, -0.5);
  });

  test('what lies beside a site is no leftover of it', () => {
    expect(leftoversOf(painted(clean, disc(110, 90, 3), [30, 28, 26]), sites)).toEqual([]);
  });

  test('a scratch across a site is told', () => {
    const scratch = Array.from({ length: 34 }, (_, k) => (74 + k) * width + 70 + (k >> 2)).flatMap(
      (p) => [p, p + 1],
    );
    const tells = leftoversOf(painted(clean, scratch, [235, 233, 230]), [disc(73, 90, 24)]);
    expect(tells.length).toBeGreaterThan(0);
  });

  test('a laxer limit tells less', () => {
    const faint = painted(clean, disc(172, 118, 2), [96, 92, 84]);
    const strict = leftoversOf(faint, sites, STRICTEST_LIMITS).length;
    const lax = leftoversOf(faint, sites, { ...TELL_LIMITS, leftover: 0.95 }).length;
    expect(lax).toBeLessThanOrEqual(strict);
  });
});

test('a small bright saturated thing draws the eye; its outline holds it', () => {
  const bright = painted(clean, disc(222, 20, 5), [250, 60, 40]);
  const pulls = pullsLeft(bright);
  expect(pulls.length).toBeGreaterThan(0);
  const [{ box, outlines }] = pulls as [(typeof pulls)[number]];
  expect(box.x).toBeLessThanOrEqual(222);
  expect(box.x + box.width).toBeGreaterThan(222);
  const xs = outlines.flat().map(([x]) => x);
  expect(Math.min(...xs)).toBeLessThanOrEqual(217);
  expect(pullsLeft(clean).filter(({ value }) => isBeyond('pull', value, TELL_LIMITS.pull))).toEqual(
    [],
  );
});

describe('limits', () => {
  test('every usual limit lies within its range, and the strictest tells whatever a laxer one does', () => {
    for (const kind of TELL_KINDS) {
      const [strict, lax] = TELL_RANGES[kind];
      const usual = TELL_LIMITS[kind];
      expect(usual).toBeGreaterThanOrEqual(Math.min(strict, lax));
      expect(usual).toBeLessThanOrEqual(Math.max(strict, lax));
      for (const value of [0.1, 0.4, 0.8, 0.97, 1.1, 1.7, 3, 7, 12, 80])
        if (isBeyond(kind, value, lax)) expect(isBeyond(kind, value, strict)).toBe(true);
    }
  });

  test('too much grain tells as well as too little, and no difference never does', () => {
    expect(isBeyond('grain', 0.5, 0.88)).toBe(true);
    expect(isBeyond('grain', 2, 0.88)).toBe(true);
    expect(isBeyond('grain', 1, 0.88)).toBe(false);
    expect(isBeyond('softness', 1.6, 0.78)).toBe(false);
  });
});
