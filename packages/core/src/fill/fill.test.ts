import { fill } from '../repair/fill.js';
import type { Raster } from '../raster/raster.js';
import { createRaster } from '../raster/raster.js';
import { seededRandom } from '../random/random.js';
import { frameOf } from '../raster/rect.js';
import { digest } from '../raster/digest.js';
import { NOT_FILLED, packDonorMap, sourceRects, unpackDonorMap } from './donor-map.js';
import { findGuides } from '../find/structure.js';
import { sheetsFor } from './atlas.js';
import { NothingToCopy, searchFill } from './search.js';

function draw(width: number, height: number, colour: (x: number, y: number) => number): Raster {
  const raster = createRaster(width, height, 3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) for (let c = 0; c < 3; c++) raster.data[i++] = colour(x, y);
  return raster;
}

function holeAt(raster: Raster, x0: number, y0: number, w: number, h: number): Uint8Array {
  const hole = new Uint8Array(raster.width * raster.height);
  for (let y = y0; y < y0 + h; y++)
    for (let x = x0; x < x0 + w; x++) hole[y * raster.width + x] = 1;
  return hole;
}

/** Fills with foreign content in the hole, so that reading it would show. */
function mend(
  truth: Raster,
  hole: Uint8Array,
  banned: Uint8Array = new Uint8Array(hole.length),
  seed = 1,
) {
  const damaged = {
    ...truth,
    data: truth.data.map((v, i) => (hole[Math.floor(i / 3)] ? 255 - v : v)),
  };
  const map = searchFill(damaged, frameOf(truth), hole, banned, { seed });
  const out = fill(
    { below: damaged, origin: frameOf(truth), map, coverage: Float32Array.from(hole) },
    1,
  );
  return { map, out, damaged };
}

describe('fill', () => {
  test('continues a periodic texture in phase', () => {
    const truth = draw(96, 80, (x, y) => (((x >> 2) + (y >> 3)) % 2 ? 200 : 60));
    const { out } = mend(truth, holeAt(truth, 40, 30, 14, 14));
    let wrong = 0;
    for (let i = 0; i < out.data.length; i++)
      if (Math.abs(out.data[i]! - truth.data[i]!) > 8) wrong++;
    expect(wrong / 3).toBeLessThan(10);
  });

  test('continues a straight edge within a pixel', () => {
    const truth = draw(100, 90, (x, y) => (y * 2 < x + 40 ? 210 : 50));
    const { out } = mend(truth, holeAt(truth, 40, 35, 12, 20));
    for (let x = 40; x < 52; x++) {
      let edge = 0;
      for (let y = 35; y < 55; y++) if (out.data[(y * 100 + x) * 3]! > 130) edge = y + 1;
      expect(Math.abs(edge - (x + 40) / 2)).toBeLessThanOrEqual(1.5);
    }
  });

  test('continues a plain ramp within 1/255', () => {
    const truth = draw(90, 70, (x, y) => Math.round(40 + x + y / 2));
    const hole = holeAt(truth, 38, 28, 12, 12);
    const { out } = mend(truth, hole);
    for (let i = 0; i < out.data.length; i++)
      expect(Math.abs(out.data[i]! - truth.data[i]!)).toBeLessThanOrEqual(1);
  });

  test('never reads the hole: other content in it gives the same map', () => {
    const random = seededRandom(5);
    const truth = draw(70, 60, () => random.between(0, 255));
    const hole = holeAt(truth, 30, 25, 8, 9);
    const blank = { ...truth, data: truth.data.map((v, i) => (hole[Math.floor(i / 3)] ? 0 : v)) };
    const a = searchFill(truth, frameOf(truth), hole, new Uint8Array(hole.length));
    const b = searchFill(blank, frameOf(truth), hole, new Uint8Array(hole.length));
    expect(packDonorMap(a)).toEqual(packDonorMap(b));
  });

  test('copies from allowed places only, and gives every hole pixel a source', () => {
    const random = seededRandom(9);
    const truth = draw(80, 60, (x) => (x < 40 ? 60 : 180) + random.between(-20, 20));
    const hole = holeAt(truth, 30, 20, 12, 12);
    const banned = holeAt(truth, 44, 0, 36, 60);
    const { map } = mend(truth, hole, banned);
    const { rect, dx, dy } = map;
    let filled = 0;
    for (let y = 0, i = 0; y < rect.height; y++)
      for (let x = 0; x < rect.width; x++, i++) {
        const p = (rect.y + y) * 80 + rect.x + x;
        expect(dx[i] !== NOT_FILLED).toBe(hole[p] === 1);
        if (dx[i] === NOT_FILLED) continue;
        filled++;
        const q = p + dy[i]! * 80 + dx[i]!;
        expect(hole[q]! + banned[q]!).toBe(0);
      }
    expect(filled).toBe(144);
  });

  test('is the same for the same seed', () => {
    const random = seededRandom(2);
    const truth = draw(64, 64, (x, y) => ((x * y) % 97) + random.between(0, 60));
    const hole = holeAt(truth, 24, 24, 12, 10);
    const hash = (seed: number): string =>
      digest(packDonorMap(mend(truth, hole, undefined, seed).map));
    expect(hash(3)).toBe(hash(3));
  });

  test('keeps everything outside the site, and works at the picture’s border and in parts', () => {
    const random = seededRandom(4);
    const truth = draw(80, 60, () => random.between(90, 160));
    const hole = holeAt(truth, 0, 0, 7, 9);
    holeAt(truth, 70, 40, 10, 20).forEach((v, p) => v && (hole[p] = 1));
    const { out } = mend(truth, hole);
    for (let p = 0; p < hole.length; p++)
      if (!hole[p]) expect(out.data[3 * p]).toBe(truth.data[3 * p]);
      else expect(out.data[3 * p]).toBeGreaterThan(60);
  });

  test('says so when there is nothing to copy', () => {
    const raster = draw(30, 30, () => 100);
    const all = new Uint8Array(900).fill(1);
    expect(() => searchFill(raster, frameOf(raster), all, new Uint8Array(900))).toThrow(
      NothingToCopy,
    );
  });

  test('a single pixel is filled', () => {
    const raster = draw(40, 40, () => 100);
    const { out } = mend(raster, holeAt(raster, 20, 20, 1, 1));
    expect(out.data[(20 * 40 + 20) * 3]).toBe(100);
  });

  test('stops when it is cancelled', () => {
    const raster = draw(60, 60, (x) => x);
    const hole = holeAt(raster, 20, 20, 20, 20);
    const task = { signal: { aborted: true } };
    expect(() => searchFill(raster, frameOf(raster), hole, new Uint8Array(3600), {}, task)).toThrow(
      'cancelled',
    );
  });
});

