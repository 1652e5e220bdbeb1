import type { Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import { shiftDonor } from '../schema/donor.js';
import { plainFill } from '../schema/fill.js';
import type { Method } from '../schema/method.js';
import { searchAdvice, searchDonors, searchLine, searchRegion, searchTwins } from './search.js';
import { testId, testPicture, testRepair } from './test-picture.js';

const [W, H] = [200, 140];

/** Values 0..255 told by place, all channels alike, with a little noise. */
function drawn(at: (x: number, y: number) => number, noise = 4): Raster {
  const random = seededRandom(3);
  const picture = createRaster(W, H, 3);
  for (let y = 0, i = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const v = at(x, y) + noise * (random.unit() - 0.5);
      for (let c = 0; c < 3; c++, i++) picture.data[i] = Math.round(v);
    }
  return picture;
}

const clone = (dx = 0, dy = 0): Method => ({
  kind: 'clone',
  donor: shiftDonor(dx, dy),
  other: null,
});
const speck = testRepair(1, { kind: 'dab', at: [100, 70] }, clone(), { width: 12 });
const outside = testRepair(2, { kind: 'dab', at: [900, 70] }, clone(), { width: 12 });

describe('donors for a site', () => {
  // Courses 16 px high: what continues them lies a whole number of courses off.
  const courses = drawn((_x, y) => (y % 16 < 3 ? 60 : 170));

  test('continue what runs through it, and lie beside it', () => {
    const offers = searchDonors(speck, courses, [], []);
    expect(offers.length).toBeGreaterThan(1);
    for (const { donor } of offers.slice(0, 2)) {
      const off = ((donor.dy % 16) + 16) % 16;
      expect(Math.min(off, 16 - off)).toBeLessThan(0.5);
      expect(Math.hypot(donor.dx, donor.dy)).toBeGreaterThan(12);
      expect(donor).toMatchObject({ turn: 0, scale: 1, picture: null });
    }
    const misfits = offers.map((o) => o.misfit);
    expect(misfits).toEqual([...misfits].sort((a, b) => a - b));
  });

  test('never lie on another repair’s site', () => {
    const left = testRepair(
      3,
      { kind: 'rectangle', x: 0, y: 0, width: 88, height: H },
      plainFill(testId(3, 3)),
    );
    for (const { donor } of searchDonors(speck, courses, [], [left]))
      expect(100 + donor.dx - 6).toBeGreaterThanOrEqual(87);
  });

  test('are not the place that another repair copied from, if anything else will do', () => {
    const [first] = searchDonors(speck, courses, [], []);
    const { dx, dy } = first!.donor;
    const copied = testRepair(
      4,
      { kind: 'dab', at: [30, 20] },
      clone(100 + dx - 30, 70 + dy - 20),
      {
        width: 40,
      },
    );
    const [next] = searchDonors(speck, courses, [], [copied]);
    expect(Math.hypot(next!.donor.dx - dx, next!.donor.dy - dy)).toBeGreaterThan(10);
  });

  test('asked for away from the site lie where they are not seen together with it', () => {
    const wide = testPicture(900, 300, 'u8', 3);
    const site = testRepair(5, { kind: 'dab', at: [120, 150] }, clone(), { width: 12 });
    const near = searchDonors(site, wide, [], []);
    const away = searchDonors(site, wide, [], [], { away: true });
    const least = (list: typeof near): number =>
      Math.min(...list.map(({ donor }) => Math.max(Math.abs(donor.dx), Math.abs(donor.dy))));
    expect(least(away)).toBeGreaterThan(least(near));
    expect(least(away)).toBeGreaterThan(24);
  });

  test('of a site outside the picture there are none', () => {
    expect(searchDonors(outside, courses, [], [])).toEqual([]);
    expect(searchTwins(outside, courses, [], [])).toEqual([]);
    expect(searchAdvice(outside, courses, [])).toEqual({ advice: null, facts: null });
  });
});

test('the twin of a half-lost thing is found mirrored, with its axis in the picture', () => {
  // Two windows mirrored about x = 100: a dark L in each.
  const corner = (x: number, y: number): boolean =>
    (x > 60 && x < 68 && y > 40 && y < 100) || (x > 60 && x < 90 && y > 92 && y < 100);
  const texture = (x: number, y: number): number => 12 * Math.sin(x / 5) + 9 * Math.cos(y / 7);
  const facade = drawn((x, y) => {
    const folded = x < 100 ? x : 199 - x;
    return (corner(folded, y) ? 50 : 180) + texture(folded, y);
  }, 2);
  const lost = testRepair(
    6,
    { kind: 'rectangle', x: 126, y: 84, width: 20, height: 22 },
    { ...clone() },
    { width: 1 },
  );
  const mirrored = searchTwins(lost, facade, [], []).find((t) => t.over === 'x')!;
  expect(mirrored.donor.mirrorX).toBe(true);
  // Middle 135.5 comes from 63.5.
  expect(Math.abs(mirrored.donor.dx + 72)).toBeLessThanOrEqual(1);
  expect(Math.abs(mirrored.donor.dy)).toBeLessThanOrEqual(1);
  expect(mirrored.axis![0][0]).toBeCloseTo(99.5, 0);
  expect(mirrored.axis![1][0]).toBeCloseTo(99.5, 0);
});

test('advice says how near the next strong edge is, and is made from it', () => {
  const wall = drawn((x) => (x < 110 ? 60 : 200));
  const { advice, facts } = searchAdvice(speck, wall, []);
  expect(facts!.edge!.distance).toBeLessThan(8);
  expect(facts!.edge!.contrast).toBeGreaterThan(20);
  expect(advice!.reason.length).toBeGreaterThan(10);
  const plain = searchAdvice(
    speck,
    drawn(() => 128, 0),
    [],
  );
  expect(plain.facts!.edge).toBeNull();
  expect(plain.facts!.texture).toBe(0);
  expect(facts!.texture).toBeGreaterThan(0.3);
});

describe('the outline of a thing', () => {
  const buoy = drawn((x, y) => ((x - 130) ** 2 + (y - 60) ** 2 < 400 ? 220 : 90));

  test('is told in the picture’s own places', () => {
    const outline = searchRegion(buoy, [
      [126, 58],
      [134, 62],
    ])!;
    const area = Math.abs(
      outline.reduce((sum, [x, y], k) => {
        const [u, v] = outline[(k + 1) % outline.length]!;
        return sum + (x * v - u * y) / 2;
      }, 0),
    );
    expect(area / (Math.PI * 400)).toBeGreaterThan(0.85);
    expect(area / (Math.PI * 400)).toBeLessThan(1.2);
    for (const [x, y] of outline) expect(Math.hypot(x - 130, y - 60)).toBeLessThan(24);
  });

  test('of a place outside the picture is none', () => {
    expect(searchRegion(buoy, [[-500, -500]])).toBeNull();
  });
});

describe('a line between two points', () => {
  const wire = drawn((x, y) => (Math.abs(y - 40 - 0.1 * x) < 1.5 ? 40 : 180));

  test('is measured where it runs', () => {
    const line = searchLine(wire, [10, 42], [180, 57])!;
    expect(line.width).toBeGreaterThan(1.5);
    expect(line.width).toBeLessThan(5);
    for (const [x, y] of line.points) expect(Math.abs(y - 40 - 0.1 * x)).toBeLessThan(2);
  });

  test('is none outside the picture', () => {
    expect(searchLine(wire, [-400, -400], [-300, -300])).toBeNull();
  });
});
