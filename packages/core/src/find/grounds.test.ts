import { createRaster } from '../raster/raster.js';
import type { Raster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { cutPortions } from './portions.js';
import { findGrounds } from './grounds.js';

const W = 160;
const H = 120;

/** Sky over a wall, with a hole across their border. */
function scene(): { picture: Raster; site: Uint8Array } {
  const random = seededRandom(6);
  const picture = createRaster(W, H, 3);
  for (let y = 0, i = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const wall = y >= 60;
      const grain = random.between(-3, 3) + (wall && x % 8 < 2 ? -30 : 0);
      for (const v of wall ? [150, 90, 70] : [130, 170, 220]) picture.data[i++] = v + grain;
    }
  const site = new Uint8Array(W * H);
  for (let y = 40; y < 80; y++) for (let x = 60; x < 100; x++) site[y * W + x] = 1;
  return { picture, site };
}

describe('grounds', () => {
  test('sky and wall are told apart, and both are known to touch the site', () => {
    const { picture, site } = scene();
    const { grounds, labels } = findGrounds(picture, site);
    expect(grounds).toHaveLength(2);
    expect(labels[10 * W + 10]).not.toBe(labels[110 * W + 10]);
    expect(labels[10 * W + 10]).toBe(labels[20 * W + 150]);
    expect(labels[60 * W + 80]).toBe(-1);
    for (const { ring, area, outline } of grounds) {
      expect(ring).toBeGreaterThan(0.3);
      expect(area).toBeGreaterThan(0.4);
      expect(outline.length).toBeGreaterThanOrEqual(4);
    }
    const sky = grounds[labels[0]!]!;
    expect(Math.abs(sky.colour[2] - 220)).toBeLessThan(4);
  });

  test('the same picture gives the same grounds', () => {
    const { picture, site } = scene();
    expect(findGrounds(picture, site)).toEqual(findGrounds(picture, site));
  });

  test('one even colour is one ground', () => {
    const picture = createRaster(W, H, 3);
    picture.data.fill(120);
    expect(findGrounds(picture, new Uint8Array(W * H)).grounds).toHaveLength(1);
  });
});

describe('portions', () => {
  const inside = (
    outline: readonly (readonly [number, number])[],
    x: number,
    y: number,
  ): boolean => {
    let odd = false;
    outline.forEach(([x1, y1], i) => {
      const [x2, y2] = outline[(i + 1) % outline.length]!;
      if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) odd = !odd;
    });
    return odd;
  };

  test('a site across two grounds is cut where they meet, and nothing is left between', () => {
    const { picture, site } = scene();
    const portions = cutPortions(site, findGrounds(picture, site).labels, W);
    expect(portions).toHaveLength(2);
    for (let y = 40; y < 80; y++)
      for (let x = 60; x < 100; x++)
        expect(portions.some((outline) => inside(outline, x, y))).toBe(true);
    const upper = portions.find((outline) => inside(outline, 80, 41))!;
    expect(inside(upper, 80, 78)).toBe(false);
    expect(inside(upper, 80, 56)).toBe(true);
  });

  test('a long site on one ground is cut across, a square one is left whole', () => {
    const labels = new Int8Array(W * H);
    const long = new Uint8Array(W * H);
    const square = new Uint8Array(W * H);
    for (let y = 50; y < 70; y++) for (let x = 20; x < 120; x++) long[y * W + x] = 1;
    for (let y = 50; y < 70; y++) for (let x = 50; x < 70; x++) square[y * W + x] = 1;
    const around = (site: Uint8Array): Int8Array => labels.map((v, p) => (site[p] ? -1 : v));
    expect(cutPortions(long, around(long), W)).toHaveLength(5);
    expect(cutPortions(square, around(square), W)).toHaveLength(1);
  });
});
