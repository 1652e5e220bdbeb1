import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { glancesOver, MOST_RING, rowOf, STRIDE } from './glance.js';
import { placementMap } from './placement.js';
import { ringsAround } from './ring.js';
import type { RingView } from './ring-view.js';
import { MATCHED_TONE, ringView, UNKNOWN } from './ring-view.js';
import { sceneOf, VALUES } from './scene.js';

const [W, H] = [61, 47];
const picture = createRaster(W, H, 3);
const random = seededRandom(12);
for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(20, 230);
const site = new Uint8Array(W * H);
for (let y = 20; y < 26; y++) site.fill(1, y * W + 27, y * W + 34);
const banned = new Uint8Array(W * H);
for (let y = 12; y < 19; y++) banned.fill(1, y * W + 14, y * W + 24);
const scene = sceneOf(
  picture,
  site.map((v, p) => v | banned[p]!),
);
const at = {
  pixels: Int32Array.from([...site.keys()].filter((p) => site[p])),
  box: { x: 27, y: 20, width: 7, height: 6 },
};

/** What a glance says it is, one value after the other: colours in halves of a code, slopes in sixths, as the image has them. */
function inSteps({ ring, map, image }: RingView, dx: number, dy: number): number {
  const { a: xx, b: xy, d: yx, e: yy } = map;
  const scale = 1 / (xx * xx + yx * yx);
  const n = image.length;
  const means = [0, 0, 0];
  let sum = 0;
  for (let k = 0; k < n; k++) {
    const p = image[k]! + dy * W + dx;
    if (scene.blocked[p]) {
      sum += UNKNOWN;
      continue;
    }
    const tone = (v: number): number => scene.tones[VALUES * p + v]!;
    const [r, g, b, u, v] = ring.wanted.subarray(VALUES * k, VALUES * (k + 1)) as unknown as Five;
    [r, g, b].forEach((wanted, c) => {
      const d = (Math.round(2 * wanted) - Math.round(2 * tone(c))) / 2;
      means[c]! += d / n;
      sum += d * d;
    });
    [scale * (xx * u + xy * v), scale * (yx * u + yy * v)].forEach((wanted, way) => {
      const d = (Math.round(6 * wanted) - Math.round(6 * tone(3 + way))) / 6;
      sum += (ring.known[2 * k + way]! / scale) * d * d;
    });
  }
  const forgiven = ring.matched ? 1 - MATCHED_TONE : 0;
  return sum / n - forgiven * means.reduce((all, m) => all + m * m, 0);
}
type Five = readonly [number, number, number, number, number];

test.each([
  ['as it stands', { turn: 0, mirrorX: false, scale: 1 }, false],
  ['with its tone matched', { turn: 0, mirrorX: false, scale: 1 }, true],
  ['mirrored', { turn: 0, mirrorX: true, scale: 1 }, true],
  ['turned and smaller', { turn: 30, mirrorX: false, scale: 0.7 }, false],
])('%s, a glance comes to what one look after the other does', (_, way, matched) => {
  const map = placementMap({ dx: 0, dy: 0, mirrorY: false, ...way }, [30, 22.5]);
  const ring = ringsAround(scene, at, { matched, samples: 50 })!();
  // Of a turned donor's slopes a glance counts both or none.
  if (way.turn)
    ring.known.forEach((_, i, known) => {
      known[i] = known[i & ~1]! && known[i | 1]!;
    });
  const view = ringView(scene, at, ring, map);
  const places = { dx: -11, dy: -6, across: 9, down: 7 };
  const misfits = glancesOver(scene, { across: 9, down: 7 }).at(view, places);
  let [most, off] = [0, 0];
  for (let j = 0; j < places.down; j++)
    for (let i = 0; i < places.across; i++) {
      const glanced = misfits[j * rowOf(places.across) + i]!;
      const stepped = inSteps(view, places.dx + STRIDE * i, places.dy + STRIDE * j);
      off = Math.max(off, Math.abs(glanced / stepped - 1));
      const one = view.difference(places.dx + STRIDE * i, places.dy + STRIDE * j, Infinity);
      most = Math.max(most, Math.abs(glanced / one - 1));
      expect(one).toBeGreaterThan(0);
    }
  // Single precision against double, sums of 50.
  expect(off).toBeLessThan(1e-4);
  // Whole steps, half a code of colour and a sixth of slope, against double precision.
  expect(most).toBeLessThan(2e-3);
});

test('at its own place a ring is what it looks like', () => {
  const map = placementMap(
    { dx: 0, dy: 0, turn: 0, mirrorX: false, mirrorY: false, scale: 1 },
    [30, 22.5],
  );
  const view = ringView(scene, at, ringsAround(scene, at, { samples: MOST_RING })!(), map);
  const glances = glancesOver(scene, { across: 1, down: 1 });
  expect(glances.at(view, { dx: 0, dy: 0, across: 1, down: 1 })[0]).toBe(0);
});

test('what was mended since is seen as a ground made afresh sees it', () => {
  const map = placementMap(
    { dx: 0, dy: 0, turn: 0, mirrorX: false, mirrorY: false, scale: 1 },
    [30, 22.5],
  );
  const places = { dx: -18, dy: -8, across: 9, down: 7 };
  const window = { ...picture, data: picture.data.slice() };
  const blocked = scene.blocked.slice();
  const live = sceneOf(window, blocked);
  const glances = glancesOver(live, { across: 9, down: 7 });
  const mended = { x: 14, y: 12, width: 10, height: 7 };
  for (let y = 12; y < 19; y++)
    for (let x = 14; x < 24; x++) {
      blocked[y * W + x] = 0;
      for (let c = 0; c < 3; c++) window.data[3 * (y * W + x) + c] = (7 * x + 11 * y + c) % 251;
    }
  live.renew(mended);
  glances.renew(mended);
  const ring = ringsAround(live, at, { samples: 50 })!();
  const renewed = glances.at(ringView(live, at, ring, map), places).slice();
  const afresh = sceneOf(window, blocked);
  expect(live.tones).toEqual(afresh.tones);
  const view = ringView(afresh, at, ring, map);
  expect(renewed).toEqual(glancesOver(afresh, { across: 9, down: 7 }).at(view, places));
  expect(view.isFree(-11, -6)).toBe(true);
  expect(ringView(scene, at, ring, map).isFree(-11, -6)).toBe(false);
  // Its table of marks is from before; pixel by pixel it knows better.
  expect(ringView(live, at, ring, map).isFree(-11, -6)).toBe(true);
});

test('roughness of a ring is told without the damage beside it', () => {
  const even = createRaster(W, H, 3);
  even.data.fill(120);
  for (const p of at.pixels) even.data.fill(255, 3 * p, 3 * p + 3);
  const ringed = ringsAround(sceneOf(even, site.slice()), at, {})!();
  expect(ringed.pixels.length).toBeGreaterThan(40);
  expect(ringed.roughness).toBe(0);
});
