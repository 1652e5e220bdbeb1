import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { findGuides } from './structure.js';

const [width, height, side] = [260, 160, 150];

/** Dark above light, parted by a line that falls by `slope`; the right part is missing, up to `end`. */
function cut(slope: number, end = width): { picture: Raster; hole: Uint8Array } {
  const picture = createRaster(width, height, 3);
  const hole = new Uint8Array(width * height);
  for (let p = 0; p < hole.length; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const below = Math.min(1, Math.max(0, (y - 59 - slope * x) / 2));
    picture.data.fill(Math.round(70 + 110 * below), 3 * p, 3 * p + 3);
    if (x >= side && x < end) hole[p] = 1;
  }
  return { picture, hole };
}

test.each([0, 0.15, -0.2])('a clear edge is carried on to the border, slope %d', (slope) => {
  const { picture, hole } = cut(slope);
  const guides = findGuides(picture, hole, true);
  expect(guides).toHaveLength(1);
  const [from, , to] = guides[0]!.points as [number, number][];
  expect(from![0]).toBeLessThan(side);
  expect(to![0]).toBeGreaterThan(width - 2);
  // It may run beside the edge, since the profile across it comes along, but as straight.
  const off = guides[0]!.points.map(([x, y]) => y - 60 - slope * x);
  for (const v of off) expect(Math.abs(v)).toBeLessThan(3);
  expect(Math.max(...off) - Math.min(...off)).toBeLessThan(1.5);
});

test.each([1, -1])(
  'one that bends is carried on along its arc as far as it shows, way %d',
  (way) => {
    const { picture, hole } = cut(0);
    const radius = 130;
    const middle = 80 + way * (radius - 20);
    const awayAt = (x: number, y: number): number => Math.hypot(x - 110, y - middle) - radius;
    for (let p = 0; p < hole.length; p++) {
      const inside = Math.min(1, Math.max(0, 0.5 - awayAt(p % width, Math.floor(p / width)) / 2));
      picture.data.fill(Math.round(70 + 110 * inside), 3 * p, 3 * p + 3);
    }
    const guides = findGuides(picture, hole, true);
    expect(guides).toHaveLength(1);
    const { points } = guides[0]!;
    expect(points[0]![0]).toBeLessThan(side);
    // Half a radian of that circle is 65 px.
    const [x, y] = points.at(-1)!;
    expect(Math.hypot(x - side, y - points[0]![1])).toBeGreaterThan(45);
    expect(x).toBeLessThan(side + 70);
    // Its tangent goes 20 px off.
    const off = points.map(([u, v]) => awayAt(u, v));
    for (const v of off) expect(Math.abs(v)).toBeLessThan(8);
  },
);

test('one that goes on beyond the site is paired with itself, not carried on', () => {
  const { picture, hole } = cut(0, 190);
  const guides = findGuides(picture, hole, true);
  expect(guides).toHaveLength(1);
  expect(guides[0]!.points[0]![0]).toBeLessThan(side);
  expect(guides[0]!.points.at(-1)![0]).toBeGreaterThan(190);
  expect(guides[0]!.points.at(-1)![0]).toBeLessThan(width - 20);
});

test('a faint edge is not carried on unasked', () => {
  const { picture, hole } = cut(0);
  picture.data.forEach((v, i) => (picture.data[i] = 160 + (20 * (v - 70)) / 110));
  expect(findGuides(picture, hole, true)).toHaveLength(0);
});

test('one that leads out through a part of a side is not carried on', () => {
  const { picture, hole } = cut(0);
  hole.fill(0, 120 * width);
  expect(findGuides(picture, hole, true)).toHaveLength(0);
});

test('across what is shallow none is looked for unasked, since the fill carries edges on there', () => {
  const narrow = cut(0, side + 25);
  expect(findGuides(narrow.picture, narrow.hole, true)).toHaveLength(0);
  expect(findGuides(narrow.picture, narrow.hole)).toHaveLength(1);
  const wider = cut(0, side + 40);
  expect(findGuides(wider.picture, wider.hole, true)).toHaveLength(1);
});

