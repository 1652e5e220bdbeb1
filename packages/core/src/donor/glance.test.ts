import { seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { glancesOver, rowOf, STRIDE } from './glance.js';
import { placementMap } from './placement.js';
import { ringView } from './ring.js';
import { sceneOf } from './scene.js';

const [W, H] = [61, 47];
const picture = createRaster(W, H, 3);
const random = seededRandom(12);
for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(20, 230);
const site = new Uint8Array(W * H);
for (let y = 20; y < 26; y++) site.fill(1, y * W + 27, y * W + 34);
const banned = new Uint8Array(W * H);
for (let y = 12; y < 19; y++) banned.fill(1, y * W + 14, y * W + 24);
const scene = sceneOf(picture, site, banned)!;

test.each([
  ['as it stands', { turn: 0, mirrorX: false, scale: 1 }, false],
  ['with its tone matched', { turn: 0, mirrorX: false, scale: 1 }, true],
  ['mirrored', { turn: 0, mirrorX: true, scale: 1 }, true],
  ['turned and smaller', { turn: 30, mirrorX: false, scale: 0.7 }, false],
])('%s, a glance comes to what one look after the other does', (_, way, matched) => {
  const map = placementMap({ dx: 0, dy: 0, mirrorY: false, ...way }, [30, 22.5]);
  const view = ringView(scene, map, { matched, samples: 50 })!;
  const places = { dx: -11, dy: -6, across: 9, down: 7 };
  const misfits = glancesOver(scene, { ring: 50, across: 9, down: 7 })(view.ring, places);
  let most = 0;
  for (let j = 0; j < places.down; j++)
    for (let i = 0; i < places.across; i++) {
      const one = view.difference(places.dx + STRIDE * i, places.dy + STRIDE * j, Infinity);
      most = Math.max(most, Math.abs(misfits[j * rowOf(places.across) + i]! / one - 1));
      expect(one).toBeGreaterThan(0);
    }
  // Single precision against double, sums of 50.
  expect(most).toBeLessThan(1e-4);
});

test('at its own place a ring is what it looks like', () => {
  const map = placementMap(
    { dx: 0, dy: 0, turn: 0, mirrorX: false, mirrorY: false, scale: 1 },
    [30, 22.5],
  );
  const view = ringView(scene, map, {})!;
  const glance = glancesOver(scene, { ring: 600, across: 1, down: 1 });
  expect(glance(view.ring, { dx: 0, dy: 0, across: 1, down: 1 })[0]).toBe(0);
});
