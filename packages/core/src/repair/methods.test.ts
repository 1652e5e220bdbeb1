import { seededRandom } from '../random/random.js';
import { ciede2000 } from '../colour/ciede2000.js';
import { labOfSrgb } from '../colour/lab.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { resampleBy } from '../raster/resample.js';
import { coverageOf } from '../shape/coverage.js';
import { copyByPortions } from './copy-by-portions.js';
import { graft } from './graft.js';
import { pushMap } from './push.js';
import { sideShares } from './sides.js';

describe('flow', () => {
  // n passes at flow f cover 1 - (1 - f)^n (common practice's own formula).
  test('builds up over passes within one stroke', () => {
    const there = [
      [5, 20],
      [75, 20],
    ] as const;
    const frame = { x: 0, y: 0, width: 80, height: 80 };
    const brush = { width: 8, softness: 0, flow: 0.3 };
    const middle = (points: (readonly [number, number])[]): number => {
      const { rect, values } = coverageOf({ kind: 'stroke', points }, brush, frame);
      return values[(20 - rect.y) * rect.width + 40 - rect.x]!;
    };
    expect(middle([...there])).toBeCloseTo(0.3, 6);
    const loop = [there[0], there[1], [75, 60], [5, 60], there[0], there[1]] as const;
    expect(middle([...loop])).toBeCloseTo(1 - 0.7 ** 2, 6);
    expect(middle([...loop, [75, 60], [5, 60], ...there])).toBeCloseTo(1 - 0.7 ** 3, 6);
  });
});

describe('graft near a strong edge', () => {
  const W = 60;
  const H = 40;
  const grain = seededRandom(4);
  const noise = (): number => grain.between(-3, 3);
  /** Skin on the left, a dark red lip from x = 34 on. */
  const truth = (): Raster => {
    const r = createRaster(W, H, 3);
    for (let p = 0; p < W * H; p++) {
      const n = noise();
      const tone = p % W < 34 ? [214, 168, 132] : [120, 24, 22];
      for (let c = 0; c < 3; c++) r.data[3 * p + c] = tone[c]! + n;
    }
    return r;
  };
  const skin = (shade: number): Raster => {
    const r = createRaster(W, H, 3);
    for (let p = 0; p < W * H; p++) {
      const n = noise();
      [214, 168, 132].forEach((v, c) => (r.data[3 * p + c] = v - shade + n));
    }
    return r;
  };
  // The site's right border lies on the lip: its ring there holds the other side's tone.
  const coverage = new Float32Array(W * H);
  for (let y = 12; y < 28; y++) for (let x = 20; x < 34; x++) coverage[y * W + x] = 1;
  const lab = (r: Raster, p: number) =>
    labOfSrgb(r.data[3 * p]! / 255, r.data[3 * p + 1]! / 255, r.data[3 * p + 2]! / 255);

  test('leaves no pixel outside its own side’s range by more than 3 CIEDE2000', () => {
    const below = truth();
    const input = { below, donor: skin(9), valid: new Uint8Array(W * H).fill(1), coverage };
    const held = graft(input, 1);
    const plain = graft(input, 1, { border: 'plain' });
    const mean = labOfSrgb(214 / 255, 168 / 255, 132 / 255);
    const range = Math.max(
      ...[-3, 3].map((n) =>
        ciede2000(mean, labOfSrgb((214 + n) / 255, (168 + n) / 255, (132 + n) / 255)),
      ),
    );
    let worst = 0;
    let heldSum = 0;
    let plainSum = 0;
    for (let p = 0; p < W * H; p++) {
      if (!coverage[p]) continue;
      const off = ciede2000(lab(held, p), mean);
      worst = Math.max(worst, off);
      heldSum += off;
      plainSum += ciede2000(lab(plain, p), mean);
    }
    expect(worst).toBeLessThan(range + 3);
    // The plain solve drags the lip in: at least 40 % more than what is left here.
    expect(heldSum).toBeLessThan(0.6 * plainSum);
  });

  test('what was pasted in another tone is brought back, across an edge', () => {
    const want = truth();
    const below: Raster = { ...want, data: want.data.slice() };
    const site = new Float32Array(W * H);
    for (let y = 10; y < 30; y++) for (let x = 22; x < 46; x++) site[y * W + x] = 1;
    for (let p = 0; p < W * H; p++)
      if (site[p])
        for (let c = 0; c < 3; c++) below.data[3 * p + c] = want.data[3 * p + c]! * 0.9 + 24;
    const valid = Uint8Array.from(site, (v) => (v ? 1 : 0));
    const error = (r: Raster): number => {
      let sum = 0;
      for (let p = 0; p < W * H; p++) if (site[p]) sum += ciede2000(lab(r, p), lab(want, p));
      return sum;
    };
    const input = { below, donor: below, valid, coverage: site };
    expect(error(graft(input, 1))).toBeLessThan(0.6 * error(graft(input, 1, { border: 'plain' })));
  });
});