describe('fuzzed masks', () => {
  const random = seededRandom(77);
  const truth = draw(90, 70, (x, y) => 60 + x + random.between(0, 40) + (y > 30 ? 50 : 0));
  const n = 90 * 70;
  const everyThird = Uint8Array.from({ length: n }, (_, p) =>
    p % 3 === 0 && Math.floor(p / 90) % 3 === 0 ? 1 : 0,
  );
  test.each([
    ['empty', new Uint8Array(n), false],
    ['everything', new Uint8Array(n).fill(1), false],
    [
      'all but a corner too small for a patch',
      Uint8Array.from({ length: n }, (_, p) => (p % 90 < 5 && p < 450 ? 0 : 1)),
      false,
    ],
    ['one pixel', holeAt(truth, 40, 30, 1, 1), true],
    ['a corner pixel', holeAt(truth, 0, 0, 1, 1), true],
    [
      'the whole border',
      Uint8Array.from({ length: n }, (_, p) =>
        p % 90 < 4 || p % 90 > 85 || p < 360 || p >= n - 360 ? 1 : 0,
      ),
      true,
    ],
    ['hundreds of parts', Uint8Array.from(everyThird, (v, p) => (p % 90 < 45 ? v : 0)), true],
  ] as const)('%s gives a result or a clear error', (_name, hole, fillable) => {
    if (!fillable) {
      expect(() => mend(truth, hole)).toThrow(NothingToCopy);
      return;
    }
    const { map, out } = mend(truth, hole);
    expect(map.dx.reduce((sum, v) => sum + (v === NOT_FILLED ? 0 : 1), 0)).toBe(
      hole.reduce((a, b) => a + b, 0),
    );
    for (let p = 0; p < n; p++) if (!hole[p]) expect(out.data[3 * p]).toBe(truth.data[3 * p]);
  });

  test('ten thousand parts are filled', () => {
    const wide = draw(420, 420, (x, y) => (((x >> 2) + (y >> 2)) % 2 ? 90 : 160));
    const hole = new Uint8Array(420 * 420);
    for (let y = 10; y < 310; y += 3) for (let x = 10; x < 310; x += 3) hole[y * 420 + x] = 1;
    const { map } = mend(wide, hole);
    expect(map.dx.reduce((sum, v) => sum + (v === NOT_FILLED ? 0 : 1), 0)).toBe(10_000);
  });
});