/** Two tones parted where `below` is 0, over a px; a window in the middle is missing. */
function parted(
  below: (x: number, y: number) => number,
  tones: (x: number) => readonly [readonly number[], readonly number[]],
): { picture: Raster; hole: Uint8Array } {
  const picture = createRaster(width, height, 3);
  const hole = new Uint8Array(width * height);
  for (let p = 0; p < hole.length; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const share = Math.min(1, Math.max(0, below(x, y) + 0.5));
    const [over, under] = tones(x);
    for (let c = 0; c < 3; c++)
      picture.data[3 * p + c] = Math.round(over[c]! + share * (under[c]! - over[c]!));
    if (x >= 95 && x < 165 && y >= 40 && y < 120) hole[p] = 1;
  }
  return { picture, hole };
}

const [DARK, LIGHT, WOOD] = [
  [60, 60, 60],
  [140, 140, 140],
  [190, 125, 105],
] as const;

test('edges that have other things on their sides are none of one line, though they lie on one', () => {
  const level = (_x: number, y: number): number => y - 79.5;
  const alike = parted(level, () => [DARK, LIGHT]);
  expect(findGuides(alike.picture, alike.hole, true)).toHaveLength(1);
  const turned = parted(level, (x) => (x < 130 ? [DARK, LIGHT] : [LIGHT, DARK]));
  expect(findGuides(turned.picture, turned.hole, true)).toHaveLength(0);
  // As light, and of another colour.
  const hued = parted(level, (x) => (x < 130 ? [DARK, LIGHT] : [DARK, WOOD]));
  expect(findGuides(hued.picture, hued.hole, true)).toHaveLength(0);
});

test('where one side is the same, the other may lie in shadow at one end, but be no other thing', () => {
  const level = (_x: number, y: number): number => y - 79.5;
  const kerb = [180, 170, 150];
  const [cobbles, inShadow, moss] = [
    [136, 127, 108],
    [75, 70, 60],
    [70, 90, 20],
  ];
  const guides = (left: readonly number[], right: readonly number[]) => {
    const { picture, hole } = parted(level, (x) => [kerb, x < 130 ? left : right]);
    return findGuides(picture, hole, true);
  };
  expect(guides(inShadow, cobbles)).toHaveLength(1);
  expect(guides(moss, cobbles)).toHaveLength(0);
  // Darker than any shadow makes them.
  expect(guides([27, 25, 21], cobbles)).toHaveLength(0);
});

/** How far a guide strays from where the tones part, px. */
const astray = (
  below: (x: number, y: number) => number,
  { picture, hole }: { picture: Raster; hole: Uint8Array },
): number => {
  const guides = findGuides(picture, hole, true);
  expect(guides).toHaveLength(1);
  return Math.max(...guides[0]!.points.map(([x, y]) => Math.abs(below(x, y))));
};

test('what is straight until it enters goes on straight, to the corner; what is bowed goes on bowed', () => {
  const roof = (x: number, y: number): number => (y - 90 + 0.28 * Math.max(0, 140 - x)) / 1.02;
  expect(
    astray(
      roof,
      parted(roof, () => [LIGHT, DARK]),
    ),
  ).toBeLessThan(2);
  const arch = (x: number, y: number): number => 300 - Math.hypot(x - 130, y - 370);
  expect(
    astray(
      arch,
      parted(arch, () => [LIGHT, DARK]),
    ),
  ).toBeLessThan(2);
});

// A print's edge comes down beside water in which a bright streak runs towards it.
test('a corner has the same things on the sides of both its edges, none of them in shadow', () => {
  const [paper, water, streak] = [
    [228, 223, 204],
    [112, 108, 104],
    [163, 159, 150],
  ] as const;
  const corner = (within: readonly number[], below: readonly number[]) => {
    const picture = createRaster(width, height, 3);
    const hole = new Uint8Array(width * height);
    for (let p = 0; p < hole.length; p++) {
      const [x, y] = [p % width, Math.floor(p / width)];
      picture.data.set(x >= 180 ? paper : y < 64 ? within : below, 3 * p);
      if (x + y > 235 && y < 150) hole[p] = 1;
    }
    return findGuides(picture, hole, true);
  };
  expect(corner(water, streak)).toHaveLength(0);
  expect(corner(water, paper)).toHaveLength(1);
});