describe('alternating sides', () => {
  test('each side of a line takes its own donor, mixed along the middle', () => {
    const rect = { x: 0, y: 0, width: 21, height: 41 };
    const line = {
      kind: 'chain' as const,
      points: [
        [10, 0],
        [10, 40],
      ] as const,
      bends: [0],
    };
    const shares = sideShares(line, { width: 20, softness: 0, flow: 1 }, [30, 0], rect);
    const at = (x: number): number => shares[20 * 21 + x]!;
    expect([at(0), at(3), at(17), at(20)]).toEqual([0, 0, 1, 1]);
    expect(at(10)).toBeCloseTo(0.5, 6);
    expect(at(8) + at(12)).toBeCloseTo(1, 6);
  });
});

describe('push', () => {
  const frame = { x: 0, y: 0, width: 80, height: 60 };
  const path = [
    [30, 30],
    [40, 30],
  ] as const;

  test('carries content along under the brush and leaves all else', () => {
    const map = pushMap(path, 12, 1, frame);
    const to = new Float64Array(2);
    map(40, 30, to);
    expect(to[0]).toBeGreaterThan(29);
    expect(to[0]).toBeLessThan(33);
    expect(to[1]).toBe(30);
    map(60, 30, to);
    expect([...to]).toEqual([60, 30]);
  });

  test('strength 0 moves nothing, and the map never folds', () => {
    const to = new Float64Array(2);
    pushMap(path, 12, 0, frame)(36, 31, to);
    expect([...to]).toEqual([36, 31]);
    let before = -Infinity;
    for (let x = 15; x < 60; x++) {
      pushMap(path, 12, 1, frame)(x, 30, to);
      expect(to[0]!).toBeGreaterThan(before);
      before = to[0]!;
    }
  });

  test('what of a stroke lies far outside moves nothing and costs nothing', () => {
    const world = [
      [-1e6, 30],
      [30, 30],
      [40, 30],
      [40, 1e6],
    ] as const;
    const near = [
      [-2000, 30],
      [30, 30],
      [40, 30],
      [40, 2000],
    ] as const;
    const [a, b] = [new Float64Array(2), new Float64Array(2)];
    for (let x = 0; x < 80; x += 3) {
      pushMap(world, 12, 1, frame)(x, 31, a);
      pushMap(near, 12, 1, frame)(x, 31, b);
      expect(a[0]).toBeCloseTo(b[0]!, 6);
      expect(a[1]).toBeCloseTo(b[1]!, 6);
    }
  });

  test('a bulge in an edge is pushed flat', () => {
    const r = createRaster(80, 60, 1);
    // Dark below y = 30, with a bump 4 px high at x = 40.
    for (let y = 0; y < 60; y++)
      for (let x = 0; x < 80; x++)
        r.data[y * 80 + x] = y > 30 - 4 * Math.max(0, 1 - Math.abs(x - 40) / 8) ? 40 : 220;
    const down = [
      [40, 24],
      [40, 28],
    ] as const;
    const out = resampleBy(r, frame, pushMap(down, 12, 1, frame), 1, frame, frame).raster;
    const edgeAt = (raster: Raster, x: number): number => {
      let y = 0;
      while (raster.data[y * 80 + x]! > 130) y++;
      return y;
    };
    expect(edgeAt(r, 40)).toBe(27);
    expect(edgeAt(out, 40)).toBeGreaterThanOrEqual(29);
    expect(edgeAt(out, 10)).toBe(edgeAt(r, 10));
  });
});

describe('mending by portions', () => {
  test('a brick course runs on in phase through a mended scratch', () => {
    const W = 160;
    const H = 120;
    const random = seededRandom(6);
    const wall = createRaster(W, H, 1);
    // Courses 12 px high, bricks 26 px long, each course set off by half a brick.
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const course = Math.floor(y / 12);
        const joint = y % 12 < 2 || (x + (course % 2) * 13) % 26 < 2;
        wall.data[y * W + x] = (joint ? 190 : 110) + random.between(-4, 4);
      }
    const mask = new Uint8Array(W * H);
    const hurt: Raster = { ...wall, data: wall.data.slice() };
    for (let y = 10; y < 110; y++)
      for (let x = 60 + Math.floor(y / 4); x < 67 + Math.floor(y / 4); x++) {
        mask[y * W + x] = 1;
        hurt.data[y * W + x] = 250;
      }
    for (const expected of [false, true]) {
      const { picture, portions } = copyByPortions(hurt, mask, (input) => graft(input, 1), {
        matched: true,
        expected,
      });
      expect(portions.every((p) => p.donor)).toBe(true);
      let wrong = 0;
      for (let p = 0; p < W * H; p++) {
        if (!mask[p]) expect(picture.data[p]).toBe(wall.data[p]);
        else if (Math.abs(picture.data[p]! - wall.data[p]!) > 40) wrong++;
      }
      // Nearly every pixel of the scratch is joint where there was joint, brick where there was brick.
      expect(wrong / mask.reduce((a, b) => a + b, 0)).toBeLessThan(0.03);
    }
  });
});