describe('donors laid otherwise than they stand', () => {
  test('a mirrored pattern is found only when mirroring is allowed', () => {
    // Left half: stripes falling to the right. Right half: the same, mirrored; the hole lies there.
    const stripe = (x: number, y: number): number => ((((x + y) % 12) + 12) % 12 < 6 ? 70 : 190);
    const truth = draw(120, 80, (x, y) => (x < 60 ? stripe(x, y) : stripe(119 - x, y)));
    const hole = holeAt(truth, 74, 30, 18, 18);
    const banned = holeAt(truth, 60, 0, 60, 80);
    const error = (sheets: ReturnType<typeof sheetsFor>): number => {
      const map = searchFill(truth, frameOf(truth), hole, banned, { sheets });
      const coverage = Float32Array.from(hole);
      const out = fill({ below: truth, origin: frameOf(truth), map, coverage }, 1);
      let sum = 0;
      for (let p = 0; p < hole.length; p++)
        if (hole[p]) sum += Math.abs(out.data[3 * p]! - truth.data[3 * p]!);
      return sum / (18 * 18);
    };
    const mirrored = error(sheetsFor({ mirror: true }));
    expect(mirrored).toBeLessThan(error([]) / 3);
    expect(mirrored).toBeLessThan(8);
  });

  test('a range of turns and sizes becomes the sheets at its ends', () => {
    expect(sheetsFor({})).toEqual([]);
    expect(sheetsFor({ turn: 10, scale: [0.8, 1] })).toEqual([
      { turn: 10, mirrored: false, scale: 1 },
      { turn: -10, mirrored: false, scale: 1 },
      { turn: 0, mirrored: false, scale: 0.8 },
    ]);
  });
});

describe('guides', () => {
  test('an edge that plain filling is not told of follows its guide', () => {
    // The upper half ends in a step of 1:1 across the hole; the guide bends it into an arch instead.
    const random = seededRandom(3);
    const noise = (): number => random.between(-4, 4);
    const truth = draw(140, 110, (_x, y) => (y < 55 ? 190 : 70) + noise());
    const hole = holeAt(truth, 45, 25, 50, 60);
    const guide = {
      points: [
        [40, 54.5],
        [70, 40],
        [100, 54.5],
      ] as const,
    };
    const map = searchFill(truth, frameOf(truth), hole, new Uint8Array(hole.length), {
      guides: [guide],
    });
    const coverage = Float32Array.from(hole);
    const out = fill({ below: truth, origin: frameOf(truth), map, coverage }, 1);
    let edge = 110;
    for (let y = 25; y < 85 && edge === 110; y++) if (out.data[(y * 140 + 70) * 3]! < 130) edge = y;
    expect(Math.abs(edge - 40)).toBeLessThanOrEqual(3);
  });

  test('edges that enter a site are paired across it', () => {
    const truth = draw(120, 100, (x, y) => (y < 40 + x / 8 ? 200 : 80));
    const hole = holeAt(truth, 45, 30, 30, 40);
    const guides = findGuides(truth, hole);
    expect(guides).toHaveLength(1);
    for (const [x, y] of guides[0]!.points) expect(Math.abs(y - (40 + x / 8))).toBeLessThan(2);
    expect(
      findGuides(
        draw(120, 100, () => 120),
        hole,
      ),
    ).toEqual([]);
  });
});

describe('donor map', () => {
  const map = {
    rect: { x: -3, y: 7, width: 2, height: 2 },
    dx: Int16Array.of(5, -9, NOT_FILLED, 300),
    dy: Int16Array.of(1, 0, NOT_FILLED, -2),
    confidence: Uint8Array.of(255, 3, 0, 90),
  };

  test('comes back from its bytes', () => {
    expect(unpackDonorMap(packDonorMap(map))).toEqual(map);
    expect(() => unpackDonorMap(packDonorMap(map).subarray(0, 20))).toThrow(RangeError);
    const laid = {
      window: { x: 1, y: 2, width: 30, height: 40 },
      middle: [14.5, 19] as const,
      sheets: [{ turn: -12.5, mirrored: true, scale: 1.25 }],
    };
    expect(unpackDonorMap(packDonorMap({ ...map, laid }))).toEqual({ ...map, laid });
  });

  test('bytes of earlier versions are still read: rectangle and shifts, nothing doubted', () => {
    const old = new Uint8Array(packDonorMap(map).subarray(4, 4 + 16 + 16));
    expect(unpackDonorMap(old)).toEqual({ ...map, confidence: Uint8Array.of(255, 255, 255, 255) });
  });

  test('names rectangles that hold every source and its neighbours', () => {
    const rects = sourceRects(
      { ...map, rect: { x: 100, y: 100, width: 2, height: 2 } },
      { x: 0, y: 0, width: 500, height: 300 },
    );
    for (const [x, y] of [
      [105, 101],
      [92, 100],
      [401, 99],
    ] as const)
      for (const [a, b] of [
        [x, y],
        [x + 1, y],
        [x - 1, y],
        [x, y + 1],
        [x, y - 1],
      ] as const)
        expect(
          rects.some((r) => a >= r.x && a < r.x + r.width && b >= r.y && b < r.y + r.height),
        ).toBe(true);
  });
});
