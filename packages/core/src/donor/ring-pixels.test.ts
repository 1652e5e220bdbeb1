import { ringOf, scattered, thin } from './ring-pixels.js';
import { maskBox } from '../shape/mask-box.js';
import type { SiteAt } from './scene.js';

const [W, H] = [13, 11];
const at = (x: number, y: number): number => y * W + x;
const nothing = new Uint8Array(W * H);
const one = nothing.slice();
one[at(6, 5)] = 1;

const siteOf = (mask: Uint8Array): SiteAt => ({
  pixels: Int32Array.from([...mask.keys()].filter((p) => mask[p])),
  box: maskBox(mask, W)!,
});

describe('pixels round a site', () => {
  test('near ones all, those beyond every third', () => {
    expect(ringOf(siteOf(one), one, W, 1, 0)).toEqual(
      [-1, 0, 1].flatMap((v) => [-1, 0, 1].flatMap((u) => (u || v ? [at(6 + u, 5 + v)] : []))),
    );
    const wide = ringOf(siteOf(one), one, W, 1, 2);
    const near = wide.filter(
      (p) => Math.abs((p % W) - 6) <= 1 && Math.abs(Math.floor(p / W) - 5) <= 1,
    );
    expect(near).toHaveLength(8);
    // 49 - 9 pixels lie beyond, on diagonals three apart.
    expect(wide.length - near.length).toBeGreaterThanOrEqual(12);
    expect(wide.length - near.length).toBeLessThanOrEqual(15);
  });

  test('neither the site nor what is banned, nor past the border', () => {
    const site = nothing.slice();
    for (let y = 0; y < 3; y++) site.fill(1, at(0, y), at(3, y));
    const banned = nothing.slice();
    banned[at(3, 3)] = 1;
    const blocked = site.map((v, p) => v | banned[p]!);
    const ring = ringOf(siteOf(site), blocked, W, 2, 0);
    expect(ring.every((p) => !site[p] && !banned[p])).toBe(true);
    expect(ring).toHaveLength(25 - 9 - 1);
    expect(ring.some((p) => p % W === W - 1)).toBe(false);
  });

  test('of a large site the inside adds nothing', () => {
    const site = nothing.slice();
    for (let y = 2; y < 9; y++) site.fill(1, at(2, y), at(11, y));
    expect(ringOf(siteOf(site), site, W, 2, 0)).toHaveLength(W * H - 7 * 9);
  });
});

describe('samples', () => {
  const pixels = Array.from({ length: 97 }, (_, k) => k);

  test('scattered ones are all there, the first ones spread over the whole', () => {
    const order = scattered(pixels);
    expect([...order].sort((a, b) => a - b)).toEqual(pixels);
    const first = order.slice(0, 10).sort((a, b) => a - b);
    const gaps = first.slice(1).map((p, k) => p - first[k]!);
    expect(Math.max(...gaps)).toBeLessThan(30);
  });

  test('thinned ones are spread evenly; few stay as they are', () => {
    expect(Array.from(thin(pixels, 10))).toEqual([0, 9, 19, 29, 38, 48, 58, 67, 77, 87]);
    expect(thin(pixels, 200)).toBe(pixels);
  });
});
