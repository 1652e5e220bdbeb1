import { createRaster } from '../raster/raster.js';
import { frameOf } from '../raster/rect.js';
import { resampleBy } from '../raster/resample.js';
import { seededRandom } from '../random/random.js';
import { homographyOf, inverseOf, through } from '../shape/homography.js';
import { unglare } from '../intake/unglare.js';
import { fitPairs } from './fit.js';
import { landmarksOf, registered } from './register.js';

/** A picture of many patches of chance tone, a little soft. */
function patches(seed: number) {
  const [width, height] = [360, 280];
  const picture = createRaster(width, height, 1);
  const random = seededRandom(seed);
  picture.data.fill(120);
  for (let k = 0; k < 500; k++) {
    const [x0, y0, w, h, v] = [
      random.between(0, width),
      random.between(0, height),
      random.between(4, 40),
      random.between(4, 40),
      random.between(30, 220),
    ];
    for (let y = y0; y < Math.min(height, y0 + h); y++)
      for (let x = x0; x < Math.min(width, x0 + w); x++) picture.data[y * width + x] = v;
  }
  return picture;
}

const corners = [
  [0, 0],
  [359, 0],
  [359, 279],
  [0, 279],
] as const;
const slanted = [
  [9, 4],
  [350, 12],
  [356, 270],
  [3, 276],
] as const;

/** The picture seen so that its corners lie at `slanted`. */
function seen(picture: ReturnType<typeof patches>) {
  const back = inverseOf(homographyOf(corners, slanted));
  return resampleBy(
    picture,
    frameOf(picture),
    (x, y, to) => {
      const [u, v] = through(back, [x, y]);
      to[0] = u;
      to[1] = v;
    },
    1,
    frameOf(picture),
    frameOf(picture),
  ).raster;
}

test('the map between two views is found to a small part of a pixel', () => {
  const picture = patches(1);
  const found = registered(landmarksOf(picture), landmarksOf(seen(picture)));
  expect(found).not.toBeNull();
  corners.forEach((c, k) => {
    const [x, y] = through(found!.map, c);
    expect(Math.hypot(x - slanted[k]![0], y - slanted[k]![1])).toBeLessThan(0.25);
  });
});

test('pictures of different things do not fit', () => {
  expect(registered(landmarksOf(patches(1)), landmarksOf(patches(2)))).toBeNull();
});

test('wrong pairs do not sway the map', () => {
  const map = homographyOf(corners, slanted);
  const random = seededRandom(4);
  const pairs = Array.from({ length: 120 }, (_, k) => {
    const from = [random.between(0, 359), random.between(0, 279)] as const;
    const to =
      k % 3 === 0
        ? ([random.between(0, 359), random.between(0, 279)] as const)
        : through(map, from);
    return { from, to };
  });
  const fitted = fitPairs(pairs, 1, 8)!;
  expect(fitted.agreeing.length).toBeGreaterThanOrEqual(80);
  const [x, y] = through(fitted.map, [200, 100]);
  const [u, v] = through(map, [200, 100]);
  expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-3);
});

test('a reflection that moves between two shots is gone from what they make together', () => {
  const picture = patches(3);
  const shine = (shot: ReturnType<typeof patches>, cx: number, cy: number) => {
    const data = shot.data.map((v, p) => {
      const d2 = ((p % 360) - cx) ** 2 + (Math.floor(p / 360) - cy) ** 2;
      return Math.min(255, v + 160 * Math.exp(-d2 / 900));
    });
    return { ...shot, data };
  };
  const first = shine(picture, 110, 130);
  const { picture: clean, replaced, maps } = unglare([first, shine(seen(picture), 260, 120)]);
  expect(maps.every(Boolean)).toBe(true);
  expect(replaced).toBeGreaterThan(0.01);
  const off = (shot: typeof clean): number => {
    let [sum, n] = [0, 0];
    for (let y = 105; y < 155; y++)
      for (let x = 85; x < 135; x++, n++)
        sum += Math.abs(shot.data[y * 360 + x]! - picture.data[y * 360 + x]!);
    return sum / n;
  };
  expect(off(first)).toBeGreaterThan(50);
  expect(off(clean)).toBeLessThan(8);
});
